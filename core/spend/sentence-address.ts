import { isDay } from '../time/day'
import { grains } from '../time/grain'
import type { Period } from '../time/period'
import { isDimension } from './dimensions'
import { measures, type Condition, type Measure, type Narrowing } from './question'
import { tableColumns, type TableColumn } from './table'
import { type Step, type Sentence, MOST_SPLITS, rollingPeriods, charts, USUAL_LARGEST, usualStepOrder } from './sentence'

/** An address's query, as routers give it. */
export type AddressQuery = Record<string, string | null | undefined | (string | null)[]>
export type WrittenQuery = Record<string, string | string[]>

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
export function readSentence(query: AddressQuery): Sentence {
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
  const known = everyPart(readSentence(query))
  return Object.entries(query).flatMap(([name, value]) =>
    list(value)
      .filter(text => !(Object.hasOwn(known, name) && [known[name]!].flat().includes(text)))
      .map(text => `${name}=${text}`),
  )
}

/** The whole address, also what is as usual. */
function everyPart(sentence: Sentence): WrittenQuery {
  return {
    cost: measureWords[sentence.measure],
    by: sentence.splitBy.length ? sentence.splitBy : 'nothing',
    each: sentence.grain,
    ...(typeof sentence.period === 'string' ? { period: sentence.period } : { from: sentence.period.start, to: sentence.period.end }),
    against: typeof sentence.against === 'string' ? sentence.against : writePeriod(sentence.against),
    keep: writeNarrowing(sentence.keep),
    without: writeNarrowing(sentence.leaveOut),
    where: sentence.conditions.map(writeCondition),
    currency: sentence.currency ?? '',
    in: sentence.reportCurrency ?? '',
    chart: sentence.chart,
    top: String(sentence.largest),
    step: sentence.steps.map(writeValue),
    order: sentence.stepOrder,
    count: sentence.stepQuantity.map(String),
    across: sentence.across ?? '',
    columns: sentence.columns.length ? sentence.columns : 'none',
    show: sentence.show,
    basis: sentence.basis,
  }
}

/** Writes the address; what is as usual is left away. */
export function writeSentence(sentence: Sentence): WrittenQuery {
  const keep = writeNarrowing(sentence.keep)
  const without = writeNarrowing(sentence.leaveOut)
  const where = sentence.conditions.map(writeCondition)
  return {
    ...(sentence.measure !== 'effectiveCost' && { cost: measureWords[sentence.measure] }),
    ...(sentence.splitBy.join() !== 'ServiceName' && { by: sentence.splitBy.length ? sentence.splitBy : 'nothing' }),
    ...(sentence.grain !== 'day' && { each: sentence.grain }),
    ...(typeof sentence.period !== 'string'
      ? { from: sentence.period.start, to: sentence.period.end }
      : sentence.period !== 'this-month' && { period: sentence.period }),
    ...(sentence.against !== 'before' && {
      against: typeof sentence.against === 'string' ? sentence.against : writePeriod(sentence.against),
    }),
    ...(keep.length && { keep }),
    ...(without.length && { without }),
    ...(where.length && { where }),
    ...(sentence.currency && { currency: sentence.currency }),
    ...(sentence.reportCurrency && { in: sentence.reportCurrency }),
    ...(sentence.chart !== 'columns' && { chart: sentence.chart }),
    ...(sentence.largest !== USUAL_LARGEST && { top: String(sentence.largest) }),
    ...(sentence.steps.length && { step: sentence.steps.map(writeValue) }),
    ...(sentence.stepOrder.join() !== usualStepOrder.join() && { order: sentence.stepOrder }),
    ...(sentence.stepQuantity.length && { count: sentence.stepQuantity.map(String) }),
    ...(sentence.across && { across: sentence.across }),
    ...(sentence.columns.join() !== usualColumns.join() && { columns: sentence.columns.length ? sentence.columns : 'none' }),
    ...(sentence.show === 'comparison' && { show: 'comparison' }),
    ...(sentence.basis === 'billing' && { basis: 'billing' }),
  }
}
