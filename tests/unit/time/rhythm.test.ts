import fc from 'fast-check'
import { expect, it } from 'vitest'
import { everyUnits, everyWords, nextAfter, nextDue } from '../../../core/time/rhythm'

it('comes round minutes, hours, days, weeks or calendar months later, at the same time', () => {
  const next = (count: number, unit: (typeof everyUnits)[number]) => nextAfter({ count, unit }, '2026-11-26T08:30:00.000Z')
  expect(next(90, 'minute')).toBe('2026-11-26T10:00:00.000Z')
  expect(next(24, 'hour')).toBe('2026-11-27T08:30:00.000Z')
  expect(next(1, 'day')).toBe('2026-11-27T08:30:00.000Z')
  expect(next(2, 'week')).toBe('2026-12-10T08:30:00.000Z')
  expect(next(1, 'month')).toBe('2026-12-26T08:30:00.000Z')
  expect(next(3, 'month')).toBe('2027-02-26T08:30:00.000Z')
})

it('takes the last day of a month that is shorter, and comes back to the day that is meant', () => {
  const monthly = { count: 1, unit: 'month' } as const
  expect(nextAfter(monthly, '2027-01-31T00:00:00Z')).toBe('2027-02-28T00:00:00Z')
  expect(nextAfter(monthly, '2028-01-30T00:00:00Z')).toBe('2028-02-29T00:00:00Z')
  expect(nextAfter(monthly, '2026-12-31T00:00:00Z')).toBe('2027-01-31T00:00:00Z')
  expect(nextAfter({ ...monthly, day: 31 }, '2027-02-28T00:00:00Z')).toBe('2027-03-31T00:00:00Z')
})

it('leaves out the times that have passed, and keeps the time of day', () => {
  expect(nextDue({ count: 1, unit: 'day' }, '2026-11-20T06:00:00Z', '2026-11-26T05:59:00Z')).toBe('2026-11-26T06:00:00Z')
  expect(nextDue({ count: 1, unit: 'day' }, '2026-11-20T06:00:00Z', '2026-11-26T06:00:00Z')).toBe('2026-11-27T06:00:00Z')
  expect(nextDue({ count: 1, unit: 'week' }, '2026-11-20T06:00:00Z', '2026-11-20T06:00:01Z')).toBe('2026-11-27T06:00:00Z')
  expect(nextDue({ count: 5, unit: 'minute' }, '2026-11-20T06:00:00Z', '2026-11-26T06:00:01.000Z')).toBe('2026-11-26T06:05:01.000Z')
})

it('is always due after now', () => {
  const instant = fc.date({ min: new Date('2020-01-01'), max: new Date('2030-01-01'), noInvalidDate: true }).map(date => date.toISOString())
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 50 }),
      fc.constantFrom(...everyUnits),
      instant,
      instant,
      (count, unit, due, now) => Date.parse(nextDue({ count, unit }, due, now)) > Date.parse(now),
    ),
  )
})

it.each([
  [1, 'day', 'every day'],
  [30, 'minute', 'every 30 minutes'],
  [60, 'minute', 'every hour'],
  [90, 'minute', 'every 90 minutes'],
  [1440, 'minute', 'every day'],
  [44_640, 'minute', 'every 31 days'],
  [48, 'hour', 'every 2 days'],
  [2, 'week', 'every 2 weeks'],
  [1, 'month', 'every month'],
] as const)('says %i %s in words', (count, unit, words) => {
  expect(everyWords({ count, unit })).toBe(words)
})
