import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { findComponents } from '../../../core/estimate/adding/find-components'
import { readSizeWanted, sizesLike } from '../../../core/estimate/adding/find-size'
import { readLine } from '../../../core/estimate/adding/read-line'
import { newEstimate, newRow } from '../../../core/estimate/estimate'
import { figureText, priceEstimate } from '../../../core/estimate/pricing/price-estimate'
import { variantsOf } from '../../../core/ratecard/find-price'
import { brackwaterCard, larkfieldCard } from '../../../demo/rate-cards'
import { pricesOf } from '../../support/test-card'

const place = { card: brackwaterCard, region: 'low-coast' }
const best = (text: string) => {
  const [first] = findComponents(text, [place])
  return first && (first.is === 'kind' ? first.kind.kind : `line ${first.line.meter}`)
}

it.each([
  ['hard drive', 'disk'],
  ['vm', 'server'],
  ['VM', 'server'],
  ['virtual machines', 'server'],
  ['egress', 'internet-transfer'],
  ['outbound traffic', 'internet-transfer'],
  ['storage account', 'object-storage'],
  ['load balancing', 'load-balancer'],
  ['license', 'licence'],
  ['vpn', 'line vpn-hour'],
  ['firewall', 'line firewall-hour'],
  ['dns', 'line dns-zone-month'],
  ['ip address', 'line address-hour'],
  ['cache', 'line cache-node-hour'],
  ['queue', 'line queue-message'],
  ['kubernetes', 'line cluster-hour'],
  ['gpu', 'line gpu-hour'],
  ['certificate', 'line certificate-month'],
  ['keys', 'line key-month'],
  ['cdn', 'line delivery-gb'],
  ['database', 'database'],
  ['backup', 'snapshot'],
  ['functions', 'functions'],
  ['desktops', 'desktop-fleet'],
  ['constructor', undefined],
  ['spaceship', undefined],
] as [string, string | undefined][])('«%s» finds %s first', (text, expected) => {
  expect(best(text)).toBe(expected)
})

it('never adds another thing than the word says where no card has it', () => {
  // without a line for it a word finds nothing, rather than the first line of the card
  const bare = { ...brackwaterCard, prices: brackwaterCard.prices.filter(p => !/cache|vpn|gpu|cluster/.test(p.meter)) }
  for (const word of ['cache', 'vpn', 'gpu', 'kubernetes'])
    expect(findComponents(word, [{ card: bare, region: 'low-coast' }])[0]?.is === 'line').toBe(false)
})

describe('sizes are found by what they are', () => {
  const sizes = variantsOf(brackwaterCard, 'server-hour', 'low-coast')
  const find = (text: string) => sizesLike(readSizeWanted(text)!, sizes, brackwaterCard, 'low-coast', 'server-hour')
  it.each([
    ['4 16', ['teal-4x16', 'otter-4x16']],
    ['4x16', ['teal-4x16', 'otter-4x16']],
    ['4 vCPU 16 GB', ['teal-4x16', 'otter-4x16']],
    ['8 vcpu', ['reed-8x16', 'teal-8x32', 'otter-8x32', 'heron-8x64']],
    ['64 GB', ['teal-16x64', 'heron-8x64', 'otter-16x64']],
  ])('%s', (text, exact) => {
    // just that first, cheapest first: with 64 GB they cost 16 × 0.0153 + 64 × 0.0039 = 0.4944, 8 × 0.0205 + 64 × 0.0052 = 0.4968 and 16 ×
    // 0.0192 + 64 × 0.0048 = 0.6144
    expect(find(text).slice(0, exact.length)).toEqual(exact)
  })
  it('is not asked of other words', () => {
    for (const text of ['otter', 'otter-4x16', '5d x 10h', '', '4 16 8']) expect(readSizeWanted(text), text).toBeNull()
  })
})

