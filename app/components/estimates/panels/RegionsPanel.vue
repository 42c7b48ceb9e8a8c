<script setup lang="ts">
import { compareScenarios } from '../../../../core/estimate/scenarios/compare'
import { replacedText } from '../../../../core/estimate/scenarios/equivalent'
import { moveScenario } from '../../../../core/estimate/scenarios/move'
import { figureText, priceEstimate } from '../../../../core/estimate/pricing/price-estimate'
import { PriceMemo } from '../../../../core/estimate/pricing/price-memo'
import { rowNames } from '../../../../core/estimate/sheet/row-name'
import type { RateCard } from '../../../../core/ratecard/rate-card'

/** The whole estimate in every region of every rate card, side by side: totals where every row is offered first, the others behind them. */
const store = useEstimate()
const loaded = shallowRef<Map<string, RateCard> | null>(null)
const failed = ref('')
onMounted(async () => {
  try {
    const newest = cardsHeld(store.cardList, today()).filter(c => !store.cards.has(c.provider))
    const more = await Promise.all(newest.map(c => store.loadCard(versionOfEntry(c))))
    loaded.value = new Map([...store.cards, ...more.map(c => [c.provider, c] as const)])
  } catch (error) {
    failed.value = problemOf(error).detail
  }
})
type Line = {
  provider: string
  region: string
  name: string
  residency: string
  total: string
  difference: string
  lacks: string
  missing: number
  replaced: string[]
}
const lines = computed((): Line[] => {
  if (!loaded.value) return []
  const e = { ...store.estimate!, termYears: store.base!.termYears }
  const prices = { ...store.prices, cards: loaded.value }
  const memo = new PriceMemo()
  const base = priceEstimate(e, prices, null, memo)
  const names = rowNames(e.components)
  const all = [...loaded.value.values()].flatMap(card =>
    card.regions.map((region): Line => {
      const priced = priceEstimate(
        e,
        prices,
        moveScenario(e, { provider: card.provider, region: region.id }, `region ${card.provider} ${region.id}`, region.id),
        memo,
      )
      const { total, lacks } = compareScenarios(e, prices, base, priced, 'effectiveMonthly', memo)
      const missing = [...priced.uncounted].map(
        id => `${names.get(id)!}: ${(Object.values(priced.byId.get(id)!.problems)[0] ?? '').replace('not offered there: ', '')}`,
      )
      const amount = lacks?.amounts ? `, ${money(roundText(lacks.amounts.effectiveMonthly), store.currency)} here` : ''
      return {
        provider: card.provider,
        region: region.id,
        name: region.name,
        residency: region.residency ?? '–',
        total: figureText(priced.total.effectiveMonthly),
        difference: total.amount,
        lacks: missing.length
          ? `${missing.length} ${missing.length === 1 ? 'row' : 'rows'} not counted${amount}. ${missing.slice(0, 3).join('; ')}${missing.length > 3 ? '; …' : ''}`
          : '',
        missing: missing.length,
        replaced: [
          ...new Set(priced.rows.filter(row => row.replaced.length).map(row => `${names.get(row.id)!}: ${replacedText(row.replaced)}`)),
        ],
      }
    }),
  )
  // what lacks rows never leads
  return all.sort((a, b) => a.missing - b.missing || Number(a.total) - Number(b.total))
})
</script>

<template>
  <div>
    <h2 class="heading">
      The whole estimate in other regions
      <span class="minor"
        >effective monthly, {{ store.currency }}; each row stands there as the same thing, or is not offered; differences are over the rows
        that both can price</span
      >
    </h2>
    <p v-if="failed" class="bad">{{ failed }}</p>
    <p v-else-if="!loaded" role="status">Reading…</p>
    <div v-else class="scroll" tabindex="0" role="group" aria-label="regions">
      <table class="ledger">
        <thead>
          <tr>
            <th>region</th>
            <th>provider</th>
            <th>data lies in</th>
            <th class="n">a month</th>
            <th class="n">difference</th>
            <th>replaced, not counted</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="line in lines"
            :key="line.provider + line.region"
            :class="{ chosen: line.provider === store.estimate!.provider && line.region === store.estimate!.region }"
          >
            <td>{{ line.region }}</td>
            <td>{{ line.provider }}</td>
            <td>{{ line.residency }}</td>
            <td class="n">{{ money(roundText(line.total), store.currency) }}</td>
            <td class="n" :class="Number(line.difference) > 0 ? 'bad' : 'good'">{{ signedMoney(line.difference, store.currency) }}</td>
            <td class="minor what">
              <div v-if="line.lacks" class="bad">{{ line.lacks }}</div>
              <div v-if="line.replaced.length">
                {{ line.replaced.slice(0, 4).join('; ') }}{{ line.replaced.length > 4 ? ` and ${line.replaced.length - 4} more` : '' }}
              </div>
            </td>
            <td>
              <button
                v-if="line.provider !== store.estimate!.provider || line.region !== store.estimate!.region"
                class="link"
                :aria-label="`${line.region} of ${line.provider} as a scenario`"
                @click="store.addMove(line.provider, line.region)"
              >
                as a scenario
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
td {
  vertical-align: top;
}
.what {
  max-width: 460px;
  line-height: 1.3;
}
</style>
