import type { SourcePeriod, Cube } from './cube'
import type { SegmentOf } from './layers'
import type { Scope } from './question'
import { reachOf, type Reach } from './reach'

/** A segment that a question reaches into, how far, and the billing month and source it belongs to. */
export type Reached = SegmentOf & { reach: Reach }

/** The segments that a scope reaches into. */
export const segmentsReached = (cube: Cube, scope: Scope): Reached[] =>
  periodsReached(cube, scope).flatMap(({ segments }) => segments.filter(reached => reached !== null))

/** The billing periods that a scope reaches into; a segment that it does not reach is null. */
export function periodsReached(cube: Cube, scope: Scope): { period: SourcePeriod; segments: (Reached | null)[] }[] {
  return [...cube.periods.values()].flatMap(period => {
    const { source, billingPeriodStart, billingPeriodEnd } = period
    const reach = reachOf(scope, { source, start: billingPeriodStart, end: billingPeriodEnd })
    if (!reach) return []
    const billingMonth = billingPeriodStart.slice(0, 7)
    const segments = period.segments.map(segment =>
      segment.rows && (reach.place || (segment.lastHour >= reach.from && segment.firstHour < reach.to))
        ? { segment, reach, billingMonth, source }
        : null,
    )
    return [{ period, segments }]
  })
}
