import { expect, it } from 'vitest'
import type { AllocationPlan } from '../../../core/allocation/plan'
import { settleInSlices } from '../../../core/allocation/settle'
import type { UpliftFacts } from '../../../core/allocation/uplift-lines'
import { upliftsBelow, upliftSums } from '../../../core/allocation/uplifts-below'
import { toEnd } from '../../../core/spend/slices'
import type { StoredUplift } from '../../../core/uplift/uplift-set'
import { cubeOf, oneCharge, type PlainCharge } from '../../support/random-charges'

const plan: AllocationPlan = {
  centres: [
    { id: 'root', name: 'Root', parent: null, owner: null },
    { id: 'a', name: 'A', parent: 'root', owner: null },
    { id: 'b', name: 'B', parent: 'root', owner: null },
  ],
  pools: [
    { id: 'net', name: 'Network', method: 'shares', shares: { a: '1', b: '2' } },
    // nobody is there to bear it
    { id: 'stuck', name: 'Stuck', method: 'even', among: { of: 'list', centres: ['late'] } },
  ],
  rules: ['a', 'b', 'net', 'stuck'].map(target => ({
    ...{ id: `to-${target}`, target },
    conditions: [{ dimension: 'Tags/team', values: [target] }],
  })),
}
plan.centres.push({ id: 'late', name: 'Late', parent: 'root', owner: null, from: '2027-01-01' })
const set = (more: Partial<StoredUplift>): StoredUplift => ({
  ...{ id: 'care', name: 'Care', currency: 'EUR', interval: 'month', validFrom: '2026-01-01', who: 'Ines', setAt: '2026-01-01T00:00:00Z' },
  attached: [{ to: 'kind', key: 'server', variant: null }],
  charges: [{ by: 'flat', label: 'on-call', amount: '10' }],
  ...more,
})
const skus: UpliftFacts['skus'] = new Map([
  ['SRV', { use: { kind: 'server', tells: 'hours' }, variant: 'otter', system: null, unit: 'Hours', vcpu: 2 }],
  ['DSK', { use: { kind: 'disk', tells: { unit: 'GB', times: 1n } }, variant: 'fast', system: null, unit: 'GB-Months', vcpu: null }],
])
const ran = (team: string | null, resource: string, quantity: string, more: Record<string, string> = {}): PlainCharge =>
  oneCharge({
    ...{ amount: '3', quantity, tags: team === null ? {} : { team } },
    values: { SkuId: 'SRV', ResourceId: resource, PricingUnit: 'Hours', ChargeCategory: 'Usage', ...more },
  })
const charges = [
  ran('a', 'm1', '720'),
  ran('b', 'm2', '720'),
  ran('net', 'm3', '720'),
  ran('stuck', 'm4', '720'),
  ran(null, 'm5', '720'),
  ran('a', 'd1', '5', { SkuId: 'DSK', PricingUnit: 'GB-Months' }),
  // no use, no SKU that is known, and a quantity in another unit
  ran('a', 'm6', '720', { ChargeCategory: 'Purchase' }),
  ran('a', 'm7', '720', { SkuId: 'constructor' }),
  ran('b', 'm8', '43200', { PricingUnit: 'Minutes' }),
]
const settle = (sets: StoredUplift[], list = charges, uplifts: UpliftFacts | undefined = { sets, skus }) =>
  toEnd(
    settleInSlices(cubeOf(list), plan, {
      month: '2026-09',
      measure: 'billedCost',
      reportCurrency: null,
      rates: [],
      ...(uplifts && { uplifts }),
    }),
  )
const lines = (sets: StoredUplift[]) =>
  settle(sets).uplifts.map(({ centre, label, currency, amount, times, pool }) => [
    ...[centre, label, currency, amount, times && `${times.quantity} ${times.unit} × ${times.price}`],
    pool?.name ?? null,
  ])

