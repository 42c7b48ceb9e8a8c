import { describe, expect, it } from 'vitest'
import type { ThresholdDetector } from '../../../core/opportunity/detector'
import { billDetectors } from '../../../core/opportunity/detectors'
import { lookThroughBill } from '../../../core/opportunity/bill/look-through-bill'
import { chargedFor } from '../../../core/ratecard/describe'
import type { RateCard } from '../../../core/ratecard/rate-card'
import { toEnd } from '../../../core/spend/slices'
import { evaluate } from '../../../core/working/working'
import { cardOf, END, everyDay, priceLine } from '../../support/daily-charges'
import { outline } from '../../support/outline'
import { cubeOf, type PlainCharge } from '../../support/random-charges'

const usual = ({ thresholds }: ThresholdDetector) => Object.fromEntries(thresholds.map(({ key, usual }) => [key, usual]))

/** What is found in charges: all that is, or what one detector finds with some thresholds set otherwise. */
function find(charges: PlainCharge[], card: RateCard | null, only?: string, set: Record<string, number> = {}) {
  const facts = {
    cards: new Map(card ? [[card.provider, card]] : []),
    charged: Object.fromEntries((card?.prices ?? []).map(line => [line.sku, chargedFor(line)])),
  }
  const cube = cubeOf(charges)
  const settings = (detector: ThresholdDetector) => ({ ...usual(detector), ...set })
  const { found } = toEnd(lookThroughBill(cube, facts, billDetectors, settings))
  for (const { working, monthlySaving, effects } of found) {
    expect(evaluate(working).round(10).eq(monthlySaving)).toBe(true)
    const saved = effects.reduce((sum, { now, then }) => sum + Number(now) - Number(then), 0)
    expect(saved).toBeCloseTo(Number(monthlySaving), 6)
  }
  return only ? found.filter(({ detector }) => detector === only) : found
}

// a month of 730 hours is 73/72 of 30 days
describe('fees without use', () => {
  const hour = priceLine('gateway-hour', null, '0.05')
  const gb = priceLine('gateway-gb', null, '0.04')
  const card = cardOf([hour, gb])
  const busy = [...everyDay('busy', hour, { quantity: '24', cost: '1.2' }), ...everyDay('busy', gb, { quantity: '10', cost: '0.4' })]
  const idle = (more = {}) => everyDay('idle', hour, { quantity: '24', cost: '1.2', ...more })

  it('finds what is paid by the hour and not used, at what it costs now', () => {
    const [found, ...others] = find([...busy, ...idle()], card)
    expect(others).toEqual([])
    expect(found).toMatchObject({
      ...{ id: 'fee-without-use/P/id-idle', detector: 'fee-without-use', resourceName: 'idle', subAccountName: 'live', currency: 'EUR' },
      // 30 days × 1.20 × 73/72
      ...{ monthlySaving: '36.5', confidence: 'from the bill', oneOff: null },
      effects: [{ resourceId: 'id-idle', sku: 'gateway-hour/', how: 'gone', now: '36.5', then: '0' }],
    })
    expect(outline(found!.working)).toEqual([
      'saved a month = 36.5',
      '  now = 36.5',
      '    S gateway in Here: existing, hours = 36.5',
      '      of a month = 26280',
      '        effective cost in 30 days = 36 EUR [gateway-hour/]',
      '        hours a month = 730 h',
      '      hours of these days = 720 h',
      '  then = 0',
    ])
    expect(found!.evidence).toMatchObject({ from: '2026-07-31', to: END })
    expect(found!.evidence.series[0]!.days).toHaveLength(60)
  })

  it('tells use that is noise from use that is none', () => {
    // 1 % of 14 × 1.20 is 0.168
    const used = (cost: string) => [...busy, ...idle(), ...everyDay('idle', gb, { quantity: '0.1', cost, from: 3, to: 2 })]
    expect(find(used('0.168'), card)).toHaveLength(1)
    expect(find(used('0.169'), card)).toEqual([])
    expect(find(used('0.169'), card, undefined, { noise: 2 })).toHaveLength(1)
    // a part of a percent is one too: 0.5 % are 0.084
    expect(find(used('0.084'), card, undefined, { noise: 0.5 })).toHaveLength(1)
    expect(find(used('0.085'), card, undefined, { noise: 0.5 })).toEqual([])
    // what was used before the days looked at does not matter
    expect(find([...busy, ...idle(), ...everyDay('idle', gb, { quantity: '9', cost: '9', from: 20, to: 14 })], card)).toHaveLength(1)
    expect(find([...busy, ...idle(), ...everyDay('idle', gb, { quantity: '9', cost: '9', from: 20, to: 13 })], card)).toEqual([])
  })

  it('asks for as many days as are set, and for a charge to the last', () => {
    expect(find([...busy, ...idle({ from: 14 })], card)).toHaveLength(1)
    expect(find([...busy, ...idle({ from: 12 })], card)).toEqual([])
    expect(find([...busy, ...idle({ from: 12 })], card, undefined, { days: 7 })).toHaveLength(1)
    expect(find([...busy, ...idle({ to: 3 })], card)).toEqual([])
  })

  it('says nothing where nobody of the service is charged for use, or nobody knows what is', () => {
    expect(find(idle(), card)).toEqual([])
    expect(find([...busy, ...idle()], null)).toEqual([])
  })

  it('promises nothing of what a commitment goes on to pay', () => {
    const committed = idle({ values: { PricingCategory: 'Committed' } })
    expect(find([...busy, ...committed], card)).toEqual([])
    const half = [
      ...idle({ cost: '0.6', quantity: '12' }),
      ...idle({ cost: '0.5', quantity: '12', values: { PricingCategory: 'Committed' } }),
    ]
    expect(find([...busy, ...half], card)[0]).toMatchObject({ monthlySaving: '18.25' })
  })

  it('keeps currencies and providers apart', () => {
    const dollars = idle({ currency: 'USD' })
    expect(find([...busy, ...dollars], card)[0]).toMatchObject({ currency: 'USD', monthlySaving: '36.5' })
    const elsewhere = idle({ values: { ProviderName: 'constructor' } })
    expect(find([...busy, ...elsewhere], card)).toEqual([])
  })
})

