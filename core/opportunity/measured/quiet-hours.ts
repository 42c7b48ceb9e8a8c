import { HOURS_A_DAY, type WeekHour } from '../../measured/hourly'
import { daysBetween, weekday, type Day } from '../../time/day'

/** A stretch of a week: the hour it begins, from Monday's first (UTC) on, and how many hours it is long. */
export type WeekStretch = { begin: number; hours: number }

/** An hour of the week says nothing before it was measured so often. */
const FEWEST_WEEKS = 2
export const HOURS_A_WEEK = 7 * HOURS_A_DAY
const days = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const

/**
 * The stretches of a week in which nothing above a limit was measured in any week, each so many hours long at least; one goes on from
 * Sunday into Monday.
 */
export function quietStretches(week: readonly WeekHour[], below: number, least: number): WeekStretch[] {
  const isQuiet = week.map(({ most, weeks }) => weeks >= FEWEST_WEEKS && most < below)
  if (isQuiet.every(quiet => quiet)) return [{ begin: 0, hours: week.length }]
  const begin = isQuiet.findIndex(quiet => !quiet)
  const found: WeekStretch[] = []
  let hours = 0
  for (let i = 1; i <= week.length; i++) {
    if (isQuiet[(begin + i) % week.length]) hours++
    else {
      if (hours >= least) found.push({ begin: (begin + i - hours + week.length) % week.length, hours })
      hours = 0
    }
  }
  return found.sort((a, b) => a.begin - b.begin)
}

/** Stretches in words, those alike together: `Mon, Tue, Wed, Thu 20:00 to 06:00; Fri 20:00 to Mon 06:00`. */
export function stretchWords(stretches: readonly WeekStretch[]): string {
  if (stretches.some(({ hours }) => hours >= HOURS_A_WEEK)) return 'all week'
  const alike = new Map<string, { on: string[]; from: string; to: string }>()
  for (const { begin, hours } of stretches) {
    const end = (begin + hours) % HOURS_A_WEEK
    const isShort = hours <= 24
    const from = clock(begin)
    const to = isShort ? clock(end) : `${days[Math.floor(end / 24)]} ${clock(end)}`
    const key = `${from} ${to} ${hours}`
    const own = alike.get(key) ?? { on: [], from, to }
    alike.set(key, own)
    own.on.push(days[Math.floor(begin / 24)]!)
  }
  return [...alike.values()].map(({ on, from, to }) => `${on.join(', ')} ${from} to ${to}`).join('; ')
}

const clock = (hour: number): string => `${String(hour % 24).padStart(2, '0')}:00`

/** The hour of the week, from Monday's first on, that an hour of a day is. */
const weekHourOf = (day: Day, hour = 0): number => ((weekday(day) + 6) % 7) * HOURS_A_DAY + hour

/** Whether an hour, counted from a day's first, lies in stretches that come every week. */
export const sleepsIn = (asleep: readonly WeekStretch[], day: Day, hour: number): boolean =>
  asleep.some(({ begin, hours }) => (weekHourOf(day, hour) - begin + HOURS_A_WEEK) % HOURS_A_WEEK < hours)

/**
 * How many hours between two days lie outside of stretches that come every week.
 * @param firstHour the hour of the first day with which they begin to hold; before it every hour lies outside.
 * @param end exclusive.
 */
export function hoursAwake(asleep: readonly WeekStretch[], start: Day, firstHour: number, end: Day): number {
  let awake = 0
  for (let hour = 0; hour < daysBetween(start, end) * HOURS_A_DAY; hour++) if (hour < firstHour || !sleepsIn(asleep, start, hour)) awake++
  return awake
}
