import fc from 'fast-check'
import { expect, it } from 'vitest'
import { componentKinds } from '../../../core/estimate/components'
import { ONE, scaled, scaledText } from '../../../core/money/scaled'
import { toEnd } from '../../../core/spend/slices'
import { kindsOnBills, useOf } from '../../../core/uplift/meter-use'
import type { StoredUplift } from '../../../core/uplift/uplift-set'
import { upliftsOnUse } from '../../../core/uplift/uplifts-on-use'
import { usedSkus, type UsedSku } from '../../../core/uplift/used-sku'
import { usedThings, type Used, type UsedThing } from '../../../core/uplift/used-things'
import { brackwaterCard } from '../../../demo/rate-cards'

const MONTH_HOURS = 720
const sku = (meter: string, more: Partial<UsedSku> = {}): UsedSku => ({
  ...{ use: useOf(meter)!, variant: null, system: null, unit: 'Hours', vcpu: null },
  ...more,
})
const large = sku('server-hour', { variant: 'heron-8', vcpu: 8 })
const small = sku('server-hour', { variant: 'otter-2', vcpu: 2 })
const system = sku('system-vcpu-hour', { system: 'Thrumwood', unit: 'vCPU-Hours' })
const node = sku('database-hour', { variant: 'db-4' })
const kept = sku('database-gb-month', { variant: 'usual storage', unit: 'GB-Months' })
const disk = sku('disk-gb-month', { variant: 'fast', unit: 'GB-Months' })
const operations = sku('disk-iops-month', { unit: 'IOPS-Months' })
const used = (target: string | null, resource: string | null, of: UsedSku, quantity: string, cost = '0', currency = 'EUR'): Used => ({
  ...{ target, resource, sku: of, currency },
  ...{ quantity: scaled(quantity), cost: scaled(cost) },
})
const things = (...list: Used[]): UsedThing[] => toEnd(usedThings(list, MONTH_HOURS))
const said = ({ target, kind, variant, system: on, count, hours, amounts, costs }: UsedThing) => [
  ...[target, kind, variant, on, scaledText(count), hours === null ? null : scaledText(hours)],
  ...[Object.fromEntries(amounts.map(({ unit, amount }) => [unit, scaledText(amount)]))],
  Object.fromEntries(costs.map(({ currency, amount }) => [currency, scaledText(amount)])),
]
const set = (more: Partial<StoredUplift>): StoredUplift => ({
  ...{ id: 'x', name: 'Care', currency: 'EUR', interval: 'month', validFrom: '2026-01-01', who: 'Ines', setAt: '2026-01-01T00:00:00Z' },
  attached: [{ to: 'kind', key: 'server', variant: null }],
  charges: [{ by: 'flat', label: 'care', amount: '5' }],
  ...more,
})
const priced = (sets: StoredUplift[], list: UsedThing[]) =>
  toEnd(upliftsOnUse(sets, list, { start: '2026-09-01', monthHours: MONTH_HOURS, decimals: currency => (currency === 'JPY' ? 0 : 2) })).map(
    ({ target, quantity, unit, price, amount, currency }) => [target, quantity, unit, price, amount, currency],
  )

it('is one thing for each resource, in parts where it moved or was resized', () => {
  expect(
    things(
      used('a', 'm1', large, '720', '72'),
      used('a', 'm1', system, '5760', '57.6'),
      // half a month each on two cost centres
      used('a', 'm2', small, '360', '9'),
      used('b', 'm2', small, '360', '9'),
      // a third of its hours small, then large; what is charged beside goes with what it was most
      used('b', 'constructor', small, '100', '2'),
      used('b', 'constructor', large, '200', '20'),
      used('b', 'constructor', system, '1800', '18', 'USD'),
    ).map(said),
  ).toEqual([
    ['a', 'server', 'heron-8', 'Thrumwood', '1', '720', {}, { EUR: '129.6' }],
    ['a', 'server', 'otter-2', null, '0.5', '360', {}, { EUR: '9' }],
    ['b', 'server', 'otter-2', null, '0.5', '360', {}, { EUR: '9' }],
    ['b', 'server', 'otter-2', 'Thrumwood', '0.333333333333333', '100', {}, { EUR: '2' }],
    ['b', 'server', 'heron-8', 'Thrumwood', '0.666666666666666', '200', {}, { EUR: '20', USD: '18' }],
  ])
})

