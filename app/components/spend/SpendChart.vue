<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import { BarChart, LineChart } from 'echarts/charts'
import { AriaComponent, GridComponent, TooltipComponent } from 'echarts/components'
import * as echarts from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import type { ChartSeries } from '../../stores/spend'

echarts.use([BarChart, LineChart, GridComponent, TooltipComponent, AriaComponent, SVGRenderer])

const spend = useSpend()
const actions = useSpendActions()
const { openMenu, onKey } = useValueKeys()
const colour = useColorMode()
const box = useTemplateRef<HTMLElement>('box')
let chart: echarts.ECharts | null = null

const view = computed(() => spend.view!)
const startText = (start: string) => view.value.grain === 'month' ? monthText(start) : dayText(start)
const axisText = (start: string) => view.value.grain === 'month' ? `${monthText(start).slice(0, 3)} ${start.slice(2, 4)}` : start.endsWith('-01') || start === spend.starts[0] ? dayShortText(start) : String(Number(start.slice(8)))
const target = (series: ChartSeries) => series.values && view.value.splitBy.length
  ? { dimension: view.value.splitBy[0]!, value: series.values[0]!, label: view.value.splitBy.length === 1 ? series.label : valueLabel(view.value.splitBy[0]!, series.values[0]!) }
  : null
const fill = (series: ChartSeries, colours: ReturnType<typeof chartColours>) => series.hue === null ? colours.rest : colours.hues[series.hue]!

// which bar has the keyboard's attention
const cursor = ref<{ start: number, series: number } | null>(null)

function draw() {
  if (!chart) return
  const colours = chartColours()
  const lines = view.value.chart === 'lines'
  chart.setOption({
    animationDuration: 200,
    textStyle: { fontFamily: colours.sans },
    grid: { left: 8, right: 8, top: 12, bottom: 4, containLabel: true },
    tooltip: {
      trigger: 'item', backgroundColor: colours.raised, borderColor: colours.lineStrong, textStyle: { color: colours.ink, fontSize: 12, fontFamily: colours.sans }, confine: true,
      formatter: (hit: { seriesIndex: number, dataIndex: number }) => {
        const series = spend.series[hit.seriesIndex]
        return series ? `<b>${echarts.format.encodeHTML(series.label)}</b><br>${startText(spend.starts[hit.dataIndex]!)}: ${money(series.amounts[hit.dataIndex]!, spend.currency)} ${spend.currency}` : ''
      },
    },
    xAxis: { type: 'category', data: spend.starts, axisTick: { show: false }, axisLine: { lineStyle: { color: colours.lineStrong } }, axisLabel: { color: colours.ink3, fontSize: 11.5, formatter: axisText } },
    yAxis: { type: 'value', splitNumber: 4, splitLine: { lineStyle: { color: colours.line } }, axisLabel: { color: colours.ink3, fontSize: 11.5, formatter: (v: number) => Math.abs(v) >= 1000 ? `${(v / 1000).toLocaleString(undefined, { maximumFractionDigits: 1 })} k` : v.toLocaleString() } },
    series: spend.series.map(series => ({
      type: lines ? 'line' : 'bar', name: series.label, stack: lines ? undefined : 'all', barMaxWidth: 44, barCategoryGap: '18%', symbol: 'circle', symbolSize: 5, lineStyle: { width: 1.8 },
      itemStyle: { color: fill(series, colours), borderColor: series.hue === null ? colours.lineStrong : colours.paper, borderWidth: 0.6 },
      emphasis: { itemStyle: { borderColor: colours.ink, borderWidth: 1.5 } },
      cursor: 'pointer', data: series.amounts.map(Number),
    })),
  }, { replaceMerge: ['series'] })
}

onMounted(() => {
  chart = echarts.init(box.value!, undefined, { renderer: 'svg' })
  chart.on('click', (hit) => {
    const series = spend.series[hit.seriesIndex ?? -1]
    const event = hit.event?.event as unknown as MouseEvent | undefined
    const what = series && target(series)
    if (what && event) spend.menu = { target: what, at: new DOMRect(event.clientX, event.clientY, 0, 0) }
    else if (hit.dataIndex !== undefined && view.value.grain === 'day') actions.onlyDay(spend.starts[hit.dataIndex]!)
  })
  draw()
})
onUnmounted(() => chart?.dispose())
useResizeObserver(box, () => chart?.resize())
watch(() => [spend.series, view.value.chart, colour.value], async () => {
  await nextTick()
  draw()
})

