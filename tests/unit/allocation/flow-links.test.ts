import { expect, it } from 'vitest'
import { flowLinks } from '../../../core/allocation/flow-links'

const centre = (id: string, parent: string | null) => ({ id, name: id, parent, owner: null })
const share = (poolId: string, amount: string) => ({
  ...{ kind: 'share' as const, pool: 'Same name', poolId, label: 'evenly', amount, ofPool: amount, note: null },
})
const statement = (of: string, currency: string, direct: string, ...lines: ReturnType<typeof share>[]) => ({
  ...{ centre: of, currency, direct, shared: '0', total: '0', lines },
})

it('leads from providers over what is direct, pools and nobody to the branches, each currency by itself and to the last digit', () => {
  const links = flowLinks(
    {
      flows: [
        { provider: 'Cloud', target: 'deck', currency: 'EUR', amount: '0.1' },
        { provider: 'Cloud', target: 'ferry', currency: 'EUR', amount: '0.2' },
        { provider: 'Cloud', target: 'a', currency: 'EUR', amount: '5' },
        { provider: null, target: 'b', currency: 'EUR', amount: '-1' },
        { provider: 'Cloud', target: null, currency: 'EUR', amount: '2' },
        { provider: 'Cloud', target: 'ferry', currency: 'USD', amount: '99' },
      ],
      statements: [
        statement('deck', 'EUR', '0.1', share('a', '3'), share('b', '-1')),
        statement('ferry', 'EUR', '0.2', share('a', '2')),
        statement('ferry', 'USD', '99'),
        statement('all', 'EUR', '0'),
      ],
      unallocated: [
        { values: {}, currency: 'EUR', amount: '1.5', resources: 1, count: 1 },
        { values: {}, currency: 'EUR', amount: '0.5', resources: 1, count: 1 },
      ],
    },
    {
      centres: [centre('all', null), centre('ferry', 'all'), centre('deck', 'ferry')],
      // two pools of one name are two
      pools: [{ id: 'a', name: 'Same name', method: 'even' }, { id: 'b', name: 'Same name', method: 'even' }], // prettier-ignore
    },
    'EUR',
  )
  expect(links.map(({ from, to, amount }) => `${from} > ${to}: ${amount}`)).toEqual([
    'from Cloud > direct: 0.3',
    'from Cloud > pool a: 5',
    'from null > pool b: -1',
    'from Cloud > unallocated: 2',
    'direct > to ferry: 0.3',
    'pool a > to ferry: 5',
    'pool b > to ferry: -1',
    'unallocated > to unallocated: 2',
  ])
})
