import { describe, expect, it } from 'vitest'
import { Decimal } from '../../../core/money/decimal'
import { rateFinder } from '../../../core/money/rates'
import { readBill } from '../../../core/opportunity/bill/read-bill'
import { billDetectors } from '../../../core/opportunity/detectors'
import { lookThroughBill } from '../../../core/opportunity/bill/look-through-bill'
import { paidNow } from '../../../core/opportunity/bill/billed-resource'
import { costOtherwise, offersFor, usedSkus } from '../../../core/opportunity/otherwise/cost-otherwise'
import type { PricedOffer } from '../../../core/opportunity/otherwise/offer'
import { nothingAsked, type Choice, type OwnRule } from '../../../core/opportunity/own/own-finds'
import type { PriceLine, RateCard, ServerSize } from '../../../core/ratecard/rate-card'
import { toEnd } from '../../../core/spend/slices'
import { evaluate } from '../../../core/working/working'
import { cardOf, END, everyDay, priceLine } from '../../support/daily-charges'
import { outline } from '../../support/outline'
import { cubeOf, type PlainCharge } from '../../support/random-charges'

const size = (name: string, vcpu: number, memoryGb: number, more: Partial<ServerSize> = {}): ServerSize => ({
  ...{ size: name, vcpu, memoryGb, architecture: 'fenn' },
  ...more,
})
const big = priceLine('server-hour', 'big', '0.4', {
  commitments: [
    { years: 1, paid: 'paid monthly', upfrontPrice: '0', hourlyPrice: '0.25' },
    { years: 3, paid: 'part in advance', upfrontPrice: '1800', hourlyPrice: '0.1' },
  ],
})
const there = (line: PriceLine, price: string, region = 'there'): PriceLine => ({
  ...line,
  ...{ sku: `${line.sku}/${region}`, region, tiers: [{ from: '0', price }] },
})
const system = priceLine('system-vcpu-hour', 'Hearth', '0.02', { unit: 'vCPU-Hours' })
const regions = [
  { id: 'here', name: 'Here', residency: 'Isles', zones: 3 },
  { id: 'there', name: 'There', residency: 'Mainland', zones: 1 },
]
const card = cardOf(
  [
    big,
    priceLine('server-hour', 'small', '0.2'),
    priceLine('server-hour', 'other', '0.3'),
    there(big, '0.36'),
    system,
    ...['a third', 'little memory', 'huge'].map(name => priceLine('server-hour', name, '0.1')),
  ],
  {
    regions,
    serverSizes: [
      // beyond half and twice it is another machine
      ...[size('a third', 3, 32), size('little memory', 8, 15), size('huge', 17, 32)],
      size('big', 8, 32),
      size('small', 4, 16),
      size('other', 8, 64, { architecture: 'moor', systems: ['open, no licence'] }),
    ],
  },
)
const elsewhere: RateCard = {
  ...cardOf([
    { ...priceLine('server-hour', 'q8', '0.5'), sku: 'Q8', region: 'q' },
    { ...priceLine('server-hour', 'q2', '0.1'), sku: 'Q2', region: 'q' },
  ]),
  ...{ provider: 'Q', currency: 'USD', regions: [{ id: 'q', name: 'Quay', residency: 'Isles' }] },
  serverSizes: [size('q8', 8, 32), size('q2', 2, 8)],
}
const rates = [{ from: 'USD', to: 'EUR', validFrom: '2026-01-01', rate: '0.9' }]

// m1 runs all day at a tenth off, m2 half of it at list prices, both 30 days and more
const m1 = (more = {}) => everyDay('m1', big, { quantity: '24', cost: '8.64', list: '9.6', ...more })
const m2 = (more = {}) => everyDay('m2', big, { quantity: '12', cost: '4.8', ...more })