describe('disks that outlived their machine', () => {
  const hour = priceLine('server-hour', 'm', '0.1')
  const disk = priceLine('disk-gb-month', 'plain', '0.06')
  const card = cardOf([hour, disk], { serverSizes: [{ size: 'm', vcpu: 2, memoryGb: 8 }] })
  const kept = (name: string, more = {}) => everyDay(name, disk, { quantity: '10', cost: '0.6', ...more })
  const ran = (name: string, more = {}) => everyDay(name, hour, { quantity: '24', cost: '2.4', ...more })
  const names = (charges: PlainCharge[], set = {}) => find(charges, card, 'disk-left-behind', set).map(({ resourceName }) => resourceName)

  it('finds a disk by the name of its machine, however long ago that ended', () => {
    const [found] = find([...ran('rig', { from: 300, to: 250 }), ...kept('rig-disk-1')], card)
    expect(found).toMatchObject({ detector: 'disk-left-behind', title: 'rig-disk-1 outlived rig', monthlySaving: '18.25', risk: 'some' })
    // nobody says what a snapshot costs here
    expect(found!.oneOff).toBeNull()
    expect(found!.evidence.series[1]!.said).toContain('what it costs is on no rate card and not counted')
    // of 60 days the machine ran on none; 10 GB-months a day are 300 or 310 GB
    expect(found!.evidence.series.map(({ days }) => [days[0]!.value, days.at(-1)!.value])).toEqual([
      [0, 0],
      [310, 300],
    ])
  })

  it('counts the snapshot that is taken first, for a month, in the currency of the card alone', () => {
    const copy = priceLine('snapshot-gb-month', null, '0.05', {
      tiers: [
        { from: '0', price: '0.05' },
        { from: '100', price: '0.02' },
      ],
    })
    const priced = cardOf([hour, disk, copy], { serverSizes: card.serverSizes })
    const charges = (more = {}) => [...ran('rig', { to: 30 }), ...kept('rig-disk', more)]
    // 300 GB-months in 30 days, 73/72 of that a month, at the dearest tier
    expect(find(charges(), priced)[0]!.oneOff!.amount).toBe('15.2083333333')
    expect(find(charges(), priced)[0]!.evidence.series[1]!.said).toContain('A snapshot is taken first, and is counted for a month.')
    expect(find(charges({ currency: 'USD' }), priced)[0]).toMatchObject({ currency: 'USD', oneOff: null })
    // of two kinds of the disk nobody knows which a snapshot is of
    const other = priceLine('disk-gb-month', 'quick', '0.09')
    const both = [...charges(), ...everyDay('rig-disk', other, { quantity: '5', cost: '0.45' })]
    const cards = cardOf([hour, disk, copy, other], { serverSizes: card.serverSizes })
    expect(find(both, cards).find(({ detector }) => detector === 'disk-left-behind')).toMatchObject({
      monthlySaving: '31.9375',
      oneOff: null,
    })
  })

  it('goes by the longest name, whole words, and the sub account', () => {
    const both = [...ran('rig'), ...ran('rig-1', { to: 30 })]
    expect(names([...both, ...kept('rig-1-disk'), ...kept('rig-2-disk')])).toEqual(['rig-1-disk'])
    expect(names([...ran('rig', { to: 30 }), ...kept('rigging')])).toEqual([])
    expect(names([...ran('rig', { to: 30 }), ...kept('rig-disk', { values: { SubAccountName: 'build' } })])).toEqual([])
  })

  it('waits as many days as are set, and wants the disk charged to the last', () => {
    expect(names([...ran('rig', { to: 7 }), ...kept('rig-disk')])).toEqual(['rig-disk'])
    expect(names([...ran('rig', { to: 6 }), ...kept('rig-disk')])).toEqual([])
    expect(names([...ran('rig', { to: 6 }), ...kept('rig-disk')], { days: 3 })).toEqual(['rig-disk'])
    expect(names([...ran('rig', { to: 30 }), ...kept('other'), ...kept('rig-disk', { to: 3 })])).toEqual([])
    expect(names([...ran('rig', { to: 30 }), ...kept('other'), ...kept('rig-disk', { to: 2 })])).toEqual(['rig-disk'])
  })

  it('leaves the disk of a machine that was made anew under its name', () => {
    const anew = ran('rig', { from: 5, values: { ResourceId: 'other' } })
    expect(names([...ran('rig', { to: 30 }), ...anew, ...kept('rig-disk')])).toEqual([])
  })
})

