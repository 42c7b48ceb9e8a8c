import fc from 'fast-check'
import { expect, it } from 'vitest'
import { newEstimate } from '../../../core/estimate/estimate'
import { figureNames, figureText, priceEstimate } from '../../../core/estimate/pricing/price-estimate'
import { pert, seeded } from '../../../core/estimate/ranges/random'
import { simulate, uncertainInputs } from '../../../core/estimate/ranges/simulate'
import { compile } from '../../../core/working/draws'
import { brackwaterCard } from '../../../demo/rate-cards'
import { pricesOf, testEstimate, testPrices, testRows } from '../../support/test-card'

const ranged = testEstimate([
  ['server', { size: 'small', count: '2..3..6', hoursPerMonth: '730', pays: 'on-demand' }],
  ['internet-transfer', { sentGb: '200..400..2000' }],
  ['disk', { class: 'plain', storageGb: '80', count: '2' }],
])
const run = (estimate = ranged, seed = 7, draws = 4000) => simulate(priceEstimate(estimate, testPrices), seed, draws)!

it('gives the same for the same seed and something else for another', () => {
  expect(run()).toEqual(run())
  expect(run(ranged, 8).quantiles).not.toEqual(run().quantiles)
})

it('puts the quantiles in order and between what the lowest and the highest inputs cost', () => {
  const { quantiles, histogram, draws } = run()
  const total = (count: string, sentGb: string) =>
    Number(
      figureText(
        priceEstimate(
          testEstimate([
            ['server', { size: 'small', count, hoursPerMonth: '730', pays: 'on-demand' }],
            ['internet-transfer', { sentGb }],
            ['disk', { class: 'plain', storageGb: '80', count: '2' }],
          ]),
          testPrices,
        ).total.effectiveMonthly,
      ),
    )
  const { p10, p50, p90 } = quantiles.effectiveMonthly
  expect(total('2', '200')).toBeLessThan(p10)
  expect(p10).toBeLessThan(p50)
  expect(p50).toBeLessThan(p90)
  expect(p90).toBeLessThan(total('6', '2000'))
  expect(histogram.counts.reduce((a, b) => a + b)).toBe(draws)
})

it('is the point estimate, to the digit, when nothing is a range', () => {
  const priced = priceEstimate(
    testEstimate([
      ['server', { size: 'small', count: '3', pays: '3 years, all in advance' }],
      ['internet-transfer', { sentGb: '123.4' }],
    ]),
    testPrices,
  )
  expect(uncertainInputs(priced)).toEqual([])
  const { quantiles } = simulate(priced, 1)!
  for (const name of figureNames) expect(Object.values(quantiles[name])).toEqual(Array(3).fill(Number(figureText(priced.total[name]))))
})

it('says which input matters most: the one whose ends lie furthest apart', () => {
  const { tornado } = run()
  expect(tornado.map(s => s.component)).toEqual(['c1', 'c0'])
  // transfer at 0.09 from 200 to 2 000 GB, all else as likely
  expect(tornado[0]!.high - tornado[0]!.low).toBeCloseTo(1800 * 0.09, 9)
})

it('stops when it is told to, and says how far it is', () => {
  const seen: number[] = []
  expect(
    simulate(priceEstimate(ranged, testPrices), 1, 10_000, done => {
      seen.push(done)
      return seen.length < 2
    }),
  ).toBeNull()
  expect(seen.length).toBe(2)
})

it('draws PERT numbers within low and high whose mean is (low + 4 likely + high) / 6', () => {
  for (const [low, likely, high] of [
    [0, 10, 100],
    [5, 5, 9],
    [1, 9, 9],
    [-4, 0, 4],
  ] as const) {
    const random = seeded(11)
    const values = Array.from({ length: 20_000 }, () => pert(random, low, likely, high))
    expect(Math.min(...values)).toBeGreaterThanOrEqual(low)
    expect(Math.max(...values)).toBeLessThanOrEqual(high)
    const mean = values.reduce((a, b) => a + b) / values.length
    const expected = (low + 4 * likely + high) / 6
    // five standard errors: variance of the PERT distribution is (μ − low)(high − μ) / 7
    expect(Math.abs(mean - expected)).toBeLessThan(5 * Math.sqrt(((expected - low) * (high - expected)) / 7 / values.length) + 1e-12)
  }
})

it('computes in plain numbers what the sheet computes exactly, whatever values are drawn', () => {
  const kinds: [string, Record<string, string>][] = [
    ['server', { size: 'otter-4x16', count: '1..2..9', hoursPerMonth: '100..300..730', peakCount: '0..2..5' }],
    ['internet-transfer', { sentGb: '10..9000..80000' }],
    ['internet-transfer', { sentGb: '1..2..30000' }],
    ['object-storage', { class: 'ready', storageGb: '10..40000..600000', writes: '1000..5000..90000' }],
    ['logs', { ingestedGb: '1..50..90' }],
    ['support', { plan: 'listening' }],
    ['desktop-fleet', { size: 'otter-8x32', shape: 'shared machines', users: '10..70..300', held: '0..20..400' }],
    ['object-archive', { class: 'ready', arrivesGb: '10..500..4000', class2: 'cool', class3: 'deep', readPercent: '0..1..5' }],
    ['identity', { users: '10..9000..150000' }],
  ]
  const prices = pricesOf(brackwaterCard)
  const at = (pick: (low: number, likely: number, high: number, i: number) => number) => {
    let i = 0
    const values = new Map<string, number>()
    const rows = kinds.map(
      ([kind, inputs], c) =>
        [
          kind,
          Object.fromEntries(
            Object.entries(inputs).map(([name, text]) => {
              const parts = text.split('..').map(Number)
              if (parts.length !== 3) return [name, text]
              const value = pick(parts[0]!, parts[1]!, parts[2]!, i++)
              values.set(`c${c}.${name}`, value)
              return [name, String(value)]
            }),
          ),
        ] as [string, Record<string, string>],
    )
    return {
      values,
      exact: priceEstimate(
        {
          ...newEstimate('t', brackwaterCard, 'low-coast'),
          useFreeAllowance: true,
          marginPercent: '15',
          taxPercent: '20',
          components: testRows(rows),
        },
        prices,
      ),
    }
  }
  const likely = priceEstimate(
    {
      ...newEstimate('t', brackwaterCard, 'low-coast'),
      useFreeAllowance: true,
      marginPercent: '15',
      taxPercent: '20',
      components: testRows(kinds),
    },
    prices,
  )
  const program = compile(
    figureNames.map(name => likely.total[name]),
    new Set(uncertainInputs(likely).map(u => u.ref)),
  )
  fc.assert(
    fc.property(fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 40, maxLength: 40 }), shares => {
      const { values, exact } = at((low, _, high, i) => Math.round(low + (high - low) * shares[i]!))
      const plain = program.run(program.variables.map(ref => values.get(ref)!))
      figureNames.forEach((name, i) => {
        const expected = Number(figureText(exact.total[name]))
        expect(Math.abs(plain[i]! - expected)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(expected)))
      })
    }),
    { numRuns: 40 },
  )
})
