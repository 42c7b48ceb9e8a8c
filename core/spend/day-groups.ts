import { addTexts, divideText } from '../money/amount-text'
import { addDays, daysBetween, type Day } from '../time/day'
import type { Period } from '../time/period'
import type { CurrencyAmount, Scope } from './question'

type Ends = Readonly<Record<string, Day>>
/** A part of a period's charges: those of the sources that reach equally far, and over how many days. */
export type DayGroup = { days: number; scope: Pick<Scope, 'ends'> }

/**
 * Parts of what a scope reaches whose days are the same: an average a day is the sum of theirs, since a source that lags a day has not cost
 * nothing on it.
 * @param sources all sources that have charges.
 */
export function dayGroups({ start, end, ends = {} }: Pick<Scope, 'start' | 'end' | 'ends'>, sources: readonly string[]): DayGroup[] {
  const lastOf = (source: string) => (Object.hasOwn(ends, source) ? ends[source]! : end)
  const lasts = [...new Set(sources.map(lastOf))].filter(last => last > start).sort()
  if (lasts.length <= 1) return [{ days: daysBetween(start, lasts[0] ?? end), scope: Object.keys(ends).length ? { ends } : {} }]
  return lasts.map(last => ({
    days: daysBetween(start, last),
    scope: { ends: Object.fromEntries(sources.map(source => [source, lastOf(source) === last ? last : start])) },
  }))
}

/** By source the day before which its charges of a period have to start, where its deliveries end sooner than the period. */
export function endsWithin({ start, end }: Period, lastDays: Readonly<Record<string, Day>>): Ends | undefined {
  const ends = Object.entries(lastDays).flatMap(([source, lastDay]): [string, Day][] => {
    const after = addDays(lastDay, 1)
    return after >= end ? [] : [[source, after > start ? after : start]]
  })
  return ends.length ? Object.fromEntries(ends) : undefined
}

/** The same days of the period compared: as many of it as each source has of the period itself. */
export function endsCompared(now: Period, compared: Period, ends: Ends | undefined, sameDay: (day: Day) => Day | null): Ends | undefined {
  if (!ends) return undefined
  return Object.fromEntries(
    Object.entries(ends).map(([source, last]) => {
      const end = sameDay(last) ?? addDays(compared.start, daysBetween(now.start, last))
      return [source, end < compared.end ? end : compared.end]
    }),
  )
}

/** What parts come to a day, each over the days that it has; in one currency. */
export function amountPerDay(parts: readonly { days: number; totals: readonly CurrencyAmount[] }[], currency: string): string {
  return addTexts(parts.map(({ days, totals }) => divideText(totals.find(t => t.currency === currency)?.amount ?? '0', Math.max(1, days))))
}
