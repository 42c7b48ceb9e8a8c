<script setup lang="ts">
import { isCurrency, currencies } from '../../../core/money/currency'
import { decimalText, parseDecimal } from '../../../core/money/decimal'
import { isDay } from '../../../core/time/day'
import { startOf } from '../../../core/estimate/estimate'
import { rateOf } from '../../../core/estimate/pricing/rates'
import { readQuantity } from '../../../core/estimate/sheet/typed-text'

/** Terms: discounts by buying agreement, margin, tax, funding, currency and rates, the month and the years, free allowances. */
const store = useEstimate()
const estimate = computed(() => store.estimate!)
const problems = reactive<Record<string, string>>({})
const open = ref(false)

const percentProblem = (text: string) => {
  const number = parseDecimal(text.trim().replace(/\s*%$/, ''))
  return !number || number.lt(0) || number.gt(100) ? 'A percentage from 0 to 100.' : ''
}
const plainPercent = (text: string) => decimalText(parseDecimal(text.trim().replace(/\s*%$/, ''))!)
function setPercent(name: 'marginPercent' | 'taxPercent', text: string) {
  problems[name] =
    percentProblem(text) ||
    (name === 'marginPercent' && parseDecimal(plainPercent(text))!.gte(100) ? "A margin is below 100 % of the customer's price." : '')
  if (!problems[name]) store.patch({ [name]: plainPercent(text) })
}
const discountOf = (provider: string) => estimate.value.discounts.find(d => d.provider === provider)?.percent ?? '0'
function setDiscount(provider: string, text: string) {
  problems[`discount ${provider}`] = percentProblem(text)
  if (problems[`discount ${provider}`]) return
  const others = estimate.value.discounts.filter(d => d.provider !== provider)
  store.patch({ discounts: plainPercent(text) === '0' ? others : [...others, { provider, percent: plainPercent(text) }] })
}
const foreign = computed(() =>
  [...new Set([...store.cards.values()].map(c => c.currency).concat(store.uplifts.map(u => u.currency)))].filter(c => c !== store.currency),
)
/** The rate that amounts are converted at: the dated one of Sources, or one for this estimate alone. */
const rateUsed = (from: string) => rateOf(estimate.value, store.rates, from, store.currency)
const withoutRate = (from: string) => estimate.value.rates.filter(r => r.from !== from)
function setRate(from: string, text: string, day: string) {
  const number = readQuantity(text, { label: 'rate' })
  problems[`rate ${from}`] =
    text.trim() === ''
      ? ''
      : typeof number === 'string'
        ? `${number}.`
        : number.isRange || number.likely.lte(0)
          ? 'A rate above zero.'
          : !isDay(day)
            ? 'Say of which day it is.'
            : ''
  if (problems[`rate ${from}`]) return
  store.patch({
    rates:
      text.trim() === '' || typeof number === 'string'
        ? withoutRate(from)
        : [...withoutRate(from), { from, rate: decimalText(number.likely), day }],
  })
}
function setCurrency(text: string) {
  const code = text.trim().toUpperCase()
  problems.currency = code && !isCurrency(code) ? 'A currency code such as EUR.' : ''
  if (!problems.currency) store.patch({ currency: code || null })
}
function setMonth(text: string) {
  store.patch({ month: text || null })
}
const funding = reactive({ label: '', amount: '', threshold: '0', fromMonth: '1', months: '12' })
const plainAmount = (text: string) => {
  const number = readQuantity(text, { label: 'amount' })
  return typeof number !== 'string' && !number.isRange && number.likely.gte(0) ? decimalText(number.likely) : null
}
function addFunding() {
  const [amount, threshold] = [plainAmount(funding.amount), plainAmount(funding.threshold)]
  const [fromMonth, months] = [Number(funding.fromMonth), Number(funding.months)]
  const isMonth = (n: number) => Number.isInteger(n) && n >= 1 && n <= 120
  problems.funding = !funding.label.trim()
    ? 'Say what the credit is.'
    : amount === null
      ? 'An amount a month.'
      : threshold === null
        ? 'The threshold is an amount a month.'
        : !isMonth(fromMonth) || !isMonth(months)
          ? 'Months are from 1 to 120.'
          : ''
  if (problems.funding || amount === null || threshold === null) return
  store.patch({ funding: [...estimate.value.funding, { label: funding.label.trim(), amount, threshold, fromMonth, months }] })
  Object.assign(funding, { label: '', amount: '' })
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
    <template v-for="from in foreign" :key="from">
      <label class="target"
        >1 {{ from }} is
        <input
          v-held="rateUsed(from)?.rate ?? ''"
          class="field"
          :class="{ wrong: problems[`rate ${from}`] || !rateUsed(from) }"
          inputmode="decimal"
          :data-rate="from"
          placeholder="no rate"
          :aria-label="`rate from ${from}`"
          @change="setRate(from, ($event.target as HTMLInputElement).value, rateUsed(from)?.own ? rateUsed(from)!.day : today())"
        />
        {{ store.currency }}</label
      >
      <p v-if="rateUsed(from) && !rateUsed(from)!.own" class="minor ratefrom">
        of {{ dayText(rateUsed(from)!.day) }}, from <NuxtLink to="/sources/rates" class="link">Sources</NuxtLink>
      </p>
      <label v-else-if="rateUsed(from)" class="target minor"
        >this estimate only, of
        <input
          v-held="rateUsed(from)!.day"
          type="date"
          class="field date"
          :aria-label="`day of the rate from ${from}`"
          @change="setRate(from, rateUsed(from)!.rate, ($event.target as HTMLInputElement).value)"
        /><button
          type="button"
          class="link"
          :aria-label="`back to the rate of Sources for ${from}`"
          @click="store.patch({ rates: withoutRate(from) })"
        >
          undo
        </button></label
      >
      <p v-else class="bad keep">
        no rate from {{ from }} to {{ store.currency }}{{ start ? ` holds on ${dayText(start)}` : '' }}: give one here, or under
        <NuxtLink to="/sources/rates" class="link">Sources</NuxtLink> for everything
      </p>
    </template>
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
      <label class="target" title="own charges and exchange rates of that day hold"
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
      <p v-for="(credit, i) in estimate.funding" :key="i" class="minor">
        {{ credit.label }}: {{ money(credit.amount, store.currency) }} in
        {{ credit.months === 1 ? `month ${credit.fromMonth}` : `months ${credit.fromMonth} to ${credit.fromMonth + credit.months - 1}`
        }}{{ Number(credit.threshold) > 0 ? `, while the month costs at least ${money(credit.threshold, store.currency)}` : '' }}
        <button class="link" @click="store.patch({ funding: estimate.funding.filter((_, j) => j !== i) })">take out</button>
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
.ratefrom {
  margin-top: -2px;
}
</style>
