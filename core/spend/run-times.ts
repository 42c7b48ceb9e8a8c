import { addDays, daysBetween, type Day } from '../time/day'

/** Days on which something ran for hours that were charged. */
export type RunTimes = {
  /** Days without any hour between days that had some, first and last included. */
  still: { from: Day; to: Day }[]
  /** Hours a day over the days that were looked at, and of how many. */
  hoursADay: number
  days: number
}

/**
 * What charged hours say about starting and stopping: a day without hours between days that have some was spent standing still.
 * @param hours charged hours by day.
 * @param known days on which anything was charged: the others have not been delivered and say nothing.
 * @returns null where no day has hours.
 */
export function runTimes(hours: ReadonlyMap<Day, number>, known: ReadonlySet<Day>): RunTimes | null {
  const running = [...hours]
    .filter(([, n]) => n > 0)
    .map(([day]) => day)
    .sort()
  const [first, last] = [running[0], running.at(-1)]
  if (!first || !last) return null
  const still: RunTimes['still'] = []
  let days = 0
  let total = 0
  for (let i = 0; i <= daysBetween(first, last); i++) {
    const day = addDays(first, i)
    if (!known.has(day)) continue
    days++
    const own = hours.get(day) ?? 0
    total += own
    if (own > 0) continue
    const before = still.at(-1)
    if (before && addDays(before.to, 1) === day) before.to = day
    else still.push({ from: day, to: day })
  }
  return { still, hoursADay: total / days, days }
}