function price(charges: PlainCharge[], opened: string | null = null, { cards = [card, elsewhere], known = rates, sku = big.sku } = {}) {
  const facts = { cards: new Map(cards.map(one => [one.provider, one])), charged: {} }
  const resources = toEnd(readBill(cubeOf(charges), facts))
  const find = rateFinder(known)
  return toEnd(costOtherwise(resources, sku, { cards: facts.cards, rate: (from, to) => find(from, to, END) }, opened))!
}
const wayOf = (found: ReturnType<typeof price>, key: string) => found.ways.find(way => way.key === key)!

describe('what it would cost otherwise', () => {
  it('prices each way from what is used now, over all on the SKU', () => {
    const found = price([...m1(), ...m2()])
    // (30 × 8.64 + 30 × 4.80) × 730/720
    expect(found).toMatchObject({ sku: big.sku, provider: 'P', currency: 'EUR', resources: 2, now: '408.8', underSku: '408.8', left: [] })
    expect(Object.fromEntries(found.ways.map(({ key, resources, now, then }) => [key, [resources, now, then]]))).toEqual({
      // 730 h × 0.20 × 0.9 + 365 h × 0.20
      'variant/small': [2, '408.8', '204.4'],
      'variant/other': [2, '408.8', '306.6'],
      // 730 h × 0.36 × 0.9 + 365 h × 0.36
      'region/there': [2, '408.8', '367.92'],
      // each hour for both, whatever m2 uses: 2 × 730 × 0.25
      'pays/1 year, paid monthly': [2, '408.8', '365'],
      // 2 × (730 × 0.10 + 1800 / 36)
      'pays/3 years, part in advance': [2, '408.8', '246'],
      // 1095 h × 0.50 USD × 0.9, without the discount of P
      'provider/Q/q': [2, '408.8', '492.75'],
    })
    expect(wayOf(found, 'variant/small')).toMatchObject({
      gives: '4 vCPU, 16 GB, fenn',
      asks: ['4 of 8 vCPU are enough', '16 of 32 GB are enough'],
    })
    expect(wayOf(found, 'variant/other').asks).toEqual(['it runs on moor'])
    expect(wayOf(found, 'region/there').asks).toEqual(['its data may be in Mainland', 'one zone is enough'])
    // 182.5 / 0.4 = 456.25 hours
    expect(wayOf(found, 'pays/1 year, paid monthly')).toMatchObject({
      asks: ['it runs for the year, 457 of 730 hours a month at least'],
      gives: 'nothing in advance',
    })
    expect(wayOf(found, 'pays/3 years, part in advance').gives).toBe('1800.00 EUR in advance for each')
    expect(wayOf(found, 'provider/Q/q')).toMatchObject({ gives: 'q8, 8 vCPU, 32 GB, fenn, data in Isles', asks: [], lacks: [] })
  })

  it('tells the opened way resource by resource, with workings that come to it', () => {
    const { each } = wayOf(price([...m1(), ...m2()], 'region/there'), 'region/there')
    expect(each!.map(({ resourceName, now, then }) => [resourceName, now, then])).toEqual([
      ['m1', '262.8', '236.52'],
      ['m2', '146', '131.4'],
    ])
    expect(outline(each![0]!.working!)).toEqual([
      'There = 236.52',
      '  S server big in There: running, hours = 236.52',
      '    S server big in Here: running, hours, a month = 730',
      '      of a month = 525600',
      '        Hours in 30 days = 720 Hours [server-hour/big]',
      '        hours a month = 730 h',
      '      hours of these days = 720 h',
      '    price = 0.36 EUR [server-hour/big/there]',
      '    discount as now = 0.9',
      '      effective cost = 259.2',
      '      list cost = 288',
    ])
    expect(evaluate(each![1]!.working!).eq(each![1]!.then!)).toBe(true)
    expect(wayOf(price([...m1()]), 'region/there').each).toBeNull()
  })

  it('moves what is charged beside: by the vCPU with the size, and not where the place has none of it', () => {
    // 8 vCPU × 24 h × 0.02
    const licence = everyDay('m1', system, { quantity: '192', cost: '3.84' })
    const found = price([...m1(), ...licence, ...m2()], 'region/there')
    // 408.8 and 3.84 × 30 × 730/720
    expect(found).toMatchObject({ now: '525.6', underSku: '408.8' })
    // 204.4 and half of 116.8
    expect(wayOf(found, 'variant/small')).toMatchObject({ resources: 2, now: '525.6', then: '262.8' })
    // the licence stays as it is
    expect(wayOf(found, 'pays/1 year, paid monthly').then).toBe('481.8')
    expect(wayOf(found, 'variant/other')).toMatchObject({
      ...{ resources: 1, now: '146', then: '109.5' },
      without: { resources: 1, reasons: ['«other» does not run Hearth'] },
    })
    const moved = wayOf(found, 'region/there')
    expect(moved).toMatchObject({ resources: 1, now: '146', then: '131.4', without: { resources: 1 } })
    expect(moved.without.reasons).toEqual(['There has no «S system Hearth in Here: operating system licence, vCPU hours»'])
    expect(moved.each!.at(-1)).toMatchObject({ resourceName: 'm1', then: null, working: null })
    expect(wayOf(found, 'provider/Q/q').without.reasons).toEqual([
      'Q has nothing in Quay like «S system Hearth in Here: operating system licence, vCPU hours»',
    ])
  })

  it('takes elsewhere only a size that runs the system, and hosts that are bought', () => {
    const licence = everyDay('m1', system, { quantity: '192', cost: '3.84' })
    const sold = { ...system, sku: 'Q-S', region: 'q' }
    const having = (more: Partial<ServerSize>): RateCard => ({
      ...elsewhere,
      prices: [...elsewhere.prices, sold],
      serverSizes: [size('q8', 8, 32, more), size('q2', 2, 8)],
    })
    const at = (other: RateCard) => wayOf(price([...m1(), ...licence], null, { cards: [card, other] }), 'provider/Q/q')
    // 730 h × 0.50 × 0.9 and 5840 vCPU h × 0.02 × 0.9
    expect(at(having({}))).toMatchObject({ resources: 1, then: '433.62' })
    expect(at(having({ systems: ['open, no licence'] })).without.reasons[0]).toContain('nothing in Quay like «S server big')
    expect(at(having({ systems: ['Hearth'] }))).toMatchObject({ resources: 1, then: '433.62' })
  })

  it('offers a licence of one’s own where the card has it, as far as one is free, and another system where things run on that', () => {
    const own = priceLine('system-vcpu-hour', 'Hearth, own licence', '0', { unit: 'vCPU-Hours' })
    const other = priceLine('system-vcpu-hour', 'Loft', '0.01', { unit: 'vCPU-Hours' })
    // 8 vCPU all day: 192 vCPU-hours, 3.84 a day beside 8.64 for the machine
    const charges = [...m1(), ...everyDay('m1', system, { quantity: '192', cost: '3.84' })]
    const found = price(charges, null, { cards: [cardOf([big, system, own, other], { serverSizes: card.serverSizes })], sku: system.sku })
    expect(found).toMatchObject({ now: '379.6', underSku: '116.8' })
    expect(wayOf(found, 'variant/Hearth, own licence')).toMatchObject({
      asks: ['own licences of Hearth are free for it, and may be used there'],
      ...{ then: '262.8', lacks: [] },
    })
    expect(wayOf(found, 'variant/Loft')).toMatchObject({ asks: ['it runs on «Loft»'], then: '321.2', lacks: [] })
  })

  it('names what it cannot price, and why: another currency, no line, committed, ended', () => {
    const strange = everyDay('strange', { ...big, sku: 'constructor' }, { quantity: '24', cost: '1' })
    const found = price([
      ...m2(),
      ...everyDay('dollars', big, { quantity: '24', cost: '9', currency: 'USD' }),
      ...everyDay('committed', big, { quantity: '24', cost: '9', values: { PricingCategory: 'Committed' } }),
      ...everyDay('ended', big, { quantity: '24', cost: '9', to: 5 }),
      ...everyDay('long gone', big, { quantity: '24', cost: '9', to: 40 }),
      ...strange,
    ])
    expect(found.resources).toBe(1)
    expect(Object.fromEntries(found.left.map(({ resourceName, why }) => [resourceName, why]))).toEqual({
      dollars: 'it is charged in USD, the rate card is in EUR',
      committed: 'commitments pay all of it',
      ended: 'it has not been charged for the last three days',
    })
    expect(price(strange, null, { sku: 'constructor' })).toBeNull()
    expect(price(m2(), null, { known: [] }).ways.find(({ kind }) => kind === 'provider')).toMatchObject({
      ...{ resources: 0, then: '0', without: { resources: 1, reasons: ['no rate is known from USD to EUR'] } },
    })
  })

  it('commits to what no commitment pays yet, and prices what is charged in the currency of the card', () => {
    // of three at once two are paid by a commitment: 72 h a day, 48 of them committed
    const covered = everyDay('m1', big, { quantity: '48', cost: '10', values: { PricingCategory: 'Committed' } })
    const dollars = everyDay('m1', big, { quantity: '24', cost: '9', currency: 'USD' })
    const found = price([...dollars, ...covered, ...m1()])
    expect(found).toMatchObject({ resources: 1, now: '262.8' })
    expect(found.left).toEqual([{ resourceId: 'id-m1', resourceName: 'm1', why: 'what is charged in USD is in no amount here' }])
    // one more: 730 h × 0.25
    expect(wayOf(found, 'pays/1 year, paid monthly').then).toBe('182.5')
    expect(wayOf(found, 'variant/small').then).toBe('131.4')
  })

  it('lists the SKUs that can be priced otherwise, the dearest first', () => {
    const facts = { cards: new Map([['P', card]]), charged: {} }
    const charges = [...m1(), ...m2(), ...everyDay('m3', system, { quantity: '960', cost: '19.2' })]
    const resources = toEnd(readBill(cubeOf(charges), facts))
    // 19.2 × 30 × 730/720 = 584
    expect(usedSkus(resources, () => true).map(({ sku, resources: count, monthly }) => [sku, count, monthly])).toEqual([
      [system.sku, 1, '584'],
      [big.sku, 2, '408.8'],
    ])
    expect(usedSkus(resources, ({ name }) => name === 'm2').map(({ monthly }) => monthly)).toEqual(['146'])
  })
})

