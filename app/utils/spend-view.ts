import { addDays, monthOf } from '../../core/time/day'
import type { Period } from '../../core/time/period'
import type { Measure } from '../../core/spend/question'
import type { ChartKind, RollingPeriod, SpendView as View } from '../../core/spend/view'
import { dayText, monthText } from './format'

export { keptWithSteps, readView, reachingPeriod, resolvePeriod, withoutValue, withValue, writeView } from '../../core/spend/view'
/** What the Sentence says and the address holds. */
export type SpendView = View

/** The period in words, its last day included: `1 to 23 Nov 2026`, `October 2026`. */
export function periodText({ start, end }: Period): string {
  const last = addDays(end, -1)
  if (start === last) return dayText(start)
  if (start.endsWith('-01') && end.endsWith('-01'))
    return monthOf(start) === monthOf(last) ? monthText(start) : `${monthText(start)} to ${monthText(last)}`
  return monthOf(start) === monthOf(last) ? `${Number(start.slice(8))} to ${dayText(last)}` : `${dayText(start)} to ${dayText(last)}`
}

export const measureNotes: Record<Measure, string> = {
  effectiveCost: 'purchases spread over their term',
  billedCost: 'as invoiced',
  listCost: 'before any discount',
  contractedCost: 'at negotiated prices',
  savedAgainstList: 'list less effective',
  pricingQuantity: 'by pricing unit',
  consumedQuantity: 'by consumed unit',
  unitPrice: 'cost by quantity',
}
export const chartNames: Record<ChartKind, string> = {
  columns: 'stacked columns',
  grouped: 'grouped columns',
  lines: 'lines',
  area: 'area',
  running: 'running total',
  share: 'share bar',
  multiples: 'small multiples',
}
export const rollingNames: Record<RollingPeriod, string> = {
  'this-month': 'this month so far',
  'last-month': 'last month',
  'last-7': 'the last 7 days',
  'last-30': 'the last 30 days',
  'last-90': 'the last 90 days',
  'three-months': 'three whole months',
  'six-months': 'six whole months',
  'twelve-months': 'twelve whole months',
  'this-year': 'this year so far',
  all: 'all that is loaded',
}
/** A start of the chart in words; hours are UTC. */
export function startText(start: string, grain: string): string {
  if (start.length > 10) return `${dayText(start.slice(0, 10))}, ${start.slice(11)}:00`
  if (grain === 'month') return monthText(start)
  if (grain === 'quarter') return `quarter ${Math.floor((Number(start.slice(5, 7)) - 1) / 3) + 1} of ${start.slice(0, 4)}`
  return grain === 'week' ? `week of ${dayText(start)}` : dayText(start)
}
