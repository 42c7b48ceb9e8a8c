// The same thing elsewhere: every priced line of the demo's cards moved to every region of its own card, and to the other providers,
// against tables written by hand.
import { describe, expect, it } from 'vitest'
import { newEstimate, newRow, type Component, type Estimate } from '../../../core/estimate/estimate'
import { priceOnCard } from '../../../core/estimate/sheet/name-card'
import { figureText, priceEstimate } from '../../../core/estimate/pricing/price-estimate'
import { takeOver } from '../../../core/estimate/scenarios/layer'
import { moveScenario, relocate, rowAt } from '../../../core/estimate/scenarios/move'
import { findSku } from '../../../core/ratecard/find-price'
import type { RateCard } from '../../../core/ratecard/rate-card'
import { brackwaterCard, brackwaterNextCard, larkfieldCard, pierHouseCard } from '../../../demo/rate-cards'
import { pricesOf } from '../../support/test-card'

const prices = {
  ...pricesOf(brackwaterCard, larkfieldCard, pierHouseCard),
  rates: [{ from: 'USD', to: 'EUR', validFrom: '2026-01-01', rate: '0.9' }],
}
const at = (card: RateCard, region: string, ...components: Component[]): Estimate => ({
  ...newEstimate('t', card, region),
  currency: 'EUR',
  components,
  cards: [brackwaterCard, larkfieldCard, pierHouseCard].map(c => ({ provider: c.provider, date: c.validFrom, revision: 1 })),
})
const moved = (estimate: Estimate, to: { provider: string; region: string }, of = prices) =>
  priceEstimate(estimate, of, moveScenario(estimate, to, 's', 's')).rows[0]!
const place = (card: RateCard, region: string) => ({ provider: card.provider, region })

/** Lines that a card sells in some regions only: what the other regions do not have. */
const onlyIn: Record<string, string[]> = {
  'gpu-hour': ['north-fjord'],
  'cache-node-hour 24 GB': ['north-fjord', 'low-coast'],
  'server-hour heron-16x128': ['north-fjord', 'low-coast', 'east-delta'],
  'disk-gb-month steady, across zones': ['north-fjord'],
}
const keyOf = (line: RateCard['prices'][number]) => [onlyIn[line.meter] ? line.meter : `${line.meter} ${line.variant ?? ''}`.trim()][0]!
const holed: RateCard = {
  ...brackwaterCard,
  prices: brackwaterCard.prices.filter(line => onlyIn[keyOf(line)]?.includes(line.region) ?? true),
}

describe('every priced line, moved to every region of its own card', () => {
  it.each([
    ['Brackwater Cloud', holed],
    ['Larkfield Compute', larkfieldCard],
    ['Pier House DC', pierHouseCard],
  ] as const)('%s', (_, card) => {
    const here = { ...prices, cards: new Map(prices.cards).set(card.provider, card) }
    let offered = 0
    const notOffered: string[] = []
    for (const line of card.prices.filter(l => l.meter !== 'support-share')) {
      for (const region of card.regions) {
        const estimate = at(card, line.region, newRow('a', 'p', 'metered', { sku: line.sku, quantity: '7' }))
        const row = moved(estimate, place(card, region.id), here)
        // by hand: the line of the same meter and variant in that region, or none; heron-16x128 has no equal of 16 vCPU and 128 GB
        const expected = card.prices.find(l => l.meter === line.meter && l.variant === line.variant && l.region === region.id)
        if (expected) {
          offered++
          expect(row.problems, `${line.sku} in ${region.id}`).toEqual({})
          expect(row.inputs.sku).toBe(expected.sku)
          expect(row.replaced).toEqual([])
        } else {
          notOffered.push(`${line.meter} ${line.variant ?? ''} ${line.region}→${region.id}`)
          expect(row.chosen, `${line.sku} in ${region.id}`).toBeNull()
          expect(row.notOffered).toContain(region.id)
        }
      }
    }
    expect(offered).toBeGreaterThan(card.regions.length * 9)
    expect(notOffered.length).toBe({ 'Brackwater Cloud': 3 + 4 + 3 + 3, 'Larkfield Compute': 0, 'Pier House DC': 0 }[card.provider])
  })
})

