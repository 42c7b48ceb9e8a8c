import { expect, it } from 'vitest'
import { compareCards } from '../../../core/ratecard/compare-cards'
import { skuMeanings } from '../../../core/ratecard/sku-meanings'
import type { PriceLine, RateCard } from '../../../core/ratecard/rate-card'

const line = (sku: string, price: string, more: Partial<PriceLine> = {}): PriceLine => ({
  sku,
  service: 'Disks',
  meter: 'disk-gb-month',
  variant: sku.toLowerCase(),
  region: 'n',
  unit: 'GB-Months',
  tiering: 'graduated',
  tiers: [{ from: '0', price }],
  ...more,
})
const card = (...prices: PriceLine[]): RateCard => ({
  provider: 'Testcloud',
  currency: 'EUR',
  validFrom: '2026-01-01',
  regions: [{ id: 'n', name: 'North' }],
  serverSizes: [],
  prices,
})
const commitment = { years: 1 as const, paid: 'paid monthly' as const, upfrontPrice: '0', hourlyPrice: '0.01' }

it('says of each line what has changed, the new card’s lines first', () => {
  const before = card(line('A', '0.10'), line('B', '0.10'), line('C', '0.10'), line('D', '0.10'), line('E', '0'), line('F', '0.3'))
  const after = card(line('B', '0.08'), line('A', '0.12'), line('C', '0.10'), line('E', '0.5'), line('G', '0.7'), line('F', '0.4'))
  const at = { unit: 'GB-Months' }
  expect(compareCards(before, after)).toEqual([
    { ...at, sku: 'B', words: 'Disks b in North: kept, GB-months', change: 'cheaper', before: '0.10', after: '0.08', share: '-0.2' },
    { ...at, sku: 'A', words: 'Disks a in North: kept, GB-months', change: 'dearer', before: '0.10', after: '0.12', share: '0.2' },
    // from nothing there is no share
    { ...at, sku: 'E', words: 'Disks e in North: kept, GB-months', change: 'dearer', before: '0', after: '0.5', share: null },
    { ...at, sku: 'G', words: 'Disks g in North: kept, GB-months', change: 'new', before: null, after: '0.7', share: null },
    { ...at, sku: 'F', words: 'Disks f in North: kept, GB-months', change: 'dearer', before: '0.3', after: '0.4', share: '0.333333' },
    { ...at, sku: 'D', words: 'Disks d in North: kept, GB-months', change: 'gone', before: '0.10', after: null, share: null },
  ])
})

it('tells any other term from the price, and none from the order of keys', () => {
  const was = line('A', '1', { commitments: [commitment], includes: { iops: '3000', mbps: '125' } })
  const changed = (more: Partial<PriceLine>) =>
    compareCards(card(was), card({ ...was, ...more })).map(({ change, share }) => [change, share])
  const other = [['other terms', '0']]
  expect(changed({})).toEqual([])
  expect(changed({ includes: { mbps: '125', iops: '3000' } })).toEqual([])
  expect(changed({ includes: { iops: '3000', mbps: '250' } })).toEqual(other)
  expect(changed({ tiering: 'whole' })).toEqual(other)
  expect(changed({ unit: 'GB-Hours' })).toEqual(other)
  expect(changed({ freeAllowance: '1' })).toEqual(other)
  expect(changed({ minimumQuantity: '1' })).toEqual(other)
  expect(changed({ minimumCharge: '1' })).toEqual(other)
  expect(changed({ commitments: [{ ...commitment, hourlyPrice: '0.02' }] })).toEqual(other)
  expect(changed({ commitments: undefined })).toEqual(other)
  expect(changed({ includes: undefined })).toEqual(other)
  const { years, paid, upfrontPrice, hourlyPrice } = commitment
  expect(changed({ commitments: [{ hourlyPrice, upfrontPrice, paid, years }] })).toEqual([])
  // a tier further up, and where one begins
  const tiers = (from: string, price: string) => ({
    tiers: [
      { from: '0', price: '1' },
      { from, price },
    ],
  })
  const tiered = { ...was, ...tiers('100', '0.5') }
  const retiered = (more: Partial<PriceLine>) => compareCards(card(tiered), card({ ...tiered, ...more })).map(({ change }) => change)
  expect([retiered(tiers('100', '0.5')), retiered(tiers('100', '0.4')), retiered(tiers('200', '0.5'))]).toEqual([
    [],
    ['other terms'],
    ['other terms'],
  ])
  // where the tier ends is said by the next one
  expect(
    retiered({
      tiers: [
        { from: '0', to: '100', price: '1' },
        { from: '100', price: '0.5' },
      ],
    }),
  ).toEqual([])
})

it('knows what SKUs mean: own words first, then the first card that has them', () => {
  const found = skuMeanings([card(line('A', '1')), card(line('A', '1', { service: 'Other' }), line('B', '1', { charged: 'use' }))], {
    B: { words: 'our words' },
    C: { words: 'nobody else knows it' },
    D: { words: 'bought', charged: 'existing' },
    constructor: { words: 'a name like any' },
  })
  expect(Object.fromEntries(found)).toEqual({
    A: { words: 'Disks a in North: kept, GB-months', charged: 'existing' },
    B: { words: 'our words', charged: 'use' },
    C: { words: 'nobody else knows it', charged: 'use' },
    D: { words: 'bought', charged: 'existing' },
    constructor: { words: 'a name like any', charged: 'use' },
  })
  expect(skuMeanings([card(line('A', '1', { charged: 'use' }))], { A: { words: 'ours' } }).get('A')).toEqual({
    words: 'ours',
    charged: 'use',
  })
})
