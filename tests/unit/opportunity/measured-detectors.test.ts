import { describe, expect, it } from 'vitest'
import { lookThroughBill } from '../../../core/opportunity/bill/look-through-bill'
import type { ThresholdDetector } from '../../../core/opportunity/detector'
import { measuredDetectors } from '../../../core/opportunity/detectors'
import { crossing, diskClass } from '../../../core/opportunity/measured/disk-class'
import { Decimal, decimalText } from '../../../core/money/decimal'
import { chargedFor } from '../../../core/ratecard/describe'
import type { RateCard } from '../../../core/ratecard/rate-card'
import { toEnd } from '../../../core/spend/slices'
import { weekday } from '../../../core/time/day'
import { evaluate } from '../../../core/working/working'
import { cardOf, END, everyDay, priceLine } from '../../support/daily-charges'
import { measuredBefore, type MeasuredHour } from '../../support/measured'
import { cubeOf, type PlainCharge } from '../../support/random-charges'

type Measured = Parameters<typeof measuredBefore>[1]

/** What one detector finds, and how far it could look, with some thresholds set otherwise. */
function look(charges: PlainCharge[], card: RateCard, detector: string, measured: Measured, set: Record<string, number> = {}) {
  const facts = {
    cards: new Map([[card.provider, card]]),
    charged: Object.fromEntries(card.prices.map(line => [line.sku, chargedFor(line)])),
  }
  const settings = ({ thresholds }: ThresholdDetector) => ({
    ...Object.fromEntries(thresholds.map(({ key, usual }) => [key, usual])),
    ...set,
  })
  const { found, coverage } = toEnd(lookThroughBill(cubeOf(charges), facts, measuredDetectors, settings, measuredBefore(END, measured)))
  for (const { working, monthlySaving, effects, confidence } of found) {
    expect(confidence).toBe('measured')
    expect(evaluate(working).round(10).eq(monthlySaving)).toBe(true)
    expect(effects.reduce((sum, { now, then }) => sum + Number(now) - Number(then), 0)).toBeCloseTo(Number(monthlySaving), 6)
  }
  return { found: found.filter(one => one.detector === detector), coverage: coverage.find(one => one.detector === detector)! }
}

