import { expect, it } from 'vitest'
import { Decimal } from '../../../core/money/decimal'
import { idleGateway } from '../../../core/opportunity/detectors/idle-gateway'
import { promisedSince, realisedSaving } from '../../../core/opportunity/realised'
import { addDays } from '../../../core/time/day'
import { evaluate } from '../../../core/working/working'
import { brackwaterCard } from '../../../demo/rate-cards'
import { outline } from '../../support/outline'

const gateway = { id: 'g1', name: 'gw', region: 'north-fjord', subAccountName: 'live', createdAt: '2026-01-01T00:00:00Z', tags: {} }
const today = '2026-11-24'
const readings = (days: number, gb: number) =>
  Array.from({ length: days * 24 }, (_, i) => ({
    hour: `${addDays(today, -1 - Math.floor(i / 24))}T${String(i % 24).padStart(2, '0')}:00:00Z`,
    gb,
  }))
const find = (days: number, gb: number, region = 'north-fjord') =>
  idleGateway.find([{ gateway: { ...gateway, region }, readings: readings(days, gb) }], { card: brackwaterCard, today })

it('finds a gateway that passes nothing and prices it from the rate card', () => {
  const [found] = find(30, 0)
  expect(found).toMatchObject({ id: 'idle-gateway/g1', monthlySaving: '38.325', currency: 'EUR', hourlyPrice: '0.0525' })
  expect(evaluate(found!.working).toFixed()).toBe(found!.monthlySaving)
  expect(found!.evidence).toMatchObject({ hoursMeasured: 720, gbTotal: '0' })
  expect(found!.evidence.dailyGb).toHaveLength(30)
})

it('shows what the saving is made of, and each measured day once, in order', () => {
  // two readings on each of 14 days, the newest first, and hours of the day that is not over
  const list = [
    ...readings(14, 0),
    { hour: '2026-11-23T05:30:00Z', gb: 0.02 },
    { hour: '2026-11-12T05:30:00Z', gb: 0.03 },
    { hour: '2026-11-12T06:30:00Z', gb: 0.01 },
    { hour: `${today}T03:00:00Z`, gb: 0.01 },
  ]
  const [found] = idleGateway.find([{ gateway, readings: list }], { card: brackwaterCard, today })
  expect(found).toMatchObject({ detector: 'idle-gateway', title: 'gw passes nothing', resourceId: 'g1', minutesOfWork: 10 })
  expect(outline(found!.working)).toEqual([
    'saved a month = 38.325',
    '  now = 38.325',
    '    hours a month = 730 h',
    '    price of a gateway = 0.0525 per hour [BW-NORTHFJORD-GATEWAYHOUR]',
    '  after deletion = 0',
  ])
  expect(found!.evidence).toMatchObject({ from: '2026-10-25', to: today, hoursMeasured: 14 * 24 + 3, gbTotal: '0.06' })
  expect(found!.evidence.dailyGb).toEqual(
    Array.from({ length: 14 }, (_, i) => ({ day: addDays(today, i - 14), gb: i === 2 ? 0.04 : i === 13 ? 0.02 : 0 })),
  )
})

it('says nothing of one in use, one hardly measured, or one without a price', () => {
  expect(find(30, 0.001)).toHaveLength(0)
  expect(find(13, 0)).toHaveLength(0)
  expect(find(30, 0, 'moon')).toHaveLength(0)
  expect(
    idleGateway.find([{ gateway, readings: readings(60, 1).filter(r => r.hour < '2026-10-20') }], { card: brackwaterCard, today }),
  ).toHaveLength(0)
})

it('holds to its limits: 14 days measured are enough, an hour less is not; 0.1 GB is traffic, less is not', () => {
  const found = (list: { hour: string; gb: number }[]) =>
    idleGateway.find([{ gateway, readings: list }], { card: brackwaterCard, today }).length
  expect([found(readings(14, 0)), found(readings(14, 0).slice(1))]).toEqual([1, 0])
  const with_ = (gb: number) => [{ hour: '2026-11-01T05:00:00Z', gb }, ...readings(20, 0)]
  expect([found(with_(0.099999)), found(with_(0.1))]).toEqual([1, 0])
  // the look-back begins 30 days before today: 2026-10-25 is in it, 2026-10-24 is not; of today only what passes counts
  const on = (hour: string) => [{ hour, gb: 5 }, ...readings(30, 0)]
  expect(
    ['2026-10-24T23:00:00Z', '2026-10-25T00:00:00Z', '2026-11-23T23:00:00Z', '2026-11-24T00:00:00Z'].map(hour => found(on(hour))),
  ).toEqual([1, 0, 0, 0])
})

it('says why what was approved does not hold any more, with what has passed to this hour', () => {
  const [approved] = find(30, 0)
  const whyNot = (list: { hour: string; gb: number }[], card = brackwaterCard) =>
    idleGateway.whyNot(approved!, { gateway, readings: list }, { card, today })
  expect(whyNot(readings(30, 0))).toBeNull()
  const now = [0, 1].map(hour => ({ hour: `${today}T0${hour}:00:00Z`, gb: 50 }))
  expect(whyNot([...readings(30, 0), ...now])).toBe('100 GB passed it in the last 30 days, 100 GB of them today')
  expect(whyNot([...readings(30, 0.001), ...now])).toBe('100.72 GB passed it in the last 30 days, 100 GB of them today')
  expect(whyNot([{ hour: `${today}T08:00:00Z`, gb: 0.1 }, ...readings(30, 0)])).toContain('0.1 GB of them today')
  expect(whyNot([{ hour: `${today}T08:00:00Z`, gb: 0.09 }, ...readings(30, 0)])).toBeNull()
  expect(whyNot([{ hour: '2026-10-24T23:00:00Z', gb: 5 }, ...readings(30, 0)])).toBeNull() // before the look-back
  expect(whyNot(readings(13, 0))).toContain('fewer than 336 hours')
  // 0.0525 an hour × 730 h were approved
  const dearer = (price: string) => ({
    ...brackwaterCard,
    prices: brackwaterCard.prices.map(line => ({
      ...line,
      tiers: line.tiers.map(tier => (tier.price === '0.0525' ? { ...tier, price } : tier)),
    })),
  })
  expect(whyNot(readings(30, 0), dearer('0.04'))).toBe('it would save 29.2 EUR a month now, not 38.325')
  expect(whyNot(readings(30, 0), dearer('0.06'))).toBeNull()
})

it('compares what was promised with what the bill shows', () => {
  const seen = realisedSaving({
    costBefore: new Decimal('0.0525').times(168),
    hoursBefore: new Decimal(168),
    costSince: new Decimal('0.0525').times(9),
    hoursSince: 24,
  })
  expect(seen!.toFixed()).toBe('0.7875')
  expect(promisedSince(new Decimal('38.325'), 15).toFixed()).toBe('0.7875')
  expect(realisedSaving({ costBefore: new Decimal(1), hoursBefore: new Decimal(0), costSince: new Decimal(1), hoursSince: 24 })).toBeNull()
  expect(realisedSaving({ costBefore: new Decimal(1), hoursBefore: new Decimal(1), costSince: new Decimal(1), hoursSince: 0 })).toBeNull()
})
