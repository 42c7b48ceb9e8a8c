import { expect, it } from 'vitest'
import { detectorOf, detectors } from '../../../core/opportunity/detectors'
import { idleGateway } from '../../../core/opportunity/detectors/idle-gateway'
import { addDays } from '../../../core/time/day'
import { evaluate } from '../../../core/working/working'
import { brackwaterCard } from '../../../demo/rate-cards'
import { outline } from '../../support/outline'

const gateway = {
  id: 'g1',
  name: 'gw',
  type: 'gateway',
  region: 'north-fjord',
  subAccountName: 'live',
  createdAt: '2026-01-01T00:00:00Z',
  tags: {},
}
const today = '2026-11-24'
const readings = (days: number, value: number) =>
  Array.from({ length: days * 24 }, (_, i) => ({
    at: `${addDays(today, -1 - Math.floor(i / 24))}T${String(i % 24).padStart(2, '0')}:00:00Z`,
    value,
  }))
type Reading = { at: string; value: number }
const facts = (list: Reading[], resource = gateway) => ({ resource, readings: new Map([['passed', list]]), events: [], charges: [] })
const findIn = (list: Reading[], region = 'north-fjord') =>
  idleGateway.find([facts(list, { ...gateway, region })], { card: brackwaterCard, today })
const find = (days: number, value: number, region?: string) => findIn(readings(days, value), region)

it('finds a gateway that passes nothing and prices it from the rate card', async () => {
  const [found] = await find(30, 0)
  expect(found).toMatchObject({ id: 'idle-gateway/g1', monthlySaving: '38.325', currency: 'EUR', oneOff: null, confidence: 'measured' })
  expect(evaluate(found!.working).toFixed()).toBe(found!.monthlySaving)
  const { series, ...period } = found!.evidence
  expect(period).toEqual({ from: '2026-10-25', to: today })
  expect(series).toEqual([
    {
      ...{ label: 'passed through', unit: 'GB', said: 'Nothing passed in 30 days, measured every hour.' },
      threshold: { value: 0.1, label: 'below 0.1 GB in all it is the noise of its own checks' },
      days: Array.from({ length: 30 }, (_, i) => ({ day: addDays(today, i - 30), value: 0 })),
    },
  ])
})

it('shows what the saving is made of, and each measured day once, in order', async () => {
  // two readings on each of 14 days, the newest first, and hours of the day that is not over
  const list = [
    ...readings(14, 0),
    { at: '2026-11-23T05:30:00Z', value: 0.02 },
    { at: '2026-11-12T05:30:00Z', value: 0.03 },
    { at: '2026-11-12T06:30:00Z', value: 0.01 },
    { at: `${today}T03:00:00Z`, value: 0.01 },
  ]
  const [found] = await findIn(list)
  expect(found).toMatchObject({ detector: 'idle-gateway', title: 'gw passes nothing', resourceId: 'g1', minutesOfWork: 10 })
  expect(outline(found!.working)).toEqual([
    'saved a month = 38.325',
    '  now = 38.325',
    '    hours a month = 730 h',
    '    price of a gateway = 0.0525 per hour [BW-NORTHFJORD-GATEWAYHOUR]',
    '  after deletion = 0',
  ])
  expect(found!.evidence).toMatchObject({ from: '2026-10-25', to: today })
  expect(found!.evidence.series[0]!.said).toBe('0.06 GB passed in 14 days, measured every hour.')
  expect(found!.evidence.series[0]!.days).toEqual(
    Array.from({ length: 14 }, (_, i) => ({ day: addDays(today, i - 14), value: i === 2 ? 0.04 : i === 13 ? 0.02 : 0 })),
  )
})

it('says nothing of one in use, one hardly measured, or one without a price', async () => {
  expect(await find(30, 0.001)).toHaveLength(0)
  expect(await find(13, 0)).toHaveLength(0)
  expect(await find(30, 0, 'moon')).toHaveLength(0)
  expect(await findIn(readings(60, 1).filter(r => r.at < '2026-10-20'))).toHaveLength(0)
})

