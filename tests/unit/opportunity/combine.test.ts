import fc from 'fast-check'
import { expect, it } from 'vitest'
import { Decimal, zero } from '../../../core/money/decimal'
import { bestCombination, savedAlone, type Combinable } from '../../../core/opportunity/combine'
import { chargeOf, goTogether, type Effect } from '../../../core/opportunity/effect'

const effect = (sku: string, how: Effect['how'], now: number, then: number) => ({
  ...{ resourceId: 'r', sku, how },
  now: new Decimal(now),
  then: new Decimal(then),
})
const one = (id: string, ...effects: Combinable['effects']): Combinable => ({ id, effects })
const told = (all: Combinable[]) => {
  const { counted, notCounted, total, isBest } = bestCombination(all)
  return {
    counted: Object.fromEntries([...counted].map(([id, amount]) => [id, Number(amount)])),
    not: notCounted.map(({ id, amount, instead }) => [id, Number(amount), instead]),
    total: Number(total),
    isBest,
  }
}

it('counts what excludes another once, the larger; the first of equals', () => {
  expect(told([one('small', effect('a', 'gone', 10, 4)), one('all', effect('a', 'gone', 10, 0))])).toEqual({
    ...{ counted: { all: 10 }, not: [['small', 6, ['all']]], total: 10, isBest: true },
  })
  expect(told([one('first', effect('a', 'gone', 5, 0)), one('second', effect('a', 'cheaper', 5, 0))]).counted).toEqual({ first: 5 })
})

it('lets fewer and cheaper go together: the second saves on what the first leaves', () => {
  // 100 → 40 by sleeping; what is left at 70 % of the price: 28
  expect(told([one('cheaper', effect('a', 'cheaper', 100, 70)), one('less', effect('a', 'less', 100, 40))])).toEqual({
    ...{ counted: { less: 60, cheaper: 12 }, not: [['cheaper', 18, ['less']]], total: 72, isBest: true },
  })
})

it('takes two that are less each, where together they are more than one that excludes both', () => {
  const both = one('both', effect('a', 'gone', 10, 0), effect('b', 'gone', 5, 0))
  const [a, b] = [one('a', effect('a', 'cheaper', 10, 2)), one('b', effect('b', 'cheaper', 5, 1)), one('x', effect('z', 'gone', 1, 0))]
  expect(told([both, a!, b!]).counted).toEqual({ both: 15 })
  expect(told([one('both', effect('a', 'gone', 10, 0), effect('b', 'gone', 5, 4)), a!, b!]).counted).toEqual({ a: 8, b: 4 })
})

it('never has what costs more than it saves, unless with another it saves', () => {
  const dear = one('dear', effect('a', 'cheaper', 10, 8), effect('b', 'cheaper', 10, 13))
  expect(told([dear]).counted).toEqual({})
  // where b is charged a tenth of the units, its being dearer hardly matters
  expect(told([dear, one('less', effect('b', 'less', 10, 1))])).toMatchObject({ total: 9 + 2 - 0.3 })
  expect(told([]).total).toBe(0)
})

/** Every subset, by what is left to pay of each charge. */
function byForce(all: readonly Combinable[]): Decimal {
  let best = zero
  for (let bits = 0; bits < 1 << all.length; bits++) {
    const chosen = all.filter((_, i) => bits & (1 << i))
    const effects = chosen.flatMap(({ id, effects }) => effects.map(own => ({ id, ...own })))
    const isAgainst = effects.some((a, i) =>
      effects.some((b, j) => j > i && a.id !== b.id && chargeOf(a) === chargeOf(b) && !goTogether(a.how, b.how)),
    )
    if (isAgainst) continue
    const charges = new Map<string, { now: Decimal; share: Decimal }>()
    for (const { now, then, ...of } of effects) {
      const known = charges.get(chargeOf(of)) ?? { now, share: new Decimal(1) }
      charges.set(chargeOf(of), { now, share: known.share.times(then).div(now) })
    }
    const saved = [...charges.values()].reduce((sum, { now, share }) => sum.plus(now.minus(now.times(share))), zero)
    if (saved.gt(best)) best = saved
  }
  return best
}

it('is the best of all combinations, up to twelve', () => {
  // a charge costs the same whoever looks at it
  const charge = fc.constantFrom(...['a', 'b', 'c', 'd', 'e'].map((sku, i) => ({ sku, now: 16 * (i + 1) })))
  const change = fc
    .tuple(charge, fc.constantFrom('gone', 'less', 'cheaper'), fc.constantFrom(0, 0.25, 0.5, 0.75, 1, 1.25))
    .map(([{ sku, now }, how, share]) => effect(sku, how as Effect['how'], now, now * share))
  const opportunity = fc.uniqueArray(change, { minLength: 1, maxLength: 3, selector: ({ sku }) => sku })
  const all = fc.array(opportunity, { maxLength: 12 }).map(list => list.map((effects, i) => one(`o${i}`, ...effects)))
  fc.assert(
    fc.property(all, list => {
      const { total, counted, notCounted, isBest } = bestCombination(list)
      expect(isBest).toBe(true)
      expect(total.minus(byForce(list)).abs().lt('1e-9')).toBe(true)
      // what each saves alone is counted or listed as not counted
      for (const own of list) {
        const left = notCounted.find(({ id }) => id === own.id)?.amount ?? zero
        expect((counted.get(own.id) ?? zero).plus(left).minus(savedAlone(own)).abs().lt('1e-9')).toBe(true)
      }
    }),
    { numRuns: 60 },
  )
})