// a month of 730 hours is 73/72 of 30 days
describe('machines larger than their use', () => {
  const hour = (size: string, price: string, more = {}) => priceLine('server-hour', size, price, more)
  const [big, mid, small] = [hour('big', '0.4'), hour('mid', '0.2'), hour('small', '0.1')] as const
  const others = [hour('arm', '0.05'), hour('no-steady', '0.06'), hour('mid', '0.01', { region: 'there', sku: 'x' })]
  const licence = priceLine('system-vcpu-hour', 'licensed', '0.02', { unit: 'vCPU-Hours' })
  const card = cardOf([big, mid, small, ...others, licence], {
    regions: [
      { id: 'here', name: 'Here' },
      { id: 'there', name: 'There' },
    ],
    serverSizes: [
      { size: 'big', vcpu: 8, memoryGb: 32 },
      { size: 'mid', vcpu: 4, memoryGb: 16 },
      { size: 'small', vcpu: 2, memoryGb: 8 },
      { size: 'arm', vcpu: 4, memoryGb: 16, architecture: 'arm64' },
      { size: 'no-steady', vcpu: 4, memoryGb: 16, diskClasses: ['plain'] },
    ],
  })
  const runs = (more = {}) => everyDay('m', big, { quantity: '24', cost: '9.6', ...more })
  const detector = 'machine-too-large'
  /** What is found where of processor and memory so much is used, on a month of the largest or on other charges. */
  const seen = (cpu: number | MeasuredHour, memory = 38, { charges = runs(), of = card, set = {} } = {}) =>
    look(charges, of, detector, { 'id-m': { cpu: typeof cpu === 'number' ? () => cpu : cpu, memory: () => memory } }, set)
  const find = (...asked: Parameters<typeof seen>) => seen(...asked).found

  it('finds the size that carries 95 of 100 hours with headroom, at its price', () => {
    // 8 vCPU × 30 % × 1.3 = 3.12, 32 GB × 38 % × 1.3 = 15.808: the one of 4 and 16
    const { found, coverage } = seen(30)
    expect(coverage).toEqual({ detector, measured: 1, unmeasured: 0, dearest: [] })
    expect(found).toHaveLength(1)
    expect(found[0]).toMatchObject({
      ...{ id: 'machine-too-large/P/id-m/server-hour/big', title: 'm would do with «mid» instead of «big»', risk: 'some' },
      // 30 × 9.60 × 73/72 less 720 h × 0.20 × 73/72
      monthlySaving: '146',
      effects: [{ resourceId: 'id-m', sku: 'server-hour/big', how: 'cheaper', now: '292', then: '146' }],
      instruction: { type: 'server', deed: 'change size', from: 'big', to: 'mid' },
    })
    const [cpu, memory] = found[0]!.evidence.series
    expect(cpu).toMatchObject({
      ...{ label: 'processor used, highest hour of the day', unit: '%', threshold: { value: 50, label: 'the line is all of «mid»' } },
      said: 'Of 8 vCPU, 95 hours in 100 used at most 30 %, the highest 30 %; with the headroom that is 3.12 vCPU.',
    })
    expect(cpu!.days).toHaveLength(30)
    expect(memory!.said).toBe('Of 32 GB, 95 hours in 100 used at most 38 %, the highest 38 %; with the headroom that is 15.8 GB.')
  })

  it('passes over peaks of no more than 5 in 100 hours', () => {
    // the 684th of 720 hours counts: 36 hours may be above it
    const peaks = (hours: number) => find(hour => (hour < hours ? 90 : 30))
    expect(peaks(36)).toHaveLength(1)
    expect(peaks(37)).toEqual([])
  })

  it('needs both processor and memory to fit, and goes by the headroom that is set', () => {
    // 32 × 39 % × 1.3 = 16.2
    expect(find(30, 39)).toEqual([])
    expect(find(30, 39, { set: { headroom: 28 } })).toHaveLength(1)
    expect(find(30, 39, { set: { headroom: 29 } })).toEqual([])
    // 8 × 19 % × 1.3 = 1.976 and 32 × 19 % × 1.3 = 7.904: the smallest
    expect(find(19, 19)[0]).toMatchObject({ monthlySaving: '219', title: 'm would do with «small» instead of «big»' })
    expect(find(0, 0)[0]).toMatchObject({ monthlySaving: '219' })
  })

  it('asks for a saving that is worth it', () => {
    const of = cardOf([big, hour('mid', '0.361')], { serverSizes: card.serverSizes })
    expect(find(30, 38, { of })).toEqual([])
    expect(find(30, 38, { of, set: { saved: 9 } })[0]).toMatchObject({ monthlySaving: '28.47' })
  })

  it('says nothing under fourteen measured days, counts such machines and names them', () => {
    const hours = (count: number) => seen(hour => (hour < 720 - count ? NaN : 30))
    expect(hours(336).found).toHaveLength(1)
    expect(hours(335)).toEqual({ found: [], coverage: { detector, measured: 0, unmeasured: 1, dearest: ['m'] } })
    expect(look(runs(), card, detector, {}).coverage).toMatchObject({ measured: 0, unmeasured: 1 })
    // memory alone says nothing
    expect(look(runs(), card, detector, { 'id-m': { memory: () => 10 } }).found).toEqual([])
    // what is measured of others is theirs
    expect(look(runs(), card, detector, { 'id-n': { cpu: () => 1, memory: () => 1 } }).coverage).toMatchObject({ measured: 0 })
  })

  it('lets what is charged by the vCPU fall with it', () => {
    const licensed = everyDay('m', licence, { quantity: '192', cost: '3.84' })
    const [found] = find(30, 38, { charges: [...runs(), ...licensed] })
    // 3.84 × 30 × 73/72 = 116.8, half of it goes
    expect(found!.effects).toEqual([
      { resourceId: 'id-m', sku: 'server-hour/big', how: 'cheaper', now: '292', then: '146' },
      { resourceId: 'id-m', sku: 'system-vcpu-hour/licensed', how: 'less', now: '116.8', then: '58.4' },
    ])
    expect(found!.monthlySaving).toBe('204.4')
  })

  it('keeps the discount that is had now, and promises nothing of a commitment', () => {
    expect(find(30, 38, { charges: runs({ cost: '4.8', list: '9.6' }) })[0]!.monthlySaving).toBe('73')
    expect(find(30, 38, { charges: runs({ values: { PricingCategory: 'Committed' } }) })).toEqual([])
  })

  it('leaves alone what stands still, ran in two sizes, or is charged in another currency than its card', () => {
    // another machine tells how far the bill goes
    const other = everyDay('n', mid, { quantity: '24', cost: '4.8' })
    const stopped = (to: number) => find(30, 38, { charges: [...other, ...runs({ to })] })
    expect(stopped(3)).toEqual([])
    expect(stopped(2)).toHaveLength(1)
    const two = everyDay('m', mid, { quantity: '24', cost: '4.8', from: 2 })
    expect(find(3, 38, { charges: [...runs(), ...two] })).toEqual([])
    expect(find(30, 38, { charges: runs({ currency: 'USD' }) })).toEqual([])
  })
})

