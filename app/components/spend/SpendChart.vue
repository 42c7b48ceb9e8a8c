<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import { BarChart, LineChart } from 'echarts/charts'
import { AriaComponent, GridComponent, TitleComponent, TooltipComponent } from 'echarts/components'
import * as echarts from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import { runningTotals } from '../../../core/spend/running'
import { addDays, monthEnd } from '../../../core/time/day'
import type { ChartSeries } from '../../../core/spend/page/series'

echarts.use([BarChart, LineChart, GridComponent, TooltipComponent, TitleComponent, AriaComponent, SVGRenderer])

const spend = useSpend()
const actions = useSpendActions()
const { openMenu, onKey } = useValueKeys()
const colour = useColorMode()
const box = useTemplateRef<HTMLElement>('box')
let chart: echarts.ECharts | null = null

const view = computed(() => spend.shown!)
const said = (amount: string | null) =>
  amount === null ? 'nothing used' : `${measured(amount, spend.currency, view.value.measure)} ${spend.currency}`
const drawnNumber = (amount: string | null) => (amount === null ? null : Number(amount))
const axisText = (start: string) => {
  const { grain } = view.value
  if (grain === 'hour') return start.endsWith('T00') || start === spend.starts[0] ? dayShortText(start) : start.slice(11)
  if (grain === 'month') return `${monthText(start).slice(0, 3)} ${start.slice(2, 4)}`
  if (grain === 'quarter') return `Q${Math.floor((Number(start.slice(5, 7)) - 1) / 3) + 1} ${start.slice(2, 4)}`
  return grain === 'week' || start.endsWith('-01') || start === spend.starts[0] ? dayShortText(start) : String(Number(start.slice(8)))
}
const target = (series: ChartSeries) =>
  series.values && view.value.splitBy.length
    ? {
        dimension: view.value.splitBy[0]!,
        value: series.values[0]!,
        label: view.value.splitBy.length === 1 ? series.label : valueLabel(view.value.splitBy[0]!, series.values[0]!),
      }
    : null
const fill = (series: ChartSeries, colours: ReturnType<typeof chartColours>) =>
  series.hue === null ? colours.rest : colours.hues[series.hue]!

/** Amounts as drawn: a running total adds up what came before. */
const drawn = computed(() =>
  spend.series.map(series =>
    view.value.chart === 'running' && spend.additive ? runningTotals(series.amounts.map(amount => amount ?? '0')) : series.amounts,
  ),
)
const wholes = computed(() => spend.starts.map((_, i) => drawn.value.reduce((n, amounts) => n + Math.abs(Number(amounts[i])), 0)))
const isBar = computed(() => ['columns', 'grouped', 'multiples', 'share'].includes(view.value.chart))
/**
 * So many columns beside each other are drawn as one outline to a value: they are a pixel or two wide, and thousands of them take long to
 * paint.
 */
const MOST_COLUMNS = 130
const isOutline = computed(() => isBar.value && view.value.chart !== 'grouped' && spend.starts.length > MOST_COLUMNS)
/** Outlines and long lines have no points of their own to be pointed at: there a place in time says all its figures. */
const byTime = computed(() => isOutline.value || (!isBar.value && spend.starts.length > MOST_POINTS))
const MOST_POINTS = 62
const isStacked = computed(() => ['columns', 'area', 'share', 'running'].includes(view.value.chart) && spend.additive)

// which bar has the keyboard's attention
const cursor = ref<{ start: number; series: number } | null>(null)
// a range being dragged over, as places of starts
const dragged = ref<{ from: number; to: number } | null>(null)

const MULTIPLES_ACROSS = 4
function grids() {
  const count = spend.series.length
  const across = Math.min(MULTIPLES_ACROSS, count)
  const down = Math.ceil(count / across)
  return spend.series.map((_, i) => ({
    left: `${((i % across) * 100) / across + 0.6}%`,
    width: `${100 / across - 1.6}%`,
    top: `${(Math.floor(i / across) * 100) / down + 9}%`,
    height: `${100 / down - 16}%`,
    containLabel: false,
  }))
}