/** What a row becomes elsewhere: a kind with inputs, where it goes, and the inputs that it has there; null for not offered. */
const table: [
  what: string,
  from: [RateCard, string],
  kind: string,
  inputs: Record<string, string>,
  to: [RateCard, string],
  becomes: Record<string, string> | null,
][] = [
  [
    'a cache of 6 GB in another region',
    [brackwaterCard, 'low-coast'],
    'metered',
    { sku: 'BW-LOWCOAST-CACHENODEHOUR-6GB' },
    [brackwaterCard, 'far-cape'],
    { sku: 'BW-FARCAPE-CACHENODEHOUR-6GB' },
  ],
  [
    'a cache of 6 GB at a provider with the same meter',
    [brackwaterCard, 'low-coast'],
    'metered',
    { sku: 'BW-LOWCOAST-CACHENODEHOUR-6GB' },
    [larkfieldCard, 'lk-beta'],
    { sku: 'LK-LKBETA-CACHENODEHOUR-6GB' },
  ],
  [
    'a cache of 24 GB, which the other does not have',
    [brackwaterCard, 'low-coast'],
    'metered',
    { sku: 'BW-LOWCOAST-CACHENODEHOUR-24GB' },
    [larkfieldCard, 'lk-beta'],
    null,
  ],
  [
    'a meter that the other does not have',
    [brackwaterCard, 'low-coast'],
    'metered',
    { sku: 'BW-LOWCOAST-QUEUEMESSAGE' },
    [larkfieldCard, 'lk-alpha'],
    null,
  ],
  [
    'a server, by its size',
    [brackwaterCard, 'low-coast'],
    'server',
    { size: 'otter-6x24' },
    [larkfieldCard, 'lk-alpha'],
    { size: 'slate five' },
  ],
  [
    '16 vCPU with 128 GB',
    [brackwaterCard, 'low-coast'],
    'server',
    { size: 'heron-16x128' },
    [larkfieldCard, 'lk-alpha'],
    { size: 'slate eight' },
  ],
  [
    '16 vCPU with 128 GB where the largest has half the memory',
    [brackwaterCard, 'low-coast'],
    'server',
    { size: 'heron-16x128' },
    [pierHouseCard, 'pier-house'],
    null,
  ],
  ['another architecture', [brackwaterCard, 'low-coast'], 'server', { size: 'teal-4x16' }, [larkfieldCard, 'lk-alpha'], null],
  ['a size that nobody typed', [brackwaterCard, 'low-coast'], 'server', {}, [larkfieldCard, 'lk-alpha'], { size: 'slate two' }],
  [
    'a licensed system',
    [brackwaterCard, 'low-coast'],
    'server',
    { size: 'otter-4x16', system: 'Thrumwood Server' },
    [larkfieldCard, 'lk-alpha'],
    { size: 'slate three', system: 'Thrumwood Server' },
  ],
  [
    'a licensed system where there is none',
    [brackwaterCard, 'low-coast'],
    'server',
    { size: 'otter-4x16', system: 'Thrumwood Server' },
    [pierHouseCard, 'pier-house'],
    null,
  ],
  [
    'an own licence',
    [brackwaterCard, 'low-coast'],
    'server',
    { size: 'otter-4x16', system: 'Thrumwood Server, own licence' },
    [pierHouseCard, 'pier-house'],
    { size: 'rack-4x16', system: 'Thrumwood Server, own licence' },
  ],
  [
    'a dedicated host, which small sizes cannot stand on there',
    [brackwaterCard, 'low-coast'],
    'server',
    { size: 'otter-4x16', host: 'dedicated host' },
    [larkfieldCard, 'lk-alpha'],
    { size: 'slate five', host: 'dedicated host' },
  ],
  [
    'a dedicated host where hosts are shared',
    [brackwaterCard, 'low-coast'],
    'server',
    { size: 'otter-4x16', host: 'dedicated host' },
    [pierHouseCard, 'pier-house'],
    null,
  ],
  [
    'three zones where there are two',
    [brackwaterCard, 'low-coast'],
    'server',
    { size: 'otter-4x16', zones: '3' },
    [brackwaterCard, 'far-cape'],
    null,
  ],
  ['a disk in two zones', [brackwaterCard, 'low-coast'], 'disk', { class: 'plain, across zones' }, [larkfieldCard, 'lk-alpha'], null],
  [
    'a disk in two zones on one array',
    [brackwaterCard, 'low-coast'],
    'disk',
    { class: 'steady, across zones' },
    [pierHouseCard, 'pier-house'],
    null,
  ],
  [
    'a disk, no fewer operations and no less throughput',
    [brackwaterCard, 'low-coast'],
    'disk',
    { class: 'steady' },
    [larkfieldCard, 'lk-alpha'],
    { class: 'fast' },
  ],
  [
    'the fastest disk, which nobody else reaches',
    [brackwaterCard, 'low-coast'],
    'disk',
    { class: 'swift' },
    [larkfieldCard, 'lk-alpha'],
    null,
  ],
  [
    'a plain disk on an array that does more',
    [brackwaterCard, 'low-coast'],
    'disk',
    { class: 'plain' },
    [pierHouseCard, 'pier-house'],
    { class: 'array' },
  ],
  ['objects at hand', [brackwaterCard, 'low-coast'], 'object-storage', { class: 'ready' }, [larkfieldCard, 'lk-alpha'], { class: 'hot' }],
  [
    'cool objects, whose minimum stay is longer in the cold class there',
    [brackwaterCard, 'low-coast'],
    'object-storage',
    { class: 'cool' },
    [larkfieldCard, 'lk-alpha'],
    { class: 'hot' },
  ],
  [
    'objects that move by themselves',
    [brackwaterCard, 'low-coast'],
    'object-storage',
    { class: 'self-moving' },
    [larkfieldCard, 'lk-alpha'],
    null,
  ],
  ['a share', [brackwaterCard, 'low-coast'], 'file-share', { class: 'calm' }, [larkfieldCard, 'lk-alpha'], { class: 'general' }],
  ['a faster share', [brackwaterCard, 'low-coast'], 'file-share', { class: 'lively' }, [larkfieldCard, 'lk-alpha'], null],
  [
    'a tier that says only what storage it has',
    [brackwaterCard, 'low-coast'],
    'app-hosting',
    { tier: 'wharf' },
    [larkfieldCard, 'lk-alpha'],
    null,
  ],
  [
    'a licensed engine',
    [brackwaterCard, 'low-coast'],
    'database',
    { size: 'otter-4x16', engine: 'Quillbase' },
    [larkfieldCard, 'lk-beta'],
    { size: 'slate three', engine: 'Quillbase' },
  ],
  [
    'databases where there are none',
    [brackwaterCard, 'low-coast'],
    'database',
    { size: 'otter-4x16' },
    [pierHouseCard, 'pier-house'],
    null,
  ],
  ['a product that only one sells', [larkfieldCard, 'lk-alpha'], 'licence', { product: 'Mossdesk' }, [brackwaterCard, 'low-coast'], null],
  [
    'a product that both sell',
    [larkfieldCard, 'lk-alpha'],
    'licence',
    { product: 'Quillbase' },
    [brackwaterCard, 'low-coast'],
    { product: 'Quillbase' },
  ],
  ['a plan of another provider', [brackwaterCard, 'low-coast'], 'support', { plan: 'hearing' }, [larkfieldCard, 'lk-alpha'], null],
  [
    'a fleet with its share',
    [brackwaterCard, 'low-coast'],
    'desktop-fleet',
    { size: 'otter-8x32', diskClass: 'steady', profilesOn: 'share, calm', work: 'much' },
    [larkfieldCard, 'lk-alpha'],
    { size: 'slate five', diskClass: 'fast', profilesOn: 'share, general', usersPerVcpu: '2.5', profileGb: '20' },
  ],
  [
    'a commitment where nothing can be committed to',
    [brackwaterCard, 'low-coast'],
    'server',
    { size: 'otter-4x16', pays: '3 years, paid monthly' },
    [pierHouseCard, 'pier-house'],
    { size: 'rack-4x16', pays: 'on-demand' },
  ],
]