describe('databases larger than their use', () => {
  const hour = (size: string, price: string) => priceLine('database-hour', size, price)
  const engine = priceLine('database-engine-vcpu-hour', 'Q', '0.1', { unit: 'vCPU-Hours' })
  const card = cardOf([hour('big', '0.8'), hour('mid', '0.4'), engine], {
    serverSizes: [
      { size: 'big', vcpu: 8, memoryGb: 64 },
      { size: 'mid', vcpu: 4, memoryGb: 32 },
    ],
  })
  it('finds a smaller size, with what its engine is charged by the vCPU', () => {
    const charges = [
      ...everyDay('db', hour('big', '0.8'), { quantity: '24', cost: '19.2' }),
      ...everyDay('db', engine, { quantity: '192', cost: '19.2' }),
    ]
    const use = { 'id-db': { cpu: () => 10, memory: () => 38 } }
    const { found } = look(charges, card, 'database-too-large', use)
    expect(found[0]).toMatchObject({ monthlySaving: '584', title: 'db would do with «mid» instead of «big»' })
    expect(look(charges, card, 'machine-too-large', use).coverage).toMatchObject({ measured: 0, unmeasured: 0 })
  })
})

describe('performance bought and not used', () => {
  const gb = (variant: string, price: string, includes: Record<string, string>) => priceLine('disk-gb-month', variant, price, { includes })
  const bought = (meter: string, variant: string, price: string) =>
    priceLine(meter, variant, price, { unit: meter === 'disk-iops-month' ? 'IOPS-Months' : 'MBps-Months' })
  const plain = gb('plain', '0.05', { iops: '500', mbps: '60', iopsMost: '500', mbpsMost: '60', zones: '1' })
  const steady = gb('steady', '0.1', { iops: '3000', mbps: '125', iopsMost: '16000', mbpsMost: '1000', zones: '1' })
  const swift = gb('swift', '0.13', { iops: '0', mbps: '500', iopsMost: '80000', mbpsMost: '4000', zones: '1' })
  const [swiftIops, steadyIops] = [bought('disk-iops-month', 'swift', '0.06'), bought('disk-iops-month', 'steady', '0.005')]
  const steadyMbps = bought('disk-throughput-month', 'steady', '0.04')
  const card = cardOf([plain, steady, swift, swiftIops, steadyIops, steadyMbps])
  const detector = 'bought-performance'
  /** 300 GB in a month of thirty days, with 9,000 operations a second bought. */
  const charges = [...everyDay('d', swift, { quantity: '10', cost: '1.3' }), ...everyDay('d', swiftIops, { quantity: '300', cost: '18' })]
  const use = (operations: number, throughput = 100): Measured => ({
    'id-d': { operations: () => operations, throughput: () => throughput },
  })

  it('prices every class that carries the highest hour with headroom, with what has to be bought', () => {
    // 4000 × 1.2 = 4800, 100 × 1.2 = 120: steady at 304.1667 GB × 0.10 + 1800 × 0.005, where swift asks for 39.5417 + 4800 × 0.06
    const [found] = look(charges, card, detector, use(4000)).found
    expect(found).toMatchObject({ title: 'd would do with «steady» instead of «swift»', monthlySaving: '547.625' })
    expect(found!.effects).toEqual([
      { resourceId: 'id-d', sku: 'disk-gb-month/swift', how: 'cheaper', now: '39.5416666667', then: '30.4166666667' },
      { resourceId: 'id-d', sku: 'disk-iops-month/swift', how: 'cheaper', now: '547.5', then: '9' },
    ])
    expect(found!.evidence.series[0]).toMatchObject({
      threshold: { value: 4800, label: 'the line is the highest hour with headroom' },
      said: '4000 operations a second at most. A month at list prices: «steady» 39.42 EUR, «swift» 327.54 EUR. It carries up to 16000 operations a second.',
    })
  })

  it('takes the class that carries it and no other, on each side of what each has at most', () => {
    const title = (operations: number, throughput: number) => look(charges, card, detector, use(operations, throughput)).found[0]?.title
    // 416 × 1.2 = 499.2, 417 × 1.2 = 500.4
    expect(title(416, 50)).toBe('d would do with «plain» instead of «swift»')
    expect(title(417, 50)).toBe('d would do with «steady» instead of «swift»')
    expect(title(416, 51)).toBe('d would do with «steady» instead of «swift»')
    // 13,333 × 1.2 = 15,999.6: 16,000; one more is beyond steady, and beyond what is bought now
    expect(title(13_333, 50)).toBe('d would do with «steady» instead of «swift»')
    expect(title(13_334, 50)).toBeUndefined()
  })

  it('buys throughput where the class includes less', () => {
    const [found] = look(charges, card, detector, use(1000, 300)).found
    // 360 − 125 = 235 MB/s × 0.04 = 9.40 come to it
    expect(found!.effects[0]).toMatchObject({ then: '39.8166666667' })
    expect(found!.effects[1]).toMatchObject({ now: '547.5', then: '0' })
  })

  it('buys less in the same class where that is the cheapest', () => {
    const only = cardOf([swift, swiftIops])
    const [found] = look(charges, only, detector, use(4000)).found
    // 4800 × 0.06 = 288
    expect(found).toMatchObject({ title: 'd has more performance bought than it uses', monthlySaving: '259.5' })
    expect(found!.effects).toEqual([{ resourceId: 'id-d', sku: 'disk-iops-month/swift', how: 'less', now: '547.5', then: '288' }])
    // 9,125 a month are bought: 7,300 × 1.2 save 4 % of them, too little; 7,200 × 1.2 save 5.3 %
    expect(look(charges, only, detector, use(7300)).found).toEqual([])
    expect(look(charges, only, detector, use(7200)).found).toHaveLength(1)
  })

  it('reckons with transactions that another class asks for, as if each hour went on at its highest', () => {
    const transactions = priceLine('disk-transactions', 'plain', '0.05', { unit: '1000000 Requests' })
    const asked = cardOf([plain, steady, steadyIops, transactions])
    const kept = everyDay('d', steady, { quantity: '10', cost: '1' })
    // 10 a second are 26.28 million in 730 hours: 1.314 more, of 15.208 less
    expect(look(kept, asked, detector, use(10, 1)).found[0]).toMatchObject({ monthlySaving: '13.8943333333' })
    // 400 a second are 1,051.2 million: 52.56
    expect(look(kept, asked, detector, use(400, 1)).found).toEqual([])
  })

  it('keeps as many zones', () => {
    const across = gb('across', '0.12', { iops: '3000', mbps: '125', iopsMost: '16000', mbpsMost: '1000', zones: '2' })
    const kept = everyDay('d', across, { quantity: '10', cost: '1.2' })
    expect(look(kept, cardOf([across, plain, steady]), detector, use(100, 10)).found).toEqual([])
  })

  it('offers nothing where one of both is not measured', () => {
    expect(look(charges, card, detector, { 'id-d': { operations: () => 1 } })).toMatchObject({ found: [], coverage: { unmeasured: 1 } })
  })

  it('buys fewer operations for a managed database, beyond those that its storage includes', () => {
    const storage = priceLine('database-gb-month', null, '0.1', { includes: { iops: '3000' } })
    const iops = priceLine('database-iops-month', null, '0.07', { unit: 'IOPS-Months' })
    const own = [...everyDay('db', storage, { quantity: '10', cost: '1' }), ...everyDay('db', iops, { quantity: '200', cost: '14' })]
    const find = (operations: number) => look(own, cardOf([storage, iops]), detector, { 'id-db': { operations: () => operations } }).found
    // 14 × 30 × 73/72 = 425.8333; 4000 × 1.2 − 3000 = 1800 × 0.07 = 126
    expect(find(4000)[0]).toMatchObject({ monthlySaving: '299.8333333333', title: 'db has more operations bought than it uses' })
    expect(find(2500)[0]).toMatchObject({ monthlySaving: '425.8333333333' })
    expect(find(2501)[0]!.effects[0]).toMatchObject({ how: 'less', then: '0.14' })
    // 7,500 × 1.2 − 3,000 = 6,000: as many as are bought
    expect(find(7500)).toEqual([])
  })
})