function draw() {
  if (!chart) return
  const colours = chartColours()
  const kind = view.value.chart
  const many = kind === 'multiples'
  // pictures side by side have one scale, or they cannot be compared
  const most = many ? Math.max(0, ...drawn.value.flatMap(amounts => amounts.map(Number))) : undefined
  const number = (v: number) =>
    Math.abs(v) >= 1000 ? `${(v / 1000).toLocaleString(undefined, { maximumFractionDigits: 1 })} k` : v.toLocaleString()
  // over many months only their firsts are named
  const isLongByDay = view.value.grain === 'day' && spend.starts.length > MOST_POINTS
  const xAxis = (i: number) => ({
    type: 'category',
    gridIndex: i,
    data: spend.starts,
    show: !many,
    axisTick: { show: false },
    axisLine: { lineStyle: { color: colours.lineStrong } },
    axisLabel: {
      color: colours.ink3,
      fontSize: 11.5,
      formatter: axisText,
      hideOverlap: true,
      interval: isLongByDay ? (_: number, start: string) => start.endsWith('-01') : 'auto',
    },
  })
  const yAxis = (i: number) => ({
    type: 'value',
    gridIndex: i,
    splitNumber: 4,
    show: !many,
    max: kind === 'share' && spend.additive ? 1 : most,
    splitLine: { lineStyle: { color: colours.line } },
    axisLabel: {
      color: colours.ink3,
      fontSize: 11.5,
      formatter: (v: number) => (kind === 'share' && spend.additive ? `${Math.round(v * 100)} %` : number(v)),
    },
  })
  chart.setOption(
    {
      animationDuration: 200,
      textStyle: { fontFamily: colours.sans },
      grid: many ? grids() : [{ left: 8, right: 8, top: 12, bottom: 4, containLabel: true }],
      title: many
        ? spend.series.map((series, i) => ({
            text: series.label,
            left: grids()[i]!.left,
            top: `${Number.parseFloat(grids()[i]!.top) - 8}%`,
            textStyle: {
              color: colours.ink2,
              fontSize: 11,
              fontWeight: 'normal',
              fontFamily: colours.sans,
              overflow: 'truncate',
              width: 150,
            },
          }))
        : [],
      tooltip: {
        trigger: byTime.value ? 'axis' : 'item',
        backgroundColor: colours.raised,
        borderColor: colours.lineStrong,
        textStyle: { color: colours.ink, fontSize: 12, fontFamily: colours.sans },
        confine: true,
        axisPointer: { type: 'line', lineStyle: { color: colours.lineStrong }, label: { show: false } },
        formatter: (hits: Hit | Hit[]) => {
          if (Array.isArray(hits)) return figuresAt(hits)
          const hit = hits
          const series = spend.series[hit.seriesIndex]
          return series
            ? `<b>${echarts.format.encodeHTML(series.label)}</b><br>${startText(spend.starts[hit.dataIndex]!, view.value.grain)}: ${said(series.amounts[hit.dataIndex]!)}${kind === 'running' ? `<br>until then ${said(drawn.value[hit.seriesIndex]![hit.dataIndex]!)}` : ''}`
            : ''
        },
      },
      xAxis: many ? spend.series.map((_, i) => xAxis(i)) : [xAxis(0)],
      yAxis: many ? spend.series.map((_, i) => yAxis(i)) : [yAxis(0)],
      series: spend.series.map((series, s) => ({
        type: isBar.value && !isOutline.value ? 'bar' : 'line',
        step: isOutline.value ? 'middle' : undefined,
        triggerLineEvent: true,
        name: series.label,
        stack: isStacked.value ? 'all' : undefined,
        xAxisIndex: many ? s : 0,
        yAxisIndex: many ? s : 0,
        barMaxWidth: 44,
        barCategoryGap: '18%',
        symbol: isOutline.value ? 'none' : 'circle',
        symbolSize: 5,
        showSymbol: !byTime.value,
        lineStyle: { width: isOutline.value ? 0.6 : 1.8, ...(series.isNone && { color: colours.ink3, type: 'dashed' as const }) },
        areaStyle: isOutline.value ? { opacity: 1 } : kind === 'area' || kind === 'running' ? { opacity: 0.55 } : undefined,
        itemStyle: {
          color: series.isNone ? hatched(colours) : fill(series, colours),
          borderColor: series.hue === null ? colours.lineStrong : colours.paper,
          borderWidth: 0.6,
        },
        emphasis: { itemStyle: { borderColor: colours.ink, borderWidth: 1.5 } },
        cursor: 'pointer',
        data: drawn.value[s]!.map((amount, i) => {
          const value =
            kind === 'share' && spend.additive ? (wholes.value[i] ? Math.abs(Number(amount)) / wholes.value[i] : 0) : drawnNumber(amount)
          return isPart(spend.starts[i]!) ? { value, itemStyle: { decal: PART_OF_A_DAY } } : value
        }),
      })),
    },
    { replaceMerge: ['series', 'grid', 'xAxis', 'yAxis', 'title'] },
  )
}

/** Hatching of what is delivered in part. */
const PART_OF_A_DAY = { symbol: 'rect', color: 'rgba(255, 255, 255, 0.65)', dashArrayX: [1, 0], dashArrayY: [3, 3], rotation: -Math.PI / 4 }
const isPart = (start: string) => spend.partDay !== null && start.slice(0, 10) === spend.partDay.day
type Hit = { seriesIndex: number; dataIndex: number }
const MOST_FIGURES = 12

