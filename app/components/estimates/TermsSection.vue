<script setup lang="ts">
import { isCurrency, currencies } from '../../../core/money/currency'
import { parseDecimal } from '../../../core/money/decimal'

/** Terms: discounts by buying agreement, margin, tax, funding, currency and rates, the month and the years, free allowances. */
const store = useEstimate()
const estimate = computed(() => store.estimate!)
const problems = reactive<Record<string, string>>({})
const open = ref(false)

const percentProblem = (text: string) => {
  const number = parseDecimal(text.trim())
  return !number || number.lt(0) || number.gt(100) ? 'A percentage from 0 to 100.' : ''
}
function setPercent(name: 'marginPercent' | 'taxPercent', text: string) {
  problems[name] = percentProblem(text) || (name === 'marginPercent' && Number(text) >= 100 ? 'Below 100.' : '')
  if (!problems[name]) store.patch({ [name]: text.trim() })
}
const discountOf = (provider: string) => estimate.value.discounts.find(d => d.provider === provider)?.percent ?? '0'
function setDiscount(provider: string, text: string) {
  problems[`discount ${provider}`] = percentProblem(text)
  if (problems[`discount ${provider}`]) return
  const others = estimate.value.discounts.filter(d => d.provider !== provider)
  store.patch({ discounts: Number(text) === 0 ? others : [...others, { provider, percent: text.trim() }] })
}
const foreign = computed(() => [...new Set([...store.cards.values()].map(c => c.currency).concat(store.uplifts.map(u => u.currency)))].filter(c => c !== store.currency))
const rateOf = (from: string) => estimate.value.rates.find(r => r.from === from)
function setRate(from: string, rate: string, day: string) {
  const number = parseDecimal(rate.trim())
  problems[`rate ${from}`] = !number || number.lte(0) ? 'A rate above zero.' : !/^\d{4}-\d{2}-\d{2}$/.test(day) ? 'Say of which day it is.' : ''
  if (problems[`rate ${from}`]) return
  store.patch({ rates: [...estimate.value.rates.filter(r => r.from !== from), { from, rate: rate.trim(), day }] })
}
function setCurrency(text: string) {
  const code = text.trim().toUpperCase()
  problems.currency = code && !isCurrency(code) ? 'A currency code such as EUR.' : ''
  if (!problems.currency) store.patch({ currency: code || null })
}
function setMonth(text: string) {
  store.patch({ month: text || null })
}
const funding = reactive({ label: '', amount: '', threshold: '0', months: '12' })
function addFunding() {
  const [amount, threshold, months] = [parseDecimal(funding.amount), parseDecimal(funding.threshold), Number(funding.months)]
  problems.funding = !funding.label.trim() ? 'Say what the credit is.' : !amount || amount.lt(0) ? 'An amount a month.' : !threshold || threshold.lt(0) ? 'The threshold is an amount.' : !Number.isInteger(months) || months < 1 || months > 60 ? 'From 1 to 60 months.' : ''
  if (problems.funding) return
  store.patch({ funding: [...estimate.value.funding, { label: funding.label.trim(), amount: funding.amount, threshold: funding.threshold, months }] })
  Object.assign(funding, { label: '', amount: '' })
}
</script>

