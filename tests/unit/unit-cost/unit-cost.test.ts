import { expect, it } from 'vitest'
import { costBehaviour } from '../../../core/unit-cost/cost-behaviour'
import { inCurrency } from '../../../core/unit-cost/in-currency'
import { lineLayout } from '../../../core/unit-cost/line-layout'
import { unitCostOf, unitCosts } from '../../../core/unit-cost/unit-cost'

const days = (month: string, from: number, to: number, value: string) =>
  Array.from({ length: to - from + 1 }, (_, i) => [`${month}-${String(from + i).padStart(2, '0')}`, value] as const)

it('divides a month’s cost by what was counted in all of its days, and else says what is missing', () => {
  const costs = new Map([
    ['2026-09', '300'],
    ['2026-10', '310'],
    ['2026-11', '46'],
    ['2026-08', null],
    ['2026-07', '5'],
  ])
  const values = new Map([
    ...days('2026-07', 1, 31, '0'),
    ...days('2026-08', 1, 31, '1'),
    ...days('2026-09', 1, 29, '2'),
    ...days('2026-10', 1, 31, '3'),
    ...days('2026-11', 1, 30, '4'),
  ])
  const found = unitCosts(['2026-07', '2026-08', '2026-09', '2026-10', '2026-11'], costs, { grain: 'day', values }, '2026-11-23')
  expect(found).toEqual([
    // nothing was counted: not defined, not nothing
    { month: '2026-07', cost: '5', quantity: '0', missing: 0, unitCost: null, to: null },
    { month: '2026-08', cost: null, quantity: '31', missing: 0, unitCost: null, to: null },
    // 30 September is missing
    { month: '2026-09', cost: '300', quantity: '58', missing: 1, unitCost: null, to: null },
    // 310 / 93
    { month: '2026-10', cost: '310', quantity: '93', missing: 0, unitCost: '3.333333333333', to: null },
    // 46 / (23 days of 4): what was told beyond the charges has no part
    { month: '2026-11', cost: '46', quantity: '92', missing: 0, unitCost: '0.5', to: '2026-11-23' },
  ])
  // (310 + 46) / (93 + 92), not the mean of the two
  expect(unitCostOf(found)).toBe('1.924324324324')
  expect(unitCostOf(found.slice(0, 3))).toBeNull()
  // not all sources have delivered November as far: cost and count are not of the same days
  const unequal = unitCosts(['2026-10', '2026-11'], costs, { grain: 'day', values }, '2026-11-23', new Set(['2026-11']))
  expect(unequal.map(({ unitCost }) => unitCost)).toEqual(['3.333333333333', null])
})

it('of a measure by month, the month that is not over is not defined', () => {
  const values = new Map([
    ['2026-10', '8'],
    ['2026-11', '4'],
  ])
  const costs = new Map([
    ['2026-10', '-2'],
    ['2026-11', '1'],
  ])
  const found = unitCosts(['2026-09', '2026-10', '2026-11'], costs, { grain: 'month', values }, '2026-11-29')
  expect(found.map(({ unitCost, missing, to }) => [unitCost, missing, to])).toEqual([
    [null, 1, null],
    ['-0.25', 0, null],
    [null, 0, '2026-11-29'],
  ])
  // its last day is delivered: it is over
  expect(unitCosts(['2026-11'], costs, { grain: 'month', values }, '2026-11-30')[0]!.unitCost).toBe('0.25')
})

it('reckons several currencies in one, and names what has no rate instead of leaving it out', () => {
  const rates = [
    { from: 'USD', to: 'EUR', validFrom: '2026-10-01', rate: '0.9' },
    { from: 'USD', to: 'EUR', validFrom: '2026-11-01', rate: '0.5' },
  ]
  const amounts = [
    { currency: 'EUR', amount: '1.5' },
    { currency: 'USD', amount: '10' },
  ]
  expect(inCurrency(amounts, 'EUR', rates, '2026-10-31')).toEqual({ amount: '10.5', noRate: [] })
  expect(inCurrency(amounts, 'EUR', rates, '2026-09-30')).toEqual({ amount: null, noRate: ['USD'] })
  // nothing of a currency needs no rate
  expect(inCurrency([{ currency: 'NOK', amount: '0' }], 'EUR', rates, '2026-10-31')).toEqual({ amount: '0', noRate: [] })
})

it('tells a fixed and a variable part from twelve points on, and not where every month has as many', () => {
  const points = Array.from({ length: 12 }, (_, i) => ({ quantity: 10 + i, cost: 100 + 2 * (10 + i) }))
  expect(costBehaviour(points.slice(1))).toEqual({ why: 'too few points', points: 11 })
  expect(costBehaviour(points.map(({ cost }) => ({ quantity: 0.1 + 0.2, cost })))).toEqual({ why: 'always as many', points: 12 })
  const exact = costBehaviour(points)
  if ('why' in exact) throw new Error(exact.why)
  expect(exact.fixed.value).toBeCloseTo(100, 9)
  expect(exact.variable.value).toBeCloseTo(2, 9)
  expect([exact.explained, exact.fixed.high - exact.fixed.low]).toEqual([expect.closeTo(1, 9), expect.closeTo(0, 6)])
  const flat = costBehaviour(points.map(({ quantity }) => ({ quantity, cost: 7 })))
  expect(flat).toMatchObject({ explained: 1, variable: { value: 0 }, fixed: { value: 7 } })
})

it('draws lines from zero to a round number, broken where a value is not defined', () => {
  const drawn = lineLayout([
    { name: 'a', values: ['0.3', null, '0.15', '0'] },
    { name: 'b', values: [null, null, null, null] },
  ])
  expect([drawn.top, drawn.bottom, drawn.zero]).toEqual([0.5, -0, 1])
  expect(drawn.lines).toEqual([
    {
      name: 'a',
      stretches: [
        [{ at: 0, x: 0, y: 0.4 }],
        [
          { at: 2, x: 2 / 3, y: 0.7 },
          { at: 3, x: 1, y: 1 },
        ],
      ],
    },
    { name: 'b', stretches: [] },
  ])
  const below = lineLayout([{ name: 'a', values: ['-3', '1'] }])
  expect([below.top, below.bottom, below.zero]).toEqual([1, -5, 1 / 6])
  expect(lineLayout([{ name: 'one', values: ['1000'] }]).lines[0]!.stretches).toEqual([[{ at: 0, x: 0.5, y: 0 }]])
  expect(lineLayout([])).toEqual({ lines: [], top: 0, bottom: -0, zero: 0 })
})