it.each(table)('%s', (_, [from, region], kind, inputs, [to, target], becomes) => {
  const row = moved(at(from, region, newRow('a', 'p', kind, inputs)), place(to, target))
  if (becomes === null) {
    expect(row.chosen).toBeNull()
    expect(row.notOffered, JSON.stringify(row.inputs)).toBeTruthy()
  } else {
    expect(row.problems).toEqual({})
    expect(row.inputs).toMatchObject(becomes)
    const given = { ...inputs }
    const changed = Object.entries(becomes)
      .filter(([name, value]) => given[name] !== undefined && given[name] !== value && name !== 'sku')
      .map(([name]) => name)
    expect(row.replaced.map(r => r.field)).toEqual(expect.arrayContaining(changed))
  }
})

it('prices the cache elsewhere by its own line: 2 × 730 h × 0.0678 as far-cape prints it are 98.988', () => {
  const estimate = at(brackwaterCard, 'low-coast', newRow('a', 'p', 'metered', { sku: 'BW-LOWCOAST-CACHENODEHOUR-6GB', count: '2' }))
  const printed = findSku(brackwaterCard, 'BW-FARCAPE-CACHENODEHOUR-6GB')!.tiers[0]!.price
  expect(printed).toBe('0.0678')
  expect(figureText(moved(estimate, place(brackwaterCard, 'far-cape')).chosen!.monthly)).toBe('98.988')
})

