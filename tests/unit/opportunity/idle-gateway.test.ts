import { expect, it } from 'vitest'
import { Decimal } from '../../../core/money/decimal'
import { idleGateway } from '../../../core/opportunity/detectors/idle-gateway'
import { promisedSince, realisedSaving } from '../../../core/opportunity/realised'
import { addDays } from '../../../core/time/day'
import { evaluate } from '../../../core/working/working'
import { brackwaterCard } from '../../../demo/rate-cards'

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

it('says nothing of one in use, one hardly measured, or one without a price', () => {
  expect(find(30, 0.001)).toHaveLength(0)
  expect(find(13, 0)).toHaveLength(0)
  expect(find(30, 0, 'moon')).toHaveLength(0)
  expect(
    idleGateway.find([{ gateway, readings: readings(60, 1).filter(r => r.hour < '2026-10-20') }], { card: brackwaterCard, today }),
  ).toHaveLength(0)
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