it('holds to its limits: 14 days measured are enough, an hour less is not; 0.1 GB is traffic, less is not', async () => {
  const found = async (list: Reading[]) => (await findIn(list)).length
  expect(await Promise.all([readings(14, 0), readings(14, 0).slice(1)].map(found))).toEqual([1, 0])
  const with_ = (value: number) => [{ at: '2026-11-01T05:00:00Z', value }, ...readings(20, 0)]
  expect(await Promise.all([0.099999, 0.1].map(with_).map(found))).toEqual([1, 0])
  // the look-back begins 30 days before today: 2026-10-25 is in it, 2026-10-24 is not; of today only what passes counts
  const on = (at: string) => [{ at, value: 5 }, ...readings(30, 0)]
  expect(
    await Promise.all(
      ['2026-10-24T23:00:00Z', '2026-10-25T00:00:00Z', '2026-11-23T23:00:00Z', '2026-11-24T00:00:00Z'].map(hour => found(on(hour))),
    ),
  ).toEqual([1, 0, 0, 0])
})

it('says why what was approved does not hold any more, with what has passed to this hour', async () => {
  const [approved] = await find(30, 0)
  const whyNot = (list: { at: string; value: number }[], card = brackwaterCard) =>
    idleGateway.whyNot(approved!, facts(list), { card, today })
  expect(whyNot(readings(30, 0))).toBeNull()
  const now = [0, 1].map(hour => ({ at: `${today}T0${hour}:00:00Z`, value: 50 }))
  expect(whyNot([...readings(30, 0), ...now])).toBe('100 GB passed it in the last 30 days, 100 GB of them today')
  expect(whyNot([...readings(30, 0.001), ...now])).toBe('100.72 GB passed it in the last 30 days, 100 GB of them today')
  expect(whyNot([{ at: `${today}T08:00:00Z`, value: 0.1 }, ...readings(30, 0)])).toContain('0.1 GB of them today')
  expect(whyNot([{ at: `${today}T08:00:00Z`, value: 0.09 }, ...readings(30, 0)])).toBeNull()
  expect(whyNot([{ at: '2026-10-24T23:00:00Z', value: 5 }, ...readings(30, 0)])).toBeNull() // before the look-back
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

it('says what it does, of how many, and reads evidence of before', async () => {
  const [found] = await find(30, 0)
  expect(idleGateway.action.steps(found!)[1]).toBe('delete the gateway in north-fjord, sub account live, at Brackwater Cloud')
  expect([1, 2, 1000].map(idleGateway.says)).toEqual([
    'One gateway passes nothing and is paid for every hour.',
    '2 gateways pass nothing and are paid for every hour.',
    '1000 gateways pass nothing and are paid for every hour.',
  ])
  const before = {
    from: '2026-10-25',
    to: today,
    hoursMeasured: 48,
    gbTotal: '0.05',
    dailyGb: [
      { day: '2026-11-22', gb: 0.05 },
      { day: '2026-11-23', gb: 0 },
    ],
  }
  const read = idleGateway.earlierEvidence!(before)
  expect(read).toMatchObject({ from: '2026-10-25', to: today })
  expect(read!.series[0]).toMatchObject({
    days: [
      { day: '2026-11-22', value: 0.05 },
      { day: '2026-11-23', value: 0 },
    ],
    said: '0.05 GB passed in 2 days, measured every hour.',
  })
  expect(idleGateway.earlierEvidence!(found!.evidence)).toBeNull()
})

it('is found by its name, and no other is', () => {
  expect(detectors.map(({ detector }) => detectorOf(detector).detector)).toEqual(detectors.map(({ detector }) => detector))
  expect(new Set(detectors.map(({ detector }) => detector)).size).toBe(detectors.length)
  for (const name of ['', 'constructor', 'idle']) expect(() => detectorOf(name)).toThrow(RangeError)
})
