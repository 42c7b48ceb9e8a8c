<script setup lang="ts">
import { isCurrency, currencies } from '../../../core/money/currency'
import { startOf } from '../../../core/estimate/estimate'
import { readPercent } from '../../../core/estimate/sheet/typed-terms'

/** Terms: discounts by buying agreement, margin, tax, funding, currency and rates, the month and the years, free allowances. */
const store = useEstimate()
const estimate = computed(() => store.estimate!)
const problems = reactive<Record<string, string>>({})
const open = ref(false)

function setPercent(name: 'marginPercent' | 'taxPercent', text: string) {
  const read = readPercent(text, name === 'marginPercent' ? { whole: "A margin is below 100 % of the customer's price." } : undefined)
  problems[name] = 'problem' in read ? read.problem : ''
  if ('value' in read) store.patch({ [name]: read.value })
}
const discountOf = (provider: string) => estimate.value.discounts.find(d => d.provider === provider)?.percent ?? '0'
function setDiscount(provider: string, text: string) {
  const read = readPercent(text)
  problems[`discount ${provider}`] = 'problem' in read ? read.problem : ''
  if (!('value' in read)) return
  const others = estimate.value.discounts.filter(d => d.provider !== provider)
  store.patch({ discounts: read.value === '0' ? others : [...others, { provider, percent: read.value }] })
}
const foreign = computed(() =>
  [...new Set([...store.cards.values()].map(c => c.currency).concat(store.uplifts.map(u => u.currency)))].filter(c => c !== store.currency),
)
function setCurrency(text: string) {
  const code = text.trim().toUpperCase()
  problems.currency = code && !isCurrency(code) ? 'A currency code such as EUR.' : ''
  if (!problems.currency) store.patch({ currency: code || null })
}
function setMonth(text: string) {
  store.patch({ month: text || null })
}
const start = computed(() => startOf(estimate.value))
</script>

<template>
  <section aria-label="Terms">
    <h2 class="heading">Terms</h2>
    <label v-for="provider in store.cards.keys()" :key="provider" class="target"
      >discount{{ store.cards.size > 1 ? `, ${provider}` : ', negotiated' }}
      <input
        v-held="discountOf(provider)"
        class="field"
        :class="{ wrong: problems[`discount ${provider}`] }"
        inputmode="decimal"
        :aria-label="`negotiated discount at ${provider}`"
        @change="setDiscount(provider, ($event.target as HTMLInputElement).value)"
      />
      %</label
    >
    <label class="target"
      >margin
      <input
        v-held="estimate.marginPercent"
        class="field"
        :class="{ wrong: problems.marginPercent }"
        inputmode="decimal"
        title="a share of the customer's price"
        @change="setPercent('marginPercent', ($event.target as HTMLInputElement).value)"
      />
      %</label
    >
    <label class="target"
      >tax on the total
      <input
        v-held="estimate.taxPercent"
        class="field"
        :class="{ wrong: problems.taxPercent }"
        inputmode="decimal"
        @change="setPercent('taxPercent', ($event.target as HTMLInputElement).value)"
      />
      %</label
    >
    <RateTerm v-for="from in foreign" :key="from" v-model:problem="problems[`rate ${from}`]" :from="from" />
    <p v-if="Object.values(problems).some(Boolean)" class="bad keep" role="alert">
      {{ Object.values(problems).filter(Boolean).join(' ') }}
    </p>
    <label class="allowance"
      ><input
        type="checkbox"
        :checked="estimate.useFreeAllowance"
        @change="store.patch({ useFreeAllowance: ($event.target as HTMLInputElement).checked })"
      />
      count on free allowances</label
    >
    <button class="link" :aria-expanded="open" @click="open = !open">{{ open ? 'fewer terms' : 'currency, month, years, credits' }}</button>
    <template v-if="open">
      <label class="target"
        >currency
        <input
          v-held="estimate.currency ?? ''"
          class="field"
          list="currencies"
          :placeholder="store.currency"
          @change="setCurrency(($event.target as HTMLInputElement).value)"
      /></label>
      <datalist id="currencies"><option v-for="code in currencies" :key="code" :value="code" /></datalist>
      <label class="target" title="uplifts and exchange rates of that day hold"
        >begins on
        <input
          v-held="start ?? ''"
          type="date"
          class="field date"
          :disabled="estimate.month !== null"
          @change="store.patch({ startsOn: ($event.target as HTMLInputElement).value || null })"
      /></label>
      <label class="target"
        >named month
        <input
          v-held="estimate.month ?? ''"
          type="month"
          class="field date"
          title="counts its own hours; empty for the month of 730 hours"
          @change="setMonth(($event.target as HTMLInputElement).value)"
      /></label>
      <label class="target"
        >whole term
        <select
          class="field wide"
          :value="estimate.termYears ?? ''"
          @change="store.patch({ termYears: Number(($event.target as HTMLSelectElement).value) || null })"
        >
          <option value="">longest commitment</option>
          <option v-for="n in 5" :key="n" :value="n">{{ n }} {{ n === 1 ? 'year' : 'years' }}</option>
        </select></label
      >
      <label class="target"
        >seed of the draws
        <input
          v-held="estimate.seed"
          class="field"
          inputmode="numeric"
          @change="
            store.patch({ seed: Math.min(4294967295, Math.max(0, Math.floor(Number(($event.target as HTMLInputElement).value)) || 0)) })
          "
      /></label>
      <CreditTerms v-model:problem="problems.funding" />
    </template>
  </section>
</template>

<style scoped>
.allowance {
  display: flex;
  gap: 6px;
  align-items: center;
  min-height: 24px;
}
.target .date {
  width: 140px !important;
}
.target .wide {
  width: 140px !important;
  text-align: left !important;
}
</style>