<template>
  <section aria-label="Terms">
    <h2 class="heading">Terms</h2>
    <label v-for="provider in store.cards.keys()" :key="provider" class="target">discount{{ store.cards.size > 1 ? `, ${provider}` : ', negotiated' }} <input class="field" :class="{ wrong: problems[`discount ${provider}`] }" inputmode="decimal" :value="discountOf(provider)" :aria-label="`negotiated discount at ${provider}`" @change="setDiscount(provider, ($event.target as HTMLInputElement).value)"> %</label>
    <label class="target">margin <input class="field" :class="{ wrong: problems.marginPercent }" inputmode="decimal" :value="estimate.marginPercent" title="a share of the customer's price" @change="setPercent('marginPercent', ($event.target as HTMLInputElement).value)"> %</label>
    <label class="target">tax on the total <input class="field" :class="{ wrong: problems.taxPercent }" inputmode="decimal" :value="estimate.taxPercent" @change="setPercent('taxPercent', ($event.target as HTMLInputElement).value)"> %</label>
    <template v-for="from in foreign" :key="from">
      <label class="target">1 {{ from }} is <input class="field" :class="{ wrong: problems[`rate ${from}`] }" inputmode="decimal" :value="rateOf(from)?.rate ?? ''" :aria-label="`rate from ${from}`" @change="setRate(from, ($event.target as HTMLInputElement).value, rateOf(from)?.day ?? today())"> {{ store.currency }}</label>
      <label v-if="rateOf(from)" class="target minor">on <input type="date" class="field date" :value="rateOf(from)!.day" :aria-label="`day of the rate from ${from}`" @change="setRate(from, rateOf(from)!.rate, ($event.target as HTMLInputElement).value)"></label>
    </template>
    <p v-if="Object.values(problems).some(Boolean)" class="bad keep" role="alert">{{ Object.values(problems).filter(Boolean).join(' ') }}</p>
    <label class="allowance"><input type="checkbox" :checked="estimate.useFreeAllowance" @change="store.patch({ useFreeAllowance: ($event.target as HTMLInputElement).checked })"> count on free allowances</label>
    <button class="link" :aria-expanded="open" @click="open = !open">{{ open ? 'fewer terms' : 'currency, month, years, credits' }}</button>
    <template v-if="open">
      <label class="target">currency <input class="field" list="currencies" :value="estimate.currency ?? ''" :placeholder="store.currency" @change="setCurrency(($event.target as HTMLInputElement).value)"></label>
      <datalist id="currencies"><option v-for="code in currencies" :key="code" :value="code" /></datalist>
      <label class="target">named month <input type="month" class="field date" :value="estimate.month ?? ''" title="counts its own hours; empty for the month of 730 hours" @change="setMonth(($event.target as HTMLInputElement).value)"></label>
      <label class="target">whole term <select class="field wide" :value="estimate.termYears ?? ''" @change="store.patch({ termYears: Number(($event.target as HTMLSelectElement).value) || null })"><option value="">longest commitment</option><option v-for="n in 5" :key="n" :value="n">{{ n }} {{ n === 1 ? 'year' : 'years' }}</option></select></label>
      <label class="target">seed of the draws <input class="field" inputmode="numeric" :value="estimate.seed" @change="store.patch({ seed: Math.min(4294967295, Math.max(0, Math.floor(Number(($event.target as HTMLInputElement).value)) || 0)) })"></label>
      <p v-for="(credit, i) in estimate.funding" :key="i" class="minor">{{ credit.label }}: {{ credit.amount }} a month for {{ credit.months }} months, from {{ credit.threshold }} a month <button class="link" @click="store.patch({ funding: estimate.funding.filter((_, j) => j !== i) })">take out</button></p>
      <form class="credit" @submit.prevent="addFunding"><input v-model="funding.label" class="field" placeholder="credit or funding" aria-label="credit or funding"><input v-model="funding.amount" class="field" placeholder="a month" aria-label="amount a month" inputmode="decimal"><input v-model="funding.threshold" class="field" title="while the month costs at least" aria-label="while the month costs at least" inputmode="decimal"><input v-model="funding.months" class="field" title="months" aria-label="months" inputmode="numeric"><button class="button">Add</button></form>
    </template>
  </section>
</template>

<style scoped>
.allowance { display: flex; gap: 6px; align-items: center; min-height: 24px; }
.target .date { width: 140px !important; }
.target .wide { width: 140px !important; text-align: left !important; }
.credit { display: grid; grid-template-columns: 1fr 1fr; gap: 4px; margin-top: 6px; }
.credit .field { min-width: 0; }
.credit .field:first-child, .credit .button { grid-column: 1 / -1; }
</style>
