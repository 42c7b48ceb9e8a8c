import { dayFromNumber, dayNumber, type Day } from './day'

/** Days that follow one another, the first and the last included. */
export type DayRun = [first: Day, last: Day]

/** Runs of days, in order. @param days numbers of days since 1970, in any order, repeats too. */
export function runsOf(days: Iterable<number>): DayRun[] {
  const runs: [number, number][] = []
  for (const day of [...new Set(days)].sort((a, b) => a - b)) {
    const run = runs.at(-1)
    if (run && run[1] === day - 1) run[1] = day
    else runs.push([day, day])
  }
  return runs.map(([first, last]) => [dayFromNumber(first), dayFromNumber(last)])
}

/** The days of some runs that are in none of the others. @param others in any order, also overlapping. */
export function runsWithout(runs: readonly DayRun[], others: readonly DayRun[]): DayRun[] {
  const gone = others.map(numbersOf).sort(([a], [b]) => a - b)
  return [...runs]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .flatMap(run => {
      const left: DayRun[] = []
      const [first, to] = numbersOf(run)
      let from = first
      for (const [first, last] of gone) {
        if (last < from || first > to) continue
        if (first > from) left.push([dayFromNumber(from), dayFromNumber(first - 1)])
        from = last + 1
      }
      if (from <= to) left.push([dayFromNumber(from), dayFromNumber(to)])
      return left
    })
}

/** How many days there are in runs that do not overlap. */
export const daysIn = (runs: readonly DayRun[]): number => runs.reduce((n, run) => n + numbersOf(run)[1] - numbersOf(run)[0] + 1, 0)

const numbersOf = ([first, last]: DayRun): [number, number] => [dayNumber(first), dayNumber(last)]
