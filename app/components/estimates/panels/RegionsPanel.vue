<script setup lang="ts">
import { moveScenario } from '../../../../core/estimate/scenarios/move'
import { priceEstimate } from '../../../../core/estimate/price-estimate'
import { evaluate } from '../../../../core/working/working'
import { rateCardSchema, type RateCard } from '../../../../core/ratecard/rate-card'

/** The whole estimate in every region of every rate card, side by side. */
const store = useEstimate()
const loaded = shallowRef<Map<string, RateCard> | null>(null)
const failed = ref('')
onMounted(async () => {
  try {
    const newest = cardsHeld(store.cardList, today()).filter(c => !store.cards.has(c.provider))
    const more = await Promise.all(newest.map(c => client.get(`rate-cards/${encodeURIComponent(c.provider)}?date=${c.validFrom}`, rateCardSchema)))
    loaded.value = new Map([...store.cards, ...more.map(c => [c.provider, c] as const)])
  }
  catch (error) {
    failed.value = problemOf(error).detail
  }
})
type Line = { provider: string, region: string, name: string, residency: string, total: string | null, difference: string | null, replaced: string, why: string }
const lines = computed((): Line[] => {
  if (!loaded.value) return []
  const e = store.estimate!
  const now = evaluate(store.base!.total.effectiveMonthly)
  const all = [...loaded.value.values()].flatMap(card => card.regions.map((region): Line => {
    const { scenario, replaced } = moveScenario(e, loaded.value!, { provider: card.provider, region: region.id }, 'region', region.id)
    const priced = priceEstimate(e, { cards: loaded.value!, uplifts: store.uplifts }, scenario)
    const failing = priced.rows.find(row => !row.chosen && !e.components.find(c => c.id === row.id)!.muted)
    const total = evaluate(priced.total.effectiveMonthly)
    const changes = [...new Set(Object.values(replaced).flat().map(r => `${r.from} → ${r.to}`))]
    return { provider: card.provider, region: region.id, name: region.name, residency: region.residency ?? '–', total: failing ? null : total.toFixed(), difference: failing ? null : total.minus(now).toFixed(), replaced: changes.slice(0, 5).join(', ') + (changes.length > 5 ? ` and ${changes.length - 5} more` : ''), why: failing ? Object.values(failing.problems)[0] ?? '' : '' }
  }))
  return all.sort((a, b) => Number(a.total ?? Infinity) - Number(b.total ?? Infinity))
})
</script>

<template>
  <div>
    <h2 class="heading">The whole estimate in other regions <span class="minor">effective monthly, {{ store.currency }}; sizes and classes that a place does not have become the nearest that fit</span></h2>
    <p v-if="failed" class="bad">{{ failed }}</p>
    <p v-else-if="!loaded" role="status">Reading…</p>
    <table v-else class="ledger">
      <thead><tr><th>region</th><th>provider</th><th>data lies in</th><th class="n">a month</th><th class="n">difference</th><th>replaced</th><th /></tr></thead>
      <tbody>
        <tr v-for="line in lines" :key="line.provider + line.region" :class="{ chosen: line.provider === store.estimate!.provider && line.region === store.estimate!.region }">
          <td>{{ line.region }}</td><td>{{ line.provider }}</td><td>{{ line.residency }}</td>
          <td class="n">{{ line.total === null ? '–' : money(roundText(line.total), store.currency) }}</td><td class="n" :class="Number(line.difference) > 0 ? 'bad' : 'good'">{{ line.difference === null || Number(line.difference) === 0 ? '–' : `${Number(line.difference) > 0 ? '+' : ''}${money(roundText(line.difference), store.currency)}` }}</td>
          <td class="minor">{{ line.why || line.replaced }}</td><td><button v-if="line.total !== null && Number(line.difference) !== 0" class="link" @click="store.addMove(line.provider, line.region)">as a scenario</button></td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