describe('stopped, and still paid for', () => {
  const hour = priceLine('database-hour', 'm', '0.5')
  const gb = priceLine('database-gb-month', null, '0.12')
  const card = cardOf([hour, gb], { serverSizes: [{ size: 'm', vcpu: 2, memoryGb: 8 }] })
  const stands = (to: number, from = 70) => [
    ...everyDay('db', hour, { quantity: '24', cost: '12', from, to }),
    ...everyDay('db', gb, { quantity: '5', cost: '0.6' }),
  ]

  it('finds what stands still for as long as is set, and saves what is kept for it', () => {
    expect(find(stands(14), card)).toMatchObject([
      { detector: 'stopped-still-paid', monthlySaving: '18.25', title: 'db stands still and is paid for' },
    ])
    expect(find(stands(13), card)).toEqual([])
    expect(find(stands(13), card, undefined, { days: 7 })).toHaveLength(1)
  })

  it('says nothing of what has not run for two months: another finding, if any', () => {
    expect(find(stands(61, 90), card)).toEqual([])
    expect(find(stands(59, 90), card)).toHaveLength(1)
  })
})

describe('snapshots that only grow', () => {
  const gb = priceLine('snapshot-gb-month', null, '0.05')
  const card = cardOf([gb])
  /** GB-months a day of so many GB, in a month of 730 hours. */
  const aDay = (kept: number) => String((kept * 24) / 730)
  const grown = (was: number, is: number, from = 61) => [
    ...everyDay('chain', gb, { quantity: aDay(was), cost: '1', from, to: 30 }),
    ...everyDay('chain', gb, { quantity: aDay(is), cost: '2', from: 30 }),
  ]

  it('offers what has come within a month, at what it costs', () => {
    // 60 × 73/72 now; 1000 of 1250 GB are left: a fifth is saved
    const [found] = find(grown(1000, 1250), card)
    expect(found).toMatchObject({ detector: 'snapshots-growing', title: 'chain has grown by 25 % in a month' })
    expect(Number(found!.monthlySaving)).toBeCloseTo((60 * 73) / 72 / 5, 8)
    expect(found!.effects[0]).toMatchObject({ how: 'less' })
  })

  it('goes by percent and by GB', () => {
    expect(find(grown(1000, 1201), card)).toHaveLength(1)
    expect(find(grown(1000, 1199), card)).toEqual([])
    expect(find(grown(500, 701), card)).toHaveLength(1)
    expect(find(grown(500, 699), card)).toEqual([])
    expect(find(grown(500, 699), card, undefined, { size: 100 })).toHaveLength(1)
    expect(find(grown(1000, 800), card)).toEqual([])
    // what was not there two months ago, or not before the bill begins, cannot be compared
    expect(find(grown(1000, 2000, 60), card)).toEqual([])
    expect(find(everyDay('chain', gb, { quantity: '50', cost: '2', from: 30 }), card)).toEqual([])
  })
})

