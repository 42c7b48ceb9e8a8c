import { dayNumber, weekday, type Day } from '../core/time/day'

/** Passengers by month of the year, winter being 1: the summer peak is 2.4 times the winter. */
const season = [1, 1, 1.08, 1.22, 1.5, 2.05, 2.4, 2.3, 1.6, 1.3, 1.05, 1.1]
/** By weekday from Sunday: people travel on Fridays and Sundays. */
const week = [1.22, 0.95, 0.88, 0.9, 0.98, 1.25, 1.04]

/** How much the ferries are used on a day; 1 is a plain winter day. Seasons pass smoothly from one month to the next. */
export function traffic(day: Day): number {
  const month = Number(day.slice(5, 7)) - 1
  const within = (Number(day.slice(8, 10)) - 1) / 31
  const now = season[month]!
  const next = season[(month + 1) % 12]!
  return (now + (next - now) * within) * week[weekday(day)]! * stormSurge(day)
}

/** The storm week in October: sailings were cancelled and everybody booked again. */
export const STORM = { start: '2026-10-12', end: '2026-10-18' }

function stormSurge(day: Day): number {
  if (day < STORM.start || day > STORM.end) return 1
  return [0.7, 0.8, 1.5, 1.9, 1.8, 1.5, 1.3][dayNumber(day) - dayNumber(STORM.start)]!
}
