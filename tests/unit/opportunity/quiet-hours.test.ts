import { expect, it } from 'vitest'
import { hoursAwake, sleepsIn, stretchWords, type WeekStretch } from '../../../core/opportunity/measured/quiet-hours'

/** Monday 20:00 to Tuesday 6:00, and Saturday 20:00 to Monday 6:00: it goes on into the next week. */
const asleep: WeekStretch[] = [
  { begin: 20, hours: 10 },
  { begin: 140, hours: 34 },
]
// 2026-11-23 is a Monday
const MONDAY = '2026-11-23'

it('knows whether an hour lies in a stretch, also in one that goes on into the next week', () => {
  const of = (day: string) => Array.from({ length: 24 }, (_, hour) => (sleepsIn(asleep, day, hour) ? 1 : 0)).join('')
  expect(of(MONDAY)).toBe('1111110000000000000011' + '11') // to 6, and from 20 on
  expect(of('2026-11-24')).toBe('111111' + '0'.repeat(18))
  expect(of('2026-11-28')).toBe('0'.repeat(20) + '1111') // Saturday
  expect(of('2026-11-29')).toBe('1'.repeat(24))
  expect(sleepsIn([], MONDAY, 3)).toBe(false)
})

it('counts the hours awake between days, from the hour on in which it holds', () => {
  expect(hoursAwake(asleep, MONDAY, 0, '2026-11-30')).toBe(168 - 44)
  // set at 21:00 on Monday: until then it ran, which had been 6 hours more and an hour at night
  expect(hoursAwake(asleep, MONDAY, 21, '2026-11-24')).toBe(21)
  expect(hoursAwake(asleep, MONDAY, 0, '2026-11-24')).toBe(14)
  expect(hoursAwake(asleep, '2026-11-28', 9, '2026-12-07')).toBe(20 + 0 + 14 + 18 + 24 * 3 + 20) // to Sunday, 6 December
  expect(hoursAwake(asleep, MONDAY, 0, MONDAY)).toBe(0)
  expect(hoursAwake([{ begin: 0, hours: 168 }], MONDAY, 5, '2026-12-23')).toBe(5)
})

it('says stretches, those alike together', () => {
  expect(stretchWords(asleep)).toBe('Mon 20:00 to 06:00; Sat 20:00 to Mon 06:00')
  expect(stretchWords([{ begin: 0, hours: 168 }])).toBe('all week')
})