describe('a line of the same name at another provider', () => {
  const line = (
    meter: RateCard['prices'][number]['meter'],
    variant: string | null,
    unit: RateCard['prices'][number]['unit'],
    price: string,
    includes?: Record<string, string>,
  ): RateCard['prices'][number] => ({
    sku: `T-${meter}-${variant}`,
    service: 'S',
    meter,
    variant,
    region: 'r',
    unit,
    tiering: 'graduated',
    tiers: [{ from: '0', price }],
    ...(includes && { includes }),
  })
  const card = (provider: string, ...prices: RateCard['prices']): RateCard => ({
    provider,
    currency: 'EUR',
    validFrom: '2026-01-01',
    regions: [{ id: 'r', name: 'R' }],
    serverSizes: [],
    prices,
  })
  const between = (from: RateCard, to: RateCard, row: Component) => {
    const estimate: Estimate = {
      ...newEstimate('t', from, 'r'),
      components: [row],
      cards: [from, to].map(c => ({ provider: c.provider, date: c.validFrom, revision: 1 })),
    }
    return moved(estimate, place(to, 'r'), { ...pricesOf(from, to), rates: [] })
  }
  const disk = newRow('a', 'p', 'disk', { class: 'calm', storageGb: '100' })
  const home = card('Home', line('disk-gb-month', 'calm', 'GB-Months', '0.1', { iops: '500', mbps: '60' }))

  it('is not the same thing where it is stated to be less: another class that keeps all stands in, else it is not offered', () => {
    const less = line('disk-gb-month', 'calm', 'GB-Months', '0.05', { iops: '300', mbps: '60' })
    expect(between(home, card('Other', less), disk)).toMatchObject({ chosen: null, notOffered: 'Other has nothing like «calm» in r' })
    const row = between(home, card('Other', less, line('disk-gb-month', 'quick', 'GB-Months', '0.2', { iops: '900', mbps: '60' })), disk)
    expect(row.replaced).toMatchObject([{ from: 'calm', to: 'quick' }])
    expect(figureText(row.chosen!.monthly)).toBe('20')
  })

  it('is the same thing where nothing is said of what it has, or the only line of the meter has no name', () => {
    expect(figureText(between(home, card('Other', line('disk-gb-month', 'calm', 'GB-Months', '0.05')), disk).chosen!.monthly)).toBe('5')
    const [vpn, only] = [card('Home', line('vpn-hour', 'site', 'Hours', '0.04')), card('Other', line('vpn-hour', null, 'Hours', '0.05'))]
    const tunnel = newRow('a', 'p', 'metered', { sku: 'T-vpn-hour-site', count: '2' })
    expect(figureText(between(vpn, only, tunnel).chosen!.monthly)).toBe('73')
    // two lines to choose from, neither of the name: nobody can say which
    expect(
      between(vpn, card('Other', line('vpn-hour', 'a', 'Hours', '0.05'), line('vpn-hour', 'b', 'Hours', '0.05')), tunnel).chosen,
    ).toBeNull()
  })
})