describe('logs kept longer than needed', () => {
  const kept = priceLine('logs-kept-gb-month', null, '0.05')
  const came = priceLine('logs-ingested-gb', null, '0.5')
  const card = cardOf([kept, came])
  const aDay = (gb: number) => String((gb * 24) / 730)
  const logs = (gb: number, comes: string | null, from = 70) => [
    ...everyDay('log', kept, { quantity: aDay(gb), cost: '2', from }),
    ...(comes ? everyDay('log', came, { quantity: comes, cost: '1', from }) : []),
  ]
  const look = (charges: PlainCharge[], set = {}) => find(charges, card, 'logs-kept-long', set)

  it('offers what is older than is needed, at what keeping costs now', () => {
    // 60 × 73/72 a month for 120 days of 10 GB; 90 of them are left: a quarter is saved
    const [found] = look(logs(1200, '10'))
    expect(found).toMatchObject({ title: 'log keeps logs for 120 days', effects: [{ sku: 'logs-kept-gb-month/', how: 'less' }] })
    expect(Number(found!.monthlySaving)).toBeCloseTo((60 * 73) / 72 / 4, 8)
    expect(found!.evidence.series[0]).toMatchObject({
      said: '1200 GB are kept and 10 GB come in on a day: 120 days.',
      threshold: { value: 900 },
    })
    // on a bill of twenty days the same
    expect(look(logs(1200, '10', 20))[0]).toMatchObject({ title: 'log keeps logs for 120 days' })
  })

  it('says nothing at the limit, below what is worth it, and where nothing comes in', () => {
    expect(look(logs(900, '10'), { saved: 0 })).toEqual([])
    expect(look(logs(901, '10'), { saved: 0 })).toHaveLength(1)
    // 1078 GB: 60.83 × (1 − 900 / 1078) = 10.04; 1076: 9.95
    expect(look(logs(1078, '10'))).toHaveLength(1)
    expect(look(logs(1076, '10'))).toEqual([])
    expect(look(logs(1200, '10'), { longest: 120 })).toEqual([])
    expect(look(logs(1200, null))).toEqual([])
    expect(look(logs(1200, '0'))).toEqual([])
  })
})

