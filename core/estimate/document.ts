import { Decimal, decimalText, type DecimalText } from '../money/decimal'
import { describeLine } from '../ratecard/describe'
import { evaluate, type Working } from '../working/working'
import { findSku } from '../ratecard/rate-card'
import { findAssumptions } from './assumptions'
import { blindSpotTitle } from './blind-spots'
import type { Component, Estimate } from './estimate'
import { customerPrice, figureNames, figureOf, PriceMemo, priceScenarios, type FigureName, type PricedComponent, type PricedEstimate, type Prices } from './price-estimate'
import { inputText } from './input-text'
import { simulate, uncertainInputs } from './ranges/simulate'

export type FigureTexts = Record<FigureName, DecimalText>
export type DocumentRow = { id: string, label: string, details: string, where: string, way: string, figures: FigureTexts | null, note: string, muted: boolean, problem: string | null }
export type DocumentRanges = { draws: number, p10: number, p50: number, p90: number, histogram: { from: number, to: number, counts: number[] }, drivers: { label: string, low: number, high: number }[] }

/**
 * An estimate as it leaves the house: plain text and figures, nothing to compute. A customer's document has the customer's prices only:
 * no own cost, margin, discount, own charges, funding terms, notes, unit prices or Workings.
 */
export type EstimateDocument = {
  audience: 'own' | 'customer'
  title: string
  note: string
  version: number | null
  preparedOn: string
  preparedBy: string
  currency: string
  cards: { provider: string, date: string }[]
  place: string
  month: string
  termYears: number
  target: DecimalText | null
  parts: { name: string, figures: FigureTexts, rows: DocumentRow[] }[]
  /** From the sum of the rows to the total. */
  summary: { label: string, figures: FigureTexts }[]
  scenarios: { name: string, figures: FigureTexts, difference: FigureTexts }[]
  assumptions: { label: string, value: string, effect: DecimalText | null }[]
  dismissed: { title: string, reason: string }[]
  ranges: DocumentRanges | null
  /** How the monthly amount of each row was made; none for a customer. */
  workings: { label: string, working: Working }[]
}

export type DocumentFacts = { version: number | null, preparedOn: string, preparedBy: string }

/** What a row is, in words: its inputs, those that a person has set first. */
export function rowDetails(component: Component, row: PricedComponent, withAmounts = true): string {
  if (!row.kind) return ''
  // an amount that someone typed is own cost
  const shown = (type: string) => withAmounts || !row.kind!.outside || type !== 'number'
  return row.kind.fields.filter(field => shown(field.type) && field.name !== 'pays' && row.inputs[field.name] !== '' && (field.column || component.confirmed.includes(field.name)))
    .map((field) => {
      const value = row.inputs[field.name]!
      if (field.name === 'sku' && row.place) {
        const line = findSku(row.place.card, value)
        return line ? describeLine(line, row.place.card) : value
      }
      // sizes, classes and systems name themselves; other choices are a bare word or number
      return field.column === 'size' || field.type === 'text' || (field.type === 'choice' && /\p{L}{4}/u.test(value)) ? value : `${field.label} ${inputText(field, value)}`
    }).join(' · ')
}

