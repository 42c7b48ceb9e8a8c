import type { LocationQuery, LocationQueryRaw } from 'vue-router'
import { isDimension } from '../../core/spend/dimension'
import type { CostMeasure, Grain, Narrowing } from '../../core/spend/question'
import { isDay, monthStart, monthOf, addDays } from '../../core/time/day'
import type { Period } from '../../core/time/period'
import { dayText, monthText } from './format'

export type ChartKind = 'columns' | 'lines'
/** One chosen value in the Steps. */
export type Step = { dimension: string, value: string | null }

/** What the Sentence says and the address holds. */
export type SpendView = {
  measure: CostMeasure
  splitBy: string[]
  grain: Grain
  period: Period
  keep: Narrowing
  leaveOut: Narrowing
  currency: string | null
  chart: ChartKind
  steps: Step[]
}

const list = (value: LocationQuery[string] | undefined): string[] => (Array.isArray(value) ? value : [value]).filter((v): v is string => typeof v === 'string' && v !== '')
const first = (value: LocationQuery[string] | undefined) => list(value)[0]

// "ServiceName=Servers"; "Tags/team" alone stands for "has none"
const writeValue = (dimension: string, value: string | null) => value === null ? dimension : `${dimension}=${value}`
function readValue(text: string): Step | null {
  const at = text.indexOf('=')
  const dimension = at < 0 ? text : text.slice(0, at)
  return isDimension(dimension) ? { dimension, value: at < 0 ? null : text.slice(at + 1) } : null
}

function readNarrowing(texts: string[]): Narrowing {
  const narrowing: Narrowing = {}
  for (const text of texts) {
    const read = readValue(text)
    if (read) (narrowing[read.dimension] ??= []).push(read.value)
  }
  return narrowing
}
const writeNarrowing = (narrowing: Narrowing) => Object.entries(narrowing).flatMap(([dimension, values]) => values.map(value => writeValue(dimension, value)))

/** The month of the last day with charges, to that day: what one sees first. */
export function usualPeriod(lastDay: string): Period {
  return { start: monthStart(monthOf(lastDay)), end: addDays(lastDay, 1) }
}

/** Reads the address; what it lacks or gets wrong is as usual. */
export function readView(query: LocationQuery, lastDay: string): SpendView {
  const [start, end] = [first(query.from), first(query.to)]
  const period = start && end && isDay(start) && isDay(end) && start < end ? { start, end } : usualPeriod(lastDay)
  const splitBy = list(query.by).filter(isDimension).slice(0, 2)
  return {
    measure: query.cost === 'billed' ? 'billedCost' : 'effectiveCost',
    splitBy: query.by === 'nothing' ? [] : splitBy.length ? splitBy : ['ServiceName'],
    grain: query.each === 'month' ? 'month' : 'day',
    period,
    keep: readNarrowing(list(query.keep)),
    leaveOut: readNarrowing(list(query.without)),
    currency: first(query.currency) ?? null,
    chart: query.chart === 'lines' ? 'lines' : 'columns',
    steps: list(query.step).flatMap(text => readValue(text) ?? []),
  }
}

/** Writes the address; what is as usual is left away. */
export function writeView(view: SpendView, lastDay: string): LocationQueryRaw {
  const usual = usualPeriod(lastDay)
  const keep = writeNarrowing(view.keep)
  const without = writeNarrowing(view.leaveOut)
  const steps = view.steps.map(({ dimension, value }) => writeValue(dimension, value))
  return {
    ...(view.measure === 'billedCost' && { cost: 'billed' }),
    ...(view.splitBy.join() !== 'ServiceName' && { by: view.splitBy.length ? view.splitBy : 'nothing' }),
    ...(view.grain === 'month' && { each: 'month' }),
    ...((view.period.start !== usual.start || view.period.end !== usual.end) && { from: view.period.start, to: view.period.end }),
    ...(keep.length && { keep }), ...(without.length && { without }),
    ...(view.currency && { currency: view.currency }),
    ...(view.chart === 'lines' && { chart: 'lines' }),
    ...(steps.length && { step: steps }),
  }
}

/** The narrowing with one more value; the same value leaves the other list. */
export function withValue(narrowing: Narrowing, dimension: string, value: string | null): Narrowing {
  const values = narrowing[dimension] ?? []
  return values.includes(value) ? narrowing : { ...narrowing, [dimension]: [...values, value] }
}

export function withoutValue(narrowing: Narrowing, dimension: string, value: string | null): Narrowing {
  const values = (narrowing[dimension] ?? []).filter(v => v !== value)
  const { [dimension]: _, ...others } = narrowing
  return values.length ? { ...others, [dimension]: values } : others
}

/** The period in words, its last day included: `1 to 23 Nov 2026`, `October 2026`. */
export function periodText({ start, end }: Period): string {
  const last = addDays(end, -1)
  if (start === last) return dayText(start)
  if (start.endsWith('-01') && end.endsWith('-01')) return monthOf(start) === monthOf(last) ? monthText(start) : `${monthText(start)} to ${monthText(last)}`
  return monthOf(start) === monthOf(last) ? `${Number(start.slice(8))} to ${dayText(last)}` : `${dayText(start)} to ${dayText(last)}`
}

/** What is kept, the steps taken included. */
export function keptWithSteps({ keep, steps }: Pick<SpendView, 'keep' | 'steps'>): Narrowing {
  return steps.reduce<Narrowing>((kept, { dimension, value }) => ({ ...kept, [dimension]: [value] }), keep)
}