describe('old generation', () => {
  const old = priceLine('disk-gb-month', 'old', '0.10', {
    includes: { iops: '300', mbps: '40', iopsMost: '300', mbpsMost: '40', zones: '1' },
  })
  const anew = (price: string, includes = {}) =>
    priceLine('disk-gb-month', 'new', price, {
      includes: { iops: '500', mbps: '60', iopsMost: '500', mbpsMost: '60', zones: '1', ...includes },
    })
  const per = priceLine('disk-transactions', 'new', '0.5', { unit: '1000000 Requests' })
  const bought = priceLine('disk-iops-month', 'old', '0.01')
  const disk = (more = {}) => everyDay('d', old, { quantity: '10', cost: '1', ...more })
  const of = (charges: PlainCharge[], card: RateCard, set = {}) => find(charges, card, 'better-class', set)

  it('offers the cheapest class that gives at least as much', () => {
    const card = cardOf([
      old,
      anew('0.06'),
      priceLine('disk-gb-month', 'slow', '0.01', { includes: { iops: '299', mbps: '60', zones: '1' } }),
    ])
    const [found] = of(disk(), card)
    // 300 GB-months in 30 days × 73/72 × (0.10 − 0.06)
    expect(Number(found!.monthlySaving)).toBeCloseTo((300 * 73 * 0.04) / 72, 8)
    expect(found!.title).toBe('d would have more for less as «new»')
    expect(of(disk(), cardOf([old, anew('0.06', { mbpsMost: '39' })]))).toEqual([])
    expect(of(disk(), cardOf([old, anew('0.06', { zones: '0' })]))).toEqual([])
  })

  it('wants as much less as is set', () => {
    expect(of(disk(), cardOf([old, anew('0.095')]))).toHaveLength(1)
    expect(of(disk(), cardOf([old, anew('0.0951')]))).toEqual([])
    expect(of(disk(), cardOf([old, anew('0.0951')]), { saved: 4 })).toHaveLength(1)
  })

  it('goes by the discount that is had now', () => {
    // half of the list price is paid: half of the difference is saved
    const [found] = of(disk({ list: '2' }), cardOf([old, anew('0.06')]))
    expect(Number(found!.monthlySaving)).toBeCloseTo((30 * 73) / 72 - ((300 * 73) / 72) * 0.06 * 0.5, 8)
  })

  it('reckons with what disks of the other class are charged for use, and leaves those with bought performance', () => {
    const other = [...everyDay('e', anew('0.06'), { quantity: '10', cost: '0.6' }), ...everyDay('e', per, { quantity: '1', cost: '0.2' })]
    const card = cardOf([old, anew('0.06'), per, bought])
    // 0.02 for each GB-month beside: 0.02 of the 0.04 are left
    const [found] = of([...disk(), ...other], card)
    expect(Number(found!.monthlySaving)).toBeCloseTo((300 * 73 * 0.02) / 72, 8)
    // what others are charged in another currency is not added to it
    const dollars = [
      ...everyDay('f', anew('0.06'), { quantity: '10', cost: '0.6', currency: 'USD' }),
      ...everyDay('f', per, { quantity: '1', cost: '9', currency: 'USD' }),
    ]
    expect(of([...disk(), ...other, ...dollars], card)[0]!.monthlySaving).toBe(found!.monthlySaving)
    expect(of([...disk(), ...everyDay('d', bought, { quantity: '1', cost: '0.01' })], card)).toEqual([])
  })

  it('compares nothing in two currencies, and sizes only of one architecture', () => {
    expect(of(disk({ currency: 'USD' }), cardOf([old, anew('0.06')]))).toEqual([])
    const [a, b] = [priceLine('server-hour', 'a', '0.2'), priceLine('server-hour', 'b', '0.1')]
    const sizes = (architecture: string, memoryGb = 8) => [
      { size: 'a', vcpu: 2, memoryGb: 8, architecture: 'x' },
      { size: 'b', vcpu: 2, memoryGb, architecture },
    ]
    const machine = everyDay('m', a, { quantity: '24', cost: '4.8' })
    expect(of(machine, cardOf([a, b], { serverSizes: sizes('x') }))).toMatchObject([{ monthlySaving: '73' }])
    expect(of(machine, cardOf([a, b], { serverSizes: sizes('y') }))).toEqual([])
    expect(of(machine, cardOf([a, b], { serverSizes: sizes('x', 7.9) }))).toEqual([])
  })
})

