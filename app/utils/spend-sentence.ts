import type { Measure } from '../../core/spend/question'
import type { ChartKind } from '../../core/spend/sentence'
import { dayText, monthText } from '../../shared/words/days'

export type { Sentence } from '../../core/spend/sentence'
export { keptWithSteps, withoutValue, withValue } from '../../core/spend/sentence'
export { readSentence, writeSentence } from '../../core/spend/sentence-address'
export { reachingPeriod, resolvePeriod } from '../../core/spend/sentence-period'

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
/** A start of the chart in words; hours are UTC. */
export function startText(start: string, grain: string): string {
  if (start.length > 10) return `${dayText(start.slice(0, 10))}, ${start.slice(11)}:00`
  if (grain === 'month') return monthText(start)
  if (grain === 'quarter') return `quarter ${Math.floor((Number(start.slice(5, 7)) - 1) / 3) + 1} of ${start.slice(0, 4)}`
  return grain === 'week' ? `week of ${dayText(start)}` : dayText(start)
}