/** The figures of one start, the largest first. */
function figuresAt(hits: Hit[]): string {
  const at = hits[0]?.dataIndex
  if (at === undefined) return ''
  const here = spend.series
    .map((series, i) => ({ series, amount: series.amounts[at]!, until: drawn.value[i]![at]! }))
    .filter(({ amount }) => Number(amount) !== 0)
    .sort((a, b) => Math.abs(Number(b.amount)) - Math.abs(Number(a.amount)))
  const lines = here
    .slice(0, MOST_FIGURES)
    .map(
      ({ series, amount, until }) =>
        `<span style="color:${fill(series, chartColours())}">■</span> ${echarts.format.encodeHTML(series.label)}: ${said(amount)}${view.value.chart === 'running' ? `, until then ${said(until)}` : ''}`,
    )
  if (here.length > MOST_FIGURES) lines.push(`and ${here.length - MOST_FIGURES} more`)
  return [
    `<b>${startText(spend.starts[at]!, view.value.grain)}</b>`,
    ...(spend.additive && here.length > 1 ? [`all: ${said(addTexts(here.map(({ amount }) => amount!)))}`] : []),
    ...lines,
  ].join('<br>')
}

/** The place of a start under a pixel; null outside the drawing. */
function startAt(x: number): number | null {
  if (!chart || view.value.chart === 'multiples') return null
  const at = chart.convertFromPixel({ xAxisIndex: 0 }, x) as unknown as number
  return Number.isFinite(at) && at >= 0 && at < spend.starts.length ? Math.round(at) : null
}
let pressedAt: { x: number; start: number } | null = null
function press(event: PointerEvent) {
  const start = startAt(event.offsetX)
  pressedAt = start === null || event.button !== 0 ? null : { x: event.offsetX, start }
}
const MOVED_PX = 8
function drag(event: PointerEvent) {
  if (!pressedAt || Math.abs(event.offsetX - pressedAt.x) < MOVED_PX) return
  const start = startAt(event.offsetX)
  if (start !== null) dragged.value = { from: Math.min(pressedAt.start, start), to: Math.max(pressedAt.start, start) }
}
/** The range dragged over becomes the period. */
function release() {
  const range = dragged.value
  pressedAt = null
  if (!range) return
  setTimeout(() => {
    dragged.value = null // after the click that follows a drag has been passed over
  })
  const first = spend.starts[range.from]!.slice(0, 10)
  const last = spend.starts[range.to]!.slice(0, 10)
  const { grain } = view.value
  const end =
    grain === 'month'
      ? monthEnd(last.slice(0, 7))
      : grain === 'quarter'
        ? monthEnd(addDays(last, 75).slice(0, 7))
        : addDays(last, grain === 'week' ? 7 : 1)
  actions.go({ period: { start: first, end } })
}
const shade = computed(() => {
  if (!dragged.value || !chart) return null
  const step =
    (chart.convertToPixel({ xAxisIndex: 0 }, 1) as unknown as number) - (chart.convertToPixel({ xAxisIndex: 0 }, 0) as unknown as number)
  const from = chart.convertToPixel({ xAxisIndex: 0 }, dragged.value.from) as unknown as number
  return { left: `${from - step / 2}px`, width: `${step * (dragged.value.to - dragged.value.from + 1)}px` }
})

onMounted(() => {
  chart = echarts.init(box.value!, undefined, { renderer: 'svg' })
  chart.on('click', hit => {
    if (dragged.value) return
    const series = spend.series[hit.seriesIndex ?? -1]
    const event = hit.event?.event as unknown as MouseEvent | undefined
    const what = series && target(series)
    const start = spend.starts[hit.dataIndex ?? -1]
    if (what && event)
      spend.menu = { target: what, at: new DOMRect(event.clientX, event.clientY, 0, 0), ...(start && !byTime.value && { start }) }
    else if (hit.dataIndex !== undefined && !byTime.value) actions.lookInto(spend.starts[hit.dataIndex]!)
  })
  draw()
})
onUnmounted(() => chart?.dispose())
// told its size, the chart need not have the whole page laid out to measure it
useResizeObserver(box, ([entry]) => chart?.resize({ width: entry!.contentRect.width, height: entry!.contentRect.height }))
watch(
  () => [spend.series, view.value.chart, colour.value],
  async () => {
    cursor.value = null
    await nextTick()
    draw()
  },
)

/** Shows where the keyboard is. */
function point() {
  const { series: seriesIndex, start: dataIndex } = cursor.value!
  chart?.dispatchAction({ type: 'downplay' })
  chart?.dispatchAction({ type: 'highlight', seriesIndex, dataIndex })
  chart?.dispatchAction({ type: 'showTip', seriesIndex, dataIndex })
}

