<script setup lang="ts">
import type { MonthsLooked } from '../../composables/useMonthEffects'

/** Cost centres down, months across: what each would bear more or less; and, of a month, which charges move. */
const { months, targets } = defineProps<{
  months: Pick<MonthsLooked, 'effects' | 'left' | 'closings' | 'moved' | 'problem' | 'lookAtCharges'>
  /** Cost centres and pools by their names. */
  targets: readonly { id: string; name: string }[]
}>()
const isClosed = (month: string) => months.closings.closed.some(one => one.month === month)
const nameOf = (centre: string | null) => (centre === null ? 'unallocated' : (targets.find(({ id }) => id === centre)?.name ?? centre))
const rows = computed(() => {
  const found = new Map<string, { centre: string | null; currency: string; byMonth: Map<string, string> }>()
  for (const { month, effects: own } of months.effects) {
    for (const { centre, currency, difference } of own) {
      const key = JSON.stringify([centre, currency])
      const row = found.get(key) ?? { centre, currency, byMonth: new Map<string, string>() }
      row.byMonth.set(month, difference)
      found.set(key, row)
    }
  }
  return [...found.values()]
})
const moving = computed(() => months.effects.filter(({ effects: own }) => own.length).map(({ month }) => month))
</script>

<template>
  <div>
    <ProblemNote v-if="months.problem" :problem="months.problem" />
    <p v-if="months.left" class="minor" role="status">
      {{ count(months.left) }} {{ months.left === 1 ? 'month' : 'months' }} left to calculate
    </p>
    <p v-else-if="!rows.length" class="note">Nothing moves in any month.</p>
    <div v-if="rows.length" class="scroll effects" tabindex="0" role="group" aria-label="effects by month">
      <table class="ledger" data-testid="effects">
        <thead>
          <tr>
            <th>cost centre</th>
            <th v-for="month in moving" :key="month" class="n">
              {{ monthText(month) }}
              <div v-if="isClosed(month)" class="minor">closed: adjusted in {{ monthText(months.closings.firstOpen!) }}</div>
              <div>
                <button class="link" :aria-expanded="months.moved?.month === month" @click="months.lookAtCharges(month)">
                  its charges
                </button>
              </div>
            </th>
            <th>currency</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="`${row.centre} ${row.currency}`">
            <td>{{ nameOf(row.centre) }}</td>
            <td v-for="month in moving" :key="month" class="n">{{ signedMoney(row.byMonth.get(month) ?? '0', row.currency) }}</td>
            <td>{{ row.currency }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <MovedCharges v-if="months.moved" :moved="months.moved" :month="months.moved.month" :name-of="nameOf" />
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
