// Rows that draw from one line of a rate card: the line is priced once, on the sum. Figures worked out by hand, in the comments.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Component, Estimate, Scenario } from '../../../core/estimate/estimate'
import { figureNames, figureText, priceEstimate, priceScenarios } from '../../../core/estimate/pricing/price-estimate'
import { asScenario } from '../../../core/estimate/scenarios/layer'
import { Decimal } from '../../../core/money/decimal'
import type { PriceLine, RateCard } from '../../../core/ratecard/rate-card'
import { pricesOf, testCard, testEstimate } from '../../support/test-card'

const line = (
  meter: string,
  variant: string | null,
  unit: PriceLine['unit'],
  tiers: [string, string][],
  more: Partial<PriceLine> = {},
): PriceLine => ({
  sku: `X-${meter}-${variant}`,
  service: 'x',
  meter,
  variant,
  region: 'here',
  unit,
  tiering: 'graduated',
  tiers: tiers.map(([from, price]) => ({ from, price })),
  ...more,
})
const cardOf = (...lines: PriceLine[]): RateCard => ({
  ...testCard,
  prices: [...testCard.prices.filter(p => !lines.some(l => l.meter === p.meter && l.variant === p.variant)), ...lines],
})
const price = (
  card: RateCard,
  rows: [string, Record<string, string>][],
  more: Partial<Estimate> = {},
  edit: (components: Component[]) => Component[] = c => c,
  scenario: Scenario | null = null,
) => {
  const e = testEstimate(rows, more)
  return priceEstimate({ ...e, components: edit(e.components) }, pricesOf(card), scenario)
}
const monthly = (priced: ReturnType<typeof price>) => priced.rows.map(row => row.chosen && figureText(row.chosen.monthly))

const tieredHours: [string, string][] = [
  ['0', '1'],
  ['100', '0.5'],
]

describe('hours of servers and databases are tiered as any other meter is', () => {
  it('1.00, from 100 h 0.50: 730 h are 100 × 1 + 630 × 0.50 = 415', () => {
    const card = cardOf(
      line('server-hour', 'small', 'Hours', tieredHours),
      line('database-hour', 'small', 'Hours', tieredHours),
      line('database-gb-month', null, 'GB-Months', [['0', '0']]),
      line('cache-hour', null, 'Hours', tieredHours),
    )
    expect(monthly(price(card, [['server', { size: 'small' }]]))).toEqual(['415'])
    expect(monthly(price(card, [['database', { size: 'small' }]]))).toEqual(['415'])
    expect(monthly(price(card, [['metered', { sku: 'X-cache-hour-null', count: '1' }]]))).toEqual(['415'])
    // base and peak of one row are one quantity: 730 + 3 × 217.26 h; the peak draws on too
    const peak = price(card, [['server', { size: 'small', peakCount: '3', peakHours: '5d x 10h' }]])
    expect(Number(monthly(peak)[0])).toBeCloseTo(100 + (630 + (3 * 730 * 50) / 168) * 0.5, 8)
  })
  it('free units, a minimum quantity and whole-volume tiers hold for servers too', () => {
    expect(
      monthly(
        price(cardOf(line('server-hour', 'small', 'Hours', [['0', '1']], { freeAllowance: '30' })), [['server', { size: 'small' }]], {
          useFreeAllowance: true,
        }),
      ),
    ).toEqual(['700'])
    expect(
      monthly(
        price(cardOf(line('server-hour', 'small', 'Hours', [['0', '1']], { minimumQuantity: '1000' })), [['server', { size: 'small' }]]),
      ),
    ).toEqual(['1000'])
    expect(
      monthly(price(cardOf(line('server-hour', 'small', 'Hours', tieredHours, { tiering: 'whole' })), [['server', { size: 'small' }]])),
    ).toEqual(['365'])
  })
})