describe('where the cost of classes crosses', () => {
  const line = (variant: string, price: string, includes: Record<string, string>) =>
    priceLine('disk-gb-month', variant, price, { includes })
  const iops = priceLine('disk-iops-month', 'a', '0.01', { unit: 'IOPS-Months' })
  const a = line('a', '0.1', { iops: '1000', mbps: '100', iopsMost: '20000' })
  const b = line('b', '0.4', { iops: '10000', mbps: '100' })
  const card = cardOf([a, b, iops])
  const use = { gb: new Decimal(100), millions: new Decimal(0) }
  const at = (needed: number) => {
    const found = crossing(diskClass(card, a), diskClass(card, b), use, { iops: needed, mbps: 1 })
    return found && decimalText(found)
  }
  it('is where both cost the same', () => {
    // 10 + 0.01 × (n − 1000) = 40
    expect(at(0)).toBe('4000')
    expect(at(3999)).toBe('4000')
    expect(crossing(diskClass(card, b), diskClass(card, a), use, { iops: 5000, mbps: 1 })).toBeNull()
  })
})

describe('what can sleep', () => {
  const hour = priceLine('server-hour', 's', '0.1')
  const disk = priceLine('disk-gb-month', 'plain', '0.1')
  const card = cardOf([hour, disk], { serverSizes: [{ size: 's', vcpu: 2, memoryGb: 8 }] })
  const charges = [...everyDay('m', hour, { quantity: '24', cost: '2.4' }), ...everyDay('m', disk, { quantity: '1', cost: '0.1' })]
  const detector = 'can-sleep'
  const find = (cpu: MeasuredHour, set = {}) => look(charges, card, detector, { 'id-m': { cpu } }, set).found
  /** Busy from 8 to 18 on weekdays. */
  const office: MeasuredHour = (hour, day) => (weekday(day) % 6 !== 0 && hour % 24 >= 8 && hour % 24 < 18 ? 60 : 1)

  it('finds the hours of a week in which nothing happens in any week; what is kept goes on', () => {
    const [found] = find(office)
    expect(found!.title).toBe('m could sleep 118 hours a week')
    // 73 a month, 118 of 168 hours of it
    expect(found!.effects).toEqual([{ resourceId: 'id-m', sku: 'server-hour/s', how: 'less', now: '73', then: '21.7261904762' }])
    // hours of the week from Monday's first on: four nights from 18 to 8, and Friday 18 to Monday 8
    const nights = [18, 42, 66, 90].map(begin => ({ begin, hours: 14 }))
    expect(found!.instruction).toEqual({ type: 'server', deed: 'schedule', asleep: [...nights, { begin: 114, hours: 62 }] })
    expect(found!.evidence.series[0]!.said).toBe(
      'Quiet in every week: Mon, Tue, Wed, Thu 18:00 to 08:00; Fri 18:00 to Mon 08:00 (UTC); 720 hours are measured. Disks and licences go on.',
    )
  })

  it('counts an hour as quiet below the limit, in all weeks', () => {
    expect(find((hour, day) => Math.max(4.9, office(hour, day)))).toHaveLength(1)
    expect(find((hour, day) => Math.max(5, office(hour, day)))).toEqual([])
    // once busy on a Saturday at 3: that hour is none, and parts the night
    const once = find((hour, day) => (day === '2026-09-19' && hour % 24 === 3 ? 50 : office(hour, day)))
    expect(once[0]!.title).toBe('m could sleep 117 hours a week')
  })

  it('sleeps so long in one go, and so long in a week, or not at all', () => {
    // three hours every night are too short a go; four are 28 hours a week, too few
    const nightly =
      (hours: number): MeasuredHour =>
      hour =>
        hour % 24 < hours ? 0 : 50
    expect(find(nightly(3))).toEqual([])
    expect(find(nightly(3), { least: 3, hours: 21 })[0]!.title).toBe('m could sleep 21 hours a week')
    expect(find(nightly(4))).toEqual([])
    expect(find(nightly(4), { hours: 28 })[0]!.title).toBe('m could sleep 28 hours a week')
    expect(find(nightly(5))[0]!.title).toBe('m could sleep 35 hours a week')
  })

  it('does nothing all week', () => {
    expect(find(() => 0)[0]).toMatchObject({ title: 'm could sleep 168 hours a week', monthlySaving: '73' })
    // for a person: what nobody uses is deleted, not put to sleep
    expect(find(() => 0)[0]!.instruction).toBeUndefined()
    expect(find(() => 0)[0]!.evidence.series[0]!.said).toContain('Quiet in every week: all week (UTC)')
  })

  it('takes no hour for quiet that was measured in one week only', () => {
    // two weeks, of which the first has no nights
    const cpu: MeasuredHour = (hour, day) => (hour < 16 * 24 ? NaN : office(hour, day))
    expect(find(cpu)).toHaveLength(1)
    expect(find((hour, day) => (hour < 23 * 24 && hour % 24 < 12 ? NaN : cpu(hour, day)))[0]?.title ?? null).toBe(null)
  })
})

