import type { Scaled } from '../../money/scaled'
import { measuredHours } from '../../measured/hourly'
import type { MeasuredOf } from '../../measured/measured-table'
import type { Bill } from '../bill/bill'
import { within, type BilledResource } from '../bill/billed-resource'
import type { BillFinding } from '../bill/finding'
import { FEWEST_MEASURED_HOURS, type MeasuredDetector, type Settings } from '../detector'

/** Of how many resources that a detector looks at all that it needs was measured long enough, and which of the others cost most. */
export type Coverage = { detector: string; measured: number; unmeasured: number; dearest: string[] }
/** So many of the resources that are not measured are named. */
const MOST_NAMED = 5

/**
 * Lets a detector look at resources of which all that it needs was measured, and long enough; counts these and the others.
 */
export function whereMeasured(detector: MeasuredDetector, bill: Bill, measuredOf: MeasuredOf) {
  const findIn = detector.lookThrough(bill)
  let whole = 0
  const others: { name: string; cost: Scaled }[] = []
  return {
    findIn(resource: BilledResource, settings: Settings): BillFinding[] {
      const needs = detector.needsOf(resource)
      if (!needs) return []
      const hourly = new Map(needs.map(metric => [metric, measuredOf(resource.id, metric)]))
      if ([...hourly.values()].every(one => one && measuredHours(one) >= FEWEST_MEASURED_HOURS)) {
        whole++
        return findIn(resource, settings, metric => hourly.get(metric)!)
      }
      others.push({ name: resource.name, cost: resource.uses.reduce((sum, { cost }) => sum + within(cost, 30), 0n) })
      return []
    },
    coverage: (): Coverage => ({
      ...{ detector: detector.detector, measured: whole, unmeasured: others.length },
      dearest: others
        .sort((a, b) => (a.cost === b.cost ? 0 : a.cost < b.cost ? 1 : -1))
        .slice(0, MOST_NAMED)
        .map(({ name }) => name),
    }),
  }
}