it.each([
  ['2 servers 4 vCPU 16 GB', 'server', { size: 'teal-4x16', count: '2' }],
  ['100 GB disk x 2', 'disk', { storageGb: '100', count: '2' }],
  ['2 x 50 GB disk', 'disk', { storageGb: '50', count: '2' }],
  ['3x40 GB ssd', 'disk', { storageGb: '40', count: '3' }],
  ['2 x 16 server', 'server', { size: 'heron-2x16' }],
  ['2 TB out', 'internet-transfer', { sentGb: '2000' }],
  ['database 4x16 200 GB', 'database', { size: 'otter-4x16', storageGb: '200' }],
  ['500 GB objects 1 M reads', 'object-storage', { storageGb: '500', reads: '1000000' }],
  ['3 x otter-4x16 5d x 10h', 'server', { size: 'otter-4x16', count: '3', hoursPerMonth: '5d x 10h' }],
  ['50 GB logs 90 days', 'logs', { ingestedGb: '50', daysKept: '90' }],
  ['120 users desktop', 'desktop-fleet', { users: '120' }],
  ['1,500 GB object storage cool', 'object-storage', { storageGb: '1500', class: 'cool' }],
  ['10 M function calls', 'functions', { calls: '10000000' }],
  ['200 GB backup', 'snapshot', { protectedGb: '200' }],
  ['server otter-2x8, 1 year, paid monthly', 'server', { size: 'otter-2x8', pays: '1 year, paid monthly' }],
  ['2 load balancers 300 GB', 'load-balancer', { count: '2', balancedGb: '300' }],
] as [string, string, Record<string, string>][])('understands «%s»', (text, kind, inputs) => {
  const read = readLine(text, place)!
  expect([read.kind.kind, read.inputs, read.unknown]).toEqual([kind, inputs, []])
  expect(read.understood.length).toBe(Object.keys(inputs).length)
  expect(
    priceEstimate(
      { ...newEstimate('t', brackwaterCard, 'low-coast'), components: [newRow('a', 'p', kind, read.inputs)] },
      pricesOf(brackwaterCard),
    ).unpriced,
  ).toBe(0)
})

it('says what it did not understand, and leaves plain words to the search', () => {
  expect(readLine('2 servers 4 vCPU 16 GB blue', place)).toMatchObject({ inputs: { count: '2' }, unknown: ['blue'] })
  expect(readLine('disk 100 GB 3 TB 9 9', place)!.unknown.length).toBeGreaterThan(0)
  for (const text of ['server', 'relational database', '', '42', '7 spaceships', '4 16 8']) expect(readLine(text, place), text).toBeNull()
  expect(readLine('server 900 vCPU', place)!.unknown).toEqual(['900 vCPU'])
})

it('never fails, whatever is typed', () => {
  fc.assert(
    fc.property(
      fc.oneof(
        fc.string(),
        fc
          .array(
            fc.constantFrom(
              '2',
              'x',
              'server',
              'GB',
              '4x16',
              '1,500',
              'TB',
              'out',
              '5d x 10h',
              '%',
              'constructor',
              '__proto__',
              'disk',
              '-',
              '1.500',
              'M',
              'reads',
            ),
            { maxLength: 8 },
          )
          .map(words => words.join(' ')),
      ),
      text => {
        for (const card of [brackwaterCard, larkfieldCard]) {
          const read = readLine(text, { card, region: card.regions[0]!.id })
          findComponents(text, [{ card, region: card.regions[0]!.id }])
          if (read)
            expect(
              priceEstimate(
                { ...newEstimate('t', card, card.regions[0]!.id), components: [newRow('a', 'p', read.kind.kind, read.inputs)] },
                pricesOf(card),
              ).rows,
            ).toHaveLength(1)
        }
      },
    ),
  )
})

it('counts a metered line per hour: two firewalls always on are 2 × 730 × 0.8832', () => {
  const firewall = brackwaterCard.prices.find(p => p.meter === 'firewall-hour' && p.region === 'low-coast')!
  const row = (inputs: Record<string, string>) =>
    priceEstimate(
      { ...newEstimate('t', brackwaterCard, 'low-coast'), components: [newRow('a', 'p', 'metered', { sku: firewall.sku, ...inputs })] },
      pricesOf(brackwaterCard),
    ).rows[0]!
  expect(firewall.tiers[0]!.price).toBe('0.8832')
  expect(figureText(row({ count: '2' }).chosen!.monthly)).toBe('1289.472')
  expect(figureText(row({ count: '2', hoursPerMonth: '50 %' }).chosen!.monthly)).toBe('644.736')
  // a quantity of its own counts as it is, as bills have it
  expect(figureText(row({ quantity: '1460' }).chosen!.monthly)).toBe('1289.472')
})
