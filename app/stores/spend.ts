import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { addTexts } from '../../core/money/amount-text'
import { mainTotal } from '../../core/money/main-total'
import { withCompanions } from '../../core/spend/companions'
import { amountPerDay, type DayGroup } from '../../core/spend/day-groups'
import { askedOf, type Asked } from '../../core/spend/page/asked'
import { Hues } from '../../core/spend/page/hues'
import { pageQuestions, type Page, type PageAsked } from '../../core/spend/page/questions'
import { amountsByStart } from '../../core/spend/figure-groups'
import { choicesOf, rowsOf, type SpendRow } from '../../core/spend/page/rows'
import { chartSeries, type ChartSeries } from '../../core/spend/page/series'
import { stepColumn, stepsDone, type StepColumn } from '../../core/spend/page/steps'
import { adds, type Answer, type Narrowing } from '../../core/spend/question'
import { columnsFor } from '../../core/spend/table'
import { keptWithSteps, type Sentence } from '../../core/spend/sentence'
import { laggards, reachingCompared, reachInto, resolvePeriod, type DataDays, type Reaching } from '../../core/spend/sentence-period'
import { grainStarts, wholeStarts } from '../../core/time/grain'
import type { Period } from '../../core/time/period'
import type { ProblemDetails } from '../../shared/contracts/common'
import { priceParts, type PriceParts, type SpendAnswer, type SpendComparison } from '../../shared/contracts/spend'
import { dimensionLabel, valueLabel } from '../../shared/words/dimensions'
import { askAnswers, type Answered } from '../utils/ask-answers'
import { askComparison, askPage, skusOf } from '../utils/ask-page'
import { client, problemOf } from '../utils/client'
import { distortionWords, type DistortionWords } from '../utils/distortion-words'
import { count } from '../utils/format'
import { isCost, isMoneyMeasure } from '../utils/measures'
import { useData } from './data'
import { useSkuWords } from './sku-words'

export type ValueRef = { dimension: string; value: string | null; label: string }
type Totals = SpendAnswer['totals']

/** The same charges by the other periods, and the charges that stand outside their billing period by either. */
export type OtherBasis = { totals: Totals; here: Answered['rows']; there: Answered['rows'] }

