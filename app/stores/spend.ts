import { mainTotal } from '../../core/money/main-total'
import { defineStore } from 'pinia'
import { namedObject } from '../../core/text/named'
import { addTexts, subtractTexts } from '../../core/money/amount-text'
import { distortionsOf } from '../../core/spend/distortions'
import { figuresBy, figureText } from '../../core/spend/figure'
import { adds, type Narrowing } from '../../core/spend/question'
import { columnsFor } from '../../core/spend/table'
import { dayGroups, type DayGroup } from '../../core/spend/day-groups'
import { laggards, reachingCompared, reachInto, resolvePeriod, scopeOf, type DataDays, type Reaching } from '../../core/spend/view-period'
import { addDays } from '../../core/time/day'
import { grainOfAtMost, grainStarts, wholeStarts } from '../../core/time/grain'
import { isWholeMonths, type Period } from '../../core/time/period'
import type { ProblemDetails } from '../../shared/contracts/common'
import { skusDescribed, type SkuWords } from '../../shared/contracts/reference-data'
import {
  priceParts,
  spendComparison,
  type PriceParts,
  type SpendAnswer,
  type SpendComparison,
  type SpendQuestion,
} from '../../shared/contracts/spend'

/** A combination of values with its amount now and in the period compared; null where it was not there. */
export type SpendRow = { id: string; values: (string | null)[]; label: string; amount: string; before: string | null }
export type ChartSeries = {
  id: string
  label: string
  values: (string | null)[] | null
  hue: number | null
  /** Whether it stands for charges that have no value of a dimension. */
  isNone: boolean
  /** At each start; null where there is no figure: a price of nothing used. */
  amounts: (string | null)[]
  total: string
}
export type StepColumn = { dimension: string; rows: SpendRow[]; total: string; of: string | null; unit: string; units: string[] }
export type ValueRef = { dimension: string; value: string | null; label: string }
/** What makes a total other than it seems: credits that hide use, purchases, refunds, tax, with what one does about it. */
export type Distortion = { id: string; said: string; action: string; change: Partial<SpendView> }

/** The same charges by the other periods, and the charges that stand outside their billing period by either. */
export type OtherBasis = { totals: SpendAnswer['totals']; here: Answered['rows']; there: Answered['rows'] }

/** A day after all that can be loaded. */
const LATEST = '2101-01-01'
export const HUES = 8
/** Rows that get a small line of their own in the table. */
const MOST_LINES = 60
/** Points of such a line: it is no wider than so many. */
const MOST_LINE_POINTS = 62
const MOST_MULTIPLES = 12

