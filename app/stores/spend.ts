import { defineStore } from 'pinia'
import { addTexts, subtractTexts } from '../../core/money/amount-text'
import { scaled } from '../../core/money/scaled'
import type { Grain, Narrowing } from '../../core/spend/question'
import { grainStarts } from '../../core/time/grain'
import { periodBefore, type Period } from '../../core/time/period'
import type { ProblemDetails } from '../../shared/contracts/common'
import { skusDescribed, type SkuWords } from '../../shared/contracts/reference-data'
import { priceParts, spendAnswer, type PriceParts, type SpendAnswer, type SpendQuestion } from '../../shared/contracts/spend'

/** A combination of values with its amount now and in the period compared; null where it was not there. */
export type SpendRow = { id: string, values: (string | null)[], label: string, amount: string, before: string | null }
export type ChartSeries = { id: string, label: string, values: (string | null)[] | null, hue: number | null, amounts: string[], total: string }
export type StepColumn = { dimension: string, rows: SpendRow[], total: string, of: string | null }
export type ValueRef = { dimension: string, value: string | null, label: string }

/** The order in which practitioners narrow; price parts come last, by themselves. */
export const stepOrder = ['SubAccountName', 'ServiceName', 'SkuMeter', 'ResourceId'] as const
export const HUES = 8
const MOST_SERIES = HUES - 1

