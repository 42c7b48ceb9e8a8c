<script setup lang="ts">
import { readQuantity } from '../../../core/estimate/sheet/typed-text'
import { decimalText } from '../../../core/money/decimal'
import type { Closer } from '../../../core/estimate/scenarios/close-gap'
import { figureText } from '../../../core/estimate/pricing/price-estimate'

/** The total against the target, and single changes that would bring it there. */
const props = defineProps<{ closers: Closer[] }>()
const store = useEstimate()
const monthly = computed(() => figureText(store.priced!.total.effectiveMonthly))
const target = computed(() => store.estimate!.target)
const share = computed(() => (target.value && Number(target.value) > 0 ? Number(monthly.value) / Number(target.value) : null))
const gap = computed(() => (target.value ? roundText(subtractTexts(monthly.value, target.value)) : '0'))
const problem = ref('')
const all = ref(false)
const shown = computed(() => (all.value ? props.closers : props.closers.slice(0, 5)))

function set(text: string) {
  const value = text.trim()
  const number = value === '' ? null : readQuantity(value, { label: 'target' })
  problem.value =
    typeof number === 'string' ? `${number}.` : number && (number.isRange || number.likely.lt(0)) ? 'Write one amount, such as 500.' : ''
  const kept = number && typeof number !== 'string' ? decimalText(number.likely) : null
  if (!problem.value && kept !== target.value) store.patch({ target: kept })
}
function attempt(closer: Closer) {
  store.scenarioId = store.tryCloser(closer)
}
</script>

<template>
  <section>
    <h2 class="heading">Against the target</h2>
    <template v-if="share !== null">
      <p v-if="store.priced!.unpriced" class="bad keep">
        {{ count(store.priced!.unpriced) }} {{ store.priced!.unpriced === 1 ? 'row is' : 'rows are' }} not in this total.
      </p>
      <LevelGauge
        :width="235"
        :height="20"
        :used="share"
        :notches="[0.5, 0.8]"
        :tone="share > 1 ? 'warn' : 'act'"
        :label="`${money(roundText(monthly), store.currency)} of ${target} ${store.currency}`"
      />
      <p class="note">
        <b>{{ money(roundText(monthly), store.currency) }} {{ currencySign(store.currency) }}</b> of
        {{ money(roundText(target!), store.currency) }} a month,
        <span :class="!gap.startsWith('-') ? 'bad' : store.priced!.unpriced ? '' : 'good'"
          >{{ money(sizeText(gap), store.currency) }}
          {{ !gap.startsWith('-') ? 'over' : store.priced!.unpriced ? 'left for what is not in it' : 'left' }}</span
        ><template v-if="store.scenarioId">, scenario {{ store.scenario?.name }}</template>
      </p>
    </template>
    <label class="target"
      >target a month
      <input
        v-held="target ?? ''"
        class="field"
        :class="{ wrong: problem }"
        inputmode="decimal"
        placeholder="none"
        @change="set(($event.target as HTMLInputElement).value)"
      />
      {{ store.currency }}</label
    >
    <p v-if="problem" class="bad keep">{{ problem }}</p>
    <template v-if="shown.length && store.estimate!.components.length">
      <h3 class="minor which">{{ target && !gap.startsWith('-') ? 'What would close the gap' : 'Single changes that save' }}, a month</h3>
      <ul aria-label="single changes that save">
        <li v-for="closer in shown" :key="closer.id">
          <button class="link" :title="closer.ifPossible" @click="attempt(closer)">{{ closer.label }}</button>
          <span class="amount"
            >−{{ money(roundText(closer.saving), store.currency) }}
            <span v-if="closer.closes" class="good" title="brings the total under the target on its own"> ✓</span
            ><span
              v-if="closer.lacks"
              class="bad lacks"
              :title="`${closer.lacks} rows cannot be priced then; the saving is over the others`"
            >
              {{ closer.lacks }} not priced</span
            ></span
          >
          <span v-if="closer.ifPossible" class="minor cond">{{ closer.ifPossible }}</span>
        </li>
      </ul>
      <button v-if="closers.length > 5" class="link" @click="all = !all">{{ all ? 'fewer' : `all ${closers.length}` }}</button>
    </template>
  </section>
</template>

<style scoped>
.which {
  margin-top: 6px;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 8px;
  padding: 1px 0;
}
li .link {
  font-weight: 500;
  line-height: 1.25;
}
.amount {
  white-space: nowrap;
  text-align: right;
}
.lacks {
  display: block;
  font-size: 11px;
  line-height: 1.1;
}
.cond {
  grid-column: 1 / -1;
  line-height: 1.2;
}
</style>