describe('disks and classes', () => {
  const plain = priceLine('disk-gb-month', 'plain', '0.10', { includes: { iops: '100', mbps: '50', iopsMost: '8000' } })
  const fast = priceLine('disk-gb-month', 'fast', '0.16', { includes: { iops: '3000', mbps: '100' } })
  const slow = priceLine('disk-gb-month', 'slow', '0.05', { includes: { iops: '100', mbps: '20' } })
  const bought = priceLine('disk-iops-month', 'plain', '0.01')
  const passes = priceLine('disk-transactions', 'slow', '0.3', { unit: '1000000 Requests' })
  const disks = cardOf([plain, fast, slow, bought, passes])
  // 300 GB-months and 4000 operations bought in 30 days: 304.16… GB-months, 4055.5… bought a month
  const disk = [
    ...everyDay('d', plain, { quantity: '10', cost: '1' }),
    ...everyDay('d', bought, { quantity: '133.333333333333333', cost: '1.333333333333333' }),
  ]

  it('a disk is told its other class, with as much performance bought as it has now; a class of anything else takes a person', () => {
    const quick = priceLine('disk-gb-month', 'quick', '0.08', { includes: { iops: '500', mbps: '50', iopsMost: '4000' } })
    const buys = priceLine('disk-iops-month', 'quick', '0.001')
    const facts = { cards: new Map([['P', cardOf([plain, bought, quick, buys, fast])]]), charged: {} }
    const told = (charges: PlainCharge[], line: PriceLine, key: string, card = facts.cards) => {
      const [resource] = toEnd(readBill(cubeOf(charges), { ...facts, cards: card }))
      const offer = offersFor(resource!, paidNow(resource!, line.sku)!, { cards: card, rate: () => null }).find(one => one.key === key)
      return (offer as PricedOffer).instruction
    }
    const change = { type: 'disk', deed: 'change class', from: 'plain' }
    // 4156 had, 4000 to be had at most, 500 of them in its price
    expect(told(disk, plain, 'variant/quick')).toEqual({ ...change, to: 'quick', iops: '3500' })
    expect(told(disk, plain, 'variant/fast')).toEqual({ ...change, to: 'fast' })
    const cards = new Map([['P', cardOf([kept, cold])]])
    expect(told(everyDay('o', kept, { quantity: '72', cost: '1.44' }), kept, 'variant/cold', cards)).toBeUndefined()
  })

  it('a class that gives less says so; what it would charge and nobody knows is said to lack', () => {
    const found = price(disk, null, { cards: [disks], sku: plain.sku })
    expect(wayOf(found, 'variant/fast')).toMatchObject({ asks: ['3000 of 4156 operations a second are enough'], lacks: [] })
    // 304.1666… × 0.16
    expect(new Decimal(wayOf(found, 'variant/fast').then).round(6).toFixed()).toBe('48.666667')
    expect(wayOf(found, 'variant/slow')).toMatchObject({
      asks: ['100 of 4156 operations a second are enough', '20 of 50 MB a second are enough'],
      lacks: ['transactions, 0.3 for each million: the bill does not tell how many there are'],
    })
  })

  const kept = priceLine('object-gb-month', 'ready', '0.02', { includes: { minimumDays: '0', hoursToFetch: '0' }, service: 'O' })
  const reads = priceLine('object-read-1000', 'ready', '0.004', { service: 'O' })
  const cold = priceLine('object-gb-month', 'cold', '0.004', { includes: { minimumDays: '90', hoursToFetch: '5' }, service: 'O' })
  const coldReads = priceLine('object-read-1000', 'cold', '0.01', { service: 'O' })
  const fetched = priceLine('object-retrieval-gb', 'cold', '0.02', { service: 'O' })

  it('says what is there for its own sake and would be missing', () => {
    const watched = priceLine('object-watch-1000', 'ready', '0.01', { unit: '1000 Objects', service: 'O' })
    const charges = [...everyDay('o', kept, { quantity: '72', cost: '1.44' }), ...everyDay('o', watched, { quantity: '1', cost: '0.01' })]
    const way = wayOf(price(charges, null, { cards: [cardOf([kept, watched, cold])], sku: kept.sku }), 'variant/cold')
    // 2190 GB-months × 0.004
    expect(way).toMatchObject({ then: '8.76', lacks: [] })
    expect(way.asks).toContain('it does without «objects watched for moving, thousands»')
  })

  it('what is charged beside a class is charged as the other has it', () => {
    const charges = [...everyDay('o', kept, { quantity: '72', cost: '1.44' }), ...everyDay('o', reads, { quantity: '240', cost: '0.96' })]
    const [without, withFetching] = [[], [fetched]].map(more =>
      wayOf(price(charges, null, { cards: [cardOf([kept, reads, cold, coldReads, ...more])], sku: kept.sku }), 'variant/cold'),
    )
    // 2190 GB-months × 0.004 and 7300 thousands × 0.01; now 43.80 and 29.20
    expect(without).toMatchObject({
      ...{ now: '73', then: '81.76', lacks: [] },
      asks: ['«kept 90 days at least» will do', '«fetched within 5 hours» will do'],
    })
    expect(withFetching!.lacks).toEqual(['retrieved, GB, 0.02 per GB: the bill does not tell how much'])
  })
})

