<script setup lang="ts">
import type { Effect } from '../../../core/allocation/plan-difference'
import type { CostCentre } from '../../../core/allocation/plan'
import type { Closings } from '../../../shared/contracts/allocation'

/** Cost centres down, months across: what each would bear more or less. */
const { effects, centres, closings } = defineProps<{
  effects: readonly { month: string; effects: readonly Effect[] }[]
  /** Months whose effect is not known yet. */
  left: number
  centres: readonly CostCentre[]
  closings: Closings
}>()
const isClosed = (month: string) => closings.closed.some(one => one.month === month)
const nameOf = (centre: string | null) => (centre === null ? 'unallocated' : (centres.find(({ id }) => id === centre)?.name ?? centre))
const rows = computed(() => {
  const found = new Map<string, { centre: string | null; currency: string; byMonth: Map<string, string> }>()
  for (const { month, effects: own } of effects) {
    for (const { centre, currency, difference } of own) {
      const key = JSON.stringify([centre, currency])
      const row = found.get(key) ?? { centre, currency, byMonth: new Map<string, string>() }
      row.byMonth.set(month, difference)
      found.set(key, row)
    }
  }
  return [...found.values()]
})
const months = computed(() => effects.filter(({ effects: own }) => own.length).map(({ month }) => month))
</script>

<template>
  <div>
    <p v-if="left" class="minor" role="status">{{ count(left) }} {{ left === 1 ? 'month' : 'months' }} left to reckon</p>
    <p v-else-if="!rows.length" class="note">Nothing moves in any month.</p>
    <div v-if="rows.length" class="scroll effects" tabindex="0" role="group" aria-label="effects by month">
      <table class="ledger" data-testid="effects">
        <thead>
          <tr>
            <th>cost centre</th>
            <th v-for="month in months" :key="month" class="n">
              {{ monthText(month) }}
              <div v-if="isClosed(month)" class="minor">closed: adjusted in {{ monthText(closings.firstOpen!) }}</div>
            </th>
            <th>currency</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="`${row.centre} ${row.currency}`">
            <td>{{ nameOf(row.centre) }}</td>
            <td v-for="month in months" :key="month" class="n">{{ signedMoney(row.byMonth.get(month) ?? '0', row.currency) }}</td>
            <td>{{ row.currency }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
/* what is decided by it stays in sight below */
.effects {
  max-height: 330px;
  overflow: auto;
}
.effects td:first-child {
  white-space: nowrap;
}
</style>
