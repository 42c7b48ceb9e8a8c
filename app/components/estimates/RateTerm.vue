<script setup lang="ts">
import { startOf } from '../../../core/estimate/estimate'
import { rateOf } from '../../../core/estimate/pricing/rates'
import { readRate } from '../../../core/estimate/sheet/typed-terms'

/** The rate that amounts in a currency are converted at: the dated one of Sources, or one for this estimate alone. */
const { from } = defineProps<{ from: string }>()
/** What is wrong with what was typed; the terms say it together. */
const problem = defineModel<string>('problem', { default: '' })
const store = useEstimate()
const used = computed(() => rateOf(store.estimate!, store.rates, from, store.currency))
const others = computed(() => store.estimate!.rates.filter(rate => rate.from !== from))
const start = computed(() => startOf(store.estimate!))
function set(text: string, day: string) {
  const read = readRate(text, day)
  problem.value = read && 'problem' in read ? read.problem : ''
  if (read === null) store.patch({ rates: others.value })
  else if ('rate' in read) store.patch({ rates: [...others.value, { from, ...read }] })
}
</script>

<template>
  <label class="target"
    >1 {{ from }} is
    <input
      v-held="used?.rate ?? ''"
      class="field"
      :class="{ wrong: problem || !used }"
      inputmode="decimal"
      :data-rate="from"
      placeholder="no rate"
      :aria-label="`rate from ${from}`"
      @change="set(($event.target as HTMLInputElement).value, used?.own ? used.day : today())"
    />
    {{ store.currency }}</label
  >
  <p v-if="used && !used.own" class="minor ratefrom">
    of {{ dayText(used.day) }}, from <NuxtLink to="/sources/rates" class="link">Sources</NuxtLink>
  </p>
  <label v-else-if="used" class="target minor"
    >this estimate only, of
    <input
      v-held="used.day"
      type="date"
      class="field date"
      :aria-label="`day of the rate from ${from}`"
      @change="set(used.rate, ($event.target as HTMLInputElement).value)"
    /><button type="button" class="link" :aria-label="`back to the rate of Sources for ${from}`" @click="store.patch({ rates: others })">
      undo
    </button></label
  >
  <p v-else class="bad keep">
    no rate from {{ from }} to {{ store.currency }}{{ start ? ` holds on ${dayText(start)}` : '' }}: give one here, or under
    <NuxtLink to="/sources/rates" class="link">Sources</NuxtLink> for everything
  </p>
</template>

<style scoped>
.target .date {
  width: 140px !important;
}
.ratefrom {
  margin-top: -2px;
}
</style>
