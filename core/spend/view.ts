import { addDays, addMonths, daysBetween, isDay, monthEnd, monthOf, monthStart, type Day } from '../time/day'
import { grains, type Grain } from '../time/grain'
import { periodBefore, type Period } from '../time/period'
import { endsCompared, endsWithin } from './day-groups'
import { isDimension } from './dimensions'
import { measures, type Condition, type Measure, type Narrowing, type Scope } from './question'
import { tableColumns, type TableColumn } from './table'

export const charts = ['columns', 'grouped', 'lines', 'area', 'running', 'share', 'multiples'] as const
export type ChartKind = (typeof charts)[number]

/** Periods that roll on with the data: a saved sentence keeps them. */
export const rollingPeriods = [
  'this-month',
  'last-month',
  'last-7',
  'last-30',
  'last-90',
  'three-months',
  'six-months',
  'twelve-months',
  'this-year',
  'all',
] as const
export type RollingPeriod = (typeof rollingPeriods)[number]

/** One chosen value in the Steps. */
export type Step = { dimension: string; value: string | null }

/** What the Sentence says and the address holds. */
export type SpendView = {
  measure: Measure
  splitBy: string[]
  grain: Grain
  /** A rolling period's name, or a fixed period. */
  period: RollingPeriod | Period
  /** What it is held against: the period before, the same a year before, or a chosen one. */
  against: 'before' | 'year' | Period
  keep: Narrowing
  leaveOut: Narrowing
  conditions: Condition[]
  /** The currency (or unit) looked at, where there are several. */
  currency: string | null
  /** One currency for all costs. */
  reportCurrency: string | null
  chart: ChartKind
  /** So many values the chart shows by themselves. */
  largest: number
  steps: Step[]
  /** Dimensions of the Steps' columns, in order. */
  stepOrder: string[]
  /** Which of the Steps' columns show quantity. */
  stepQuantity: number[]
  /** What runs across the table: `start` for time, a dimension, or nothing. */
  across: string | null
  columns: TableColumn[]
  /** The table, or the comparison of two periods. */
  show: 'table' | 'comparison'
  /** Whether charges stand in time by charge or by billing periods. */
  basis: 'charge' | 'billing'
}

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
/** An address's query, as routers give it. */
export type AddressQuery = Record<string, string | null | undefined | (string | null)[]>
export type WrittenQuery = Record<string, string | string[]>

/** The order in which practitioners narrow; price parts come last, by themselves. */
export const usualStepOrder = ['SubAccountName', 'ServiceName', 'SkuMeter', 'ResourceId'] as const
export const USUAL_LARGEST = 7
export const MOST_SPLITS = 4
const usualColumns: TableColumn[] = ['share', 'perDay', 'before', 'changeShare']

const measureWords: Record<Measure, string> = {
  billedCost: 'billed',
  effectiveCost: 'effective',
  listCost: 'list',
  contractedCost: 'contracted',
  pricingQuantity: 'quantity',
  consumedQuantity: 'consumed',
  savedAgainstList: 'saved',
  unitPrice: 'price',
}

const list = (value: AddressQuery[string]): string[] =>
  (Array.isArray(value) ? value : [value]).filter((v): v is string => typeof v === 'string' && v !== '')
const first = (value: AddressQuery[string]): string | undefined => list(value)[0]
const oneOf = <T extends string>(known: readonly T[], text: string | undefined): T | null => known.find(k => k === text) ?? null

