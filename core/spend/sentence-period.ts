import { addDays, addMonths, daysBetween, isDay, monthEnd, monthOf, monthStart, type Day } from '../time/day'
import { periodBefore, type Period } from '../time/period'
import { endsCompared, endsWithin } from './day-groups'
import type { Scope } from './question'
import type { Sentence } from './sentence'

/** First and last day with charges, and the last of each source. */
export type DataDays = { firstDay: Day; lastDay: Day; sources: Readonly<Record<string, Day>> }
/** The same of what is known of the sources; null before anything is loaded. */
export function dataDaysOf(facts: {
  firstDay: Day | null
  lastDay: Day | null
  sources: readonly { source: string; lastDay: Day }[]
}): DataDays | null {
  const { firstDay, lastDay, sources } = facts
  return firstDay && lastDay
    ? { firstDay, lastDay, sources: Object.fromEntries(sources.map(({ source, lastDay }) => [source, lastDay])) }
    : null
}

/** The days a period means now. A rolling one ends with the last day of data, or with the last whole month before it. */
export function resolvePeriod(period: Sentence['period'], { firstDay, lastDay }: DataDays): Period {
  if (typeof period !== 'string') return period
  const month = monthOf(lastDay)
  const wholeMonths = (count: number): Period => ({ start: monthStart(addMonths(month, -count)), end: monthStart(month) })
  const lastDays = (count: number): Period => ({ start: addDays(lastDay, 1 - count), end: addDays(lastDay, 1) })
  switch (period) {
    case 'this-month':
      return { start: monthStart(month), end: addDays(lastDay, 1) }
    case 'last-month':
      return wholeMonths(1)
    case 'last-7':
      return lastDays(7)
    case 'last-30':
      return lastDays(30)
    case 'last-90':
      return lastDays(90)
    case 'three-months':
      return wholeMonths(3)
    case 'six-months':
      return wholeMonths(6)
    case 'twelve-months':
      return wholeMonths(12)
    case 'this-year':
      return { start: `${lastDay.slice(0, 4)}-01-01`, end: addDays(lastDay, 1) }
    case 'all':
      return { start: firstDay, end: addDays(lastDay, 1) }
  }
}

/** What the sentence's period is held against. */
export function comparedPeriod(sentence: Pick<Sentence, 'period' | 'against'>, days: DataDays): Period {
  if (typeof sentence.against !== 'string') return sentence.against
  const now = resolvePeriod(sentence.period, days)
  return sentence.against === 'before' ? periodBefore(now) : { start: yearBefore(now.start), end: yearBefore(now.end) }
}

/** How far the loaded charges reach into a period: what is compared with days that are not loaded would look new. */
export function reachInto({ start, end }: Period, { firstDay, lastDay }: DataDays): 'none' | 'part' | 'whole' {
  if (end <= firstDay || start > lastDay) return 'none'
  return start < firstDay || end > addDays(lastDay, 1) ? 'part' : 'whole'
}

/** The same day a year before; 29 February becomes the 28th, and the end of a February stays its end. */
function yearBefore(day: Day): Day {
  const same = `${Number(day.slice(0, 4)) - 1}${day.slice(4)}`
  return isDay(same) ? same : addDays(monthEnd(same.slice(0, 7)), -1)
}

/** A period, and by source where it ends there. */
export type Reaching = Period & Pick<Scope, 'ends'>

/** The sentence's period: one that rolls on ends, for each source, with its last delivered day. */
export function reachingPeriod(sentence: Pick<Sentence, 'period'>, days: DataDays): Reaching {
  const period = resolvePeriod(sentence.period, days)
  const ends = typeof sentence.period === 'string' ? endsWithin(period, days.sources) : undefined
  return { ...period, ...(ends && { ends }) }
}

/** What it is held against: the same days for each source. */
export function reachingCompared(sentence: Pick<Sentence, 'period' | 'against'>, days: DataDays): Reaching {
  const now = reachingPeriod(sentence, days)
  const compared = comparedPeriod(sentence, days)
  const ends = endsCompared(now, compared, now.ends, day => (sentence.against === 'year' ? yearBefore(day) : null))
  return { ...compared, ...(ends && { ends }) }
}

/** Sources that deliver later than the others within a period, and by how many days; those that lag most come last. */
export function laggards({ end }: Period, { lastDay, sources }: DataDays): { source: string; lastDay: Day; days: number }[] {
  const newest = addDays(end, -1) < lastDay ? addDays(end, -1) : lastDay
  return Object.entries(sources)
    .filter(([, last]) => last < newest)
    .map(([source, last]) => ({ source, lastDay: last, days: daysBetween(last, newest) }))
    .sort((a, b) => a.days - b.days || (a.source < b.source ? -1 : 1))
}

/** Which charges a sentence looks at. */
export function scopeOf(sentence: Sentence, days: DataDays): Scope & Pick<Sentence, 'keep' | 'leaveOut' | 'conditions'> {
  const { basis, keep, leaveOut, conditions } = sentence
  return { ...reachingPeriod(sentence, days), ...(basis === 'billing' && { basis }), keep, leaveOut, conditions }
}
