import { HyperFormula } from 'hyperformula'
import { expect, it } from 'vitest'
import { compareEstimates } from '../../../core/estimate/compare-estimates'
import { makeDocument } from '../../../core/estimate/documents/document'
import { estimateSchema, type Estimate } from '../../../core/estimate/estimate'
import { formulaSheet } from '../../../core/estimate/documents/formula-sheet'
import { nameCard } from '../../../core/estimate/sheet/name-card'
import { figureNames, figureText, priceEstimate, priceScenarios } from '../../../core/estimate/pricing/price-estimate'
import { demoEstimates } from '../../../demo/estimates'
import { brackwaterCard, brackwaterNextCard, larkfieldCard } from '../../../demo/rate-cards'
import { demoUplifts } from '../../../demo/reusable'
import { pricesOf } from '../../support/test-card'

const prices = {
  ...pricesOf(brackwaterCard, larkfieldCard),
  uplifts: demoUplifts.map(u => ({ ...u, who: 'Ines Moldal', setAt: '2026-01-01T00:00:00Z' })),
}
const estimates = demoEstimates.map(d => estimateSchema.parse(d.states.at(-1)!.estimate))
const facts = { version: 1, preparedOn: '2026-11-24', preparedBy: 'Ines Moldal' }

it('an own document adds up: rows to parts, parts to the sum, steps to the total', () => {
  for (const estimate of estimates) {
    const document = makeDocument(estimate, prices, 'own', facts)
    const near = (a: number, b: string) => expect(Math.abs(a - Number(b))).toBeLessThan(1e-9)
    for (const name of figureNames) {
      for (const part of document.parts)
        near(
          part.rows.reduce((sum, r) => sum + (r.figures && !r.muted ? Number(r.figures[name]) : 0), 0),
          part.figures[name],
        )
      const total = document.summary.at(-1)!.figures[name]
      if (document.summary.length === 1)
        near(
          document.parts.reduce((sum, part) => sum + Number(part.figures[name]), 0),
          total,
        )
      else
        near(
          document.summary.slice(0, -1).reduce((sum, line) => sum + Number(line.figures[name]), 0),
          total,
        )
    }
    expect(document.workings.length).toBeGreaterThan(0)
  }
})

it("a customer's document adds up too, and holds nothing of own cost, terms, notes or Workings", () => {
  const secretNote = 'bought at the framework price'
  const estimate: Estimate = {
    ...estimates.find(e => e.marginPercent === '18')!,
    note: secretNote,
    funding: [{ label: "provider's start-up credit", amount: '37.11', threshold: '100', fromMonth: 1, months: 6 }],
    components: estimates.find(e => e.marginPercent === '18')!.components.map((c, i) => (i ? c : { ...c, note: secretNote })),
  }
  const own = makeDocument(estimate, prices, 'own', facts)
  const customers = makeDocument(estimate, prices, 'customer', facts)
  const text = JSON.stringify(customers)
  const costs = [
    ...own.parts.flatMap(p => p.rows.flatMap(r => Object.values(r.figures ?? {}))),
    ...own.summary.filter(s => s.label !== 'total').flatMap(s => Object.values(s.figures)),
  ].filter(amount => amount !== '0' && Number(amount) > 1)
  // the tax is on the customer's bill; everything else of the way from cost to price stays in the house
  const tax = own.summary.find(s => s.label.startsWith('tax'))!
  for (const amount of costs.filter(a => !Object.values(tax.figures).includes(a))) expect(text.includes(`"${amount}"`), amount).toBe(false)
  for (const word of [secretNote, 'margin', 'discount', 'uplift', 'start-up', '37.11', 'framework', '640', '"18"'])
    expect(text.includes(word), word).toBe(false)
  expect(customers.workings).toEqual([])
  expect(customers.assumptions.every(a => a.effect === null)).toBe(true)
  expect(customers.summary.at(-1)!.figures).toEqual(own.summary.at(-1)!.figures)
  const rows = customers.parts.reduce((sum, p) => sum + Number(p.figures.effectiveMonthly), 0)
  expect(
    rows +
      customers.summary
        .slice(0, -1)
        .filter(s => s.label !== 'price')
        .reduce((sum, s) => sum + Number(s.figures.effectiveMonthly), 0),
  ).toBeCloseTo(Number(customers.summary.at(-1)!.figures.effectiveMonthly), 8)
})

