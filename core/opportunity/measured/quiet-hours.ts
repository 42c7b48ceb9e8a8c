import type { WeekHour } from '../../measured/hourly'

/** A stretch of a week without use: the hour it begins, from Monday's first on, and how many hours it is long. */
export type QuietStretch = { begin: number; hours: number }

/** An hour of the week says nothing before it was measured so often. */
const FEWEST_WEEKS = 2
const days = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const

/**
 * The stretches of a week in which nothing above a limit was measured in any week, each so many hours long at least; one goes on from
 * Sunday into Monday.
 */
export function quietStretches(week: readonly WeekHour[], below: number, least: number): QuietStretch[] {
  const isQuiet = week.map(({ most, weeks }) => weeks >= FEWEST_WEEKS && most < below)
  if (isQuiet.every(quiet => quiet)) return [{ begin: 0, hours: week.length }]
  const begin = isQuiet.findIndex(quiet => !quiet)
  const found: QuietStretch[] = []
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
export function quietWords(stretches: readonly QuietStretch[]): string {
  if (stretches.some(({ hours }) => hours >= 168)) return 'all week'
  const alike = new Map<string, { on: string[]; from: string; to: string }>()
  for (const { begin, hours } of stretches) {
    const end = (begin + hours) % 168
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