function move(event: KeyboardEvent) {
  const at = cursor.value ?? { start: spend.starts.length - 1, series: 0 }
  const steps: Record<string, [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }
  const ends: Record<string, number> = { Home: 0, End: spend.starts.length - 1 }
  const end = ends[event.key]
  if (end !== undefined) {
    cursor.value = { start: end, series: at.series }
    point()
    event.preventDefault()
    return
  }
  const step = steps[event.key]
  if (step) {
    const within = (n: number, size: number) => Math.max(0, Math.min(size - 1, n))
    cursor.value = {
      start: within(at.start + (cursor.value ? step[0] : 0), spend.starts.length),
      series: within(at.series + (cursor.value ? step[1] : 0), spend.series.length),
    }
    point()
    event.preventDefault()
    return
  }
  const series = cursor.value && spend.series[cursor.value.series]
  const what = series && target(series)
  if (event.key === 'z' && cursor.value) {
    actions.lookInto(spend.starts[cursor.value.start]!)
    event.preventDefault()
  } else if (event.key === 'Enter' && what) {
    openMenu(what, event.currentTarget as Element)
    event.preventDefault()
  } else if (what) onKey(event, what)
}
const spoken = computed(() => {
  const series = cursor.value && spend.series[cursor.value.series]
  const start = cursor.value && spend.starts[cursor.value.start]
  return series && start ? `${series.label}, ${startText(start, view.value.grain)}: ${said(series.amounts[cursor.value!.start]!)}` : ''
})
</script>

<template>
  <div class="chart">
    <div class="frame">
      <div
        ref="box"
        class="drawing"
        :class="{ tall: view.chart === 'multiples' }"
        tabindex="0"
        role="application"
        :aria-label="`Chart of ${spend.series.length} values; arrows move, Enter opens what to do, z looks into that time`"
        @keydown="move"
        @pointerdown="press"
        @pointermove="drag"
        @pointerup="release"
        @pointerleave="release"
      />
      <div v-if="shade" class="shade" :style="shade" aria-hidden="true" />
    </div>
    <p class="sr-only" aria-live="polite">{{ spoken }}</p>
    <ul class="legend" aria-label="Values in the chart">
      <li v-for="series in [...spend.series].reverse()" :key="series.id">
        <component
          :is="target(series) ? 'button' : 'span'"
          class="entry"
          :title="series.label"
          @click="target(series) && openMenu(target(series)!, $event.currentTarget as Element)"
          @contextmenu.prevent="target(series) && openMenu(target(series)!, $event.currentTarget as Element)"
          @keydown="target(series) && onKey($event, target(series)!)"
        >
          <span
            class="swatch"
            :class="{ rest: series.hue === null, none: series.isNone }"
            :style="{ background: series.hue === null ? 'var(--rest)' : `var(--c${series.hue + 1})` }"
          />
          <span class="name">{{ series.label }}</span><span class="amount">{{
            spend.isMoney ? whole(series.total) : measured(series.total, spend.currency, view.measure)
          }}</span>
        </component>
      </li>
    </ul>
    <div class="sr-only">
      <table>
        <caption>
          The figures of the chart, in
          {{
            spend.currency
          }}
        </caption>
        <thead>
          <tr>
            <th>start</th>
            <th v-for="series in spend.series" :key="series.id">{{ series.label }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(start, i) in spend.starts.slice(0, 62)" :key="start">
            <th>{{ startText(start, view.grain) }}</th>
            <td v-for="series in spend.series" :key="series.id">{{ said(series.amounts[i]!) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
.chart {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 215px;
  gap: 8px;
  position: relative;
}
.frame {
  position: relative;
  min-width: 0;
}
.drawing {
  height: 205px;
  touch-action: pan-y;
}
.drawing.tall {
  height: 300px;
}
.shade {
  position: absolute;
  top: 8px;
  bottom: 24px;
  background: color-mix(in srgb, var(--act) 14%, transparent);
  border-inline: 1px solid var(--act);
  pointer-events: none;
}
.legend {
  align-self: center;
  min-width: 0;
  max-height: 300px;
  overflow: auto;
}
.entry {
  display: flex;
  gap: 8px;
  align-items: center;
  width: 100%;
  min-height: 24px;
  padding: 0 4px;
  border-radius: 3px;
  text-align: left;
}
button.entry:hover {
  background: var(--act-soft);
}
.swatch {
  width: 10px;
  height: 10px;
  flex: none;
  border-radius: 1px;
}
.swatch.rest {
  border: 1px solid var(--line-strong);
}
.name {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
@media (max-width: 800px) {
  .chart {
    grid-template-columns: minmax(0, 1fr);
  }
}
.swatch.none {
  background: var(--hatch) !important;
}
</style>