describe('rows that draw from one line', () => {
  const whole = cardOf(
    line(
      'cache',
      null,
      'Units',
      [
        ['0', '1'],
        ['10', '0.5'],
      ],
      { tiering: 'whole' },
    ),
  )
  const units = (...quantities: string[]): [string, Record<string, string>][] =>
    quantities.map(quantity => ['metered', { sku: 'X-cache-null', quantity }])

  it('6 + 6 units at 1, from 10 on all at 0.5: 12 × 0.5 = 6.00, three for each', () => {
    expect(monthly(price(whole, units('6', '6')))).toEqual(['3', '3'])
    expect(figureText(price(whole, units('6', '6')).total.monthly)).toBe('6')
  })
  it('bear it in proportion to what they draw, and the parts add up to the last digit', () => {
    // graduated: 10 × 1 + 1 × 0.5 = 10.5 over 1 + 3 + 7 units: 0.954…, 2.863…, the rest 6.681…
    const card = cardOf(
      line('cache', null, 'Units', [
        ['0', '1'],
        ['10', '0.5'],
      ]),
    )
    const priced = price(card, units('1', '3', '7'))
    const shares = monthly(priced).map(text => new Decimal(text!))
    expect(shares[0]!.toFixed(10)).toBe('0.9545454545')
    expect(shares.reduce((a, b) => a.plus(b)).toFixed()).toBe('10.5')
    expect(figureText(priced.total.monthly)).toBe('10.5')
  })
  it('never have a total that depends on their order', () => {
    const card = cardOf(
      line(
        'cache',
        null,
        'Units',
        [
          ['0', '1'],
          ['10', '0.5'],
          ['40', '0.3'],
        ],
        { freeAllowance: '5', minimumQuantity: '8' },
      ),
    )
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 30 }), { minLength: 1, maxLength: 7 }),
        fc.boolean(),
        fc.nat(),
        (quantities, useFreeAllowance, turn) => {
          const rows = units(...quantities.map(String))
          const here = price(card, rows, { useFreeAllowance })
          const turned = price(card, rows, { useFreeAllowance }, components =>
            [...components.slice(turn % components.length), ...components.slice(0, turn % components.length)].reverse(),
          )
          for (const name of figureNames) expect(figureText(turned.total[name])).toBe(figureText(here.total[name]))
          // and each row bears the same wherever it stands
          for (const row of here.rows) expect(figureText(turned.byId.get(row.id)!.chosen!.monthly)).toBe(figureText(row.chosen!.monthly))
          const sum = here.rows.reduce((n, row) => n.plus(figureText(row.chosen!.monthly)), new Decimal(0))
          expect(sum.eq(figureText(here.total.monthly))).toBe(true)
        },
      ),
    )
  })
  it('count a minimum once: 3 + 4 units of at least 10 at 2 are 20.00, and the rows say it', () => {
    const card = cardOf(line('cache', null, 'Units', [['0', '2']], { minimumQuantity: '10' }))
    const priced = price(card, units('3', '4'))
    expect(figureText(priced.total.monthly)).toBe('20')
    for (const row of priced.rows) expect(row.notices.join()).toContain('at least 10 Units a month are charged')
    expect(
      price(card, units('6', '6'))
        .rows.flatMap(row => row.notices)
        .join(),
    ).not.toContain('at least')
    const least = cardOf(line('cache', null, 'Units', [['0', '2']], { minimumCharge: '15' }))
    expect(figureText(price(least, units('3', '4')).total.monthly)).toBe('15')
    expect(figureText(price(least, units('3', '5')).total.monthly)).toBe('16')
    expect(figureText(price(least, units('0', '0')).total.monthly)).toBe('0')
  })
  it('leave a muted row and one that a scenario leaves out aside', () => {
    const muted = price(whole, units('6', '6'), {}, components => components.map((c, i) => (i ? { ...c, muted: true } : c)))
    expect(figureText(muted.total.monthly)).toBe('6')
    expect(figureText(price(whole, units('6', '6'), {}, c => c, asScenario({ rows: { c1: { muted: 'yes' } } })).total.monthly)).toBe('6')
    expect(figureText(price(whole, units('6', '3'), {}, c => c, asScenario({ rows: { c1: { muted: 'yes' } } })).total.monthly)).toBe('6')
  })
  it('give an allowance once, whatever kinds draw: 5 GB of objects and 5 GB of an archive with 5 GB free are 5 × 0.10', () => {
    const card = cardOf(line('object-gb-month', 'ready', 'GB-Months', [['0', '0.1']], { freeAllowance: '5' }))
    const rows: [string, Record<string, string>][] = [
      ['object-storage', { class: 'ready', storageGb: '5' }],
      ['object-archive', { class: 'ready', arrivesGb: '5', horizon: '1' }],
      ['metered', { sku: 'X-object-gb-month-ready', quantity: '0' }],
    ]
    const priced = price(card, rows, { useFreeAllowance: true })
    // the archive also writes 1.25 thousand objects of 4 MB at 0.005
    expect(new Decimal(figureText(priced.total.monthly)).minus('0.00625').toFixed()).toBe('0.5')
    // over three months the archive grows: (5 + 5 − 5) + (5 + 10 − 5) + (5 + 15 − 5) = 30 GB at 0.1, a month 1
    const grown = price(card, [rows[0]!, ['object-archive', { class: 'ready', arrivesGb: '5', horizon: '3' }]], { useFreeAllowance: true })
    expect(new Decimal(figureText(grown.total.monthly)).minus('0.00625').round(12).toFixed()).toBe('1')
    expect(figureText(grown.rows[0]!.chosen!.months![2]!)).toBe('0.375') // 5 of 20 GB of 1.5
  })
  it('let committed hours draw nothing', () => {
    const card = cardOf(
      line('server-hour', 'small', 'Hours', tieredHours, {
        commitments: [{ years: 1, paid: 'paid monthly', upfrontPrice: '0', hourlyPrice: '0.4' }],
      }),
    )
    const rows: [string, Record<string, string>][] = [
      ['server', { size: 'small', pays: '1 year, paid monthly' }],
      ['server', { size: 'small' }],
    ]
    // the first is 730 × 0.4 = 292; the second has both tiers for itself: 415
    expect(monthly(price(card, rows))).toEqual(['292', '415'])
    // on-demand the first would bear half of 100 + 1360 × 0.5
    const ways = price(card, rows).rows[0]!.ways
    expect(figureText(ways[0]!.monthly)).toBe('390')
    expect(
      figureText(
        price(card, [
          ['server', { size: 'small' }],
          ['server', { size: 'small' }],
        ]).rows[0]!.chosen!.monthly,
      ),
    ).toBe('390')
  })
})

it('is the same line by line in every scenario column', () => {
  const card = cardOf(
    line('cache', null, 'Units', [
      ['0', '1'],
      ['10', '0.5'],
    ]),
  )
  const e = testEstimate(
    [
      ['metered', { sku: 'X-cache-null', quantity: '8' }],
      ['metered', { sku: 'X-cache-null', quantity: '4' }],
    ],
    { scenarios: [asScenario({ rows: { c1: { quantity: '12' } } }, 'more')] },
  )
  const [base, more] = priceScenarios(e, pricesOf(card))
  expect([base, more].map(c => figureText(c!.total.monthly))).toEqual(['11', '15'])
  expect(figureText(more!.rows[0]!.chosen!.monthly)).toBe('6') // 8 of 20 units of 15
})