describe('load balancers without traffic', () => {
  const hour = priceLine('load-balancer-hour', null, '0.03')
  const card = cardOf([hour])
  const charges = everyDay('lb', hour, { quantity: '24', cost: '0.72' })
  const find = (passed: MeasuredHour, set = {}) => look(charges, card, 'idle-load-balancer', { 'id-lb': { passed } }, set).found

  it('finds what passes less than noise, and not what passes as much', () => {
    expect(find(() => 0)[0]).toMatchObject({ title: 'lb passes nothing on', monthlySaving: '21.9', risk: 'little' })
    expect(find(() => 0)[0]!.evidence.series[0]!.said).toBe('Nothing passed in 720 measured hours.')
    const once = (gb: number) => find(hour => (hour === 700 ? gb : 0))
    expect(once(0.0999)).toHaveLength(1)
    expect(once(0.1001)).toEqual([])
    expect(find(hour => (hour === 700 ? 2 : 0), { noise: 3 })).toHaveLength(1)
  })
})

describe('what nothing is attached to', () => {
  const kept = priceLine('disk-gb-month', 'steady', '0.09')
  const held = priceLine('address-hour', null, '0.005')
  const copy = priceLine('snapshot-gb-month', null, '0.04')
  const card = cardOf([kept, held, copy])
  const disk = everyDay('d', kept, { quantity: '10', cost: '0.9' })
  const address = everyDay('a', held, { quantity: '24', cost: '0.12' })
  // the hours of thirty days, counted from the first: the last fourteen days begin with hour 384
  const seen = (attached: MeasuredHour, set = {}, charges = disk, of = 'unattached-disk') =>
    look(charges, card, of, { 'id-d': { attached }, 'id-a': { attached } }, set)

  it('finds a disk that no machine has had for so many days, and all that is paid for it', () => {
    const { found, coverage } = seen(hour => (hour === 383 ? 1 : 0))
    // 30 × 0.90 × 73/72
    expect(found).toMatchObject([
      {
        ...{ id: 'unattached-disk/P/id-d', title: 'd is attached to nothing', monthlySaving: '27.375', risk: 'some' },
        instruction: { type: 'disk', deed: 'snapshot and delete' },
        // its snapshot for a month: 300 GB-months × 73/72 × 0.04
        oneOff: { amount: '12.1666666667' },
        effects: [{ resourceId: 'id-d', sku: kept.sku, how: 'gone', now: '27.375', then: '0' }],
      },
    ])
    expect(found[0]!.evidence.series[0]).toMatchObject({ metric: 'attached', threshold: { value: 1 }, isHighest: true })
    expect(coverage).toMatchObject({ measured: 1, unmeasured: 0 })
  })

  it('finds nothing where a machine had it for one hour of these days, or too few hours are known', () => {
    expect(seen(hour => (hour === 384 ? 1 : 0)).found).toEqual([])
    expect(seen(() => 1).found).toEqual([])
    expect(seen(hour => (hour === 719 ? 2 : 0)).found).toEqual([])
    // thirteen days of the fourteen are known, or an hour fewer
    expect(seen(hour => (hour >= 384 && hour < 408 ? NaN : 0)).found).toHaveLength(1)
    expect(seen(hour => (hour >= 384 && hour < 409 ? NaN : 0)).found).toEqual([])
    expect(seen(hour => (hour === 383 ? 1 : 0), { days: 30 }).found).toEqual([])
    expect(seen(hour => (hour === 551 ? 1 : 0), { days: 7 }).found).toHaveLength(1)
    expect(seen(hour => (hour === 552 ? 1 : 0), { days: 7 }).found).toEqual([])
  })

  it('finds addresses that nothing has; what is not charged any more, or of another kind, is none', () => {
    expect(seen(() => 0, {}, address, 'unused-address').found).toMatchObject([
      { title: 'nothing has the address a', monthlySaving: '3.65', risk: 'little' },
    ])
    expect(seen(() => 0, {}, disk, 'unused-address').found).toEqual([])
    const gone = [...everyDay('d', kept, { quantity: '10', cost: '0.9', to: 4 }), ...address]
    expect(seen(() => 0, {}, gone).found).toEqual([])
    const { found, coverage } = look(disk, card, 'unattached-disk', {})
    expect([found, coverage.unmeasured, coverage.dearest]).toEqual([[], 1, ['d']])
  })
})
