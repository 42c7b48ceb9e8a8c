import { expect, it } from 'vitest'
import { movedCharges } from '../../../core/allocation/moved-charges'
import type { CentreTree, Rule } from '../../../core/allocation/plan'
import { toEnd } from '../../../core/spend/slices'
import { cubeOf, oneCharge, type PlainCharge } from '../../support/random-charges'

const rule = (id: string, team: string | null, target: string, more: Partial<Rule> = {}): Rule => ({
  ...{ id, target, conditions: [{ dimension: 'Tags/team', values: [team] }] },
  ...more,
})
const tree = (...rules: Rule[]): CentreTree => ({
  centres: ['a', 'b'].map(id => ({ id, name: id, parent: null, owner: null })),
  pools: [{ id: 'net', name: 'Network', method: 'even' }],
  rules,
})
const charge = (team: string | null, resource: string, amount: string, more: Partial<PlainCharge> = {}) =>
  oneCharge({
    ...{ amount, tags: team === null ? {} : { team } },
    values: { ResourceId: resource, ResourceName: `name of ${resource}`, ServiceName: 'Servers', SubAccountName: 'live' },
    ...more,
  })
const charges = [
  charge('a', 'm1', '5'),
  charge('a', 'm1', '2.5', { day: '2026-09-20' }),
  charge('b', 'm2', '-8'),
  charge('b', 'm3', '3', { currency: 'USD' }),
  charge(null, 'm4', '1'),
  charge('a', 'm5', '100', { billedIn: '2026-10', day: '2026-10-02' }),
]
const moved = (before: CentreTree, after: CentreTree) => {
  const cube = cubeOf(charges)
  return toEnd(movedCharges({ cube, tree: before }, { cube, tree: after }, { month: '2026-09', measure: 'billedCost' }))
}

it('says from where to where charges move, and which, the largest first', () => {
  const before = tree(rule('1', 'a', 'a'), rule('2', 'b', 'b'))
  const found = moved(before, tree(rule('1', 'a', 'net'), rule('2', 'b', 'a')))
  expect(found.ways).toEqual([
    { from: 'b', to: 'a', currency: 'EUR', amount: '-8', count: 1 },
    { from: 'a', to: 'net', currency: 'EUR', amount: '7.5', count: 2 },
    { from: 'b', to: 'a', currency: 'USD', amount: '3', count: 1 },
  ])
  expect(
    found.charges.map(({ values, amount, count }) => [values.ResourceName, values.ServiceName, values.SubAccountName, amount, count]),
  ).toEqual([
    ['name of m2', 'Servers', 'live', '-8', 1],
    ['name of m1', 'Servers', 'live', '7.5', 2],
    ['name of m3', 'Servers', 'live', '3', 1],
  ])
  expect(found.more).toBe(0)
})

it('what another rule puts where it was has not moved; what a rule’s days leave over has', () => {
  const before = tree(rule('1', 'a', 'a'), rule('2', 'b', 'b'))
  expect(moved(before, tree(rule('9', 'b', 'b'), rule('8', 'a', 'a')))).toEqual({ ways: [], charges: [], more: 0 })
  const later = moved(before, tree(rule('1', 'a', 'a', { from: '2026-09-10' }), rule('2', 'b', 'b'), rule('3', null, 'b')))
  expect(later.ways).toEqual([
    { from: 'a', to: null, currency: 'EUR', amount: '5', count: 1 },
    { from: null, to: 'b', currency: 'EUR', amount: '1', count: 1 },
  ])
  expect(later.charges.map(({ values, from, to }) => [values.ResourceId, from, to])).toEqual([['m1', 'a', null], ['m4', null, 'b']]) // prettier-ignore
})

it('other lookups move charges too; beyond a hundred they are counted', () => {
  const many = Array.from({ length: 103 }, (_, i) => charge(null, `r${i}`, String(i + 1)))
  const cube = cubeOf(many)
  const entry = (owner: string) => ({ key: 'live', from: null, until: null, values: { owner } })
  const knowing = (owner: string) =>
    cube.knowing({ ...cube.reference, lookups: { apps: { by: 'SubAccountName', fields: ['owner'], entries: [entry(owner)] } } })
  const own = tree({ id: 'l', target: 'a', conditions: [{ dimension: 'Lookup/apps/owner', values: ['a'] }] })
  const found = toEnd(
    movedCharges({ cube: knowing('b'), tree: own }, { cube: knowing('a'), tree: own }, { month: '2026-09', measure: 'billedCost' }),
  )
  // 1 + 2 + … + 103
  expect(found.ways).toEqual([{ from: null, to: 'a', currency: 'EUR', amount: '5356', count: 103 }])
  expect([found.charges.length, found.more, found.charges[0]!.amount]).toEqual([100, 3, '103'])
})
