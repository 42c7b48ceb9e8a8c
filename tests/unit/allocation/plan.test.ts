import { expect, it } from 'vitest'
import { allocationPlanSchema, poolTargets, ruleDimensions, treeOf, type AllocationPlan } from '../../../core/allocation/plan'

const centre = (id: string, parent: string | null = null) => ({ id, name: `The ${id}`, parent, owner: null })
const rule = (id: string, target: string, more: object = {}) => ({
  ...{ id, target, conditions: [{ dimension: 'SubAccountName', values: ['live'] }] },
  ...more,
})
const shares = (id: string, given: Record<string, string>) => ({ id, name: `The ${id}`, method: 'shares' as const, shares: given })
const plan: AllocationPlan = { centres: [centre('a'), centre('b', 'a')], pools: [], rules: [] }
/** Where a plan is wrong, and why. */
const wrong = (more: object) =>
  (allocationPlanSchema.safeParse({ ...plan, ...more }).error?.issues ?? []).map(({ path, message }) => `${path.join('.')}: ${message}`)

it('says where a tree is wrong: its parents, its circles, what appears twice', () => {
  expect(wrong({})).toEqual([])
  expect(wrong({ centres: [centre('a', 'gone')] })).toEqual(['centres.0.parent: there is no cost centre «gone»'])
  expect(wrong({ centres: [centre('x'), centre('a', 'b'), centre('b', 'a')] })).toEqual([
    'centres.1.parent: «The a» is its own ancestor',
    'centres.2.parent: «The b» is its own ancestor',
  ])
  expect(wrong({ centres: [centre('a', 'a')] })).toEqual(['centres.0.parent: «The a» is its own ancestor'])
  expect(wrong({ centres: [centre('a'), centre('a')], pools: [shares('a', { a: '1' })] })).toEqual([
    'centres.1.id: «a» appears twice',
    'pools.0.id: «a» appears twice',
    'pools.0.shares: «The a» would be shared out to itself, over other pools or at once: choose how pools that serve each other are settled',
  ])
})

it('says where a rule is wrong: its target, its name, its dates', () => {
  expect(wrong({ rules: [rule('r', 'gone'), rule('r', 'a')] })).toEqual([
    'rules.0.target: there is no cost centre or pool «gone»',
    'rules.1.id: the rule «r» appears twice',
  ])
  const dated = (from?: string, until?: string) => wrong({ rules: [rule('r', 'a', { from, until })] })
  expect(dated('2026-10-02', '2026-10-01')).toEqual(['rules.0.until: the rule ends on 2026-10-01, before it begins on 2026-10-02'])
  expect(dated('2026-10-01', '2026-10-01')).toHaveLength(1) // the end is exclusive: it would hold on no day
  expect([dated('2026-10-01', '2026-10-02'), dated('2026-10-01'), dated(undefined, '2026-10-01')]).toEqual([[], [], []])
})

it('says where a pool is wrong: without shares, to nobody, to itself over others', () => {
  expect(wrong({ pools: [shares('p', {})] })).toEqual(['pools.0.shares: «The p» has no shares: say who bears how much of it'])
  expect(wrong({ pools: [shares('p', { gone: '1' })] })).toEqual(['pools.0.shares.gone: there is no cost centre or pool «gone»'])
  expect(
    wrong({ pools: [shares('p', { q: '1', a: '1' }), shares('q', { s: '1' }), shares('s', { p: '1' }), shares('t', { p: '1' })] }),
  ).toEqual(
    ['p', 'q', 's'].map(
      (id, i) =>
        `pools.${i}.shares: «The ${id}» would be shared out to itself, over other pools or at once: choose how pools that serve each other are settled`,
    ),
  )
  expect(wrong({ pools: [shares('p', { q: '1', s: '1' }), shares('q', { s: '1' }), shares('s', { a: '1' })] })).toEqual([])
  for (const share of ['0', '-1', 'x', '', '1000000000001']) expect(wrong({ pools: [shares('p', { a: share })] }), share).not.toEqual([])
  expect(wrong({ pools: [shares('p', { a: '0.001', b: '1000000000000' })] })).toEqual([])
  expect([poolTargets(shares('p', { b: '1', a: '1' })), poolTargets({ id: 'p', name: 'p', method: 'direct cost' })]).toEqual([
    ['b', 'a'],
    [],
  ])
})

it('further trees are held to the same, by their place, and found by their id', () => {
  const tree = (id: string, more: object = {}) => ({ id, name: id, centres: [centre('x')], pools: [], rules: [], ...more })
  expect(wrong({ trees: [tree('t'), tree('t', { rules: [rule('r', 'a')] })] })).toEqual([
    'trees.1.id: the tree «t» appears twice',
    'trees.1.rules.0.target: there is no cost centre or pool «a»',
  ])
  const with_ = allocationPlanSchema.parse({ ...plan, trees: [tree('s'), tree('t')] })
  expect([treeOf(with_, null), treeOf(with_, 't'), treeOf(with_, 'gone'), treeOf(plan, 't')]).toEqual([with_, with_.trees![1], null, null])
})

it('knows the dimensions that rules look at, each once, in order; amounts are none', () => {
  const conditions = [
    { dimension: 'Tags/team', pattern: 'x*' },
    { measure: 'billedCost', atLeast: '1' },
  ]
  const { rules } = allocationPlanSchema.parse({ ...plan, rules: [rule('1', 'a', { conditions }), rule('2', 'a'), rule('3', 'a')] })
  expect(ruleDimensions({ rules })).toEqual(['SubAccountName', 'Tags/team'])
  expect(wrong({ rules: [rule('1', 'a', { conditions: [{ measure: 'billedCost' }] })] })).toEqual([
    expect.stringContaining('say what the amount is at least, or below what it is'),
  ])
})
