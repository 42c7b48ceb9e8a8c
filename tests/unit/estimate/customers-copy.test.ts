// A customer's copy holds what may go into it and nothing else: a marker in every other field reaches none of it.
import { describe, expect, it } from 'vitest'
import { makeDocument } from '../../../core/estimate/documents/document'
import type { EstimateDocument } from '../../../core/estimate/documents/document-types'
import { newEstimate, newRow, type Estimate } from '../../../core/estimate/estimate'
import { keptDocument } from '../../../core/estimate/documents/kept-document'
import { asScenario } from '../../../core/estimate/scenarios/layer'
import type { RateCard } from '../../../core/ratecard/rate-card'
import { csv } from '../../../server/exports/estimate/csv'
import { xlsx } from '../../../server/exports/estimate/xlsx'
import { testCard } from '../../support/test-card'
import { unzipSync } from 'fflate'

const MARK = 'kittiwake'
const mark = (n: number) => `${MARK}${n}`
/** Amounts that are own cost, each written so that it is found again. */
const OWN = ['4711.37', '8123.59', '17.77', '6.13', '913.31']

const card: RateCard = {
  ...testCard,
  provider: mark(1),
  prices: testCard.prices.map(p => ({ ...p, sku: `${MARK}-${p.sku}`, service: mark(2), serviceLevel: mark(3), excludes: mark(4) })),
}
const uplifts = [
  {
    id: 'u',
    name: mark(5),
    currency: 'EUR',
    interval: 'month' as const,
    charges: [{ by: 'flat' as const, label: mark(6), amount: OWN[2]! }],
    attached: [{ to: 'kind' as const, key: 'disk', variant: null }],
    validFrom: '2026-01-01',
    who: mark(7),
    setAt: '2026-01-01',
  },
]
const prices = { cards: new Map([[card.provider, card]]), uplifts, rates: [] }
const estimate: Estimate = {
  ...newEstimate('Quay cameras', card, 'here'),
  note: mark(8),
  target: OWN[1]!,
  marginPercent: '18',
  taxPercent: '21',
  discounts: [{ provider: card.provider, percent: OWN[3]! }],
  funding: [{ label: mark(9), amount: '3', threshold: '0', fromMonth: 1, months: 3 }],
  components: [
    {
      ...newRow('disk', 'Recording', 'disk', { class: 'plain', storageGb: '500..800..1200', count: '3' }),
      note: mark(10),
      name: 'Recorders',
    },
    // a free-form amount that nobody has confirmed
    { ...newRow('work', 'Recording', 'free-form', { what: 'Mounting', amount: OWN[0]! }), confirmed: [], note: mark(11) },
    { ...newRow('web', 'Watching', 'server', { size: 'small', image: mark(12) }) },
    { ...newRow('gone', mark(13), 'server', { size: 'small' }), muted: true, name: mark(14) },
    newRow('odd', 'Watching', 'disk', { class: mark(15) }),
  ],
  scenarios: [asScenario({ rows: { web: { count: '2' } }, conditions: [mark(16)] }, 's1', mark(17))],
  dismissed: [
    { blindSpot: 'no-identity', reason: `${mark(18)}, it costs us ${OWN[4]}` },
    { blindSpot: mark(19), reason: 'x' },
  ],
}
const facts = { version: 7, preparedOn: '2026-11-24', preparedBy: mark(20) }
const clean = (text: string, what: string) => {
  for (const secret of [MARK, ...OWN])
    expect(
      text.includes(secret),
      `${what} holds «${secret}»: …${text.slice(Math.max(0, text.indexOf(secret) - 60), text.indexOf(secret) + 40)}…`,
    ).toBe(false)
}

describe.each([null, 's1'])('of the column %s', scenario => {
  const customers = makeDocument(estimate, prices, 'customer', { ...facts, scenario })
  it("has no amount, name or reason of one's own, in the document, CSV and XLSX", async () => {
    const text = JSON.stringify(customers)
    // what was refused is shown by its own inputs: a class that nobody sells is the customer's to read as it was asked for
    clean(text.replaceAll(mark(15), ''), 'the document')
    const task = { format: 'csv' as const, estimate, prices, audience: 'customer' as const, facts: { ...facts, scenario } }
    clean(new TextDecoder().decode(await csv.write(customers, task)).replaceAll(mark(15), ''), 'CSV')
    const book = unzipSync(await xlsx.write(customers, { ...task, format: 'xlsx' }))
    for (const [name, bytes] of Object.entries(book)) clean(new TextDecoder().decode(bytes).replaceAll(mark(15), ''), name)
  })
  it('has what may go in: title, names of rows and parts, region, inputs in words, prices, dates', () => {
    expect(customers).toMatchObject({
      title: 'Quay cameras',
      place: 'here',
      preparedOn: '2026-11-24',
      cards: [{ provider: '', date: '2026-01-01' }],
      lacks: { rows: 1, amounts: null },
      columns: [],
      assumptions: [],
      dismissed: [],
      ranges: null,
      workings: [],
    })
    expect(customers.parts.map(p => p.name)).toEqual(['Recording', 'Watching'])
    expect(customers.parts[0]!.rows.map(r => [r.label, r.details, r.where])).toEqual([
      ['Recorders', 'plain · size of each 500\u2009–\u2009800\u2009–\u20091,200 GB · count 3', 'here'],
      ['Free-form line', 'Mounting · a month', ''],
    ])
    // 4,711.37 divided by what is not margin
    expect(Number(customers.parts[0]!.rows[1]!.figures!.monthly)).toBeCloseTo(4711.37 / 0.82, 9)
    const rows = customers.parts.reduce((n, p) => n + Number(p.figures.wholeTerm), 0)
    const summary = Object.fromEntries(customers.summary.map(line => [line.label, Number(line.figures.wholeTerm)]))
    expect(rows + summary.reduction!).toBeCloseTo(summary.price!, 8)
    expect(summary.price! * 1.21).toBeCloseTo(summary.total!, 8)
  })
})