/** Makes the document of an estimate for its own people or for a customer. */
export function makeDocument(estimate: Estimate, prices: Prices, audience: 'own' | 'customer', facts: DocumentFacts): EstimateDocument {
  const memo = new PriceMemo()
  const [base, ...others] = priceScenarios(estimate, prices, memo)
  const own = audience === 'own'
  const margin = new Decimal(own ? 0 : estimate.marginPercent)
  const price = (working: Working) => margin.eq(0) ? working : customerPrice(working, margin)
  const texts = (of: (name: FigureName) => Working) => Object.fromEntries(figureNames.map(name => [name, decimalText(evaluate(of(name)))])) as FigureTexts
  const rowFigures = (row: PricedComponent) => row.chosen && texts(name => price(figureOf(row.chosen!, name, base!.termYears)))
  const sum = (figures: FigureTexts[]) => Object.fromEntries(figureNames.map(name => [name, decimalText(figures.reduce((total, f) => total.plus(f[name]), new Decimal(0)))])) as FigureTexts
  const components = new Map(estimate.components.map(c => [c.id, c]))
  const parts = [...new Set(estimate.components.map(c => c.part))].map((name) => {
    const rows = base!.rows.filter(row => components.get(row.id)!.part === name).map((row): DocumentRow => {
      const component = components.get(row.id)!
      return {
        id: row.id, label: row.kind?.label ?? component.kind, details: rowDetails(component, row, own), where: row.place && (row.kind!.needs.length || row.kind!.kind === 'metered') ? `${row.place.region}, ${row.place.card.provider}` : '', way: row.ways.length > 1 ? row.chosen?.way ?? '' : '',
        figures: rowFigures(row), note: own ? component.note : '', muted: component.muted, problem: Object.values(row.problems)[0] ?? null,
      }
    })
    return { name, rows, figures: sum(rows.flatMap(row => row.figures && !row.muted ? [row.figures] : [])) }
  })
  const sim = uncertainInputs(base!).length ? simulate(base!, estimate.seed) : null
  return {
    audience, title: estimate.name, note: own ? estimate.note : '', ...facts, currency: base!.currency, cards: estimate.cards, place: `${estimate.region}, ${estimate.provider}`, month: estimate.month ?? 'month of 730 hours', termYears: base!.termYears, target: own ? estimate.target : null,
    parts, summary: summaryOf(base!, own, texts, price),
    scenarios: others.map((other, i) => {
      const figures = texts(name => other.total[name])
      return { name: estimate.scenarios[i]!.name, figures, difference: texts(name => ({ op: 'difference', label: 'to the first', parts: [other.total[name], base!.total[name]] })) }
    }),
    assumptions: findAssumptions(estimate, prices, memo).map(a => ({ label: a.label, value: a.value, effect: own ? a.effect : null })),
    dismissed: estimate.dismissed.filter(d => !d.blindSpot.startsWith('duplicate ')).map(d => ({ title: blindSpotTitle(d.blindSpot), reason: d.reason })),
    ranges: sim && { draws: sim.draws, ...sim.quantiles.effectiveMonthly, histogram: sim.histogram, drivers: sim.tornado.map(({ label, low, high }) => ({ label, low, high })) },
    workings: own ? base!.rows.filter(row => base!.counted.has(row.id)).map(row => ({ label: `${row.kind!.label}, ${components.get(row.id)!.part}`, working: row.chosen!.effectiveMonthly })) : [],
  }
}

/** Own people see every step from cost to total; a customer sees the price, and tax on it. */
function summaryOf(base: PricedEstimate, own: boolean, texts: (of: (name: FigureName) => Working) => FigureTexts, price: (working: Working) => Working): EstimateDocument['summary'] {
  if (own) return [...base.steps.length ? [{ label: 'sum of the rows', figures: texts(name => base.cost[name]) }, ...base.steps.map(step => ({ label: step.label, figures: texts(name => step.figures[name]) }))] : [], { label: 'total', figures: texts(name => base.total[name]) }]
  const tax = base.steps.find(step => step.kind === 'tax')
  const funded = base.steps.some(step => step.kind === 'funding')
  const before = (name: FigureName): Working => tax ? { op: 'difference', label: 'before tax', parts: [base.total[name], tax.figures[name]] } : base.total[name]
  return [
    ...funded ? [{ label: 'credits', figures: texts(name => ({ op: 'difference', label: 'credits', parts: [before(name), price(base.cost[name])] })) }] : [],
    ...tax ? [{ label: 'price', figures: texts(before) }, { label: tax.label, figures: texts(name => tax.figures[name]) }] : [], { label: 'total', figures: texts(name => base.total[name]) },
  ]
}
