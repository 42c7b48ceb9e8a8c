import { expect, it } from 'vitest'
import { blindSpots, blindSpotSize, fillBlindSpot, findBlindSpots } from '../../../core/estimate/blind-spots'
import { newEstimate, type Estimate } from '../../../core/estimate/estimate'
import { priceEstimate } from '../../../core/estimate/pricing/price-estimate'
import { PriceMemo } from '../../../core/estimate/pricing/price-memo'
import { brackwaterCard } from '../../../demo/rate-cards'
import { pricesOf, testRows } from '../../support/test-card'

const prices = pricesOf(brackwaterCard)
const of = (...rows: [string, Record<string, string>][]): Estimate => ({
  ...newEstimate('t', brackwaterCard, 'low-coast'),
  components: testRows(rows),
})
const found = (estimate: Estimate) => findBlindSpots({ estimate, priced: priceEstimate(estimate, prices) })
const ids = (estimate: Estimate) => found(estimate).map(f => f.id)

/** For each rule: what it finds something in, and the same with what it misses. */
const cases: Record<string, [without: Estimate, filled: Estimate]> = {
  'no-disk': [of(['server', {}]), of(['server', {}], ['disk', {}])],
  'no-outgoing-transfer': [of(['server', {}]), of(['server', {}], ['internet-transfer', {}])],
  'no-gateway': [of(['server', {}]), of(['server', {}], ['gateway', {}])],
  'no-logs': [of(['functions', {}]), of(['functions', {}], ['logs', {}])],
  'no-backup': [of(['disk', {}]), of(['disk', {}], ['snapshot', {}])],
  'one-zone': [of(['server', { count: '2' }]), of(['server', { count: '2', zones: '2' }])],
  'no-load-balancer': [of(['server', { count: '3' }]), of(['server', { count: '3' }], ['load-balancer', {}])],
  'no-support': [of(['server', {}]), of(['server', {}], ['support', {}])],
  'no-requests': [of(['object-storage', { class: 'ready' }]), of(['object-storage', { class: 'ready', reads: '1000' }])],
  'no-retrieval': [of(['object-storage', { class: 'cool' }]), of(['object-storage', { class: 'cool', retrievedGb: '5' }])],
  'no-zone-transfer': [
    of(['database', { zones: '2' }]),
    of(['database', { zones: '2' }], ['internal-transfer', { over: 'to another zone' }]),
  ],
  'no-region-transfer': [
    of(['server', {}], ['server', { where: 'east-delta' }]),
    of(['server', {}], ['server', { where: 'east-delta' }], ['internal-transfer', { over: 'to another region' }]),
  ],
  'database-one-zone': [of(['database', { zones: '1' }]), of(['database', { zones: '2' }])],
  'no-database-backup': [of(['database', { storageGb: '100', backupGb: '0' }]), of(['database', { storageGb: '100', backupGb: '200' }])],
  'no-identity': [of(['desktop-fleet', {}]), of(['desktop-fleet', {}], ['identity', {}])],
  'no-recovery': [of(['server', { count: '5' }], ['database', {}]), of(['server', { count: '5' }], ['database', {}], ['recovery', {}])],
  'no-rehearsal': [
    of(['server', {}]),
    {
      ...of(['server', {}], ['server', { hoursPerMonth: '5d x 10h' }]),
      components: testRows([
        ['server', {}],
        ['server', { hoursPerMonth: '5d x 10h' }],
      ]).map((c, i) => (i ? { ...c, part: 'Rehearsal' } : c)),
    },
  ],
  'no-one-off': [
    of(['server', {}], ['disk', {}], ['logs', {}]),
    of(['server', {}], ['disk', {}], ['logs', {}], ['free-form', { amount: '500', interval: 'once' }]),
  ],
  'fleet-profile-backup': [of(['desktop-fleet', {}]), of(['desktop-fleet', {}], ['snapshot', {}])],
  'fleet-traffic': [of(['desktop-fleet', {}]), of(['desktop-fleet', {}], ['internet-transfer', {}])],
  'fleet-logs': [of(['desktop-fleet', {}]), of(['desktop-fleet', {}], ['logs', {}])],
  'fleet-base-licences': [of(['desktop-fleet', { users: '40', held: '10' }]), of(['desktop-fleet', { users: '40', held: '40' }])],
}

it('has at least fifteen rules, each with a case here', () => {
  expect(blindSpots.length).toBeGreaterThanOrEqual(15)
  expect(Object.keys(cases).sort()).toEqual(blindSpots.map(b => b.id).sort())
})

it.each(Object.entries(cases))('%s is found where it is missing, not where it is there', (id, [without, filled]) => {
  expect(ids(without)).toContain(id)
  expect(ids(filled)).not.toContain(id)
})

it.each(Object.entries(cases))('%s is filled by its own action with something that has a price, and is then gone', (id, [without]) => {
  const spot = found(without).find(f => f.id === id)!
  expect(spot.reason.length).toBeGreaterThan(20)
  const filled = fillBlindSpot(without, spot.fix, 'filled')
  const priced = priceEstimate(filled, prices)
  expect(priced.unpriced).toBe(0)
  expect(ids(filled)).not.toContain(id)
  const size = blindSpotSize(without, prices, spot.fix, new PriceMemo())
  // spreading over zones costs nothing by itself; what is paid once is no monthly amount
  if (!['one-zone', 'no-load-balancer'].includes(id)) expect(size!.gte(0)).toBe(true)
  if (!['one-zone', 'no-one-off'].includes(id)) expect(size!.gt(0)).toBe(true)
})

it('sizes what a fleet lacks by its users: 40 users with profiles of 25 GB, 30 of them without a licence', () => {
  const estimate = of(['desktop-fleet', { users: '40', profileGb: '25', held: '10' }])
  const fix = (id: string) => found(estimate).find(f => f.id === id)!.fix
  expect(fix('fleet-profile-backup')).toMatchObject({ add: { kind: 'snapshot', inputs: { protectedGb: '1000' } } })
  expect(fix('fleet-traffic')).toMatchObject({ add: { inputs: { sentGb: '800' } } })
  expect(fix('fleet-base-licences')).toMatchObject({ add: { inputs: { count: '30' } } })
})

it('says that the card has no price instead of offering at nothing', () => {
  const bare = { ...brackwaterCard, prices: brackwaterCard.prices.filter(p => p.meter !== 'snapshot-gb-month') }
  const estimate = of(['desktop-fleet', {}])
  const spot = found(estimate).find(f => f.id === 'fleet-profile-backup')!
  expect(blindSpotSize(estimate, pricesOf(bare), spot.fix, new PriceMemo())).toBeNull()
  // 50 users × 20 GB × (1 + 2 % × 29 days) × 0.047 (0.049 × 0.96, as printed) = 74.26
  expect(blindSpotSize(estimate, prices, spot.fix, new PriceMemo())!.toFixed()).toBe('74.26')
})

it('keeps quiet about what was dismissed, with its reason', () => {
  const estimate = { ...of(['server', {}]), dismissed: [{ blindSpot: 'no-disk', reason: 'they boot from the network' }] }
  expect(ids(estimate)).not.toContain('no-disk')
})

it('an empty estimate lacks nothing', () => {
  expect(ids(of())).toEqual([])
})