function move(event: KeyboardEvent) {
  const at = cursor.value ?? { start: spend.starts.length - 1, series: 0 }
  const steps: Record<string, [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }
  const step = steps[event.key]
  if (step) {
    const within = (n: number, size: number) => Math.max(0, Math.min(size - 1, n))
    cursor.value = { start: within(at.start + (cursor.value ? step[0] : 0), spend.starts.length), series: within(at.series + (cursor.value ? step[1] : 0), spend.series.length) }
    chart?.dispatchAction({ type: 'downplay' })
    chart?.dispatchAction({ type: 'highlight', seriesIndex: cursor.value.series, dataIndex: cursor.value.start })
    chart?.dispatchAction({ type: 'showTip', seriesIndex: cursor.value.series, dataIndex: cursor.value.start })
    event.preventDefault()
    return
  }
  const series = cursor.value && spend.series[cursor.value.series]
  const what = series && target(series)
  if (event.key === 'Enter' && what) {
    openMenu(what, event.currentTarget as Element)
    event.preventDefault()
  }
  else if (what) onKey(event, what)
}
const said = computed(() => {
  const series = cursor.value && spend.series[cursor.value.series]
  const start = cursor.value && spend.starts[cursor.value.start]
  return series && start ? `${series.label}, ${startText(start)}: ${money(series.amounts[cursor.value!.start]!, spend.currency)} ${spend.currency}` : ''
})
</script>

<template>
  <div class="chart">
    <div ref="box" class="drawing" tabindex="0" role="application" :aria-label="`Chart of ${spend.series.length} values; arrows move, Enter opens what to do`" @keydown="move" />
    <p class="sr-only" aria-live="polite">{{ said }}</p>
    <ul class="legend" aria-label="Values in the chart">
      <li v-for="series in [...spend.series].reverse()" :key="series.id">
        <component :is="target(series) ? 'button' : 'span'" class="entry" :title="series.label" @click="target(series) && openMenu(target(series)!, $event.currentTarget as Element)" @contextmenu.prevent="target(series) && openMenu(target(series)!, $event.currentTarget as Element)" @keydown="target(series) && onKey($event, target(series)!)">
          <span class="swatch" :class="{ rest: series.hue === null }" :style="{ background: series.hue === null ? 'var(--rest)' : `var(--c${series.hue + 1})` }" />
          <span class="name">{{ series.label }}</span><span class="amount">{{ whole(series.total) }}</span>
        </component>
      </li>
    </ul>
    <div class="sr-only"><table>
      <caption>The figures of the chart, in {{ spend.currency }}</caption>
      <thead><tr><th>start</th><th v-for="series in spend.series" :key="series.id">{{ series.label }}</th></tr></thead>
      <tbody><tr v-for="(start, i) in spend.starts.slice(0, 62)" :key="start"><th>{{ startText(start) }}</th><td v-for="series in spend.series" :key="series.id">{{ money(series.amounts[i]!, spend.currency) }}</td></tr></tbody>
    </table></div>
  </div>
</template>

<style scoped>
.chart { display: grid; grid-template-columns: minmax(0, 1fr) 215px; gap: 8px; position: relative; }
.drawing { height: 205px; }
.legend { align-self: center; min-width: 0; }
.entry { display: flex; gap: 8px; align-items: center; width: 100%; min-height: 24px; padding: 0 4px; border-radius: 3px; text-align: left; }
button.entry:hover { background: var(--act-soft); }
.swatch { width: 10px; height: 10px; flex: none; border-radius: 1px; }
.swatch.rest { border: 1px solid var(--line-strong); }
.name { flex: 1; min-width: 0; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
@media (max-width: 800px) { .chart { grid-template-columns: minmax(0, 1fr); } }
</style>
