import { describe, expect, it } from 'vitest'
import { differenceWords, isSamePlan, listDifference, planDifference, settlementEffects } from '../../../core/allocation/plan-difference'
import type { AllocationPlan, Rule } from '../../../core/allocation/plan'
import { allocationPlan } from '../../../demo/organisation'

const centre = (id: string, name = id, parent: string | null = null) => ({ id, name, parent, owner: null })
const rule = (id: string, value: string, target = 'a'): Rule => ({ id, target, conditions: [{ dimension: 'Tags/team', values: [value] }] })
const plan = (more: Partial<AllocationPlan> = {}): AllocationPlan => ({
  ...{ centres: [centre('a', 'Alpha'), centre('b', 'Beta')], pools: [], rules: [rule('1', 'x'), rule('2', 'y', 'b')] },
  ...more,
})

describe('what two plans differ in', () => {
  it('is nothing for the same, whatever the order of keys and whatever is not said', () => {
    const turned = JSON.parse(JSON.stringify(allocationPlan), (_, value: unknown) =>
      value !== null && typeof value === 'object' && !Array.isArray(value) ? Object.fromEntries(Object.entries(value).reverse()) : value,
    ) as AllocationPlan
    expect(isSamePlan(planDifference(allocationPlan, turned))).toBe(true)
    expect(isSamePlan(planDifference(plan(), plan({ rules: [{ ...rule('1', 'x'), from: null }, rule('2', 'y', 'b')], trees: [] })))).toBe(
      true,
    )
    const none = { added: [], changed: [], removed: [] }
    const same = planDifference(plan(), plan())
    expect([differenceWords(same), differenceWords(same, none)]).toEqual(['nothing differs', 'nothing differs'])
    const people = { ...none, added: ['Ines'], removed: ['Jon', 'Oda'] }
    expect(differenceWords(same, people)).toBe('1 person added; 2 people removed')
  })
  it('names what is added, changed and removed, and says when rules stand in another order', () => {
    const after = plan({
      centres: [centre('a', 'Alpha two'), centre('c', 'Gamma', 'a')],
      rules: [rule('3', 'z', 'c'), rule('2', 'y', 'a'), rule('1', 'x')],
    })
    const difference = planDifference(plan(), after)
    expect(difference.tree).toEqual({
      centres: { added: ['Gamma'], changed: [{ name: 'Alpha two', fields: ['name'] }], removed: ['Beta'] },
      pools: { added: [], changed: [], removed: [] },
      rules: {
        ...{ added: ['team tag is z → Gamma'], changed: [{ name: 'team tag is y → Alpha two', fields: ['target'] }] },
        ...{ removed: [], moved: true },
      },
      serving: false,
    })
    expect(isSamePlan(difference)).toBe(false)
    expect(differenceWords(difference)).toBe(
      '1 cost centre, 1 rule added; 1 cost centre, 1 rule changed; 1 cost centre removed; rules in another order',
    )
    // an order alone is a difference; what is new between two others moves nothing
    const swapped = planDifference(plan(), plan({ rules: [rule('2', 'y', 'b'), rule('1', 'x')] }))
    expect([isSamePlan(swapped), differenceWords(swapped)]).toEqual([false, 'rules in another order'])
    const between = plan({ rules: [rule('1', 'x'), rule('3', 'z'), rule('2', 'y', 'b')] })
    expect(planDifference(plan(), between).tree.rules.moved).toBe(false)
    // what is removed is called as it was
    expect(planDifference(plan(), plan({ rules: [rule('1', 'x')] })).tree.rules.removed).toEqual(['team tag is y → Beta'])
  })
  it('further trees stand by themselves, also one that comes or goes', () => {
    const products = (name: string) => ({ id: 'products', name: 'Products', centres: [centre('p', name)], pools: [], rules: [] })
    const come = planDifference(plan(), plan({ trees: [products('Boards')] }))
    expect(come.trees.map(({ id, centres }) => [id, centres.added])).toEqual([['products', ['Boards']]])
    expect(differenceWords(come)).toBe('tree «products»: 1 cost centre added')
    const gone = planDifference(plan({ trees: [products('Boards')] }), plan())
    expect(gone.trees[0]!.centres.removed).toEqual(['Boards'])
    expect(planDifference(plan({ trees: [products('Boards')] }), plan({ trees: [products('Boards')] })).trees).toEqual([])
    // a name alone is a difference
    const renamed = planDifference(plan({ trees: [products('Boards')] }), plan({ trees: [{ ...products('Boards'), name: 'Offers' }] }))
    expect([isSamePlan(renamed), differenceWords(renamed)]).toEqual([false, 'tree «products»: another name'])
  })
  it('compares any list by ids, names like constructor too', () => {
    const before = [
      { id: 'constructor', role: 'x' },
      { id: 'b', bound: null },
    ]
    const after = [{ id: 'constructor', role: 'y' }, { id: 'b' }, { id: '__proto__', role: 'z' }]
    expect(listDifference<{ id: string }>(before, after, ({ id }) => id)).toEqual({
      ...{ added: ['__proto__'], removed: [], changed: [{ name: 'constructor', fields: ['role'] }] },
    })
  })
})

it('effects by centre add up to nothing in every currency; what does not move is not named', () => {
  const of = (statements: [string, string, string][], unallocated: [string, string][]) => ({
    statements: statements.map(([centre, currency, total]) => ({ centre, currency, total })),
    unallocated: unallocated.map(([currency, amount]) => ({ currency, amount })),
  })
  const before = of(
    [
      ['a', 'EUR', '10'],
      ['b', 'EUR', '5'],
      ['a', 'USD', '1'],
    ],
    [
      ['EUR', '3'],
      ['EUR', '2'],
    ],
  )
  const after = of(
    [
      ['a', 'EUR', '12.000000000000001'],
      ['c', 'EUR', '5'],
      ['a', 'USD', '1'],
    ],
    [['EUR', '2.999999999999999']],
  )
  expect(settlementEffects(before, after)).toEqual([
    { centre: 'b', currency: 'EUR', difference: '-5' },
    { centre: 'c', currency: 'EUR', difference: '5' },
    { centre: 'a', currency: 'EUR', difference: '2.000000000000001' },
    { centre: null, currency: 'EUR', difference: '-2.000000000000001' },
  ])
})

it('says that pools that serve each other are settled otherwise, and in another order where that matters', () => {
  const pool = (id: string) => ({ id, name: id, method: 'even' as const })
  const plan = (serving: AllocationPlan['serving'], ...ids: string[]): AllocationPlan => ({
    ...allocationPlan,
    pools: ids.map(pool),
    ...(serving && { serving }),
  })
  const words = (a: AllocationPlan, b: AllocationPlan) => differenceWords(planDifference(a, b))
  expect(words(plan('direct', 'p', 'q'), plan('reciprocal', 'p', 'q'))).toBe('pools settled otherwise')
  expect(words(plan(undefined, 'p', 'q'), plan('step-down', 'p', 'q'))).toBe('pools settled otherwise')
  expect(words(plan('step-down', 'p', 'q'), plan('step-down', 'q', 'p'))).toBe('pools settled otherwise')
  expect(isSamePlan(planDifference(plan('reciprocal', 'p', 'q'), plan('reciprocal', 'q', 'p')))).toBe(true)
})
