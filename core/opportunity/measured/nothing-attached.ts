import { HOURS_A_DAY, highest, measuredHours, type Hourly } from '../../measured/hourly'
import { unitsIn, within, type BilledResource } from '../bill/billed-resource'
import { findingOf, type BillFinding, type Said } from '../bill/finding'
import type { Settings, Threshold } from '../detector'
import { measuredSeries } from './measured-series'

/** The thresholds of whoever looks for what has nothing attached. */
export const attachedThresholds: readonly Threshold[] = [
  { key: 'days', label: 'nothing is attached for at least', unit: 'days', usual: 14, least: 7, most: 30, options: [30, 14, 7] },
]

/** Whether a resource is charged under a meter to the last day. */
export const isCharged = (resource: BilledResource, meter: string): boolean =>
  resource.uses.some(use => use.line?.meter === meter && unitsIn(use, 3) > 0n)

/**
 * What is paid for a resource that nothing was attached to in any hour of so many days, of which all but a day's hours are known: all of
 * it.
 * @param further what is said beside.
 */
export function nothingAttached(
  resource: BilledResource,
  { days }: Settings,
  attached: Hourly,
  { further, ...said }: Omit<Said, 'series' | 'measured'> & { further?: string },
): BillFinding | null {
  const lately = { ...attached, values: attached.values.subarray(-days! * HOURS_A_DAY) }
  if (highest(lately.values) !== 0 || measuredHours(lately) < (days! - 1) * HOURS_A_DAY) return null
  const gone = resource.uses.filter(use => within(use.cost, 30) !== 0n).map(use => ({ use, how: 'gone' as const, then: null }))
  return findingOf(resource, gone, {
    ...said,
    series: [],
    measured: [
      measuredSeries('attached', attached, {
        threshold: { value: 1, label: 'the line is one machine' },
        said: [`Nothing was attached to it in the last ${days} days.`, ...(further ? [further] : [])].join(' '),
      }),
    ],
  })
}
