import { dayFromNumber, dayNumber, type Day } from '../time/day'
import { runsOf, runsWithout, type DayRun } from '../time/day-runs'
import { chargeDays } from './charge-days'
import type { SourcePeriod, Cube } from './cube'
import { columnPlace } from './dimension'
import type { Segment } from './segment'

/** How far the charges of a source reach. */
export type SourceDays = {
  source: string
  /** First day on which a charge starts. */
  firstDay: Day
  /** The last day whose use is delivered whole. */
  lastDay: Day
  /** A day after it of which a part is delivered. */
  partialDay: Day | null
  /** When the newest delivery that counts was made. */
  deliveredAt: string
  /** Days up to the last without any charge, in runs. */
  missing: DayRun[]
  /** The first day after the last, and after the part of a day, on which something begins: a purchase for next month, or a mistake. */
  laterFrom: Day | null
}

const DAY_S = 86_400

/** Numbers of days on which charges of a billing period start, and that its usage covers; of usage also those on which it starts. */
type PeriodDays = { starts: Set<number>; usageStarts: Set<number>; covered: Set<number> }
const known = new WeakMap<readonly Segment[], PeriodDays>()

/**
 * How far each source's charges reach, in the order of the sources' names: the days that its usage covers, or, where it has none, on which
 * its charges start, that were over when the delivery was made. Where a whole delivery lies after that, its newest day counts. What starts
 * later moves nothing.
 */
export function sourceDays(cube: Cube): SourceDays[] {
  const found = new Map<string, { starts: Set<number>; covered: Set<number>; last: number; partial: number; deliveredAt: string }>()
  for (const period of cube.periods.values()) {
    const { starts, usageStarts, covered } = daysOfPeriod(cube, period)
    if (!starts.size) continue
    const source = found.get(period.source) ?? {
      starts: new Set(),
      covered: new Set(),
      last: -Infinity,
      partial: -Infinity,
      deliveredAt: '',
    }
    found.set(period.source, source)
    const { last, partial } = reachOfDays(covered.size ? covered : starts, covered.size ? usageStarts : starts, period.deliveredAt)
    source.last = Math.max(source.last, last)
    source.partial = Math.max(source.partial, partial)
    if (source.deliveredAt < period.deliveredAt) source.deliveredAt = period.deliveredAt
    for (const day of starts) source.starts.add(day)
    for (const day of covered) source.covered.add(day)
  }
  return [...found]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([source, { starts, covered, last: whole, partial, deliveredAt }]) => {
      const last = whole === -Infinity ? partial : whole
      const first = [...starts].reduce((a, b) => Math.min(a, b), Infinity)
      const known = partial > last ? partial : last
      const later = [...starts].reduce((a, b) => (b > known ? Math.min(a, b) : a), Infinity)
      const days = runsOf([...starts, ...covered].filter(day => day >= first && day <= last))
      return {
        source,
        firstDay: dayFromNumber(first),
        lastDay: dayFromNumber(last),
        partialDay: partial > last ? dayFromNumber(partial) : null,
        deliveredAt,
        missing: first <= last ? runsWithout([[dayFromNumber(first), dayFromNumber(last)]], days) : [],
        laterFrom: later === Infinity ? null : dayFromNumber(later),
      }
    })
}

/** The last day that was over when a delivery was made, and the day of which it has a part; −∞ for none. */
function reachOfDays(days: Set<number>, begun: Set<number>, deliveredAt: string): { last: number; partial: number } {
  const delivered = Date.parse(deliveredAt) / 1000
  let [last, newest] = [-Infinity, -Infinity]
  let isAllAfter = true
  for (const day of days) {
    newest = Math.max(newest, day)
    if (day * DAY_S < delivered) isAllAfter = false
    if ((day + 1) * DAY_S <= delivered) last = Math.max(last, day)
  }
  if (isAllAfter) return { last: newest, partial: -Infinity }
  const day = Math.floor(delivered / DAY_S)
  return { last, partial: day > last && begun.has(day) ? day : -Infinity }
}

function daysOfPeriod(cube: Cube, { segments }: SourcePeriod): PeriodDays {
  const before = known.get(segments)
  if (before) return before
  const category = columnPlace('chargeKind', 'ChargeCategory')
  const days: PeriodDays = { starts: new Set(), usageStarts: new Set(), covered: new Set() }
  for (const { rows, time, keys } of segments) {
    for (const start of time.starts) days.starts.add(Math.floor(start / DAY_S))
    const { codes, ids } = keys.chargeKind
    const isUsage = Uint8Array.from(ids, id => (cube.entries.chargeKind[id]?.[category] === 'Usage' ? 1 : 0))
    const used = new Uint8Array(time.starts.length)
    if (isUsage.includes(1)) for (let row = 0; row < rows; row++) used[time.codes[row]!]! |= isUsage[codes[row]!]!
    used.forEach((isUsed, place) => {
      if (!isUsed) return
      days.usageStarts.add(Math.floor(time.starts[place]! / DAY_S))
      for (const day of chargeDays(time.starts[place]!, time.ends[place]!)) days.covered.add(day)
    })
  }
  known.set(segments, days)
  return days
}

/** The first and the last day of all sources; what starts before any calendar of ours is a mistake and moves nothing. */
export function dataDays(sources: readonly SourceDays[]): { firstDay: Day; lastDay: Day } | null {
  if (!sources.length) return null
  const least = sources.map(({ firstDay }) => firstDay).reduce((a, b) => (a < b ? a : b))
  return { firstDay: least < EARLIEST ? EARLIEST : least, lastDay: sources.map(({ lastDay }) => lastDay).reduce((a, b) => (a > b ? a : b)) }
}
const EARLIEST = dayFromNumber(dayNumber('2000-01-01'))
