import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { effectNames, type Contribution, type Effect } from '../../../../core/spend/compare'
import { causesOf, restOf, waterfall } from '../../../../core/spend/page/waterfall'
import { addTexts } from '../../../../core/money/amount-text'

const effects = (more: Partial<Record<Effect, string>> = {}) =>
  ({ ...Object.fromEntries(effectNames.map(name => [name, '0'])), ...more }) as Record<Effect, string>
const moved = (before: number, now: number, name = 'x'): Contribution => ({
  ...{ values: { ServiceName: name }, kind: 'both', currency: 'EUR', mostly: null },
  ...{ before: `${before}`, now: `${now}`, difference: `${now - before}`, perDay: `${(now - before) / 4}` },
  effects: effects({ quantity: `${now - before}` }),
})
const totalOf = (list: readonly Contribution[]) => ({
  ...{ currency: 'EUR', effects: effects({ quantity: addTexts(list.map(c => c.difference)) }) },
  ...{ before: addTexts(list.map(c => c.before)), now: addTexts(list.map(c => c.now)) },
  ...{ difference: addTexts(list.map(c => c.difference)), perDay: addTexts(list.map(c => c.perDay)) },
})
const shape = (list: readonly Contribution[]) => waterfall(totalOf(list), list)

describe('a waterfall', () => {
  it('leads from the amount before by steps to the amount now', () => {
    // 0 … 100 → 180 → 130: the scale is from 0 to 180
    const { bars, isCut } = shape([moved(20, 100), moved(80, 30)])
    expect(isCut).toBe(false)
    expect(bars.map(bar => [bar.kind, bar.amount, Math.round(bar.left * 10) / 10, Math.round(bar.width * 10) / 10])).toEqual([
      ['level', '100', 0, 55.6],
      ['step', '80', 55.6, 44.4],
      ['step', '-50', 72.2, 27.8],
      ['level', '130', 0, 72.2],
    ])
  })
  it('begins above zero where the steps would hardly be seen, and says so', () => {
    // levels 1000, 1100, 1040; low 1000, high 1100, begins at 975, spans 125
    const { bars, isCut } = shape([moved(500, 600), moved(500, 440)])
    expect(isCut).toBe(true)
    expect(bars.map(bar => [bar.left, bar.width])).toEqual([
      [0, 20],
      [20, 80],
      [52, 48],
      [0, 52],
    ])
  })
  it('stays within its frame where all is below zero', () => {
    const { bars } = shape([moved(-100, -150), moved(-50, -20)])
    expect(bars.map(bar => [bar.left, bar.width])).toEqual([
      [25, 75],
      [0, 25],
      [0, 15],
      [15, 85],
    ])
  })
  it('shows eight steps and the rest as one, leaving out what did not move', () => {
    const list = Array.from({ length: 12 }, (_, i) => moved(1, 21 - i, `s${i}`))
    const { bars } = shape([...list, moved(5, 5, 'same')])
    expect(bars).toHaveLength(11)
    expect(bars[1]!.of).toBe(list[0])
    expect(bars[9]).toMatchObject({ of: { others: 4 }, amount: '42' }) // 12 + 11 + 10 + 9
    expect(shape(list.slice(0, 8)).bars.map(bar => bar.of)).toEqual(['before', ...list.slice(0, 8), 'now'])
    // nothing at all: two bars of nothing, no division by it
    expect(waterfall(totalOf([]), []).bars.map(bar => [bar.left, bar.width])).toEqual([
      [0, 0.4],
      [0, 0.4],
    ])
  })
  it('always adds up and never leaves its frame', () => {
    const amount = fc.integer({ min: -1000, max: 1000 })
    fc.assert(
      fc.property(fc.array(fc.tuple(amount, amount), { maxLength: 14 }), pairs => {
        const list = pairs.map(([before, now]) => moved(before, now)).sort((a, b) => Math.abs(+b.difference) - Math.abs(+a.difference))
        const { bars } = shape(list)
        expect(addTexts(bars.slice(0, -1).map(bar => bar.amount))).toBe(bars.at(-1)!.amount)
        for (const { left, width } of bars) {
          expect(left).toBeGreaterThanOrEqual(0)
          expect(left + width).toBeLessThanOrEqual(100.4 + 1e-9)
        }
      }),
    )
  })
})

it('names the causes that did something, the largest first whatever its sign', () => {
  expect(causesOf({ effects: effects({ tax: '3', price: '-5', credits: '0.5' }) })).toEqual([
    { name: 'price', amount: '-5' },
    { name: 'tax', amount: '3' },
    { name: 'credits', amount: '0.5' },
  ])
})

it('tells what a list lacks of its total, in every figure', () => {
  const list = [moved(10, 14), moved(3, 1), moved(7, 8)]
  expect(restOf(totalOf(list), list.slice(0, 1))).toEqual({
    ...{ before: '10', now: '9', difference: '-1', perDay: '-0.25' },
    effects: effects({ quantity: '-1' }),
  })
})