it('its spreadsheet formulas, recomputed by another program, give every figure again, also after an input changed', () => {
  for (const estimate of estimates) {
    const priced = priceScenarios(estimate, prices)
    const roots = priced.flatMap(p => figureNames.map(name => p.total[name]))
    const sheet = formulaSheet(roots, { inputSheet: 'Inputs', stepSheet: 'Workings', firstRow: 1 })
    const book = HyperFormula.buildFromSheets(
      {
        Inputs: sheet.inputs.map(i => [i.label, i.value]),
        Workings: sheet.steps.map(s => [s.label, `=${s.formula}`]),
        Totals: roots.map(root => [`=${sheet.cellOf(root)}`]),
      },
      { licenseKey: 'gpl-v3', precisionRounding: 15, smartRounding: false },
    )
    const totals = () => roots.map((_, row) => Number(book.getCellValue({ sheet: book.getSheetId('Totals')!, row, col: 0 })))
    const expected = roots.map(root => Number(figureText(root)))
    totals().forEach((value, i) => expect(Math.abs(value - expected[i]!)).toBeLessThan(1e-7 * Math.max(1, Math.abs(expected[i]!))))
    // a changed input changes the workbook as it changes the sheet
    const row = estimate.components.find(c => c.inputs.storageGb)
    if (row) {
      const at = sheet.inputs.findIndex(i => i.ref === `${row.id}.storageGb`)
      book.setCellContents({ sheet: book.getSheetId('Inputs')!, row: at, col: 1 }, Number(row.inputs.storageGb) * 3)
      const changed = priceEstimate(
        {
          ...estimate,
          components: estimate.components.map(c =>
            c === row ? { ...c, inputs: { ...c.inputs, storageGb: String(Number(row.inputs.storageGb) * 3) } } : c,
          ),
        },
        prices,
      )
      expect(totals()[2]).toBeCloseTo(Number(figureText(changed.total.effectiveMonthly)), 6)
      expect(totals()[2]).not.toBeCloseTo(expected[2]!, 2)
    }
    book.destroy()
  }
})

it('compares two states in inputs and in money, and a newer card in money alone', () => {
  const [before, after] = demoEstimates[1]!.states.map(s => estimateSchema.parse(s.estimate))
  const { changes, rows, totals } = compareEstimates(before!, prices, after!, prices)
  expect(changes.find(c => c.component === 'web')).toMatchObject({ before: '6', after: '5' })
  // one machine less in the peak moves its own row and what support is a share of
  expect(rows.map(r => r.component).sort()).toEqual(['help', 'web'])
  expect(rows.reduce((sum, r) => sum + Number(r.effectiveMonthly!.amount), 0)).toBeCloseTo(Number(totals.effectiveMonthly.amount), 9)
  const newer = nameCard(after!, { provider: 'Brackwater Cloud', date: brackwaterNextCard.validFrom, revision: 1 })
  const moved = compareEstimates(after!, prices, newer, {
    ...prices,
    cards: new Map(prices.cards).set(brackwaterNextCard.provider, brackwaterNextCard),
  })
  expect(moved.changes.map(c => c.component)).toEqual([null])
  expect(moved.rows.find(r => r.component === 'web')!.effectiveMonthly!.amount.startsWith('-')).toBe(true)
  expect(nameCard(after!, { provider: 'Elsewhere', date: '2026-01-01', revision: 1 }).cards.length).toBe(after!.cards.length + 1)
})
