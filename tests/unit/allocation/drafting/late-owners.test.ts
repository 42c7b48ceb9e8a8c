import { expect, it } from 'vitest'
import { lateOwners, lateRules, withLateOwners } from '../../../../core/allocation/drafting/late-owners'

const row = (resource: string | null, amount: string) => ({ resource, amount })
const on = (resource: string | null, target: string | null) => ({ resource, target })

it('is whose resources are since then, each on one alone, the most money first', () => {
  expect(
    lateOwners(
      [row('r1', '5'), row('r2', '2.5'), row('constructor', '40'), row('both', '9'), row('nobody', '7'), row(null, '3'), row('back', '-1')],
      [
        on('r1', 'a'),
        on('r1', 'a'),
        on('r2', 'a'),
        on('constructor', 'b'),
        on('both', 'a'),
        on('both', 'b'),
        on('nobody', null),
        on(null, 'a'),
        on('back', 'c'),
      ],
    ),
  ).toEqual([
    { target: 'b', resources: ['constructor'], amount: '40' },
    { target: 'a', resources: ['r1', 'r2'], amount: '7.5' },
    { target: 'c', resources: ['back'], amount: '-1' },
  ])
})

it('becomes entries of a lookup from the beginning on; what it says of others, and for other trees, stays', () => {
  const owners = [{ target: 'a', resources: ['r1', 'r2'], amount: '7.5' }]
  const first = withLateOwners(null, null, owners)
  expect(first).toEqual({
    ...{ by: 'ResourceId', fields: ['cost centre'] },
    entries: ['r1', 'r2'].map(key => ({ key, from: null, until: null, values: { 'cost centre': 'a' } })),
  })
  expect(withLateOwners(first, 'products', [{ target: 'p', resources: ['r2', 'r3'], amount: '1' }])).toEqual({
    ...{ by: 'ResourceId', fields: ['cost centre', 'cost centre, products'] },
    entries: [
      first.entries[0],
      { ...first.entries[1]!, values: { 'cost centre': 'a', 'cost centre, products': 'p' } },
      { key: 'r3', from: null, until: null, values: { 'cost centre, products': 'p' } },
    ],
  })
})

it('rules go by it once, and stand for those that have none yet', () => {
  const owners = ['a', 'b'].map(target => ({ target, resources: ['r'], amount: '1' }))
  const [first] = lateRules({ rules: [] }, null, owners.slice(0, 1), () => 'new')
  expect(first).toEqual({ id: 'new', conditions: [{ dimension: 'Lookup/set late/cost centre', values: ['a'] }], target: 'a' })
  expect(lateRules({ rules: [first!] }, null, owners, () => 'next').map(({ target }) => target)).toEqual(['b'])
  // another tree has a field of its own
  expect(lateRules({ rules: [first!] }, 'p', owners.slice(0, 1), () => 'x')[0]!.conditions).toEqual([
    { dimension: 'Lookup/set late/cost centre, p', values: ['a'] },
  ])
})