it('keeps what no card prices where it is, in its currency', () => {
  const estimate = at(brackwaterCard, 'low-coast', newRow('a', 'p', 'free-form', { what: 'audit', amount: '640' }))
  expect(figureText(moved(estimate, place(larkfieldCard, 'lk-alpha')).chosen!.monthly)).toBe('640')
  const taken = takeOver({ ...estimate, scenarios: [moveScenario(estimate, place(larkfieldCard, 'lk-alpha'), 's', 's')] }, 's', prices)
  expect(figureText(priceEstimate(taken, prices).total.monthly)).toBe('640')
})

it('follows a row that is changed after the scenario was made', () => {
  const estimate = at(brackwaterCard, 'low-coast', newRow('a', 'p', 'server', { size: 'otter-4x16' }))
  const scenario = moveScenario(estimate, place(larkfieldCard, 'lk-alpha'), 's', 's')
  const larger = { ...estimate, components: [newRow('a', 'p', 'server', { size: 'heron-8x64' })] }
  expect(priceEstimate(larger, prices, scenario).rows[0]!.inputs.size).toBe('slate six')
  // and takes what someone chooses for it there
  expect(priceEstimate(larger, prices, { ...scenario, rows: { a: { size: 'slate nine' } } }).rows[0]!.inputs.size).toBe('slate nine')
})

it('takes the estimate itself elsewhere, and a single row', () => {
  const estimate = at(
    brackwaterCard,
    'low-coast',
    newRow('a', 'p', 'metered', { sku: 'BW-LOWCOAST-CACHENODEHOUR-6GB' }),
    newRow('b', 'p', 'server', { size: 'teal-2x8', where: 'far-cape' }),
    newRow('c', 'p', 'free-form', { amount: '5' }),
  )
  const there = relocate(estimate, prices.cards, place(larkfieldCard, 'lk-alpha'))
  expect(there.components.map(c => [c.inputs.where ?? '', c.inputs.sku ?? c.inputs.size ?? c.inputs.amount])).toEqual([
    ['', 'LK-LKALPHA-CACHENODEHOUR-6GB'],
    ['Brackwater Cloud/far-cape', 'teal-2x8'],
    ['Brackwater Cloud/low-coast', '5'],
  ])
  expect(priceEstimate(there, prices).unpriced).toBe(0)
  expect(rowAt(estimate.components[0]!, 'north-fjord', estimate, prices.cards).inputs).toMatchObject({
    where: 'north-fjord',
    sku: 'BW-NORTHFJORD-CACHENODEHOUR-6GB',
  })
})

it('keeps a row on a newer card by what it is; what is gone is not offered and is named', () => {
  const estimate = at(
    brackwaterCard,
    'low-coast',
    newRow('a', 'p', 'disk', { class: 'plain, old', storageGb: '100' }),
    newRow('b', 'p', 'server', {}),
  )
  const cards = prices.cards
  const { estimate: after, replaced } = priceOnCard(
    estimate,
    cards,
    { provider: brackwaterCard.provider, date: brackwaterNextCard.validFrom, revision: 1 },
    brackwaterNextCard,
  )
  // the old class states 300 operations and 40 MB/s: the cheapest that keeps them is plain
  expect(replaced).toEqual({ a: [{ field: 'class', label: 'class', from: 'plain, old', to: 'plain' }] })
  expect(after.components.map(c => c.inputs.class ?? c.inputs.size)).toEqual(['plain', undefined])
  expect(after.cards[0]).toEqual({ provider: 'Brackwater Cloud', date: '2026-12-01', revision: 1 })
  const without = {
    ...brackwaterNextCard,
    prices: brackwaterNextCard.prices.filter(line => line.meter !== 'disk-gb-month' || line.variant === 'swift'),
  }
  const gone = priceOnCard(estimate, cards, { provider: brackwaterCard.provider, date: '2026-12-01', revision: 1 }, without)
  expect(gone.replaced).toEqual({})
  expect(priceEstimate(gone.estimate, { ...prices, cards: new Map(cards).set(without.provider, without) }).rows[0]!.chosen).toBeNull()
})
