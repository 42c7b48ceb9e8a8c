// What the chart of spend is drawn from.
import { expect, it } from 'vitest'
import { periodOfStarts } from '../../../app/composables/useChartRange'
import { axisText, chartManner, chartOption, type SpendChart } from '../../../app/utils/spend-chart'
import type { ChartSeries } from '../../../core/spend/page/series'

const colours = {
  ...{ hues: Array.from({ length: 8 }, (_, i) => `hue-${i}`), rest: 'rest', line: 'line', lineStrong: 'strong', ink: 'ink', ink2: 'ink2' },
  ...{ ink3: 'ink3', paper: 'paper', sunk: 'sunk', raised: 'raised', act: 'act', sans: 'sans', serif: 'serif' },
}
const series = (label: string, hue: number | null, ...amounts: (string | null)[]): ChartSeries => ({
  ...{ id: label, label, values: [label], hue, isNone: false, amounts, total: '0' },
})
const chart = (more: Partial<SpendChart> = {}): SpendChart => ({
  ...{ kind: 'columns', grain: 'day', adds: true, partDay: null, said: amount => `${amount} EUR` },
  series: [series('a', 0, '1', '3'), series('b & c', null, '-2', '1')],
  starts: ['2026-11-01', '2026-11-02'],
  ...more,
})
const data = (more: Partial<SpendChart>) => chartOption(chart(more), colours).series.map(one => one.data)
const days = (count: number) => Array.from({ length: count }, (_, i) => `d${i}`)

it('figures are drawn as they are, as shares of their sizes, or as what they come to until then', () => {
  expect(data({})).toEqual([
    [1, 3],
    [-2, 1],
  ])
  // of sizes 1 and 2, and 3 and 1
  expect(data({ kind: 'share' })).toEqual([
    [1 / 3, 0.75],
    [2 / 3, 0.25],
  ])
  expect(data({ kind: 'running' })).toEqual([
    [1, 4],
    [-2, -1],
  ])
  // a price is no part of a whole, and nothing used has none
  expect(data({ kind: 'share', adds: false, series: [series('a', 0, null, '3')] })).toEqual([[null, 3]])
  expect(data({ kind: 'share', series: [series('a', 0, '0', '3')] })).toEqual([[0, 1]])
  expect(data({ partDay: '2026-11-02' })[0]![1]).toMatchObject({ value: 3, itemStyle: { decal: { symbol: 'rect' } } })
})

it('many columns are one outline, long lines have no points, and figures of either are told by time', () => {
  const manner = (kind: SpendChart['kind'], count: number, adds = true) => {
    const { isOutline, isByTime, isStacked } = chartManner({ kind, starts: days(count), adds })
    return [isOutline, isByTime, isStacked]
  }
  expect([manner('columns', 130), manner('columns', 131)]).toEqual([
    [false, false, true],
    [true, true, true],
  ])
  expect([manner('grouped', 500), manner('lines', 62), manner('lines', 63)]).toEqual([
    [false, false, false],
    [false, false, false],
    [false, true, false],
  ])
  expect([manner('area', 2), manner('area', 2, false)]).toEqual([
    [false, false, true],
    [false, false, false],
  ])
})

it('pictures side by side have one scale and their names', () => {
  const many = chartOption(chart({ kind: 'multiples' }), colours)
  expect([many.yAxis.map(({ max }) => max), many.title.map(({ text }) => text), many.grid.length]).toEqual([
    ...[
      [3, 3],
      ['a', 'b & c'],
    ],
    2,
  ])
  expect(chartOption(chart({ kind: 'share' }), colours).yAxis.map(({ max }) => max)).toEqual([1])
})

it('what is pointed at says its figure, names as text and nothing else', () => {
  const { formatter } = chartOption(chart(), colours).tooltip
  expect(formatter({ seriesIndex: 1, dataIndex: 0 })).toBe('<b>b &amp; c</b><br>1 Nov 2026: -2 EUR')
  expect(formatter({ seriesIndex: 9, dataIndex: 0 })).toBe('')
  const running = chartOption(chart({ kind: 'running' }), colours).tooltip.formatter
  expect(running({ seriesIndex: 0, dataIndex: 1 })).toMatch(/3 EUR<br>until then 4 EUR$/)
  // at a place in time all figures, the largest in size first, and their sum
  expect(formatter([{ seriesIndex: 0, dataIndex: 0 }])).toBe(
    '<b>1 Nov 2026</b><br>all: -1 EUR<br><span style="color:rest">■</span> b &amp; c: -2 EUR<br><span style="color:hue-0">■</span> a: 1 EUR',
  )
  expect(formatter([])).toBe('')
  const many = chartOption(chart({ series: Array.from({ length: 14 }, (_, i) => series(`v${i}`, null, '1')) }), colours).tooltip.formatter
  expect(many([{ seriesIndex: 0, dataIndex: 0 }])).toMatch(/and 2 more$/)
})

it('the axis names in full where something begins', () => {
  expect([
    axisText('2026-11-01T00', 'hour', false),
    axisText('2026-11-01T07', 'hour', false),
    axisText('2026-11-02', 'day', false),
    axisText('2026-11-02', 'day', true),
    axisText('2026-12-01', 'day', false),
    axisText('2026-11-01', 'month', false),
    axisText('2026-10-01', 'quarter', false),
    axisText('2026-01-01', 'quarter', false),
  ]).toEqual(['1 Nov', '07', '2', '2 Nov', '1 Dec', 'Nov 26', 'Q4 26', 'Q1 26'])
})

it('a range of starts is the days to the end of its last', () => {
  const range = (first: string, last: string, grain: 'hour' | 'day' | 'week' | 'month' | 'quarter') =>
    Object.values(periodOfStarts(first, last, grain))
  expect(range('2026-11-01T05', '2026-11-01T09', 'hour')).toEqual(['2026-11-01', '2026-11-02'])
  expect(range('2026-12-30', '2026-12-31', 'day')).toEqual(['2026-12-30', '2027-01-01'])
  expect(range('2026-11-02', '2026-11-09', 'week')).toEqual(['2026-11-02', '2026-11-16'])
  expect(range('2026-01-01', '2028-02-01', 'month')).toEqual(['2026-01-01', '2028-03-01'])
  expect(range('2026-07-01', '2026-10-01', 'quarter')).toEqual(['2026-07-01', '2027-01-01'])
})
