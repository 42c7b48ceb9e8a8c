// What a rate card may not say: refused with the line and how to mend it, in both of its forms.
import { expect, it } from 'vitest'
import { newEstimate, newRow } from '../../../core/estimate/estimate'
import { figureText, priceEstimate } from '../../../core/estimate/pricing/price-estimate'
import { componentKinds, findKind, isOffered } from '../../../core/estimate/components'
import { cardColumns } from '../../../core/ratecard/card-columns'
import { cardFromTable } from '../../../core/ratecard/card-table'
import { cardToTable } from '../../../core/ratecard/card-to-table'
import { rateCardSchema, type RateCard } from '../../../core/ratecard/rate-card'
import { nearestWord } from '../../../core/text/nearest'
import { brackwaterCard } from '../../../demo/rate-cards'
import { pricesOf } from '../../support/test-card'

const small: RateCard = {
  provider: 'P',
  currency: 'EUR',
  validFrom: '2026-01-01',
  regions: [{ id: 'r', name: 'R', zones: 2 }],
  serverSizes: [{ size: 'm', vcpu: 2, memoryGb: 4, dedicated: true }],
  prices: [
    {
      sku: 'S',
      service: 's',
      meter: 'server-hour',
      variant: 'm',
      region: 'r',
      unit: 'Hours',
      tiering: 'graduated',
      tiers: [
        { from: '0', price: '1' },
        { from: '100', price: '0.5' },
      ],
      commitments: [{ years: 1, paid: 'paid monthly', upfrontPrice: '0', hourlyPrice: '0.4' }],
    },
  ],
}
type Line = Record<string, string>
// line 2 the card, 3 the region, 4 the size, 5 the price, 6 its second tier, 7 its commitment
const lines = (): Line[] => cardToTable(small).map(line => Object.fromEntries(cardColumns.map(column => [column, line[column] ?? ''])))
const refused = (edit: (all: Line[]) => void): string[] => {
  const all = lines()
  edit(all)
  const read = cardFromTable(all)
  return 'problems' in read ? read.problems.map(p => `${p.line} ${p.column}: ${p.message}`) : []
}
it.each([
  [
    'a commitment without a price',
    (all: Line[]) => Object.assign(all[5]!, { 'upfront price': '', 'hourly price': '' }),
    '7 hourly price: the commitment has no price',
  ],
  [
    'a commitment at nothing',
    (all: Line[]) => Object.assign(all[5]!, { 'hourly price': '0' }),
    '5 years: 1 years, paid monthly: it has no hourly price',
  ],
  [
    'in advance without an upfront price',
    (all: Line[]) => Object.assign(all[5]!, { paid: 'all in advance', 'hourly price': '0' }),
    'it has no upfront price',
  ],
  [
    'one meter, variant and region twice',
    (all: Line[]) => all.push({ ...all[3]!, sku: 'T' }),
    '8 variant: server-hour «m» in r has two prices: S and T',
  ],
  ['a size twice', (all: Line[]) => all.push({ ...all[2]! }), '8 size: the size m appears twice'],
  ['a region twice', (all: Line[]) => all.push({ ...all[1]! }), '8 region: the region r appears twice'],
  [
    'a heading that nobody knows',
    (all: Line[]) => all.forEach(line => Object.assign(line, { 'hourly prise': '1' })),
    '1 hourly prise: there is no column «hourly prise»: «hourly price» is meant?',
  ],
  [
    'a heading of another kind',
    (all: Line[]) => all.forEach(line => Object.assign(line, { constructor: 'x' })),
    '1 constructor: there is no column «constructor»',
  ],
  ['another currency', (all: Line[]) => Object.assign(all[3]!, { currency: 'USD' }), '5 currency: the card is in EUR, this line in USD'],
  [
    'a yes or no that is neither',
    (all: Line[]) => Object.assign(all[2]!, { dedicated: 'maybe' }),
    '4 dedicated: «maybe» is neither yes nor no',
  ],
  ['a price below zero', (all: Line[]) => Object.assign(all[3]!, { price: '-1' }), '5 price: a number of zero or more'],
  [
    'a price above all prices',
    (all: Line[]) => Object.assign(all[4]!, { price: '1000000000001' }),
    '6 price: «1000000000001» is above 1,000,000,000,000',
  ],
  [
    'sixteen decimals',
    (all: Line[]) => Object.assign(all[5]!, { 'hourly price': '0.1234567890123456' }),
    '7 hourly price: «0.1234567890123456» has more than 15 decimals',
  ],
  ['vCPU that are no number', (all: Line[]) => Object.assign(all[2]!, { vcpu: 'four' }), '4 vcpu: «four» is no number, such as 4'],
  ['zones of a region', (all: Line[]) => Object.assign(all[1]!, { zones: '1.5' }), '3 zones:'],
] as [string, (all: Line[]) => void, string][])('refuses %s, with its line', (_, edit, words) => {
  expect(refused(edit).join('\n')).toContain(words)
})
it('takes the largest and the finest, and earlier words for ways to pay, in both forms', () => {
  expect(refused(all => Object.assign(all[3]!, { price: '1000000000000', service: 'x' }))).toEqual([])
  expect(refused(all => Object.assign(all[3]!, { price: '0.123456789012345' }))).toEqual([])
  expect(
    refused(all =>
      all.forEach(line => {
        line.upfront = line.paid === 'paid monthly' ? 'none' : ''
        Reflect.deleteProperty(line, 'paid')
      }),
    ),
  ).toEqual([])
  const earlier = {
    ...small,
    prices: [{ ...small.prices[0]!, commitments: [{ years: 1, upfront: 'none', upfrontPrice: '0', hourlyPrice: '0.4' }] }],
  }
  expect(rateCardSchema.parse(earlier)).toEqual(small)
})
it('refuses the same in JSON', () => {
  const json = (change: (card: RateCard) => void) => {
    const card = structuredClone(small)
    change(card)
    const read = rateCardSchema.safeParse(card)
    return read.success ? '' : read.error.issues.map(i => `${i.path.join('.')}: ${i.message}`).join('; ')
  }
  expect(
    json(c => {
      c.prices.push({ ...c.prices[0]!, sku: 'T' })
    }),
  ).toContain('prices.1.variant: server-hour «m» in r has two prices')
  expect(
    json(c => {
      c.regions.push({ ...c.regions[0]! })
    }),
  ).toContain('regions.1: the region r appears twice')
  expect(
    json(c => {
      c.serverSizes.push({ ...c.serverSizes[0]! })
    }),
  ).toContain('serverSizes.1: the size m appears twice')
  expect(
    json(c => {
      c.prices[0]!.commitments![0]!.hourlyPrice = '0'
    }),
  ).toContain('it has no hourly price')
  expect(
    json(c => {
      c.prices[0]!.tiers[0]!.price = '1e13'
    }),
  ).toContain('is above')
  expect(
    json(c => {
      Object.assign(c.prices[0]!, { currency: 'USD' })
    }),
  ).toContain('currency')
})
it('works in every form where the only line of a meter names no variant', () => {
  const bare: RateCard = {
    ...brackwaterCard,
    prices: brackwaterCard.prices
      .filter(
        (line, at, all) =>
          line.region === 'low-coast' &&
          (line.meter === 'server-hour' ||
            line.meter === 'database-hour' ||
            all.findIndex(l => l.meter === line.meter && l.region === 'low-coast') === at),
      )
      .map(line => (line.meter === 'server-hour' || line.meter === 'database-hour' ? line : { ...line, variant: null })),
  }
  expect(rateCardSchema.safeParse(bare).error?.issues).toBeUndefined()
  for (const kind of componentKinds.filter(k => isOffered(k, bare, 'low-coast') && k.kind !== 'metered')) {
    const row = priceEstimate({ ...newEstimate('t', bare, 'low-coast'), components: [newRow('a', 'p', kind.kind)] }, pricesOf(bare))
      .rows[0]!
    expect(row.problems, kind.kind).toEqual({})
    const size = kind.fields.find(f => f.type === 'choice' && f.meter && f.column === 'size')
    if (size?.type === 'choice') expect(size.options(bare, 'low-coast').length, kind.kind).toBeGreaterThan(0)
  }
  // 100 GB at the only disk price
  expect(
    figureText(
      priceEstimate(
        { ...newEstimate('t', bare, 'low-coast'), components: [newRow('a', 'p', 'disk', { storageGb: '100' })] },
        pricesOf(bare),
      ).total.monthly,
    ),
  ).toBe('4.32')
  expect(findKind('disk')!.label).toBe('Disks')
})
it('finds the nearest word, and none for what is far', () => {
  expect([
    nearestWord('uint', ['unit', 'sku']),
    nearestWord('memory', ['memory gb', 'meter']),
    nearestWord('colour', ['unit', 'sku']),
  ]).toEqual(['unit', 'memory gb', null])
})
