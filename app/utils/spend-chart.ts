import { format } from 'echarts/core'
import { runningTotals } from '../../core/spend/running'
import type { ChartSeries } from '../../core/spend/page/series'
import type { Sentence } from '../../core/spend/sentence'
import { numberFormat } from '../../shared/words/amounts'
import { dayShortText, monthText } from '../../shared/words/days'
import { addTexts } from './amount-text'
import { hatched, type chartColours } from './chart-colours'
import { startText } from './spend-sentence'

type Colours = ReturnType<typeof chartColours>
type Hit = { seriesIndex: number; dataIndex: number }

/**
 * So many columns beside each other are drawn as one outline to a value: they are a pixel or two wide, and thousands of them take long to
 * paint.
 */
const MOST_COLUMNS = 130
const MOST_POINTS = 62
const MOST_FIGURES = 12
const MULTIPLES_ACROSS = 4
/** Hatching of what is delivered in part. */
const PART_OF_A_DAY = { symbol: 'rect', color: 'rgba(255, 255, 255, 0.65)', dashArrayX: [1, 0], dashArrayY: [3, 3], rotation: -Math.PI / 4 }

/** What the chart of spend shows. */
export type SpendChart = {
  kind: Sentence['chart']
  grain: Sentence['grain']
  series: readonly ChartSeries[]
  starts: readonly string[]
  /** Whether figures of the measure add up. */
  adds: boolean
  /** The day of which only a part is delivered. */
  partDay: string | null
  /** An amount with its unit, in words. */
  said: (amount: string | null) => string
}

/** How a chart is drawn, by its kind and by how much there is of it. */
export function chartManner({ kind, starts, adds }: Pick<SpendChart, 'kind' | 'starts' | 'adds'>) {
  const isBar = ['columns', 'grouped', 'multiples', 'share'].includes(kind)
  const isOutline = isBar && kind !== 'grouped' && starts.length > MOST_COLUMNS
  return {
    isBar,
    isOutline,
    isStacked: ['columns', 'area', 'share', 'running'].includes(kind) && adds,
    isShare: kind === 'share' && adds,
    isRunning: kind === 'running' && adds,
    isMultiples: kind === 'multiples',
    /** Outlines and long lines have no points of their own to be pointed at: there a place in time says all its figures. */
    isByTime: isOutline || (!isBar && starts.length > MOST_POINTS),
  }
}

/** A start below the axis: in full only where something begins. */
export function axisText(start: string, grain: Sentence['grain'], isFirst: boolean): string {
  if (grain === 'hour') return start.endsWith('T00') || isFirst ? dayShortText(start) : start.slice(11)
  if (grain === 'month') return `${monthText(start).slice(0, 3)} ${start.slice(2, 4)}`
  if (grain === 'quarter') return `Q${Math.floor((Number(start.slice(5, 7)) - 1) / 3) + 1} ${start.slice(2, 4)}`
  return grain === 'week' || start.endsWith('-01') || isFirst ? dayShortText(start) : String(Number(start.slice(8)))
}
const numberText = (v: number) =>
  Math.abs(v) >= 1000 ? `${numberFormat('k', { maximumFractionDigits: 1 }).format(v / 1000)} k` : numberFormat('n', {}).format(v)
const fillOf = ({ hue }: ChartSeries, colours: Colours) => (hue === null ? colours.rest : colours.hues[hue]!)
const html = (text: string) => format.encodeHTML(text)

/** Places of small charts beside and below each other. */
function grids(count: number) {
  const across = Math.min(MULTIPLES_ACROSS, count)
  const down = Math.ceil(count / across)
  return Array.from({ length: count }, (_, i) => ({
    left: `${((i % across) * 100) / across + 0.6}%`,
    width: `${100 / across - 1.6}%`,
    top: `${(Math.floor(i / across) * 100) / down + 9}%`,
    height: `${100 / down - 16}%`,
    containLabel: false,
  }))
}

/** Amounts as drawn: a running total adds up what came before. */
const drawnAmounts = (series: readonly ChartSeries[], isRunning: boolean) =>
  series.map(({ amounts }) => (isRunning ? runningTotals(amounts.map(amount => amount ?? '0')) : amounts))