it('is built from the list again where a link was made before it, with the figures that it had', () => {
  const figures = { upfront: '0', monthly: '100', effectiveMonthly: '100', firstYear: '1200', wholeTerm: '1200' }
  const earlier = {
    audience: 'customer',
    title: 'Old quote',
    note: mark(1),
    version: 3,
    preparedOn: '2026-10-01',
    preparedBy: mark(2),
    currency: 'EUR',
    cards: [{ provider: mark(3), date: '2025-11-01' }],
    place: `low-coast, ${mark(4)}`,
    month: 'month of 730 hours',
    termYears: 1,
    target: OWN[1],
    parts: [
      {
        name: 'Recording',
        figures,
        rows: [
          {
            id: 'a',
            label: 'Disks',
            details: 'plain',
            where: `low-coast, ${mark(5)}`,
            way: '1 year, none upfront',
            figures,
            note: mark(6),
            muted: false,
            problem: mark(7),
          },
          { id: 'b', label: 'x', details: '', where: '', way: '', figures, note: '', muted: true, problem: null },
        ],
      },
    ],
    summary: [
      { label: 'credits', figures },
      { label: 'tax 21 %', figures },
      { label: 'total', figures },
    ],
    scenarios: [{ name: mark(8), figures, difference: figures }],
    assumptions: [{ label: 'Free-form line, amount', value: OWN[0], effect: null }],
    dismissed: [{ title: 'No identity', reason: mark(9) }],
    ranges: {
      draws: 5,
      p10: 1,
      p50: 2,
      p90: 3,
      histogram: { from: 1, to: 3, counts: [] },
      drivers: [{ label: mark(10), low: 1, high: 2 }],
    },
    workings: [],
  }
  const shown = keptDocument(earlier) as EstimateDocument
  clean(JSON.stringify(shown), 'the link')
  expect(shown.parts[0]!.rows).toEqual([
    expect.objectContaining({ label: 'Disks', where: 'low-coast', way: '1 year, paid monthly', figures }),
  ])
  expect(shown.summary.map(s => s.label)).toEqual(['reduction', 'tax 21 %', 'total'])
  // what cannot be made anew opens nothing
  expect(keptDocument({ ...earlier, summary: [{ label: mark(1), figures }] })).toBeNull()
  expect(keptDocument({ audience: 'customer' })).toBeNull()
  expect(keptDocument('constructor')).toBeNull()
})

it('keeps the Workings of an own link that was made when rows drew one after the other', () => {
  const figures = { upfront: '0', monthly: '1', effectiveMonthly: '1', firstYear: '12', wholeTerm: '12' }
  const part = (value: string) => ({ op: 'input', label: 'x', value })
  const tiered = (before: string) => ({
    op: 'tiered',
    label: 't',
    unit: 'GB',
    source: 'S',
    tiering: 'graduated',
    tiers: [
      { from: '0', price: '1' },
      { from: '10', price: '0.5' },
    ],
    parts: [part('8'), part(before), part('0')],
  })
  const own = keptDocument({
    audience: 'own',
    title: 't',
    summary: [{ label: 'total', figures }],
    parts: [],
    workings: [
      { label: 'a', working: tiered('0') },
      { label: 'b', working: tiered('6') },
    ],
    scenarios: [{ name: 's', figures, difference: figures }],
  })!
  expect(own.workings[0]!.working).toMatchObject({ op: 'tiered', parts: [{ value: '8' }, { value: '0' }] })
  // 4 at 1 and 4 at 0.5, as it was: 6.00
  expect(own.workings[1]!.working).toMatchObject({ op: 'input', value: '6' })
  expect(own.columns.map(c => c.name)).toEqual(['as it stands', 's'])
})
