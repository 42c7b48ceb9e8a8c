import fc from 'fast-check'
import { expect, it } from 'vitest'
import { addDays, addMonths, dayFromNumber, dayNumber, daysBetween, hoursOfMonth, isDay, monthEnd, weekday } from '../../../core/time/day'
import { daysOf, monthToDate, periodBefore, periodStep } from '../../../core/time/period'

it('knows the calendar', () => {
  expect(isDay('2026-02-29')).toBe(false)
  expect(isDay('2028-02-29')).toBe(true)
  expect(isDay('2026-13-01')).toBe(false)
  expect(hoursOfMonth('2026-10')).toBe(744)
  expect(hoursOfMonth('2026-02')).toBe(672)
  expect(monthEnd('2026-12')).toBe('2027-01-01')
  expect(addMonths('2026-01', -1)).toBe('2025-12')
  expect(weekday('2026-11-17')).toBe(2)
})

it('counts days both ways', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 60_000 }), fc.integer({ min: -500, max: 500 }), (number, step) => {
      const day = dayFromNumber(number)
      expect(dayNumber(day)).toBe(number)
      expect(daysBetween(day, addDays(day, step))).toBe(step)
    }),
  )
})

it('compares like with like', () => {
  expect(periodBefore({ start: '2026-11-01', end: '2026-11-24' })).toEqual({ start: '2026-10-01', end: '2026-10-24' })
  expect(periodBefore({ start: '2026-03-01', end: '2026-03-31' })).toEqual({ start: '2026-02-01', end: '2026-03-01' })
  expect(periodBefore({ start: '2026-10-01', end: '2026-11-01' })).toEqual({ start: '2026-09-01', end: '2026-10-01' })
  expect(periodBefore({ start: '2026-10-10', end: '2026-10-20' })).toEqual({ start: '2026-09-30', end: '2026-10-10' })
})

it('steps by its own length, and from a month that has begun to whole months', () => {
  expect(periodStep({ start: '2026-11-01', end: '2026-11-24' }, -1)).toEqual({ start: '2026-10-01', end: '2026-11-01' })
  expect(periodStep({ start: '2026-11-01', end: '2026-11-24' }, 1)).toEqual({ start: '2026-12-01', end: '2027-01-01' })
  expect(periodStep({ start: '2026-10-01', end: '2026-11-01' }, 1)).toEqual({ start: '2026-11-01', end: '2026-12-01' })
  expect(periodStep({ start: '2026-10-10', end: '2026-10-17' }, -1)).toEqual({ start: '2026-10-03', end: '2026-10-10' })
})

it('takes the same days of a shorter month', () => {
  expect(monthToDate('2026-03-31')).toEqual({
    current: { start: '2026-03-01', end: '2026-04-01' },
    before: { start: '2026-02-01', end: '2026-03-01' },
  })
  expect(daysOf({ start: '2026-02-27', end: '2026-03-02' })).toEqual(['2026-02-27', '2026-02-28', '2026-03-01'])
})