/** The days a period means now. A rolling one ends with the last day of data, or with the last whole month before it. */
export function resolvePeriod(period: SpendView['period'], { firstDay, lastDay }: DataDays): Period {
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

/** What the view's period is held against. */
export function comparedPeriod(view: Pick<SpendView, 'period' | 'against'>, days: DataDays): Period {
  if (typeof view.against !== 'string') return view.against
  const now = resolvePeriod(view.period, days)
  return view.against === 'before' ? periodBefore(now) : { start: yearBefore(now.start), end: yearBefore(now.end) }
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

// "ServiceName=Servers"; "Tags/team" alone stands for "has none"
const writeValue = ({ dimension, value }: Step) => (value === null ? dimension : `${dimension}=${value}`)
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
const writeNarrowing = (narrowing: Narrowing) =>
  Object.entries(narrowing).flatMap(([dimension, values]) => values.map(value => writeValue({ dimension, value })))

// "ResourceName~backup" contains; "ResourceId>1000" costs above; a leading "!" leaves out
function readCondition(text: string): Condition | null {
  const match = /^(!?)([^~>]+)([~>])(.+)$/.exec(text)
  if (!match || !isDimension(match[2]!)) return null
  const common = { dimension: match[2]!, keep: match[1] === '' }
  if (match[3] === '~') return { ...common, contains: match[4]! }
  return /^-?\d+(\.\d+)?$/.test(match[4]!) ? { ...common, above: match[4]! } : null
}
const writeCondition = (condition: Condition) =>
  `${condition.keep ? '' : '!'}${condition.dimension}${'contains' in condition ? `~${condition.contains}` : `>${condition.above}`}`

function readPeriod(text: string | undefined): Period | null {
  const [start, end] = (text ?? '').split('..')
  return start && end && isDay(start) && isDay(end) && start < end ? { start, end } : null
}
const writePeriod = ({ start, end }: Period) => `${start}..${end}`

/** Reads an address; what it lacks or gets wrong is as usual. */
export function readView(query: AddressQuery): SpendView {
  const splitBy = [...new Set(list(query.by))].filter(isDimension).slice(0, MOST_SPLITS)
  const order = list(query.order).filter(isDimension).slice(0, 8)
  const across = first(query.across)
  const largest = Number(first(query.top))
  const fixed = readPeriod(`${first(query.from)}..${first(query.to)}`)
  const columns = list(query.columns).flatMap(text => oneOf(tableColumns, text) ?? [])
  return {
    measure: measures.find(m => measureWords[m] === first(query.cost)) ?? 'effectiveCost',
    splitBy: query.by === 'nothing' ? [] : splitBy.length ? splitBy : ['ServiceName'],
    grain: oneOf(grains, first(query.each)) ?? 'day',
    period: fixed ?? oneOf(rollingPeriods, first(query.period)) ?? 'this-month',
    against: readPeriod(first(query.against)) ?? (query.against === 'year' ? 'year' : 'before'),
    keep: readNarrowing(list(query.keep)),
    leaveOut: readNarrowing(list(query.without)),
    conditions: list(query.where).flatMap(text => readCondition(text) ?? []),
    currency: first(query.currency) ?? null,
    reportCurrency: /^[A-Z]{3}$/.test(first(query.in) ?? '') ? first(query.in)! : null,
    chart: oneOf(charts, first(query.chart)) ?? 'columns',
    largest: Number.isInteger(largest) && largest >= 1 && largest <= 30 ? largest : USUAL_LARGEST,
    steps: list(query.step).flatMap(text => readValue(text) ?? []),
    stepOrder: order.length ? order : [...usualStepOrder],
    stepQuantity: list(query.count)
      .map(Number)
      .filter(n => Number.isInteger(n) && n >= 0),
    across: across === 'start' || (across && isDimension(across)) ? across : null,
    columns: query.columns === 'none' ? [] : columns.length ? columns : usualColumns,
    show: query.show === 'comparison' ? 'comparison' : 'table',
    basis: query.basis === 'billing' ? 'billing' : 'charge',
  }
}

/** Every part of an address that is not read as it stands, as `name=value`: it is none of a Sentence, or means nothing there. */
export function ignoredParts(query: AddressQuery): string[] {
  const known = everyPart(readView(query))
  return Object.entries(query).flatMap(([name, value]) =>
    list(value)
      .filter(text => !(Object.hasOwn(known, name) && [known[name]!].flat().includes(text)))
      .map(text => `${name}=${text}`),
  )
}

/** The whole address, also what is as usual. */
function everyPart(view: SpendView): WrittenQuery {
  return {
    cost: measureWords[view.measure],
    by: view.splitBy.length ? view.splitBy : 'nothing',
    each: view.grain,
    ...(typeof view.period === 'string' ? { period: view.period } : { from: view.period.start, to: view.period.end }),
    against: typeof view.against === 'string' ? view.against : writePeriod(view.against),
    keep: writeNarrowing(view.keep),
    without: writeNarrowing(view.leaveOut),
    where: view.conditions.map(writeCondition),
    currency: view.currency ?? '',
    in: view.reportCurrency ?? '',
    chart: view.chart,
    top: String(view.largest),
    step: view.steps.map(writeValue),
    order: view.stepOrder,
    count: view.stepQuantity.map(String),
    across: view.across ?? '',
    columns: view.columns.length ? view.columns : 'none',
    show: view.show,
    basis: view.basis,
  }
}

/** Writes the address; what is as usual is left away. */
export function writeView(view: SpendView): WrittenQuery {
  const keep = writeNarrowing(view.keep)
  const without = writeNarrowing(view.leaveOut)
  const where = view.conditions.map(writeCondition)
  return {
    ...(view.measure !== 'effectiveCost' && { cost: measureWords[view.measure] }),
    ...(view.splitBy.join() !== 'ServiceName' && { by: view.splitBy.length ? view.splitBy : 'nothing' }),
    ...(view.grain !== 'day' && { each: view.grain }),
    ...(typeof view.period !== 'string'
      ? { from: view.period.start, to: view.period.end }
      : view.period !== 'this-month' && { period: view.period }),
    ...(view.against !== 'before' && { against: typeof view.against === 'string' ? view.against : writePeriod(view.against) }),
    ...(keep.length && { keep }),
    ...(without.length && { without }),
    ...(where.length && { where }),
    ...(view.currency && { currency: view.currency }),
    ...(view.reportCurrency && { in: view.reportCurrency }),
    ...(view.chart !== 'columns' && { chart: view.chart }),
    ...(view.largest !== USUAL_LARGEST && { top: String(view.largest) }),
    ...(view.steps.length && { step: view.steps.map(writeValue) }),
    ...(view.stepOrder.join() !== usualStepOrder.join() && { order: view.stepOrder }),
    ...(view.stepQuantity.length && { count: view.stepQuantity.map(String) }),
    ...(view.across && { across: view.across }),
    ...(view.columns.join() !== usualColumns.join() && { columns: view.columns.length ? view.columns : 'none' }),
    ...(view.show === 'comparison' && { show: 'comparison' }),
    ...(view.basis === 'billing' && { basis: 'billing' }),
  }
}

/** A period, and by source where it ends there. */
export type Reaching = Period & Pick<Scope, 'ends'>

/** The view's period: one that rolls on ends, for each source, with its last delivered day. */
export function reachingPeriod(view: Pick<SpendView, 'period'>, days: DataDays): Reaching {
  const period = resolvePeriod(view.period, days)
  const ends = typeof view.period === 'string' ? endsWithin(period, days.sources) : undefined
  return { ...period, ...(ends && { ends }) }
}

/** What it is held against: the same days for each source. */
export function reachingCompared(view: Pick<SpendView, 'period' | 'against'>, days: DataDays): Reaching {
  const now = reachingPeriod(view, days)
  const compared = comparedPeriod(view, days)
  const ends = endsCompared(now, compared, now.ends, day => (view.against === 'year' ? yearBefore(day) : null))
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

/** Which charges a view looks at. */
export function scopeOf(view: SpendView, days: DataDays): Scope & Pick<SpendView, 'keep' | 'leaveOut' | 'conditions'> {
  const { basis, keep, leaveOut, conditions } = view
  return { ...reachingPeriod(view, days), ...(basis === 'billing' && { basis }), keep, leaveOut, conditions }
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

/** What is kept, the steps taken included. */
export function keptWithSteps({ keep, steps }: Pick<SpendView, 'keep' | 'steps'>): Narrowing {
  return steps.reduce<Narrowing>((kept, { dimension, value }) => ({ ...kept, [dimension]: [value] }), keep)
}
