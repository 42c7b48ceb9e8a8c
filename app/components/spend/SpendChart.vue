<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import { BarChart, LineChart } from 'echarts/charts'
import { AriaComponent, GridComponent, TitleComponent, TooltipComponent } from 'echarts/components'
import * as echarts from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import type { ChartSeries } from '../../../core/spend/page/series'
import { chartManner, chartOption, type SpendChart } from '../../utils/spend-chart'

echarts.use([BarChart, LineChart, GridComponent, TooltipComponent, TitleComponent, AriaComponent, SVGRenderer])

const spend = useSpend()
const actions = useSpendActions()
const { openMenu, onKey } = useValueKeys()
const colour = useColorMode()
const box = useTemplateRef<HTMLElement>('box')
let chart: echarts.ECharts | null = null

const sentence = computed(() => spend.shown!)
const said = (amount: string | null) =>
  amount === null ? 'nothing used' : `${measured(amount, spend.currency, sentence.value.measure)} ${spend.currency}`
const target = (series: ChartSeries) =>
  series.values && sentence.value.splitBy.length
    ? {
        dimension: sentence.value.splitBy[0]!,
        value: series.values[0]!,
        label: sentence.value.splitBy.length === 1 ? series.label : valueLabel(sentence.value.splitBy[0]!, series.values[0]!),
      }
    : null
const shownChart = computed((): SpendChart => ({
  ...{ kind: sentence.value.chart, grain: sentence.value.grain, series: spend.series, starts: spend.starts, adds: spend.additive, said },
  partDay: spend.partDay?.day ?? null,
}))
const manner = computed(() => chartManner(shownChart.value))

// which bar has the keyboard's attention
const cursor = ref<{ start: number; series: number } | null>(null)

const draw = () =>
  chart?.setOption(chartOption(shownChart.value, chartColours()), { replaceMerge: ['series', 'grid', 'xAxis', 'yAxis', 'title'] })

/** The place of a start under a pixel; null outside the drawing. */
function startAt(x: number): number | null {
  if (!chart || manner.value.isMultiples) return null
  const at = chart.convertFromPixel({ xAxisIndex: 0 }, x) as unknown as number
  return Number.isFinite(at) && at >= 0 && at < spend.starts.length ? Math.round(at) : null
}
const pixelOf = (start: number) => chart!.convertToPixel({ xAxisIndex: 0 }, start) as unknown as number
/** The range dragged over becomes the period. */
const { dragged, press, drag, release, shade } = useChartRange(startAt, pixelOf, (from, to) =>
  actions.go({ period: periodOfStarts(spend.starts[from]!, spend.starts[to]!, sentence.value.grain) }),
)

onMounted(() => {
  chart = echarts.init(box.value!, undefined, { renderer: 'svg' })
  chart.on('click', hit => {
    if (dragged.value) return
    const series = spend.series[hit.seriesIndex ?? -1]
    const event = hit.event?.event as unknown as MouseEvent | undefined
    const what = series && target(series)
    const start = spend.starts[hit.dataIndex ?? -1]
    if (what && event)
      spend.menu = { target: what, at: new DOMRect(event.clientX, event.clientY, 0, 0), ...(start && !manner.value.isByTime && { start }) }
    else if (hit.dataIndex !== undefined && !manner.value.isByTime) actions.lookInto(spend.starts[hit.dataIndex]!)
  })
  draw()
})
onUnmounted(() => chart?.dispose())
// told its size, the chart need not have the whole page laid out to measure it
useResizeObserver(box, ([entry]) => chart?.resize({ width: entry!.contentRect.width, height: entry!.contentRect.height }))
watch(
  () => [spend.series, sentence.value.chart, colour.value],
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
  return series && start ? `${series.label}, ${startText(start, sentence.value.grain)}: ${said(series.amounts[cursor.value!.start]!)}` : ''
})
</script>

<template>
  <div class="chart">
    <div class="frame">
      <div
        ref="box"
        class="drawing"
        :class="{ tall: sentence.chart === 'multiples' }"
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
            spend.isMoney ? whole(series.total) : measured(series.total, spend.currency, sentence.measure)
          }}</span>
        </component>
      </li>
    </ul>
    <ChartFigures :said="said" />
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
