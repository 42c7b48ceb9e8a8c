<script setup lang="ts">
import { numberFormat, trueMinus } from '../../../shared/words/amounts'
import { useVirtualizer } from '@tanstack/vue-virtual'
import { namesBy } from '../../../core/spend/answer-columns'
import { spendTable, type TableHead } from '../../../core/spend/table'
import type { TableRow } from '../../../core/spend/table-row'
import { tableLines, type TableLine, type TableOrder } from '../../../core/spend/table-lines'

/**
 * Every combination of values with its amounts: nested by its dimensions, turned into a pivot where something runs across, sorted by any
 * column; always sums to the total, and shows it.
 */
const spend = useSpend()
const widths = useColumnWidths('rain-barrel-spend-widths')
const sentence = computed(() => spend.shown!)

const table = computed(() => {
  const now = sentence.value.across ? spend.across : spend.nowAnswer
  if (!now) return null
  return spendTable(now, spend.beforeAnswer, {
    measure: sentence.value.measure,
    splitBy: sentence.value.splitBy,
    companions: {},
    across: sentence.value.across,
    currency: spend.currency,
    columns: spend.tableColumns,
    days: Math.max(1, spend.groups[0]?.days ?? 1),
    ...(spend.byDays && { byDays: spend.byDays }),
  })
})
/** Columns of figures: what runs across, the amount, and those chosen. */
const figures = computed(() => table.value?.heads.filter(head => head.kind !== 'text') ?? [])
const offset = computed(() => sentence.value.splitBy.length)

const labels = computed(() => new Map(spend.rows.map(row => [row.id, row.label])))
/** Names of ids by their dimension, in a table of several. */
const companionNames = computed(() =>
  sentence.value.splitBy.map(dimension => {
    const companion = companionOf[dimension]
    return companion && spend.nowAnswer ? namesBy(spend.nowAnswer, dimension, companion) : null
  }),
)
const nameOf = (row: TableRow, index: number) =>
  spend.labelOf(
    sentence.value.splitBy[index]!,
    row.values[index]!,
    offset.value === 1 ? labels.value.get(JSON.stringify(row.values)) : companionNames.value[index]?.get(row.values[index]!),
  )

const order = ref<TableOrder>({ column: 'amount', down: true })
const closed = ref(new Set<string>())
watch(
  () => sentence.value.splitBy.join(),
  () => {
    closed.value = new Set()
  },
)
const lines = computed(() =>
  table.value
    ? tableLines(table.value, { splitBy: sentence.value.splitBy, order: order.value, closed: closed.value, adds: spend.additive, nameOf })
    : [],
)
function toggle({ row }: TableLine) {
  const next = new Set(closed.value)
  const key = JSON.stringify(row.values)
  if (!next.delete(key)) next.add(key)
  closed.value = next
}

const cellText = (head: TableHead, value: string | null) =>
  value === null ? '–' : head.kind === 'share' ? percentFigure(head, value) : measured(value, spend.currency, sentence.value.measure)
const percentFigure = (head: TableHead, value: string) =>
  head.column === 'changeShare'
    ? percentText(Number(value))
    : `${trueMinus(numberFormat('%', { minimumFractionDigits: 1, maximumFractionDigits: 1 }).format(Number(value) * 100))} %`

// thousands of rows: only those in sight are there
const frame = useTemplateRef<HTMLElement>('frame')
const MANY = 60
const long = computed(() => lines.value.length > MANY)
const ROW = 28
const virtual = useVirtualizer(
  computed(() => ({
    count: lines.value.length,
    getScrollElement: () => frame.value,
    estimateSize: () => ROW,
    overscan: 12,
    enabled: long.value,
  })),
)
const shown = computed(() =>
  long.value
    ? virtual.value
        .getVirtualItems()
        .map(item => lines.value[item.index]!)
        .filter(Boolean)
    : lines.value,
)
const above = computed(() => (long.value ? (virtual.value.getVirtualItems()[0]?.start ?? 0) : 0))
const below = computed(() => (long.value ? virtual.value.getTotalSize() - (virtual.value.getVirtualItems().at(-1)?.end ?? 0) : 0))

const hasLines = computed(() => !sentence.value.across && spend.lines.size > 0 && spend.starts.length > 1)
const courseOf = ({ open, row }: TableLine) => (open === null ? spend.lines.get(JSON.stringify(row.values)) : undefined)
</script>

<template>
  <section v-if="table" class="all" aria-label="All values">
    <SpendTableBar @forget-widths="widths.forget()" />
    <div ref="frame" class="frame" tabindex="0" role="group" aria-label="rows" :class="{ long }">
      <table class="ledger">
        <caption class="sr-only">
          {{
            measureNames[sentence.measure]
          }}
          in
          {{
            spend.currency
          }},
          {{
            periodText(spend.period)
          }}
        </caption>
        <SpendTableHead :figures="figures" :order="order" :has-lines="hasLines" :widths="widths" @order="order = $event" />
        <tbody>
          <tr v-if="above" aria-hidden="true">
            <td :colspan="figures.length + 2" :style="{ height: `${above}px`, padding: 0, border: 0 }" />
          </tr>
          <SpendTableLine
            v-for="line in shown"
            :key="line.key"
            :line="line"
            :figures="figures"
            :has-lines="hasLines"
            :course="courseOf(line)"
            :name-of="nameOf"
            :cell-text="cellText"
            @toggle="toggle(line)"
          />
          <tr v-if="below > 0" aria-hidden="true">
            <td :colspan="figures.length + 2" :style="{ height: `${below}px`, padding: 0, border: 0 }" />
          </tr>
        </tbody>
        <tfoot>
          <tr class="total" data-testid="table-total">
            <td>{{ !spend.additive ? 'Whole cost by whole quantity' : `Total of ${count(table.rows.length)}` }}</td>
            <td v-if="hasLines" />
            <td v-for="(head, i) in figures" :key="head.id" class="n" :title="table.total.cell(offset + i) ?? ''">
              <ChangeMark v-if="head.column === 'changeShare'" :now="spend.total" :before="spend.totalBefore" /><template v-else>{{
                cellText(head, table.total.cell(offset + i))
              }}</template>
            </td>
          </tr>
        </tfoot>
      </table>
    </div>
  </section>
</template>

<style scoped>
.all {
  margin-top: 14px;
}
.frame {
  overflow-x: auto;
  position: relative;
}
.frame.long {
  max-height: 560px;
  overflow: auto;
  border-bottom: 1px solid var(--line);
}
.frame.long :deep(thead th) {
  position: sticky;
  top: 0;
  background: var(--paper);
  z-index: 2;
}
.frame.long tfoot td {
  position: sticky;
  bottom: 0;
  z-index: 2;
}
</style>