describe('what people look for themselves', () => {
  const find = (charges: PlainCharge[], asked: Partial<typeof nothingAsked>) => {
    const facts = { cards: new Map([card, elsewhere].map(one => [one.provider, one])), charged: {} }
    const rate = (from: string, to: string) => rateFinder(rates)(from, to, END)
    const own = { asked: { ...nothingAsked, ...asked }, rate }
    const { found } = toEnd(lookThroughBill(cubeOf(charges), facts, billDetectors, () => ({ saved: 90 }), undefined, own))
    return found.filter(({ detector }) => detector === 'chosen-otherwise' || detector === 'own-rule')
  }
  const choice = (key: string, more: Partial<Choice> = {}): Choice => ({ provider: 'P', resourceId: 'id-m1', sku: big.sku, key, ...more })

  it('what was chosen is an opportunity of its own, as long as it saves', () => {
    const [found, ...others] = find([...m1(), ...m2()], { chosen: [choice('variant/small')] })
    expect(others).toEqual([])
    expect(found).toMatchObject({
      ...{ id: `chosen-otherwise/P/id-m1/${big.sku}`, title: 'm1 as «small»', monthlySaving: '131.4', risk: 'some', minutesOfWork: 30 },
      instruction: { type: 'server', deed: 'change size', from: 'big', to: 'small' },
      effects: [{ resourceId: 'id-m1', sku: big.sku, how: 'cheaper', now: '262.8', then: '131.4' }],
    })
    expect(found!.evidence.series[0]!.said).toBe(
      '«small» was chosen for it. It has to hold that 4 of 8 vCPU are enough; 16 of 32 GB are enough.',
    )
    for (const nothing of ['provider/Q/q', 'variant/none', 'variant/constructor'])
      expect(find(m1(), { chosen: [choice(nothing)] })).toEqual([])
    expect(
      find(m1(), { chosen: [choice('variant/small', { provider: 'constructor' }), choice('variant/small', { resourceId: 'm1' })] }),
    ).toEqual([])
  })

  const rule = (more: Partial<OwnRule> = {}): OwnRule => ({
    ...{ id: 'r', name: 'rehearsal too dear', above: '146', currency: 'EUR' },
    scope: { keep: { SubAccountName: ['live'] }, leaveOut: {} },
    ...more,
  })

  it('a rule of one’s own finds what costs so much within its Sentence, at that very amount too', () => {
    const titles = (own: OwnRule, charges = [...m1(), ...m2()]) =>
      find(charges, { rules: [own] }).map(({ title, monthlySaving }) => `${title} ${monthlySaving}`)
    expect(titles(rule())).toEqual(['m1: rehearsal too dear 262.8', 'm2: rehearsal too dear 146'])
    expect(titles(rule({ above: '146.0000000001' }))).toEqual(['m1: rehearsal too dear 262.8'])
    expect(titles(rule({ currency: 'USD' }))).toEqual([])
    expect(titles(rule({ scope: { keep: { SubAccountName: ['rehearsal'] }, leaveOut: {} } }))).toEqual([])
    expect(titles(rule({ scope: { keep: {}, leaveOut: { ResourceName: ['m1'] } } }))).toEqual(['m2: rehearsal too dear 146'])
    // what has ended costs nothing any more
    expect(
      titles(rule({ above: '1' }), [
        ...m1({ to: 4 }),
        ...m2({ to: 2 }),
        ...everyDay('on', big, { quantity: '1', cost: '0.4', values: { SubAccountName: 'x' } }),
      ]),
    ).toEqual(['m2: rehearsal too dear 136.2666666667'])
    // a lookup that is gone finds nothing, and keeps nothing else back
    expect(titles(rule({ scope: { keep: { 'Lookup/gone/field': ['x'] }, leaveOut: {} } }))).toEqual([])
    expect(titles(rule({ scope: { keep: { ChargeCategory: ['Credit'], Source: ['another'] }, leaveOut: {} } }))).toEqual([])
  })

  it('counts only what is charged within the Sentence', () => {
    const licence = everyDay('m1', system, { quantity: '192', cost: '3.84' })
    const [found] = find([...m1(), ...licence], { rules: [rule({ scope: { keep: { SkuId: [system.sku] }, leaveOut: {} }, above: '100' })] })
    expect(found).toMatchObject({ monthlySaving: '116.8', effects: [{ sku: system.sku, how: 'gone', now: '116.8', then: '0' }] })
  })
})
