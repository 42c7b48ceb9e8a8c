<script setup lang="ts">
import { compareEstimates, type EstimateComparison } from '../../../../core/estimate/compare-estimates'
import { nameCard } from '../../../../core/estimate/name-card'
import { figureNames, figureWords } from '../../../../core/estimate/price-estimate'
import { rateCardSchema } from '../../../../core/ratecard/rate-card'

/** What newer rate cards would change, before anything is priced again. */
const store = useEstimate()
const comparison = shallowRef<EstimateComparison | null>(null)
const failed = ref('')
watch(() => [store.newerCards, store.estimate], async () => {
  if (!store.newerCards.length) return
  try {
    const cards = new Map(store.cards)
    for (const { provider, validFrom } of store.newerCards) cards.set(provider, await client.get(`rate-cards/${encodeURIComponent(provider)}?date=${validFrom}`, rateCardSchema))
    const after = store.newerCards.reduce((e, c) => nameCard(e, c.provider, c.validFrom), store.estimate!)
    comparison.value = compareEstimates(store.estimate!, store.prices, after, { ...store.prices, cards })
    failed.value = ''
  }
  catch (error) {
    failed.value = problemOf(error).detail
  }
}, { immediate: true })
async function reprice() {
  for (const { provider, validFrom } of store.newerCards) await store.nameCard(provider, validFrom)
}
const signed = (amount: string) => signedMoney(amount, store.currency)
</script>

<template>
  <div>
    <template v-if="store.newerCards.length">
      <h2 class="heading">On the newer rate card <span class="minor">{{ store.newerCards.map(c => `${c.provider}, ${dayText(c.validFrom)}`).join('; ') }}</span></h2>
      <p v-if="failed" class="bad">{{ failed }}</p>
      <template v-if="comparison">
        <p><template v-for="figure in figureNames" :key="figure">{{ figureWords[figure] }} <b :class="Number(comparison.totals[figure].amount) > 0 ? 'bad' : 'good'">{{ signed(comparison.totals[figure].amount) }}</b> · </template>{{ store.currency }}</p>
        <table v-if="comparison.rows.length" class="ledger rows"><thead><tr><th>row</th><th class="n">a month</th></tr></thead><tbody><tr v-for="row in comparison.rows" :key="row.component"><td>{{ row.label }}</td><td class="n">{{ signed(row.effectiveMonthly.amount) }}</td></tr></tbody></table>
        <p v-else>No row costs anything else on it.</p>
        <button class="button main" @click="reprice">Price it on the newer card</button>
      </template>
    </template>
    <p v-else>It is priced on the newest rate card. Undo goes back to the earlier one; Save keeps it.</p>
  </div>
</template>

<style scoped>
.rows { max-width: 520px; margin: 4px 0 8px; }
</style>
