<script setup lang="ts">
import { daysBetween } from '../../../core/time/day'
import type { SpendRow } from '../../stores/spend'

/** Every value with its amount; always sums to the total, and shows it. */
const spend = useSpend()
const { openMenu, onKey } = useValueKeys()
const view = computed(() => spend.view!)
const days = computed(() => daysBetween(view.value.period.start, view.value.period.end))
const measureName = computed(() => view.value.measure === 'billedCost' ? 'billed' : 'effective')
const byName = ref(false)
const rows = computed(() => byName.value ? [...spend.rows].sort((a, b) => a.label.localeCompare(b.label)) : spend.rows)
const target = (row: SpendRow, index: number) => {
  const dimension = view.value.splitBy[index]!
  const value = row.values[index]!
  return { dimension, value, label: view.value.splitBy.length === 1 ? row.label : valueLabel(dimension, value) }
}
const perDay = (amount: string) => money(divideText(amount, days.value), spend.currency)
const note = (row: SpendRow, index: number) => {
  const dimension = view.value.splitBy[index]!
  return companionOf[dimension] && view.value.splitBy.length === 1 && row.label !== row.values[index] ? row.values[index] : null
}
</script>

<template>
  <section class="all" aria-label="All values">
    <table class="ledger">
      <caption class="sr-only">{{ measureName }} in {{ spend.currency }}, {{ periodText(view.period) }}</caption>
      <thead>
        <tr>
          <th v-for="dimension in view.splitBy" :key="dimension" :aria-sort="byName ? 'ascending' : undefined"><button class="sort" @click="byName = true">{{ dimensionLabel(dimension) }}</button></th>
          <th v-if="!view.splitBy.length" />
          <th class="n" :aria-sort="byName ? undefined : 'descending'"><button class="sort" @click="byName = false">{{ measureName }}, {{ spend.currency }}</button></th>
          <th class="n">share</th><th class="n">a day</th><th class="n">{{ spend.compared ? periodText(spend.compared) : '' }}</th><th class="n">change</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.id" class="acts lazy">
          <td v-for="(dimension, index) in view.splitBy" :key="dimension">
            <button class="value" :class="{ none: row.values[index] === null }" @click="openMenu(target(row, index), $event.currentTarget as Element)" @contextmenu.prevent="openMenu(target(row, index), $event.currentTarget as Element)" @keydown="onKey($event, target(row, index))">{{ target(row, index).label }}</button>
            <span v-if="note(row, index)" class="minor id">{{ note(row, index) }}</span>
          </td>
          <td v-if="!view.splitBy.length">everything</td>
          <td class="n">{{ money(row.amount, spend.currency) }}</td>
          <td class="n">{{ percent(row.amount, spend.total) }}</td>
          <td class="n">{{ perDay(row.amount) }}</td>
          <td class="n">{{ row.before === null ? '–' : money(row.before, spend.currency) }}</td>
          <td class="n"><ChangeMark :now="row.amount" :before="row.before" /></td>
        </tr>
      </tbody>
      <tfoot>
        <tr class="total" data-testid="table-total">
          <td :colspan="Math.max(1, view.splitBy.length)">Total of {{ count(rows.length) }}</td>
          <td class="n">{{ money(spend.total, spend.currency) }}</td><td class="n">{{ percent(spend.total, spend.total) }}</td><td class="n">{{ perDay(spend.total) }}</td>
          <td class="n">{{ spend.totalBefore === null ? '–' : money(spend.totalBefore, spend.currency) }}</td><td class="n"><ChangeMark :now="spend.total" :before="spend.totalBefore" /></td>
        </tr>
      </tfoot>
    </table>
  </section>
</template>

<style scoped>
.all { margin-top: 18px; }
.value { min-height: 24px; text-align: left; border-radius: 3px; }
.value:hover { color: var(--act); text-decoration: underline; text-underline-offset: 3px; }
.value.none { font-style: italic; color: var(--ink-2); }
.id { margin-left: 8px; }
.sort { min-height: 24px; font-weight: 560; }
.sort:hover { color: var(--act); }
.lazy { content-visibility: auto; contain-intrinsic-height: 27px; }
</style>
