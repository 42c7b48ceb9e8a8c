import { expect, it } from 'vitest'
import { cardFromTable } from '../../../core/ratecard/card-table'
import { cardToTable } from '../../../core/ratecard/card-to-table'
import type { RateCard } from '../../../core/ratecard/rate-card'

const card: Record<string, string> = { row: ' card ', provider: 'P', currency: ' EUR ', 'valid from': '2026-01-01' }
const region = { row: 'region', region: 'r' }
const size = { row: 'size', size: 'm', vcpu: '2', 'memory gb': '4' }
const price = {
  row: 'price',
  sku: 'S',
  service: 's',
  meter: 'server-hour',
  variant: 'm',
  region: 'r',
  unit: 'Hours',
  from: '0',
  price: '1',
}
const said = (...lines: Record<string, string>[]) => {
  const read = cardFromTable(lines)
  return 'problems' in read ? read.problems.map(p => `${p.line} ${p.column}: ${p.message}`) : []
}
const read = (...lines: Record<string, string>[]): RateCard => {
  const made = cardFromTable(lines)
  if ('problems' in made) throw new Error(JSON.stringify(made.problems))
  return made.card
}

it('takes what is left out as what is usual, and trims what people type', () => {
  expect(
    read(
      card,
      region,
      { ...size, systems: ' plain ;; steady ', 'disk classes': '' },
      { ...price, currency: 'EUR', includes: ' iops = 3000 ; mbps=125', 'minimum quantity': '2', service: "'=s" },
      { row: 'commitment', sku: 'S', years: '1', paid: 'all in advance', 'upfront price': '5' },
      { row: 'commitment', sku: 'S', years: '1', upfront: 'none', 'hourly price': '0.5' },
    ),
  ).toEqual({
    provider: 'P',
    currency: ' EUR '.trim(),
    validFrom: '2026-01-01',
    regions: [{ id: 'r', name: 'r' }],
    serverSizes: [{ size: 'm', vcpu: 2, memoryGb: 4, systems: ['plain', 'steady'] }],
    prices: [
      {
        sku: 'S',
        service: '=s',
        meter: 'server-hour',
        variant: 'm',
        region: 'r',
        unit: 'Hours',
        tiering: 'graduated',
        tiers: [{ from: '0', price: '1' }],
        minimumQuantity: '2',
        includes: { iops: '3000', mbps: '125' },
        commitments: [
          { years: 1, paid: 'all in advance', upfrontPrice: '5', hourlyPrice: '0' },
          { years: 1, paid: 'paid monthly', upfrontPrice: '0', hourlyPrice: '0.5' },
        ],
      },
    ],
  })
})

it('says of each line what is wrong with it, in the order of the file', () => {
  expect(said(card, region, size, price, { row: 'tier', sku: 'X', from: '5', price: '1' }, { row: 'tier' })).toEqual([
    '6 sku: there is no price line of the SKU «X» above it',
    '7 sku: there is no price line of the SKU «» above it',
  ])
  expect(said(card, card, region, size, price)[0]).toBe('2 row: the card is named more than once')
  expect(said(region, size, { ...price, currency: 'USD' })).toEqual(
    expect.arrayContaining([
      '2 row: there is no line that names the card: provider, currency and valid from',
      '4 currency: the card is in a currency that no line names, this line in USD: a card has one currency; put the line into a card of its own',
    ]),
  )
  expect(said(card, { ...region, '': 'x' }, size, price)).toEqual([])
  expect(said({ ...card, '': 'x' }, region, size, price)).toEqual(['1 a heading without a name: there is no column «»; leave it out'])
  expect(said(card, region, size, price, { row: 'prize' }, { sku: 'S' })).toEqual([
    '6 row: «prize» is none of card, region, size, price, tier, commitment',
    '7 row: «» is none of card, region, size, price, tier, commitment',
  ])
  expect(said(card, { ...region, zones: 'few' }, { ...size, vcpu: 'two', 'memory gb': 'four' }, price)).toEqual([
    '3 zones: «few» is no number, such as 3',
    '4 vcpu: «two» is no number, such as 4',
    '4 memory gb: «four» is no number, such as 16',
  ])
  expect(said(card, region, size, price, { row: 'commitment', sku: 'S', years: 'one', paid: 'paid monthly', 'hourly price': '1' })).toEqual(
    ['6 years: «one» is no number, such as 1'],
  )
  // what is wrong across cells is said at the line and the column it came from
  expect(
    said(card, region, size, { ...price, from: 'x' }, { row: 'commitment', sku: 'S', years: '2', paid: 'often', 'hourly price': '1' }),
  ).toEqual([
    '5 from: a number of zero or more, as text, such as "0.0231"',
    '6 years: a commitment needs its term: 1 or 3 years',
    '6 paid: a commitment is paid monthly, part in advance, all in advance',
  ])
  expect(said({ ...card, 'valid from': 'soon' }, region, size, price)).toEqual(['2 valid from: write a day like 2026-11-01'])
  expect(said(card, region, size)).toEqual([expect.stringMatching(/^2 prices: /)])
  expect(said(region, size, price, card).slice(-1)).toEqual([])
})

it('writes a region without zones and a price without a second tier as they are', () => {
  const made = read(card, region, size, price)
  expect(cardToTable(made)).toEqual([
    { row: 'card', provider: 'P', currency: 'EUR', 'valid from': '2026-01-01' },
    { row: 'region', region: 'r', name: 'r' },
    { row: 'size', size: 'm', vcpu: '2', 'memory gb': '4' },
    { ...price, tiering: 'graduated' },
  ])
})