export const useSpend = defineStore('spend', () => {
  /** What is asked for: the Sentence shows it at once. */
  const view = ref<SpendView | null>(null)
  /** What the figures are of: it follows when they are there. */
  const shown = shallowRef<SpendView | null>(null)
  const days = ref<DataDays | null>(null)
  const totals = ref<SpendAnswer['totals']>([])
  const totalsBefore = ref<SpendAnswer['totals']>([])
  const original = ref<SpendAnswer['totals']>([])
  const unconverted = ref<NonNullable<SpendAnswer['unconverted']>>([])
  const rows = shallowRef<SpendRow[]>([])
  const series = shallowRef<ChartSeries[]>([])
  /** The course in time of each of the largest rows, by row id; where the period has many steps, over coarser ones. */
  const lines = shallowRef<Map<string, (string | null)[]>>(new Map())
  const starts = shallowRef<string[]>([])
  const columns = shallowRef<StepColumn[]>([])
  const parts = shallowRef<PriceParts['parts'] | null>(null)
  const across = shallowRef<Answered | null>(null)
  const nowAnswer = shallowRef<Answered | null>(null)
  const beforeAnswer = shallowRef<Answered | null>(null)
  const comparison = shallowRef<SpendComparison | null>(null)
  /** Where sources reach unequally far: what the total is made of, by how many days the sources of a part have. */
  const byDays = shallowRef<{ days: number; answer: Answered }[] | null>(null)
  /** What begins after the last day that is delivered: purchases for later, or mistakes. */
  const later = shallowRef<{ totals: SpendAnswer['totals']; from: string } | null>(null)
  /** What the total would be by the other periods, and the charges that make the difference, largest first. */
  const otherBasis = shallowRef<OtherBasis | null>(null)
  /** What is delivered of the day after the period. */
  const partDay = shallowRef<{ day: string; totals: SpendAnswer['totals'] } | null>(null)
  const distortions = ref<Distortion[]>([])
  /** Parts of the address that could not be read. */
  const ignored = ref<string[]>([])
  const problem = ref<ProblemDetails | null>(null)
  const loading = ref(false)
  const ready = ref(false)
  /** What the menu is open for, and where. */
  const menu = ref<{ target: ValueRef; at: DOMRect; splitting?: boolean; start?: string } | null>(null)
  const workings = ref<{ title: string; parts: PriceParts['parts']; left: { count: number; amount: string } | null; total: string } | null>(
    null,
  )
  // a value keeps its colour while one narrows
  const hues = new Map<string, number>()
  let asking: AbortController | null = null

  const currency = computed(() => {
    const asked = (shown.value ?? view.value)?.currency
    if (asked && totals.value.some(t => t.currency === asked)) return asked
    return mainTotal(totals.value, useData().facts?.reportCurrency ?? null)?.currency ?? 'EUR'
  })
  const total = computed(() => totals.value.find(t => t.currency === currency.value)?.amount ?? '0')
  const totalBefore = computed(() => totalsBefore.value.find(t => t.currency === currency.value)?.amount ?? null)
  const period = computed<Period>(() => resolvePeriod((shown.value ?? view.value!).period, days.value!))
  const compared = computed<Reaching | null>(() => (shown.value && days.value ? reachingCompared(shown.value, days.value) : null))
  /** Sources that the period lacks days of. */
  const lagging = computed(() => (shown.value && days.value ? laggards(period.value, days.value) : []))
  /** The total a day: of each source over the days that it has delivered. */
  const perDay = computed(() => {
    const parts = byDays.value ?? [{ days: groups.value[0]?.days ?? 1, answer: { totals: totals.value } }]
    return addTexts(
      parts.map(({ days, answer }) => divideText(answer.totals.find(t => t.currency === currency.value)?.amount ?? '0', Math.max(1, days))),
    )
  })
  const groups = shallowRef<DayGroup[]>([])
  /** How much of the compared period is loaded: with none of it nothing can be compared. */
  const comparedReach = computed(() => (compared.value && days.value ? reachInto(compared.value, days.value) : 'none'))
  /** The table's columns that have something to say. */
  const tableColumns = computed(() => columnsFor(measure.value, shown.value?.columns ?? [], comparedReach.value))
  /** Whether the measure is money: it has a currency and charge lines behind it. */
  const isMoney = computed(() => !shown.value || isMoneyMeasure(shown.value.measure))
  const measure = computed(() => (shown.value ?? view.value)?.measure ?? 'effectiveCost')
  const additive = computed(() => adds(measure.value))

  function question(more: Partial<SpendQuestion> = {}): SpendQuestion {
    const { measure, reportCurrency } = view.value!
    return { measure, splitBy: [], grain: null, ...scopeOf(view.value!, days.value!), ...(reportCurrency && { reportCurrency }), ...more }
  }

  /** SKU codes in plain words, as far as anyone has said them; what is known is not asked for again. */
  const skuWords = ref<Record<string, SkuWords>>(namedObject())
  const asked = new Set<string>()
  async function learnSkus(skus: (string | null)[], signal?: AbortSignal) {
    const unknown = [...new Set(skus)].filter((sku): sku is string => sku !== null && !asked.has(sku)).slice(0, 5000)
    if (!unknown.length) return
    const found = (await client.send('POST', 'rate-cards/describe', { skus: unknown }, skusDescribed, signal)).skus
    unknown.forEach(sku => asked.add(sku))
    skuWords.value = namedObject(skuWords.value, found)
  }
  /** Own words have changed: what is known is asked again. */
  function forgetSkus() {
    asked.clear()
  }
  async function askParts(keep: Narrowing, signal?: AbortSignal) {
    const { reportCurrency: _, ...plain } = question({ keep })
    const answer = await client.send('POST', 'spend/price-parts', plain, priceParts, signal)
    await learnSkus(
      answer.parts.map(p => p.skuId),
      signal,
    )
    return answer
  }

  function labelOf(dimension: string, value: string | null, name: string | null | undefined): string {
    if (value === null) return valueLabel(dimension, null)
    return name ?? (dimension === 'SkuId' ? skuWords.value[value]?.words : undefined) ?? value
  }

  /** Rows of an answer in one currency, by the dimensions split by, largest first; ids under two names are one row. */
  function rowsOf(answer: Answered, before: Answered | null, dimensions: string[], inCurrency: string): SpendRow[] {
    const id = ({ values }: Answered['rows'][number]) => JSON.stringify(dimensions.map(d => values[d] ?? null))
    const old = before && figuresBy(before, inCurrency, id)
    return [...figuresBy(answer, inCurrency, id)].flatMap(([key, { row, figure }]) => {
      const amount = figureText(figure)
      if (amount === null) return []
      const values = dimensions.map(d => row.values[d] ?? null)
      const label = dimensions.map((d, i) => labelOf(d, values[i]!, companionOf[d] ? row.values[companionOf[d]] : null)).join(' · ')
      const then = old?.get(key)
      return [{ id: key, values, label: label || 'everything', amount, before: then ? figureText(then.figure) : null }]
    })
  }

  async function load(next: SpendView, dataDays: DataDays) {
    asking?.abort()
    const mine = (asking = new AbortController())
    view.value = next
    days.value = dataDays
    loading.value = true
    problem.value = null
    try {
      const { signal } = mine
      const before = reachingCompared(next, dataDays)
      const splitBy = withCompanions(next.splitBy)
      const { start, end } = resolvePeriod(next.period, dataDays)
      const lineGrain = grainOfAtMost(MOST_LINE_POINTS, start, end, next.grain)
      const scope = question()
      const sources = Object.keys(dataDays.sources)
      const dayParts = dayGroups(scope, sources)
      const part =
        typeof next.period === 'string' && useData().partial?.day === end ? { start: end, end: addDays(end, 1), ends: undefined } : null
      const laterFrom = useData()
        .facts!.sources.flatMap(({ laterFrom }) => laterFrom ?? [])
        .sort()[0]
      const isMonths = isWholeMonths({ start, end })
      const other = next.basis === 'billing' ? undefined : ('billing' as const)
      const charted = next.chart === 'multiples' ? MOST_MULTIPLES : next.largest + 1
      const questions = {
        now: question({ splitBy }),
        old: question({ splitBy, ...before }),
        line: question({ grain: next.grain }),
        series: question({
          splitBy: next.splitBy,
          grain: next.grain,
          limit: lineGrain === next.grain ? Math.max(charted, MOST_LINES) : charted,
        }),
        lines:
          next.splitBy.length && !next.across && lineGrain !== next.grain
            ? question({ splitBy: next.splitBy, grain: lineGrain, limit: MOST_LINES })
            : null,
        categories: question({ splitBy: ['ChargeCategory'], measure: isMoneyMeasure(next.measure) ? next.measure : 'effectiveCost' }),
        across: next.across
          ? question({
              splitBy: next.across === 'start' ? splitBy : [...new Set([...splitBy, next.across])],
              grain: next.across === 'start' ? next.grain : null,
            })
          : null,
        later: laterFrom
          ? question({
              start: [...Object.values(dataDays.sources)].sort()[0]!,
              end: LATEST,
              ends: undefined,
              begins: Object.fromEntries(
                useData().facts!.sources.map(({ source, lastDay, partialDay }) => [source, addDays(partialDay ?? lastDay, 1)]),
              ),
            })
          : null,
        otherBasis: isMonths ? question({ basis: other }) : null,
        elsewhere: isMonths ? question({ elsewhere: true, splitBy: ['ChargeDescription', 'ChargeCategory'] }) : null,
        otherElsewhere: isMonths ? question({ basis: other, elsewhere: true, splitBy: ['ChargeDescription', 'ChargeCategory'] }) : null,
        part: part ? question({ ...part }) : null,
        partLine: part ? question({ ...part, grain: next.grain }) : null,
        partSeries: part && next.splitBy.length ? question({ ...part, splitBy: next.splitBy, grain: next.grain }) : null,
      }
      const steps = stepQuestions(next, before)
      const listed = Object.values(questions).filter(q => q !== null)
      const wantsParts = dayParts.length > 1 && adds(next.measure)
      const dayQuestions = wantsParts ? dayParts.map(({ scope: { ends } }) => question({ splitBy, ends })) : []
      const [answers, compare, partsNow] = await Promise.all([
        askAnswers([...listed, ...steps.flatMap(step => [step.now, step.old]), ...dayQuestions], signal),
        next.show === 'comparison' && isCost(next.measure)
          ? client.send(
              'POST',
              'spend/compare',
              {
                measure: next.measure,
                splitBy: next.splitBy.length ? splitBy : ['ServiceName'],
                now: { start, end, ...(scope.ends && { ends: scope.ends }) },
                before,
                ...(scope.basis && { basis: scope.basis }),
                keep: next.keep,
                leaveOut: next.leaveOut,
                conditions: next.conditions,
                ...(next.reportCurrency && { reportCurrency: next.reportCurrency }),
              },
              spendComparison,
              signal,
            )
          : null,
        stepsDone(next) ? askParts(keptWithSteps(next), signal) : null,
      ])
      const answered = (name: keyof typeof questions) => (questions[name] ? answers[listed.indexOf(questions[name])]! : null)
      const now = answered('now')!
      if (next.splitBy.includes('SkuId') || next.stepOrder.includes('SkuId'))
        await learnSkus(
          answers.flatMap(a => a.rows.map(row => row.values.SkuId ?? null)),
          signal,
        )
      shown.value = next
      groups.value = dayParts
      const afterSteps = listed.length + steps.length * 2
      byDays.value = wantsParts ? dayParts.map(({ days }, i) => ({ days, answer: answers[afterSteps + i]! })) : null
      later.value = laterFrom && answered('later')!.totals.length ? { from: laterFrom, totals: answered('later')!.totals } : null
      otherBasis.value = isMonths
        ? { totals: answered('otherBasis')!.totals, here: answered('elsewhere')!.rows, there: answered('otherElsewhere')!.rows }
        : null
      partDay.value = part && answered('part')!.totals.length ? { day: part.start, totals: answered('part')!.totals } : null
      nowAnswer.value = now
      beforeAnswer.value = answered('old')
      totals.value = now.totals
      totalsBefore.value = answered('old')!.totals
      original.value = now.original ?? []
      unconverted.value = now.unconverted ?? []
      across.value = answered('across')
      comparison.value = compare
      const inCurrency = currency.value
      rows.value = rowsOf(now, answered('old')!, next.splitBy, inCurrency)
      distortions.value = distortedBy(answered('categories')!, isMoneyMeasure(next.measure) ? inCurrency : null)
      // the part of a day that is delivered is drawn beside the days that are whole, and is in no total
      const isPartDrawn = !!partDay.value && (next.grain === 'day' || next.grain === 'hour')
      const nextStarts = grainStarts(start, isPartDrawn ? part!.end : end, next.grain)
      const withPart = (name: 'line' | 'series', more: 'partLine' | 'partSeries'): Answered => {
        const own = answered(name)!
        const of = isPartDrawn ? answered(more) : null
        return of ? { ...own, rows: [...own.rows, ...of.rows] } : own
      }
      const bySeries = amountsByStart(withPart('series', 'partSeries'), next.splitBy, nextStarts, inCurrency)
      const coarse = answered('lines')
      series.value = chartSeries(next, rows.value, withPart('line', 'partLine'), bySeries, nextStarts, inCurrency)
      // a step that the period cuts through would look like a fall
      lines.value = coarse ? amountsByStart(coarse, next.splitBy, wholeStarts(start, end, lineGrain), inCurrency) : bySeries
      starts.value = nextStarts
      columns.value = steps.map((step, i) => stepColumn(step, answers[listed.length + i * 2]!, answers[listed.length + i * 2 + 1]!))
      parts.value = partsNow ? partsNow.parts.filter(p => p.currency === inCurrency || !isMoneyMeasure(next.measure)) : null
      ready.value = true
    } catch (error) {
      if ((error as Error).name !== 'AbortError') problem.value = problemOf(error)
    } finally {
      if (asking === mine) loading.value = false
    }
  }

  type StepQuestion = { dimension: string; of: string | null; now: SpendQuestion; old: SpendQuestion; counted: boolean }
  const stepsDone = (next: SpendView) => next.steps.length >= next.stepOrder.length

  /** A question for every column that is open: the first, and each behind a chosen value. */
  function stepQuestions(next: SpendView, before: Reaching): StepQuestion[] {
    const keep: Narrowing = { ...next.keep }
    const found: StepQuestion[] = []
    for (const [index, dimension] of next.stepOrder.entries()) {
      const left = index === 0 ? null : next.steps[index - 1]
      if (index > 0 && !left) break
      if (left) keep[left.dimension] = [left.value]
      const counted = next.stepQuantity.includes(index)
      const asked = question({
        splitBy: withCompanions([dimension]),
        keep: { ...keep },
        ...(counted && { measure: 'pricingQuantity' as const, reportCurrency: undefined }),
      })
      found.push({ dimension, of: left ? valueLabel(left.dimension, left.value) : null, now: asked, old: { ...asked, ...before }, counted })
    }
    return found
  }

  function stepColumn({ dimension, of, counted }: StepQuestion, now: Answered, old: Answered): StepColumn {
    // quantities of several units never add: the one with most rows is shown, the others are named
    const units = counted
      ? [...new Set(now.rows.map(row => row.currency))].sort(
          (a, b) => now.rows.filter(r => r.currency === b).length - now.rows.filter(r => r.currency === a).length,
        )
      : []
    const unit = counted ? (units[0] ?? '') : currency.value
    const found = rowsOf(now, old, [dimension], unit)
    found.sort((a, b) => Number(b.amount) - Number(a.amount))
    return { dimension, of, rows: found, unit, units, total: now.totals.find(t => t.currency === unit)?.amount ?? '0' }
  }

  /** Credits, refunds, tax and purchases that make up more than a tenth of the usage, unless one looks at them on purpose. */
  function distortedBy(categories: Answered, inCurrency: string | null): Distortion[] {
    if (!view.value || inCurrency === null || view.value.keep.ChargeCategory || view.value.leaveOut.ChargeCategory) return []
    const { keep, leaveOut, measure } = view.value
    const said = (text: string) => `${money(text, inCurrency)} ${inCurrency}`
    return distortionsOf(categories.rows, inCurrency).map(({ what, amount, usage }): Distortion => {
      if (what === 'credits')
        return {
          id: 'less',
          said: `Credits and adjustments take ${said(amount)} off ${said(usage)} of usage.`,
          action: 'Look at usage alone',
          change: { keep: withValue(keep, 'ChargeCategory', 'Usage') },
        }
      if (what === 'purchases')
        return {
          id: 'purchases',
          said: `Purchases of ${said(amount)} stand beside ${said(usage)} of usage.`,
          action: 'Spread them over their term',
          change: measure === 'billedCost' ? { measure: 'effectiveCost' } : { leaveOut: withValue(leaveOut, 'ChargeCategory', 'Purchase') },
        }
      return {
        id: 'tax',
        said: `Tax of ${said(amount)} is in the total.`,
        action: 'Leave tax out',
        change: { leaveOut: withValue(leaveOut, 'ChargeCategory', 'Tax') },
      }
    })
  }

  /** What stands where a start has no charges: nought of what adds, no price of nothing used. */
  const emptyStart = () => (additive.value ? '0' : null)

  /** Amounts at each start by row id. */
  function amountsByStart(answer: Answered, splitBy: string[], inStarts: string[], inCurrency: string): Map<string, (string | null)[]> {
    const place = new Map(inStarts.map((start, i) => [start, i]))
    const found = new Map<string, (string | null)[]>()
    for (const row of splitBy.length ? answer.rows : []) {
      if (row.currency !== inCurrency) continue
      const key = JSON.stringify(splitBy.map(d => row.values[d] ?? null))
      const amounts = found.get(key) ?? inStarts.map(emptyStart)
      found.set(key, amounts)
      const at = place.get(row.start!)
      if (at !== undefined) amounts[at] = row.amount
    }
    return found
  }

  function chartSeries(
    next: SpendView,
    all: SpendRow[],
    whole: Answered,
    byRow: Map<string, (string | null)[]>,
    inStarts: string[],
    inCurrency: string,
  ): ChartSeries[] {
    const wholes = new Map(whole.rows.filter(r => r.currency === inCurrency).map(r => [r.start!, r.amount]))
    const line = inStarts.map(start => wholes.get(start) ?? emptyStart())
    if (!next.splitBy.length)
      return [{ id: 'all', label: 'everything', values: null, hue: 0, isNone: false, amounts: line, total: total.value }]
    const most = next.chart === 'multiples' ? MOST_MULTIPLES : next.largest
    const size = (row: SpendRow) => Math.abs(Number(row.amount))
    // one more than asked for is shown where it would be the only one in the rest
    const largest = [...all]
      .filter(row => byRow.has(row.id))
      .sort((a, b) => size(b) - size(a))
      .slice(0, all.length === most + 1 ? most + 1 : most)
    giveHues(
      next.splitBy,
      largest.filter(row => !isNone(row)),
    )
    const shown = largest.map((row): ChartSeries => ({
      id: row.id,
      label: row.label,
      values: row.values,
      hue: hues.get(hueKey(next.splitBy, row)) ?? null,
      isNone: isNone(row),
      total: row.amount,
      amounts: byRow.get(row.id)!,
    }))
    const left = all.length - shown.length
    if (left > 0 && additive.value) {
      const amounts = line.map((amount, i) => subtractTexts(amount!, addTexts(shown.map(s => s.amounts[i]!))))
      shown.push({
        id: 'rest',
        label: `the other ${count(left)}`,
        values: null,
        hue: null,
        isNone: false,
        amounts,
        total: addTexts(amounts),
      })
    }
    return shown
  }

  /** What has no value gets no colour: it is nothing to be told from others by one. */
  const isNone = (row: SpendRow) => row.values.includes(null)
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
    if (shown.value?.splitBy.length !== 1 || shown.value.splitBy[0] !== dimension) return null
    return series.value.find(s => s.values?.[0] === value)?.hue ?? null
  }

  /** The values of a dimension under the view's other conditions, with their amounts: what a list to choose from shows. */
  async function valuesOf(dimension: string): Promise<SpendRow[]> {
    const without = ({ [dimension]: _, ...rest }: Narrowing) => rest
    const [answer] = await askAnswers([
      question({
        splitBy: withCompanions([dimension]),
        keep: without(view.value!.keep),
        leaveOut: without(view.value!.leaveOut),
        conditions: view.value!.conditions.filter(c => c.dimension !== dimension),
        measure: isMoneyMeasure(view.value!.measure) ? view.value!.measure : 'effectiveCost',
      }),
    ])
    if (dimension === 'SkuId') await learnSkus(answer!.rows.map(row => row.values.SkuId ?? null))
    const inCurrency = isMoney.value ? currency.value : (answer!.totals[0]?.currency ?? 'EUR')
    const own = rowsOf(answer!, null, [dimension], inCurrency)
    const known = new Set(own.map(row => row.id))
    // values that cost only in other currencies can be chosen too
    const others = answer!.totals
      .filter(t => t.currency !== inCurrency)
      .flatMap(t => rowsOf(answer!, null, [dimension], t.currency))
      .filter(row => !known.has(row.id))
      .map(row => ({ ...row, amount: '0' }))
    return [...own, ...others]
  }

  /** Does something that may fail, and says so. */
  async function attempt(work: () => Promise<void>) {
    try {
      await work()
    } catch (error) {
      problem.value = problemOf(error)
    }
  }

  /** How an amount was made: the price parts of the charges under all these values, in the currency looked at. */
  async function openWorkings(target: ValueRef, more: Narrowing = {}) {
    try {
      const { parts: all, rest } = await askParts({ ...view.value!.keep, ...more, [target.dimension]: [target.value] })
      const own = all.filter(p => p.currency === currency.value || !isMoney.value || view.value!.reportCurrency)
      const left = rest?.amounts.find(a => a.currency === currency.value)?.amount ?? null
      workings.value = {
        title: `${dimensionLabel(target.dimension)} ${target.label}`,
        parts: own,
        left: left === null ? null : { count: rest!.count, amount: left },
        total: addTexts([...own.map(p => p.amount), left ?? '0']),
      }
    } catch (error) {
      problem.value = problemOf(error)
    }
  }

  return {
    view,
    shown,
    days,
    totals,
    totalsBefore,
    original,
    unconverted,
    rows,
    series,
    lines,
    starts,
    columns,
    parts,
    across,
    nowAnswer,
    beforeAnswer,
    comparison,
    byDays,
    groups,
    later,
    otherBasis,
    partDay,
    lagging,
    perDay,
    skuWords,
    distortions,
    ignored,
    problem,
    loading,
    ready,
    menu,
    workings,
    currency,
    total,
    totalBefore,
    period,
    compared,
    comparedReach,
    tableColumns,
    isMoney,
    additive,
    load,
    question,
    hueOf,
    labelOf,
    valuesOf,
    openWorkings,
    attempt,
    learnSkus,
    forgetSkus,
  }
})
