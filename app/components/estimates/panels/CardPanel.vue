<script setup lang="ts">
import { compareEstimates, type EstimateComparison } from '../../../../core/estimate/compare-estimates'
import { priceOnCard } from '../../../../core/estimate/sheet/name-card'
import { figureNames, figureWords } from '../../../../core/estimate/pricing/price-estimate'
import { rowNames } from '../../../../core/estimate/sheet/row-name'
import { replacedText } from '../../../../core/estimate/scenarios/equivalent'

/** What newer rate cards would change, before anything is priced again. */
const store = useEstimate()
const comparison = shallowRef<EstimateComparison | null>(null)
const replaced = ref<string[]>([])
const failed = ref('')
watch(
  () => [store.newerCards, store.estimate],
  async () => {
    if (!store.newerCards.length) return
    try {
      const cards = new Map(store.cards)
      let after = store.estimate!
      const said: string[] = []
      for (const entry of store.newerCards) {
        const body = await store.loadCard(versionOfEntry(entry))
        const priced = priceOnCard(after, cards, versionOfEntry(entry), body)
        const names = rowNames(after.components)
        said.push(...Object.entries(priced.replaced).map(([id, changes]) => `${names.get(id)!}: ${replacedText(changes)}`))
        after = priced.estimate
        cards.set(entry.provider, body)
      }
      replaced.value = said
      comparison.value = compareEstimates(store.estimate!, store.prices, after, { ...store.prices, cards })
      failed.value = ''
    } catch (error) {
      failed.value = problemOf(error).detail
    }
  },
  { immediate: true },
)
async function reprice() {
  for (const entry of store.newerCards) await store.nameCard(versionOfEntry(entry))
}
const signed = (amount: string) => signedMoney(amount, store.currency)
</script>

<template>
  <div>
    <template v-if="store.newerCards.length">
      <h2 class="heading">
        On the newer rate card
        <span class="minor">{{ store.newerCards.map(c => `${c.provider}, ${versionText(versionOfEntry(c))}`).join('; ') }}</span>
      </h2>
      <p v-if="failed" class="bad">{{ failed }}</p>
      <template v-if="comparison">
        <p>
          <template v-for="figure in figureNames" :key="figure"
            >{{ figureWords[figure] }}
            <b :class="Number(comparison.totals[figure].amount) > 0 ? 'bad' : 'good'">{{ signed(comparison.totals[figure].amount) }}</b>
            · </template
          >{{ store.currency }}
        </p>
        <p v-if="comparison.lacks" class="bad">
          {{ count(comparison.lacks.rows) }} {{ comparison.lacks.rows === 1 ? 'row has' : 'rows have' }} no price on it and
          {{ comparison.lacks.rows === 1 ? 'is' : 'are' }} left out of the difference{{
            comparison.lacks.amounts ? `: ${money(roundText(comparison.lacks.amounts.effectiveMonthly), store.currency)} a month now` : ''
          }}.
        </p>
        <p v-if="replaced.length" class="warn">{{ replaced.join('; ') }}.</p>
        <table v-if="comparison.rows.length" class="ledger rows">
          <thead>
            <tr>
              <th>row</th>
              <th class="n">a month</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in comparison.rows" :key="row.component">
              <td>{{ row.label }}</td>
              <td class="n">{{ row.effectiveMonthly ? signed(row.effectiveMonthly.amount) : 'not priced' }}</td>
            </tr>
          </tbody>
        </table>
        <p v-else>No row changes price on it.</p>
        <button class="button main" @click="reprice">Price it on the newer card</button>
      </template>
    </template>
    <p v-else>It is priced on the newest rate card. Undo goes back to the earlier one; Save keeps it.</p>
  </div>
</template>

<style scoped>
.rows {
  max-width: 520px;
  margin: 4px 0 8px;
}
</style>