describe('several zones outside live', () => {
  const includes = { iops: '500', mbps: '60', iopsMost: '500', mbpsMost: '60' }
  const two = priceLine('disk-gb-month', 'both', '0.10', { includes: { ...includes, zones: '2' } })
  const one = priceLine('disk-gb-month', 'single', '0.06', { includes: { ...includes, zones: '1' } })
  const [iopsTwo, iopsOne] = [priceLine('disk-iops-month', 'both', '0.02'), priceLine('disk-iops-month', 'single', '0.01')]
  const card = cardOf([two, one, iopsTwo, iopsOne])
  const disk = (environment: string | null, line = two) =>
    everyDay('d', line, { quantity: '10', cost: '1', tags: environment === null ? {} : { environment } })
  const of = (charges: PlainCharge[], among = card) => find(charges, among, 'zones-outside-live')

  it('finds disks that are tagged as not live, and changes what was bought for them too', () => {
    expect(Number(of(disk('rehearsal'))[0]!.monthlySaving)).toBeCloseTo((300 * 73 * 0.04) / 72, 8)
    const bought = everyDay('d', iopsTwo, { quantity: '50', cost: '1', tags: { environment: 'rehearsal' } })
    expect(Number(of([...disk('rehearsal'), ...bought])[0]!.monthlySaving)).toBeCloseTo((300 * 73 * 0.04) / 72 + (1500 * 73 * 0.01) / 72, 8)
  })

  it('offers nothing where what was bought cannot be had in one zone', () => {
    const bought = everyDay('d', iopsTwo, { quantity: '50', cost: '1', tags: { environment: 'rehearsal' } })
    expect(of([...disk('rehearsal'), ...bought], cardOf([two, one, iopsTwo]))).toEqual([])
  })

  it('leaves what is live, what nobody says, and what stands in one zone', () => {
    for (const environment of ['live', 'Production', null]) expect(of(disk(environment))).toEqual([])
    expect(of(disk('rehearsal', one))).toEqual([])
    expect(
      of(disk('rehearsal'), cardOf([two, priceLine('disk-gb-month', 'single', '0.096', { includes: { ...includes, zones: '1' } })])),
    ).toEqual([])
    expect(
      of(
        disk('rehearsal'),
        cardOf([two, priceLine('disk-gb-month', 'single', '0.06', { includes: { ...includes, mbps: '50', zones: '1' } })]),
      ),
    ).toEqual([])
  })
})

describe('storage warmer than its use', () => {
  const warm = priceLine('object-gb-month', 'warm', '0.02')
  const cool = (more = {}) => priceLine('object-gb-month', 'cool', '0.01', { includes: { minimumDays: '30', hoursToFetch: '0', ...more } })
  const reads = ['warm', 'cool'].map((variant, i) => priceLine('object-read-1000', variant, ['0.0005', '0.001'][i]!))
  const writes = ['warm', 'cool'].map((variant, i) => priceLine('object-write-1000', variant, ['0.005', '0.01'][i]!))
  const fetched = priceLine('object-retrieval-gb', 'cool', '0.008', { unit: 'GB' })
  const card = (more = {}) => cardOf([warm, cool(more), ...reads, ...writes, fetched])
  const store = (thousands: string) => [
    ...everyDay('s', warm, { quantity: '100', cost: '2' }),
    ...everyDay('s', reads[0]!, { quantity: thousands, cost: String(Number(thousands) * 0.0005) }),
  ]
  const of = (charges: PlainCharge[], more = {}, set = {}) => find(charges, card(more), 'storage-too-warm', set)

  it('prices storing, reading and fetching in the cooler class, and moving once', () => {
    // a day: 100 × 0.01 less for storing; 10 × 0.0005 more for reading; 40 GB fetched at 0.008
    const [found] = of(store('10'))
    expect(Number(found!.monthlySaving)).toBeCloseTo((30 * 73 * (1 - 0.005 - 0.32)) / 72, 8)
    // 3,041.67 GB are 760.42 thousand objects of 4 MB, each written once at 0.01 a thousand
    expect(Number(found!.oneOff!.amount)).toBeCloseTo(((3000 * 73) / 72 / 4) * 0.01, 8)
    expect(found!.title).toBe('s asks for «cool», not «warm»')
    expect(found!.evidence.series[0]!.said).toContain('at 4 MB an object, which is assumed')
  })

  it('offers nothing where reading eats it up, by the size that is assumed', () => {
    // even at 30.77 thousand reads a day
    expect(of(store('30'), {}, { saved: 0 })).toHaveLength(1)
    expect(of(store('31'), {}, { saved: 0 })).toEqual([])
    expect(of(store('31'), {}, { saved: 0, size: 3 })).toHaveLength(1)
  })

  it('keeps to hours, days and the least that is worth it', () => {
    expect(of(store('1'), { hoursToFetch: '1' })).toEqual([])
    expect(of(store('1'), { hoursToFetch: '1' }, { hours: 1 })).toHaveLength(1)
    expect(of(store('1'), { minimumDays: '31' })).toEqual([])
    const worth = Number(of(store('1'))[0]!.monthlySaving)
    expect(of(store('1'), {}, { saved: worth - 0.01 })).toHaveLength(1)
    expect(of(store('1'), {}, { saved: worth + 0.01 })).toEqual([])
  })
})

