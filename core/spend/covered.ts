import { runsOf, type DayRun } from '../time/day-runs'
import { chargeDays } from './charge-days'
import type { Cube } from './cube'
import { narrowedIds } from './group'
import { narrowedRows } from './narrowed-rows'
import type { Scope } from './question'
import { reachOf } from './reach'

/** The days that the charge periods of a scope's charges cover, and which sources have delivered them, whatever they are called. */
export function covered(cube: Cube, scope: Scope): { days: DayRun[]; sources: string[] } {
  const rowsOf = narrowedRows(narrowedIds(cube, scope))
  const days = new Set<number>()
  const sources = new Set<string>()
  for (const { source, billingPeriodStart, billingPeriodEnd, segments } of cube.chunks.values()) {
    const reach = reachOf(scope, { source, start: billingPeriodStart, end: billingPeriodEnd })
    if (!reach) continue
    for (const segment of segments) {
      const { time } = segment
      const used = new Set(rowsOf(segment, reach).map(row => time.codes[row]!))
      if (used.size) sources.add(source)
      for (const place of used) for (const day of chargeDays(time.starts[place]!, time.ends[place]!)) days.add(day)
    }
  }
  return { days: runsOf(days), sources: [...sources].sort() }
}
