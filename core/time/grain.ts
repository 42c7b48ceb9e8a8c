import { addDays, dayFromNumber, dayNumber, weekday, type Day } from './day'

export const grains = ['hour', 'day', 'week', 'month', 'quarter'] as const
/** How time is cut. Weeks begin on Monday (ISO 8601), quarters with the calendar's. */
export type Grain = (typeof grains)[number]

/** The first day of what the day belongs to. */
export function grainStart(day: Day, grain: Exclude<Grain, 'hour'>): Day {
  switch (grain) {
    case 'day':
      return day
    case 'week':
      return dayFromNumber(dayNumber(day) - ((weekday(day) + 6) % 7))
    case 'month':
      return `${day.slice(0, 7)}-01`
    case 'quarter':
      return `${day.slice(0, 4)}-${String(Math.floor((Number(day.slice(5, 7)) - 1) / 3) * 3 + 1).padStart(2, '0')}-01`
  }
}

/**
 * Every start of a grain within a period, the end exclusive: days as `2026-11-17`, hours as `2026-11-17T13`. The first may lie before the
 * period.
 */
export function grainStarts(start: Day, end: Day, grain: Grain): string[] {
  return grainSteps(start, end, grain).starts
}

/** Starts of a grain, and for every hour since `start` (or every day, where the grain is no finer) the place of its start. */
export function grainSteps(start: Day, end: Day, grain: Grain): { starts: string[]; stepOfDay: Int32Array | null } {
  const first = dayNumber(start)
  const days = Math.max(0, dayNumber(end) - first)
  const starts: string[] = []
  if (grain === 'hour') {
    for (let hour = 0; hour < days * 24; hour++)
      starts.push(`${dayFromNumber(first + Math.floor(hour / 24))}T${String(hour % 24).padStart(2, '0')}`)
    return { starts, stepOfDay: null }
  }
  const stepOfDay = new Int32Array(days)
  for (let i = 0; i < days; i++) {
    const own = grainStart(dayFromNumber(first + i), grain)
    if (starts.at(-1) !== own) starts.push(own)
    stepOfDay[i] = starts.length - 1
  }
  return { starts, stepOfDay }
}

/**
 * Whether every step of one grain lies within a step of the other, so that sums by the one add up to sums by the other: weeks lie within no
 * month.
 */
export function isWithin(fine: Grain, coarse: Grain): boolean {
  return fine === coarse || (fine !== 'week' && grains.indexOf(fine) < grains.indexOf(coarse))
}

/** The finest grain that the given one lies within and that cuts a period into at most so many steps; the given one where none does. */
export function grainOfAtMost(most: number, start: Day, end: Day, grain: Grain): Grain {
  return grains.find(g => isWithin(grain, g) && grainStarts(start, end, g).length <= most) ?? grain
}

/** The starts of those steps that lie within a period with all of their days. */
export function wholeStarts(start: Day, end: Day, grain: Grain): string[] {
  // the last step is the one of the first day after the period: it is never whole
  return grain === 'hour'
    ? grainStarts(start, end, grain)
    : grainStarts(start, addDays(end, 1), grain)
        .slice(0, -1)
        .filter(own => own >= start)
}
