import { expect, it } from 'vitest'
import { isDue, nextInRhythm } from '../../../core/time/rhythm'

it('comes round a day, a week or a calendar month later at the same time', () => {
  expect(nextInRhythm('2026-11-26T08:30:00.000Z', 'day')).toBe('2026-11-27T08:30:00.000Z')
  expect(nextInRhythm('2026-11-26T08:30:00.000Z', 'week')).toBe('2026-12-03T08:30:00.000Z')
  expect(nextInRhythm('2026-11-26T08:30:00.000Z', 'month')).toBe('2026-12-26T08:30:00.000Z')
})

it('takes the last day of a month that is shorter', () => {
  expect(nextInRhythm('2027-01-31T00:00:00Z', 'month')).toBe('2027-02-28T00:00:00Z')
  expect(nextInRhythm('2028-01-30T00:00:00Z', 'month')).toBe('2028-02-29T00:00:00Z')
  expect(nextInRhythm('2026-12-31T00:00:00Z', 'month')).toBe('2027-01-31T00:00:00Z')
})

it('is due when its time has come round, and an hour after a try in vain', () => {
  const at = (time: string) => `2026-11-26T${time}:00Z`
  expect(isDue('day', null, null, at('08:00'))).toBe(true)
  expect(isDue('day', at('08:00'), at('08:00'), '2026-11-27T07:59:00Z')).toBe(false)
  expect(isDue('day', at('08:00'), at('08:00'), '2026-11-27T08:00:00Z')).toBe(true)
  expect(isDue('day', null, at('08:00'), at('08:59'))).toBe(false)
  expect(isDue('day', null, at('08:00'), at('09:00'))).toBe(true)
  expect(isDue('week', '2026-11-01 08:00:00+00', at('08:30'), at('08:45'))).toBe(false)
})