it('knows what is kept by its size, what runs by its hours, and what has neither by its being there', () => {
  expect(
    things(
      used('a', 'd1', disk, '80', '8'),
      used('a', 'd1', operations, '3000', '12'),
      used('a', 'db', node, '720', '100'),
      used('a', 'db', kept, '500', '50'),
      // a stopped database still has storage
      used('b', 'stopped', kept, '20', '2'),
      // operations of a disk whose size another bears
      used('b', 'd2', operations, '10', '1'),
      used(null, 'pipe', sku('a-meter-of-its-own'), '3', '4'),
      used('c', 'pipe', sku('a-meter-of-its-own'), '3', '4'),
      // given back in full
      used('c', 'gone', small, '10', '1'),
      used('c', 'gone', small, '-10', '-1'),
    ).map(said),
  ).toEqual([
    ['a', 'disk', 'fast', null, '1', null, { GB: '80' }, { EUR: '20' }],
    ['a', 'database', 'db-4', null, '1', '720', { GB: '500' }, { EUR: '150' }],
    ['b', 'database', 'usual storage', null, '1', null, { GB: '20' }, { EUR: '2' }],
    ['b', 'disk', null, null, '1', null, {}, { EUR: '1' }],
    [null, 'metered', null, null, '0.5', null, {}, { EUR: '4' }],
    ['c', 'metered', null, null, '0.5', null, {}, { EUR: '4' }],
    ['c', 'server', 'otter-2', null, '0', '0', {}, { EUR: '0' }],
  ])
})

it('without a resource counts as many as its hours make of the month', () => {
  expect(things(used('a', null, small, '1800'), used('a', null, disk, '9')).map(said)).toEqual([
    ['a', 'server', 'otter-2', null, '2.5', '1800', {}, { EUR: '0' }],
    ['a', 'disk', 'fast', null, '1', null, { GB: '9' }, { EUR: '0' }],
  ])
})

it('charges for each thing, each hour, each unit, and a share of what it costs', () => {
  const list = things(
    used('a', 'm1', large, '720', '72.5'),
    used('a', 'm2', small, '90', '2.251'),
    used('a', 'm2', system, '180', '7', 'JPY'),
    used('b', 'd1', disk, '80.5', '8'),
  )
  expect(priced([set({})], list)).toEqual([['a', '2', 'each', '5', '10', 'EUR']])
  // 810 hours at 0.0035 are 2.835: rounded half away from zero
  const hourly = set({ interval: 'hour', charges: [{ by: 'flat', label: 'x', amount: '0.0035' }] })
  expect(priced([hourly], list)).toEqual([['a', '810', 'hours', '0.0035', '2.84', 'EUR']])
  const cores = (interval: 'hour' | 'month') => set({ interval, charges: [{ by: 'unit', label: 'x', amount: '0.1', unit: 'vCPU' }] })
  expect(priced([cores('month')], list)).toEqual([['a', '10', 'vCPU', '0.1', '1', 'EUR']])
  // 720 × 8 + 90 × 2
  expect(priced([cores('hour')], list)).toEqual([['a', '5940', 'vCPU hours', '0.1', '594', 'EUR']])
  const disks = { attached: [{ to: 'kind' as const, key: 'disk', variant: 'fast' }] }
  const gb = (interval: 'hour' | 'month') => set({ ...disks, interval, charges: [{ by: 'unit', label: 'x', amount: '0.02', unit: 'GB' }] })
  expect(priced([gb('month')], list)).toEqual([['b', '80.5', 'GB', '0.02', '1.61', 'EUR']])
  // there all hours of the month
  expect(priced([gb('hour')], list)).toEqual([['b', '57960', 'GB hours', '0.02', '1159.2', 'EUR']])
  expect(priced([set({ ...disks, interval: 'hour' })], list)).toEqual([['b', '720', 'hours', '5', '3600', 'EUR']])
  // 3 % of 74.751 is 2.24253, of 7 yen nothing that there is a coin for
  expect(priced([set({ charges: [{ by: 'percent', label: 'x', amount: '3' }] })], list)).toEqual([['a', '74.751', '%', '3', '2.24', 'EUR']])
  expect(priced([set({ charges: [{ by: 'percent', label: 'x', amount: '10' }] })], list)[1]).toEqual(['a', '7', '%', '10', '1', 'JPY'])
  // in the set's currency, whatever is billed; a discount of one's own is below zero
  expect(priced([set({ currency: 'JPY', charges: [{ by: 'flat', label: 'x', amount: '-2.5' }] })], list)).toEqual([
    ['a', '2', 'each', '-2.5', '-5', 'JPY'],
  ])
})