/** What the drawing library is told. */
export function chartOption(chart: SpendChart, colours: Colours) {
  const { grain, series, starts, said, partDay } = chart
  const { isBar, isOutline, isStacked, isShare, isRunning, isMultiples, isByTime } = chartManner(chart)
  const drawn = drawnAmounts(series, isRunning)
  const wholes = starts.map((_, i) => drawn.reduce((n, amounts) => n + Math.abs(Number(amounts[i])), 0))
  // pictures side by side have one scale, or they cannot be compared
  const most = isMultiples ? Math.max(0, ...drawn.flatMap(amounts => amounts.map(Number))) : undefined
  // over many months only their firsts are named
  const isLongByDay = grain === 'day' && starts.length > MOST_POINTS
  const places = isMultiples ? grids(series.length) : []
  const axisLabel = { color: colours.ink3, fontSize: 11.5 }
  const xAxis = (i: number) => ({
    ...{ type: 'category', gridIndex: i, data: starts, show: !isMultiples, axisTick: { show: false } },
    axisLine: { lineStyle: { color: colours.lineStrong } },
    axisLabel: {
      ...axisLabel,
      formatter: (start: string) => axisText(start, grain, start === starts[0]),
      hideOverlap: true,
      interval: isLongByDay ? (_: number, start: string) => start.endsWith('-01') : 'auto',
    },
  })
  const yAxis = (i: number) => ({
    ...{ type: 'value', gridIndex: i, splitNumber: 4, show: !isMultiples, max: isShare ? 1 : most },
    splitLine: { lineStyle: { color: colours.line } },
    axisLabel: { ...axisLabel, formatter: (v: number) => (isShare ? `${Math.round(v * 100)} %` : numberText(v)) },
  })
  const valueAt = (amount: string | null, i: number) =>
    isShare ? (wholes[i] ? Math.abs(Number(amount)) / wholes[i] : 0) : amount === null ? null : Number(amount)
  const titleStyle = { color: colours.ink2, fontSize: 11, fontWeight: 'normal', fontFamily: colours.sans, overflow: 'truncate', width: 150 }
  return {
    animationDuration: 200,
    textStyle: { fontFamily: colours.sans },
    grid: isMultiples ? places : [{ left: 8, right: 8, top: 12, bottom: 4, containLabel: true }],
    title: places.map(({ left, top }, i) => ({
      ...{ text: series[i]!.label, left, top: `${Number.parseFloat(top) - 8}%`, textStyle: titleStyle },
    })),
    tooltip: {
      trigger: isByTime ? 'axis' : 'item',
      backgroundColor: colours.raised,
      borderColor: colours.lineStrong,
      textStyle: { color: colours.ink, fontSize: 12, fontFamily: colours.sans },
      confine: true,
      axisPointer: { type: 'line', lineStyle: { color: colours.lineStrong }, label: { show: false } },
      formatter: (hits: Hit | Hit[]) => {
        if (Array.isArray(hits)) return hits[0] ? figuresAt(chart, drawn, hits[0].dataIndex, colours) : ''
        const { seriesIndex, dataIndex } = hits
        const own = series[seriesIndex]
        if (!own) return ''
        const until = chart.kind === 'running' ? `<br>until then ${said(drawn[seriesIndex]![dataIndex]!)}` : ''
        return `<b>${html(own.label)}</b><br>${startText(starts[dataIndex]!, grain)}: ${said(own.amounts[dataIndex]!)}${until}`
      },
    },
    xAxis: isMultiples ? series.map((_, i) => xAxis(i)) : [xAxis(0)],
    yAxis: isMultiples ? series.map((_, i) => yAxis(i)) : [yAxis(0)],
    series: series.map((own, s) => ({
      ...{ type: isBar && !isOutline ? 'bar' : 'line', step: isOutline ? 'middle' : undefined, triggerLineEvent: true },
      ...{ name: own.label, stack: isStacked ? 'all' : undefined, xAxisIndex: isMultiples ? s : 0, yAxisIndex: isMultiples ? s : 0 },
      ...{ barMaxWidth: 44, barCategoryGap: '18%', symbol: isOutline ? 'none' : 'circle', symbolSize: 5, showSymbol: !isByTime },
      lineStyle: { width: isOutline ? 0.6 : 1.8, ...(own.isNone && { color: colours.ink3, type: 'dashed' as const }) },
      areaStyle: isOutline ? { opacity: 1 } : chart.kind === 'area' || chart.kind === 'running' ? { opacity: 0.55 } : undefined,
      itemStyle: {
        color: own.isNone ? hatched(colours) : fillOf(own, colours),
        borderColor: own.hue === null ? colours.lineStrong : colours.paper,
        borderWidth: 0.6,
      },
      emphasis: { itemStyle: { borderColor: colours.ink, borderWidth: 1.5 } },
      cursor: 'pointer',
      data: drawn[s]!.map((amount, i) => {
        const value = valueAt(amount, i)
        return starts[i]!.slice(0, 10) === partDay ? { value, itemStyle: { decal: PART_OF_A_DAY } } : value
      }),
    })),
  }
}

/** The figures of one start, the largest first. */
function figuresAt(
  { kind, grain, series, starts, adds, said }: SpendChart,
  drawn: readonly (readonly (string | null)[])[],
  at: number,
  colours: Colours,
): string {
  const here = series
    .map((own, i) => ({ own, amount: own.amounts[at]!, until: drawn[i]![at]! }))
    .filter(({ amount }) => Number(amount) !== 0)
    .sort((a, b) => Math.abs(Number(b.amount)) - Math.abs(Number(a.amount)))
  const lines = here.slice(0, MOST_FIGURES).map(({ own, amount, until }) => {
    const running = kind === 'running' ? `, until then ${said(until)}` : ''
    return `<span style="color:${fillOf(own, colours)}">■</span> ${html(own.label)}: ${said(amount)}${running}`
  })
  return [
    `<b>${startText(starts[at]!, grain)}</b>`,
    ...(adds && here.length > 1 ? [`all: ${said(addTexts(here.map(({ amount }) => amount!)))}`] : []),
    ...lines,
    ...(here.length > MOST_FIGURES ? [`and ${here.length - MOST_FIGURES} more`] : []),
  ].join('<br>')
}