it('puts uplifts where the charges are, divides those of pools as the pools are, and leaves the bill as it is', () => {
  expect(lines([set({})])).toEqual([
    ['a', 'on-call', 'EUR', '10', '1 each × 10', null],
    // a machine of the pool: 10.00 one to two
    ['a', 'on-call', 'EUR', '3.33', null, 'Network'],
    ['b', 'on-call', 'EUR', '10', '1 each × 10', null],
    ['b', 'on-call', 'EUR', '6.67', null, 'Network'],
    // what is on nobody, and on a pool that cannot be divided
    [null, 'on-call', 'EUR', '10', '1 each × 10', null],
    [null, 'on-call', 'EUR', '10', null, 'Stuck'],
  ])
  const { uplifts: _, ...with_ } = settle([set({})])
  const { uplifts: none, ...without } = settle([], charges, undefined)
  expect(none).toEqual([])
  expect(with_).toEqual(without)
})

it('each charge of a set is a line, in the set’s currency or that of what it is a share of', () => {
  const sets = [
    set({ currency: 'CHF', charges: [{ by: 'unit', label: 'cores', amount: '0.5', unit: 'vCPU' }, { by: 'percent', label: 'reserve', amount: '10' }] }), // prettier-ignore
    set({ id: 'disk', attached: [{ to: 'kind', key: 'disk', variant: null }], charges: [{ by: 'unit', label: 'backup', amount: '0.2', unit: 'GB' }] }), // prettier-ignore
  ]
  expect(lines(sets).filter(([centre]) => centre === 'a')).toEqual([
    ['a', 'backup', 'EUR', '1', '5 GB × 0.2', null],
    ['a', 'cores', 'CHF', '1', '2 vCPU × 0.5', null],
    ['a', 'cores', 'CHF', '0.33', null, 'Network'],
    ['a', 'reserve', 'EUR', '0.3', '3 % × 10', null],
    ['a', 'reserve', 'EUR', '0.1', null, 'Network'],
  ])
  // of what is measured in another unit its cost is known, not how much there is: 10 % of 3 and 3
  expect(lines(sets).find(([centre, label, , , times]) => centre === 'b' && label === 'reserve' && times)).toEqual([
    ...['b', 'reserve', 'EUR', '0.6', '6 % × 10', null],
  ])
})

it('divides what is on a pool by the pool’s own base, in whatever currency the set is', () => {
  // direct cost of a and b in EUR, 6 and 3; nothing is billed in CHF and no report currency is set
  const byCost: AllocationPlan = { ...plan, pools: [{ id: 'net', name: 'Network', method: 'direct cost' }, plan.pools[1]!] }
  const settled = toEnd(
    settleInSlices(cubeOf(charges.slice(0, 6)), byCost, {
      ...{ month: '2026-09', measure: 'billedCost', reportCurrency: null, rates: [] },
      uplifts: { sets: [set({ currency: 'CHF' })], skus },
    }),
  )
  const ofPool = settled.uplifts.filter(({ pool }) => pool?.id === 'net').map(({ centre, currency, amount }) => [centre, currency, amount])
  expect(ofPool).toEqual([
    ['a', 'CHF', '6.67'],
    ['b', 'CHF', '3.33'],
  ])
})

it('stands for a cost centre and all below it, a charge of a set as one', () => {
  const { uplifts } = settle([set({})])
  expect(
    upliftsBelow(plan.centres, uplifts, 'root', 'EUR').map(({ amount, times, pool }) => [amount, times?.quantity, pool?.name]),
  ).toEqual([
    ['20', '2', undefined],
    ['10', undefined, 'Network'],
  ])
  expect(upliftsBelow(plan.centres, uplifts, 'a', 'EUR').map(({ amount }) => amount)).toEqual(['10', '3.33'])
  expect(upliftsBelow(plan.centres, uplifts, 'a', 'CHF')).toEqual([])
  expect(upliftSums(uplifts, 'EUR')).toEqual({ borne: '30', onNone: '20' })
  expect(upliftSums(uplifts, 'USD')).toEqual({ borne: '0', onNone: '0' })
})
