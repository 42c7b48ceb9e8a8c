import { runsOf, type DayRun } from '../time/day-runs'
import { chargeDays } from './charge-days'
import type { Cube } from './cube'
import type { Scope } from './question'
import { segmentsReached } from './reached'
import { rowsOf } from './rows'

/** The days that the charge periods of a scope's charges cover, and which sources have delivered them, whatever they are called. */
export function covered(cube: Cube, scope: Scope): { days: DayRun[]; sources: string[] } {
  const rowsWithin = rowsOf(cube, scope)
  const days = new Set<number>()
  const sources = new Set<string>()
  for (const reached of segmentsReached(cube, scope)) {
    const { time } = reached.segment
    const used = new Set(Array.from(rowsWithin(reached), row => time.codes[row]!))
    if (used.size) sources.add(reached.source)
    for (const place of used) for (const day of chargeDays(time.starts[place]!, time.ends[place]!)) days.add(day)
  }
  return { days: runsOf(days), sources: [...sources].sort() }
}
