<script setup lang="ts">
import { rateList } from '../../../shared/contracts/spend-settings'
import type { z } from 'zod'

/** Exchange rates by the day from which they hold; costs in one currency are converted at the rate of each charge's day. */
const rates = ref<z.infer<typeof rateList>['rates']>([])
const sources = useSources()
const data = useData()
useHead({ title: 'Exchange rates · Rain Barrel' })
const { attempt, problem, busy } = useAttempt()
const load = () => attempt(async () => {
  rates.value = (await client.get('rates', rateList)).rates
})
onMounted(load)
async function drop(files: File[]) {
  await sources.drop(files)
  await load()
}
const pairs = computed(() => [...new Set(rates.value.map(r => `${r.from} to ${r.to}`))])
const lacking = computed(() => (data.facts?.currencies ?? []).filter(currency => !rates.value.some(r => r.from === currency || r.to === currency)))
</script>

<template>
  <div class="page">
    <SourcesNav />
    <h1 class="sentence">{{ rates.length ? `${rates.length} exchange rates for ${pairs.join(', ')}.` : 'No exchange rates are loaded: costs are shown in the currency they were billed in.' }}</h1>
    <DropPlace @files="drop" />
    <template v-for="(file, i) in sources.taken" :key="i"><ProblemNote v-if="file.problem" :problem="file.problem" /><p v-else class="good">«{{ file.name }}» was taken: {{ file.said }}.</p></template>
    <p class="minor">A CSV with the columns <code>from,to,valid from,rate</code>: from that day on one unit of the first currency is worth so many of the second.</p>
    <p v-if="lacking.length && rates.length" class="warn">Charges are billed in {{ lacking.join(', ') }} too, and no rate knows it.</p>
    <ProblemNote v-if="problem" :problem="problem" :retry="load" />
    <table v-if="rates.length" class="ledger list">
      <thead><tr><th>from</th><th>to</th><th>holds from</th><th class="n">rate</th><th>by</th><th>when</th></tr></thead>
      <tbody><tr v-for="rate in rates" :key="rate.from + rate.to + rate.validFrom"><td>{{ rate.from }}</td><td>{{ rate.to }}</td><td>{{ dayText(rate.validFrom) }}</td><td class="n">{{ rate.rate }}</td><td>{{ rate.who }}</td><td>{{ timeText(rate.loadedAt) }}</td></tr></tbody>
    </table>
    <p v-else-if="busy" class="note">Reading…</p>
  </div>
</template>

<style scoped>
.list { max-width: 760px; margin-top: 10px; }
code { background: var(--paper-sunk); padding: 0 4px; border-radius: 3px; }
</style>