it('holds for what it is attached to, from the month that begins with it', () => {
  const list = things(used('a', 'm1', large, '720'), used('a', 'm2', small, '720'), used('a', 'm2', system, '1440'))
  const to = (attached: StoredUplift['attached'], more: Partial<StoredUplift> = {}) =>
    priced([set({ attached, ...more })], list).map(row => row[1])
  expect(to([{ to: 'kind', key: 'server', variant: 'heron-8' }])).toEqual(['1'])
  expect(to([{ to: 'system', key: 'Thrumwood', variant: null }])).toEqual(['1'])
  // attached twice it is borne once
  expect(to([{ to: 'system', key: 'Thrumwood', variant: null }, { to: 'kind', key: 'server', variant: null }])).toEqual(['2']) // prettier-ignore
  expect(to([{ to: 'pattern', key: 'web', variant: null }, { to: 'image', key: 'gold', variant: null }])).toEqual([]) // prettier-ignore
  expect(to([{ to: 'kind', key: 'server', variant: null }], { validFrom: '2026-09-01' })).toEqual(['2'])
  expect(to([{ to: 'kind', key: 'server', variant: null }], { validFrom: '2026-09-02' })).toEqual([])
  expect(to([{ to: 'kind', key: 'server', variant: null }], { charges: [{ by: 'unit', label: 'x', amount: '1', unit: 'users' }] })).toEqual(
    [],
  )
})

it('loses no thing, however it is spread', () => {
  const use = fc
    .tuple(
      fc.constantFrom('a', 'b', null),
      fc.constantFrom('m1', 'm2', 'm3'),
      fc.constantFrom(small, large),
      fc.integer({ min: 1, max: 720 }),
    )
    .map(([target, resource, of, hours]) => used(target, resource, of, String(hours)))
  fc.assert(
    fc.property(fc.array(use, { maxLength: 20 }), list => {
      const found = things(...list)
      const counted = found.reduce((sum, { count }) => sum + count, 0n)
      const resources = BigInt(new Set(list.map(({ resource }) => resource)).size) * ONE
      // each part is cut by less than the smallest digit
      expect(resources - counted >= 0n && resources - counted <= BigInt(found.length)).toBe(true)
      const hours = found.reduce((sum, one) => sum + one.hours!, 0n)
      expect(hours).toBe(list.reduce((sum, { quantity }) => sum + quantity, 0n))
    }),
  )
})

it('every kind on bills is a kind of component, and SKUs of a card are known by their meters', () => {
  const kinds = new Set(componentKinds.map(({ kind }) => kind))
  expect([...kindsOnBills].filter(kind => !kinds.has(kind))).toEqual([])
  const skus = usedSkus([brackwaterCard])
  const [machine, licence] = ['server-hour', 'system-vcpu-hour'].map(meter => brackwaterCard.prices.find(line => line.meter === meter)!)
  const size = brackwaterCard.serverSizes.find(one => one.size === machine!.variant)!
  expect(skus.get(machine!.sku)).toEqual({
    ...{ use: { kind: 'server', tells: 'hours' }, variant: size.size, system: null, unit: 'Hours', vcpu: size.vcpu },
  })
  expect(skus.get(licence!.sku)).toMatchObject({ use: { kind: 'server', tells: null }, variant: null, system: licence!.variant })
  expect(useOf('constructor')).toEqual({ kind: 'metered', tells: null })
  expect(useOf('support-share')).toBeNull()
})