it('promises nothing by a bill of fewer than 14 days', () => {
  const [hour, disk] = [priceLine('server-hour', 'a', '0.2'), priceLine('server-hour', 'b', '0.1')]
  const sizes = ['a', 'b'].map(size => ({ size, vcpu: 2, memoryGb: 8, architecture: 'x' }))
  const bill = (from: number) =>
    find(everyDay('m', hour, { quantity: '24', cost: '4.8', from }), cardOf([hour, disk], { serverSizes: sizes }))
  expect(bill(14)).toMatchObject([{ id: 'better-class/P/id-m/server-hour/a', monthlySaving: '73' }])
  expect(bill(13)).toEqual([])
})

it('looks at each source to its own last day, and at none that has stopped delivering', () => {
  const hour = priceLine('gateway-hour', null, '0.05')
  const gb = priceLine('gateway-gb', null, '0.04')
  const charges = (source: string, to: number) => [
    ...everyDay(`busy ${source}`, hour, { quantity: '24', cost: '1.2', source, to, values: { ProviderName: source } }),
    ...everyDay(`busy ${source}`, gb, { quantity: '9', cost: '0.4', source, to, values: { ProviderName: source } }),
    ...everyDay(`idle ${source}`, hour, { quantity: '24', cost: '1.2', source, to, values: { ProviderName: source } }),
  ]
  const facts = { cards: new Map(), charged: { 'gateway-hour/': 'existing', 'gateway-gb/': 'use' } as const }
  const all = cubeOf([...charges('near', 0), ...charges('behind', 20), ...charges('gone', 46)])
  const { found } = toEnd(lookThroughBill(all, facts, billDetectors, usual))
  expect(found.map(({ resourceName, evidence }) => [resourceName, evidence.to]).sort()).toEqual([
    ['idle behind', '2026-09-09'],
    ['idle near', END],
  ])
})

describe('what is sent between zones', () => {
  const sent = priceLine('transfer-zone-gb', null, '0.01')
  const card = cardOf([sent])
  const of = (environment: string | null, set = {}, more = {}) =>
    find(
      everyDay('t', sent, { quantity: '20', cost: '0.2', ...(environment !== null && { tags: { environment } }), ...more }),
      card,
      'zone-transfer',
      set,
    )

  it('is found outside live, at what it costs, from the amount that is set', () => {
    // 30 × 0.20 × 73/72
    expect(of('rehearsal')).toMatchObject([
      {
        ...{ title: 't sends to another zone for rehearsal', monthlySaving: '6.0833333333', risk: 'some' },
        effects: [{ resourceId: 'id-t', sku: sent.sku, how: 'gone', now: '6.0833333333', then: '0' }],
      },
    ])
    expect(of('rehearsal', { saved: 6.0833333333 })).toHaveLength(1)
    expect(of('rehearsal', { saved: 6.0833333334 })).toEqual([])
  })

  it('is left alone for what is live, or says nothing of its environment, or has stopped', () => {
    for (const live of ['live', 'Live', 'production', null]) expect(of(live)).toEqual([])
    const other = everyDay('on', sent, { quantity: '1', cost: '0.01' })
    const stopped = everyDay('t', sent, { quantity: '20', cost: '0.2', to: 3, tags: { environment: 'build' } })
    expect(find([...stopped, ...other], card, 'zone-transfer')).toEqual([])
    expect(of('build', {}, { currency: 'USD' })).toEqual([])
  })
})