export const useSpend = defineStore('spend', () => {
  const data = useData()
  const skus = useSkuWords()
  /** What is asked for: the Sentence shows it at once. */
  const sentence = ref<Sentence | null>(null)
  /** What the figures are of: it follows when they are there. */
  const shown = shallowRef<Sentence | null>(null)
  const days = ref<DataDays | null>(null)
  const totals = ref<Totals>([])
  const totalsBefore = ref<Totals>([])
  const original = ref<Totals>([])
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
  const groups = shallowRef<DayGroup[]>([])
  /** What begins after the last day that is delivered: purchases for later, or mistakes. */
  const later = shallowRef<{ totals: Totals; from: string } | null>(null)
  /** What the total would be by the other periods, and the charges that make the difference, largest first. */
  const otherBasis = shallowRef<OtherBasis | null>(null)
  /** What is delivered of the day after the period. */
  const partDay = shallowRef<{ day: string; totals: Totals } | null>(null)
  const distortions = ref<DistortionWords[]>([])
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
  const hues = new Hues()
  let asking: AbortController | null = null

  const currency = computed(() => {
    const asked = (shown.value ?? sentence.value)?.currency
    if (asked && totals.value.some(t => t.currency === asked)) return asked
    return mainTotal(totals.value, data.facts?.reportCurrency ?? null)?.currency ?? 'EUR'
  })
  const total = computed(() => totals.value.find(t => t.currency === currency.value)?.amount ?? '0')
  const totalBefore = computed(() => totalsBefore.value.find(t => t.currency === currency.value)?.amount ?? null)
  const period = computed<Period>(() => resolvePeriod((shown.value ?? sentence.value!).period, days.value!))
  const compared = computed<Reaching | null>(() => (shown.value && days.value ? reachingCompared(shown.value, days.value) : null))
  /** Sources that the period lacks days of. */
  const lagging = computed(() => (shown.value && days.value ? laggards(period.value, days.value) : []))
  /** The total a day: of each source over the days that it has delivered. */
  const perDay = computed(() => {
    const whole = [{ days: groups.value[0]?.days ?? 1, totals: totals.value }]
    return amountPerDay(byDays.value?.map(({ days, answer }) => ({ days, totals: answer.totals })) ?? whole, currency.value)
  })
  /** How much of the compared period is loaded: with none of it nothing can be compared. */
  const comparedReach = computed(() => (compared.value && days.value ? reachInto(compared.value, days.value) : 'none'))
  const measure = computed(() => (shown.value ?? sentence.value)?.measure ?? 'effectiveCost')
  /** The table's columns that have something to say. */
  const tableColumns = computed(() => columnsFor(measure.value, shown.value?.columns ?? [], comparedReach.value))
  /** Whether the measure is money: it has a currency and charge lines behind it. */
  const isMoney = computed(() => !shown.value || isMoneyMeasure(shown.value.measure))
  const additive = computed(() => adds(measure.value))

  const question = (more?: Partial<Asked>): Asked => askedOf(sentence.value!, days.value!, more)

  async function askParts(keep: Narrowing, signal?: AbortSignal) {
    const { reportCurrency: _, ...plain } = question({ keep })
    const answer = await client.send('POST', 'spend/price-parts', plain, priceParts, signal)
    await skus.learn(
      answer.parts.map(part => part.skuId),
      signal,
    )
    return answer
  }

  function labelOf(dimension: string, value: string | null, name: string | null | undefined): string {
    if (value === null) return valueLabel(dimension, null)
    return name ?? (dimension === 'SkuId' ? skus.words[value]?.words : undefined) ?? value
  }
  const rowsIn = (answer: Answer, before: Answer | null, dimensions: string[], inCurrency: string) =>
    rowsOf(answer, before, dimensions, inCurrency, labelOf)

  async function load(next: Sentence, dataDays: DataDays) {
    asking?.abort()
    const mine = (asking = new AbortController())
    sentence.value = next
    days.value = dataDays
    loading.value = true
    problem.value = null
    try {
      const { signal } = mine
      const asked = pageQuestions(next, dataDays, data.facts!.sources, data.partial?.day ?? null)
      const [page, compare, partsNow] = await Promise.all([
        askPage(asked.questions, signal),
        next.show === 'comparison' && isCost(next.measure) ? askComparison(next, asked, signal) : null,
        stepsDone(next) ? askParts(keptWithSteps(next), signal) : null,
      ])
      if (next.splitBy.includes('SkuId') || next.stepOrder.includes('SkuId')) await skus.learn(skusOf(page), signal)
      show(next, asked, page)
      comparison.value = compare
      parts.value = partsNow ? partsNow.parts.filter(part => part.currency === currency.value || !isMoneyMeasure(next.measure)) : null
      ready.value = true
    } catch (error) {
      if ((error as Error).name !== 'AbortError') problem.value = problemOf(error)
    } finally {
      if (asking === mine) loading.value = false
    }
  }

  /** Puts what was answered in the places where it is shown. */
  function show(next: Sentence, asked: PageAsked, page: Page<Answered>) {
    const { now, before } = page
    shown.value = next
    groups.value = asked.dayGroups
    byDays.value = page.days.length ? page.days.map((answer, i) => ({ days: asked.dayGroups[i]!.days, answer })) : null
    later.value = page.later?.totals.length ? { from: asked.laterFrom!, totals: page.later.totals } : null
    otherBasis.value = page.otherBasis && { totals: page.otherBasis.totals, here: page.elsewhere!.rows, there: page.otherElsewhere!.rows }
    partDay.value = page.part?.totals.length ? { day: asked.part!.start, totals: page.part.totals } : null
    nowAnswer.value = now
    beforeAnswer.value = before
    totals.value = now.totals
    totalsBefore.value = before.totals
    original.value = now.original ?? []
    unconverted.value = now.unconverted ?? []
    across.value = page.across
    rows.value = rowsIn(now, before, next.splitBy, currency.value)
    distortions.value = isMoneyMeasure(next.measure) ? distortionWords(next, page.chargeKinds.rows, currency.value) : []
    showCourses(next, asked, page)
    columns.value = asked.steps.map((step, i) => stepColumn(step, page.steps[i]!.now, page.steps[i]!.before, currency.value, labelOf))
  }

  /** The chart, and the small lines of the table. */
  function showCourses(next: Sentence, { period: { start, end }, part, lineGrain }: PageAsked, page: Page<Answered>) {
    // the part of a day that is delivered is drawn beside the days that are whole, and is in no total
    const isPartDrawn = !!partDay.value && (next.grain === 'day' || next.grain === 'hour')
    const withPart = (own: Answered, more: Answered | null) => (isPartDrawn && more ? [own, more] : [own])
    const empty = adds(next.measure) ? '0' : null
    const inCurrency = currency.value
    starts.value = grainStarts(start, isPartDrawn ? part!.end : end, next.grain)
    const courses = amountsByStart(withPart(page.series, page.partSeries), next.splitBy, starts.value, inCurrency, empty)
    const whole = { rows: withPart(page.line, page.partLine).flatMap(({ rows }) => rows) }
    series.value = chartSeries(
      next,
      { rows: rows.value, whole, courses, starts: starts.value, currency: inCurrency, total: total.value },
      hues,
      left => `the other ${count(left)}`,
    )
    // a step that the period cuts through would look like a fall
    lines.value = page.lines ? amountsByStart([page.lines], next.splitBy, wholeStarts(start, end, lineGrain), inCurrency, empty) : courses
  }

  /** The hue of a value of the dimension that the chart splits by; null elsewhere. */
  function hueOf(dimension: string, value: string | null): number | null {
    if (shown.value?.splitBy.length !== 1 || shown.value.splitBy[0] !== dimension) return null
    return series.value.find(s => s.values?.[0] === value)?.hue ?? null
  }

  /** The values of a dimension under the sentence's other conditions, with their amounts: what a list to choose from shows. */
  async function valuesOf(dimension: string): Promise<SpendRow[]> {
    const without = ({ [dimension]: _, ...rest }: Narrowing) => rest
    const { keep, leaveOut, conditions, measure } = sentence.value!
    const [answer] = await askAnswers([
      question({
        splitBy: withCompanions([dimension]),
        keep: without(keep),
        leaveOut: without(leaveOut),
        conditions: conditions.filter(condition => condition.dimension !== dimension),
        measure: isMoneyMeasure(measure) ? measure : 'effectiveCost',
      }),
    ])
    if (dimension === 'SkuId') await skus.learn(answer!.rows.map(row => row.values.SkuId))
    const inCurrency = isMoney.value ? currency.value : (answer!.totals[0]?.currency ?? 'EUR')
    return choicesOf(answer!, dimension, inCurrency, labelOf)
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
  const openWorkings = (target: ValueRef, more: Narrowing = {}) =>
    attempt(async () => {
      const { parts: all, rest } = await askParts({ ...sentence.value!.keep, ...more, [target.dimension]: [target.value] })
      const own = all.filter(part => part.currency === currency.value || !isMoney.value || sentence.value!.reportCurrency)
      const left = rest?.amounts.find(amount => amount.currency === currency.value)?.amount ?? null
      workings.value = {
        title: `${dimensionLabel(target.dimension)} ${target.label}`,
        parts: own,
        left: left === null ? null : { count: rest!.count, amount: left },
        total: addTexts([...own.map(part => part.amount), left ?? '0']),
      }
    })

  return {
    ...{ sentence, shown, days, period, compared, comparedReach, loading, ready, problem, attempt, load, question },
    ...{ totals, totalsBefore, total, totalBefore, original, unconverted, currency, isMoney, additive, perDay },
    ...{ rows, tableColumns, across, nowAnswer, beforeAnswer, comparison, byDays, groups, series, lines, starts, hueOf },
    ...{ columns, parts, later, otherBasis, partDay, lagging, distortions, ignored },
    ...{ menu, workings, openWorkings, labelOf, valuesOf },
  }
})