export const useSpend = defineStore('spend', () => {
  const view = ref<SpendView | null>(null)
  const totals = ref<SpendAnswer['totals']>([])
  const totalsBefore = ref<SpendAnswer['totals']>([])
  const rows = ref<SpendRow[]>([])
  const series = ref<ChartSeries[]>([])
  const starts = ref<string[]>([])
  const columns = ref<StepColumn[]>([])
  const parts = ref<PriceParts['parts'] | null>(null)
  const hidden = ref<{ usage: string, less: string } | null>(null)
  const problem = ref<ProblemDetails | null>(null)
  const loading = ref(false)
  const ready = ref(false)
  /** What the menu is open for, and where. */
  const menu = ref<{ target: ValueRef, at: DOMRect } | null>(null)
  const workings = ref<{ title: string, parts: PriceParts['parts'], left: { count: number, amount: string } | null, total: string } | null>(null)
  // a value keeps its colour while one narrows
  const hues = new Map<string, number>()
  let asking: AbortController | null = null

  const currency = computed(() => {
    const asked = view.value?.currency
    if (asked && totals.value.some(t => t.currency === asked)) return asked
    return totals.value.reduce<{ currency: string, amount: string } | null>((a, b) => a && Math.abs(Number(a.amount)) >= Math.abs(Number(b.amount)) ? a : b, null)?.currency ?? 'EUR'
  })
  const total = computed(() => totals.value.find(t => t.currency === currency.value)?.amount ?? '0')
  const totalBefore = computed(() => totalsBefore.value.find(t => t.currency === currency.value)?.amount ?? null)
  const compared = computed(() => view.value ? periodBefore(view.value.period) : null)

  function question(more: Partial<SpendQuestion>): SpendQuestion {
    const { measure, keep, leaveOut, period } = view.value!
    return { measure, splitBy: [], grain: null, ...period, keep, leaveOut, ...more }
  }

  const withCompanions = (dimensions: string[]) => dimensions.flatMap(d => companionOf[d] && !dimensions.includes(companionOf[d]) ? [d, companionOf[d]] : [d])

  function ask(more: Partial<SpendQuestion>, signal: AbortSignal) {
    return client.send('POST', 'spend/answer', question(more), spendAnswer, signal)
  }

  /** SKU codes in plain words, as far as a rate card has them; what is known is not asked for again. */
  const skuWords = ref<Record<string, SkuWords>>({})
  async function learnSkus(skus: (string | null)[], signal?: AbortSignal) {
    const unknown = [...new Set(skus)].filter((sku): sku is string => sku !== null && !(sku in skuWords.value)).slice(0, 5000)
    if (unknown.length) skuWords.value = { ...skuWords.value, ...(await client.send('POST', 'rate-cards/describe', { skus: unknown }, skusDescribed, signal)).skus }
  }
  async function askParts(keep: Narrowing, signal?: AbortSignal) {
    const answer = await client.send('POST', 'spend/price-parts', question({ keep }), priceParts, signal)
    await learnSkus(answer.parts.map(p => p.skuId), signal)
    return answer
  }

  /** Rows of an answer in one currency, by the dimensions split by. */
  function rowsOf(answer: SpendAnswer, before: SpendAnswer | null, dimensions: string[], inCurrency: string): SpendRow[] {
    const id = (values: Record<string, string | null>) => JSON.stringify(dimensions.map(d => values[d] ?? null))
    const old = new Map((before?.rows ?? []).filter(r => r.currency === inCurrency).map(r => [id(r.values), r.amount]))
    const now: SpendRow[] = answer.rows.filter(r => r.currency === inCurrency).map((row) => {
      const values = dimensions.map(d => row.values[d] ?? null)
      const label = dimensions.map((d, i) => companionOf[d] && values[i] !== null ? row.values[companionOf[d]] ?? values[i]! : d === 'SkuId' && values[i] !== null ? skuWords.value[values[i]!]?.words ?? values[i]! : valueLabel(d, values[i]!)).join(' · ')
      return { id: id(row.values), values, label: label || 'everything', amount: row.amount, before: before ? old.get(id(row.values)) ?? null : null }
    })
    return now
  }

  /** Period keys of the chart, also where nothing was charged. */
  function startsOf(period: Period, grain: Grain): string[] {
    return grainStarts(period.start, period.end, grain)
  }

  async function load(next: SpendView) {
    asking?.abort()
    const mine = asking = new AbortController()
    view.value = next
    loading.value = true
    problem.value = null
    try {
      const { signal } = mine
      const splitBy = withCompanions(next.splitBy)
      const before = periodBefore(next.period)
      const [now, old, byStart, categories] = await Promise.all([
        ask({ splitBy }, signal), ask({ splitBy, ...before }, signal), ask({ grain: next.grain }, signal), ask({ splitBy: ['ChargeCategory'] }, signal),
      ])
      if (next.splitBy.includes('SkuId')) await learnSkus(now.rows.map(row => row.values.SkuId ?? null), signal)
      totals.value = now.totals
      totalsBefore.value = old.totals
      const inCurrency = currency.value
      rows.value = rowsOf(now, old, next.splitBy, inCurrency)
      hidden.value = hiddenUsage(categories, inCurrency)
      const nextStarts = startsOf(next.period, next.grain)
      series.value = await chartSeries(next, rows.value, byStart, nextStarts, inCurrency, signal)
      starts.value = nextStarts
      await loadSteps(next, signal)
      ready.value = true
    }
    catch (error) {
      if ((error as Error).name !== 'AbortError') problem.value = problemOf(error)
    }
    finally {
      if (asking === mine) loading.value = false
    }
  }

  /** What credits and adjustments take off the usage, when it is more than a tenth. */
  function hiddenUsage(categories: SpendAnswer, inCurrency: string) {
    if (view.value?.keep.ChargeCategory || view.value?.leaveOut.ChargeCategory) return null
    const of = (names: string[]) => addTexts(categories.rows.filter(r => r.currency === inCurrency && names.includes(r.values.ChargeCategory ?? '')).map(r => r.amount))
    const usage = of(['Usage'])
    const less = of(['Credit', 'Adjustment'])
    return scaled(less) < 0n && -scaled(less) * 10n > scaled(usage) ? { usage, less } : null
  }

  async function chartSeries(next: SpendView, all: SpendRow[], byStart: SpendAnswer, inStarts: string[], inCurrency: string, signal: AbortSignal): Promise<ChartSeries[]> {
    const wholes = new Map(byStart.rows.filter(r => r.currency === inCurrency).map(r => [r.start!, r.amount]))
    const line = inStarts.map(start => wholes.get(start) ?? '0')
    if (!next.splitBy.length) return [{ id: 'all', label: 'everything', values: null, hue: 0, amounts: line, total: addTexts(line) }]
    const size = (row: SpendRow) => Math.abs(Number(row.amount))
    const largest = [...all].sort((a, b) => size(b) - size(a)).slice(0, all.length === HUES ? HUES : MOST_SERIES)
    const keep: Narrowing = { ...next.keep }
    next.splitBy.forEach((dimension, i) => {
      keep[dimension] = [...new Set(largest.map(row => row.values[i]!))]
    })
    const answer = largest.length ? await ask({ splitBy: next.splitBy, grain: next.grain, keep }, signal) : null
    const cells = new Map((answer?.rows ?? []).filter(r => r.currency === inCurrency).map(r => [JSON.stringify([r.start, ...next.splitBy.map(d => r.values[d] ?? null)]), r.amount]))
    giveHues(next.splitBy, largest)
    const shown = largest.map((row): ChartSeries => ({
      id: row.id, label: row.label, values: row.values, hue: hues.get(hueKey(next.splitBy, row)) ?? null, total: row.amount,
      amounts: inStarts.map(start => cells.get(JSON.stringify([start, ...row.values])) ?? '0'),
    }))
    const left = all.length - shown.length
    if (left > 0) {
      const amounts = line.map((amount, i) => subtractTexts(amount, addTexts(shown.map(s => s.amounts[i]!))))
      shown.push({ id: 'rest', label: `the other ${count(left)}`, values: null, hue: null, amounts, total: addTexts(amounts) })
    }
    return shown
  }

  const hueKey = (dimensions: string[], row: SpendRow) => JSON.stringify([dimensions, row.values])

  /** The largest get the hues; a value that has one keeps it, a free one goes to the next. */
  function giveHues(dimensions: string[], largest: SpendRow[]) {
    const keys = largest.map(row => hueKey(dimensions, row))
    const taken = new Set<number>()
    for (const key of keys) {
      const hue = hues.get(key)
      if (hue !== undefined && !taken.has(hue)) taken.add(hue)
      else hues.delete(key)
    }
    for (const key of keys) {
      if (hues.has(key)) continue
      const free = Array.from({ length: HUES }, (_, i) => i).find(i => !taken.has(i))
      if (free === undefined) continue
      hues.set(key, free)
      taken.add(free)
    }
  }

  /** The hue of a value of the dimension that the chart splits by; null elsewhere. */
  function hueOf(dimension: string, value: string | null): number | null {
    if (view.value?.splitBy.length !== 1 || view.value.splitBy[0] !== dimension) return null
    return series.value.find(s => s.values?.[0] === value)?.hue ?? null
  }

  async function loadSteps(next: SpendView, signal: AbortSignal) {
    const inCurrency = currency.value
    const before = periodBefore(next.period)
    const keep: Narrowing = { ...next.keep }
    const loaded: Promise<StepColumn>[] = []
    for (const [index, dimension] of stepOrder.entries()) {
      const left = index === 0 ? null : next.steps[index - 1]
      if (index > 0 && !left) break
      if (left) keep[left.dimension] = [left.value]
      const narrowed = { ...keep }
      loaded.push(Promise.all([ask({ splitBy: withCompanions([dimension]), keep: narrowed }, signal), ask({ splitBy: withCompanions([dimension]), keep: narrowed, ...before }, signal)])
        .then(([now, old]) => ({ dimension, rows: rowsOf(now, old, [dimension], inCurrency), total: now.totals.find(t => t.currency === inCurrency)?.amount ?? '0', of: left ? valueLabel(left.dimension, left.value) : null })))
    }
    columns.value = await Promise.all(loaded)
    const last = next.steps[stepOrder.length - 1]
    if (last) {
      keep[last.dimension] = [last.value]
      parts.value = (await askParts(keep, signal)).parts.filter(p => p.currency === inCurrency)
    }
    else parts.value = null
  }

  /** How the amount of a value was made: the price parts of its charges, in the currency looked at. */
  async function openWorkings(target: ValueRef) {
    try {
      const { parts: all, rest } = await askParts({ ...view.value!.keep, [target.dimension]: [target.value] })
      const own = all.filter(p => p.currency === currency.value)
      const left = rest?.amounts.find(a => a.currency === currency.value)?.amount ?? null
      workings.value = { title: `${dimensionLabel(target.dimension)} ${target.label}`, parts: own, left: left === null ? null : { count: rest!.count, amount: left }, total: addTexts([...own.map(p => p.amount), left ?? '0']) }
    }
    catch (error) {
      problem.value = problemOf(error)
    }
  }

  return { view, totals, totalsBefore, rows, series, starts, columns, parts, skuWords, hidden, problem, loading, ready, menu, workings, currency, total, totalBefore, compared, load, hueOf, openWorkings }
})
