<script setup lang="ts">
import { readFunding } from '../../../core/estimate/sheet/typed-terms'

/** Credits and funding of an estimate, and a form for one more. */
const problem = defineModel<string>('problem', { default: '' })
const store = useEstimate()
const estimate = computed(() => store.estimate!)
const funding = reactive({ label: '', amount: '', threshold: '0', fromMonth: '1', months: '12' })
function addFunding() {
  const read = readFunding(funding)
  problem.value = 'problem' in read ? read.problem : ''
  if ('problem' in read) return
  store.patch({ funding: [...estimate.value.funding, read] })
  Object.assign(funding, { label: '', amount: '' })
}
</script>

<template>
  <div>
    <p v-for="(credit, i) in estimate.funding" :key="i" class="minor">
      {{ credit.label }}: {{ money(credit.amount, store.currency) }} in
      {{ credit.months === 1 ? `month ${credit.fromMonth}` : `months ${credit.fromMonth} to ${credit.fromMonth + credit.months - 1}`
      }}{{ Number(credit.threshold) > 0 ? `, while the month costs at least ${money(credit.threshold, store.currency)}` : '' }}
      <button class="link" @click="store.patch({ funding: estimate.funding.filter((_, j) => j !== i) })">delete</button>
    </p>
    <form class="credit" @submit.prevent="addFunding">
      <input v-model="funding.label" class="field" placeholder="credit or funding" aria-label="credit or funding" /><input
        v-model="funding.amount"
        class="field"
        placeholder="a month"
        aria-label="amount a month"
        inputmode="decimal"
      /><label class="whole"
        >while the month costs at least
        <input v-model="funding.threshold" class="field" aria-label="while the month costs at least" inputmode="decimal" /></label
      ><label>from month <input v-model="funding.fromMonth" class="field" aria-label="from month" inputmode="numeric" /></label
      ><label>for months <input v-model="funding.months" class="field" aria-label="months" inputmode="numeric" /></label
      ><button class="button">Add</button>
    </form>
  </div>
</template>

<style scoped>
.credit {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px;
  margin-top: 6px;
}
.credit .field {
  min-width: 0;
}
.credit .field:first-child,
.credit .button,
.credit .whole {
  grid-column: 1 / -1;
}
.credit label {
  display: flex;
  gap: 4px;
  align-items: center;
  font-size: 12px;
  color: var(--ink-2);
  white-space: nowrap;
}
</style>
