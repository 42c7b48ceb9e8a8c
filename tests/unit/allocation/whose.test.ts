import { expect, it } from 'vitest'
import type { CentreTree } from '../../../core/allocation/plan'
import { whose, type ResourceFacts } from '../../../core/allocation/whose'
import { emptyReference } from '../../../core/spend/reference'
import { cubeOf, type PlainCharge } from '../../support/random-charges'

const tree: CentreTree = {
  centres: ['a', 'b', 'c', 'd'].map(id => ({ id, name: id, parent: null, owner: null })),
  pools: [],
  rules: [
    { id: 'team', conditions: [{ dimension: 'Tags/team', values: ['ferry'] }], target: 'a', until: '2026-10-01' },
    {
      id: 'named',
      conditions: [
        { dimension: 'ResourceName', pattern: 'gw-*' },
        { dimension: 'RegionId', values: ['north'] },
      ],
      target: 'b',
    },
    { id: 'inherited', conditions: [{ dimension: 'Tags/division', values: ['freight'] }], target: 'c' },
    { id: 'large', conditions: [{ measure: 'billedCost', atLeast: '0.01' }], target: 'd' },
    { id: 'cloud', conditions: [{ dimension: 'ProviderName', values: ['Elsewhere'] }], target: 'd' },
  ],
}
const facts = (more: Partial<ResourceFacts> = {}): ResourceFacts => ({
  ...{ id: 'x', name: 'x', provider: 'P', region: 'south', subAccountName: 'live', tags: {} },
  ...more,
})
const charge = (day: string, amount: string, more: Partial<PlainCharge> = {}): PlainCharge => ({
  ...{ day, hour: 0, currency: 'EUR', amount, tags: {} },
  ...more,
  values: { ResourceId: 'x', SubAccountId: 'acc', SubAccountName: 'live', ...more.values },
})
const of = (charges: PlainCharge[], resources: ResourceFacts[], day: string, reference = emptyReference) => {
  const cube = cubeOf(charges)
  cube.setReference(reference)
  return Object.fromEntries(whose(cube, tree, resources, day))
}

it('asks an inventory’s facts where no charge names a resource', () => {
  const of_ = (more: Partial<ResourceFacts>, day = '2026-09-30') => of([], [facts(more)], day).x
  expect(of_({ tags: { team: 'ferry' } })).toEqual({ rule: 'team', target: 'a' })
  expect(of_({ tags: { team: 'ferry' } }, '2026-10-01')).toBeNull() // the rule has ended
  expect(of_({ name: 'GW-1', region: 'north' })).toEqual({ rule: 'named', target: 'b' })
  expect(of_({ name: 'GW-1' })).toBeNull()
  expect(of_({ provider: 'Elsewhere' })).toEqual({ rule: 'cloud', target: 'd' })
  expect(of_({})).toBeNull() // no amount is above nothing
})

it('sees aliases and what account and container hand down, as it does of charges', () => {
  const reference = {
    ...emptyReference,
    aliases: { 'Tags/team': { ferries: 'ferry' } },
    accounts: { acc: { path: [], tags: { division: 'freight' } } },
    containerTags: { harbour: { division: 'freight' } },
  }
  const known = [charge('2026-09-05', '1', { values: { ResourceId: 'other' } })]
  const resources = [
    facts({ id: 'tagged', tags: { team: 'ferries' } }),
    facts({ id: 'account' }),
    facts({ id: 'container', subAccountName: 'unknown', container: 'harbour/east' }),
    facts({ id: 'nothing', subAccountName: 'unknown' }),
  ]
  expect(of(known, resources, '2026-09-30', reference)).toEqual({
    tagged: { rule: 'team', target: 'a' },
    account: { rule: 'inherited', target: 'c' },
    container: { rule: 'inherited', target: 'c' },
    nothing: null,
  })
})

it('lets the newest charges up to the day decide, of them the largest, before what an inventory says', () => {
  const charges = [
    charge('2026-09-05', '9', { tags: { division: 'freight' } }),
    charge('2026-09-07', '-3', { tags: { division: 'freight' } }),
    charge('2026-09-07', '2', { tags: { team: 'ferry' } }),
    charge('2026-09-09', '50', { values: { ResourceName: 'gw-1', RegionId: 'north' } }),
  ]
  const said = (day: string, own = charges) => of(own, [facts({ tags: { team: 'ferry' } })], day).x
  expect(said('2026-09-04')).toEqual({ rule: 'team', target: 'a' }) // none yet: the inventory
  expect(said('2026-09-06')).toEqual({ rule: 'inherited', target: 'c' })
  expect(said('2026-09-07')).toEqual({ rule: 'inherited', target: 'c' }) // a credit of 3 is larger than 2
  expect(said('2026-09-08')).toEqual({ rule: 'inherited', target: 'c' })
  expect(said('2026-09-09')).toEqual({ rule: 'named', target: 'b' })
  // of equal amounts the earlier rule
  expect(
    said('2026-09-30', [
      charge('2026-09-07', '2', { tags: { division: 'freight' } }),
      charge('2026-09-07', '-2', { tags: { team: 'ferry' } }),
    ]),
  ).toEqual({ rule: 'team', target: 'a' })
  expect(said('2026-09-30', [charge('2026-09-07', '0')])).toBeNull()
})

it('the newest charges decide, of these the largest whatever its sign, of equal ones the earlier rule, in whatever order they come', () => {
  const gw = (day: string, amount: string, region: string, provider = 'P') =>
    charge(day, amount, { values: { ResourceName: 'gw-1', RegionId: region, ProviderName: provider } })
  const said = (...charges: PlainCharge[]) => {
    const [there, back] = [charges, [...charges].reverse()].map(list => of(list, [facts()], '2026-09-30').x)
    expect(back).toEqual(there)
    return there && there.rule
  }
  // `named` catches the north, `large` what costs a cent elsewhere
  expect(said(gw('2026-09-05', '9', 'south'), gw('2026-09-06', '0.001', 'north'))).toBe('named')
  expect(said(gw('2026-09-06', '9', 'south'), gw('2026-09-05', '90', 'north'))).toBe('large')
  expect(said(gw('2026-09-05', '1', 'south'), gw('2026-09-05', '-1.000000000000001', 'north'))).toBe('named')
  expect(said(gw('2026-09-05', '1.000000000000001', 'south'), gw('2026-09-05', '-1', 'north'))).toBe('large')
  expect(said(gw('2026-09-05', '1', 'south'), gw('2026-09-05', '-1', 'north'))).toBe('named')
  // nobody's charge decides too, where it is the larger
  expect(said(gw('2026-09-05', '0.003', 'north'), gw('2026-09-05', '-0.005', 'south'))).toBeNull()
  // what comes after the day is not looked at
  expect(said(gw('2026-09-05', '0.003', 'north'), gw('2026-10-01', '5', 'south'))).toBe('named')
})
