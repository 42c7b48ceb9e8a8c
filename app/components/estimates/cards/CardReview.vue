<script setup lang="ts">
import { compareEstimates } from '../../../../core/estimate/compare-estimates'
import { priceOnCard, type CardVersion } from '../../../../core/estimate/sheet/name-card'
import { figureText } from '../../../../core/estimate/pricing/price-estimate'
import { rowNames } from '../../../../core/estimate/sheet/row-name'
import { replacedText } from '../../../../core/estimate/scenarios/equivalent'
import type { Rate } from '../../../../core/money/rates'
import type { RateCard } from '../../../../core/ratecard/rate-card'
import type { StoredUplift } from '../../../../core/uplift/uplift-set'
import { estimateSaved, type SavedEstimate } from '../../../../shared/contracts/estimates'

/** Estimates on an earlier version of the card: what each would cost on the newer one, and pricing those chosen on it. */
const props = defineProps<{
  after: RateCard
  version: CardVersion
  estimates: SavedEstimate[]
  cardOf: (version: CardVersion) => RateCard | undefined
  uplifts: StoredUplift[]
  rates: Rate[]
}>()
const emit = defineEmits<{ applied: [] }>()
const chosen = ref(new Set<string>())
const done = ref('')
const applying = ref(false)
const problem = ref<ReturnType<typeof problemOf> | null>(null)

const earlier = computed(() =>
  props.estimates.filter(({ estimate }) =>
    estimate.cards.some(
      c => c.provider === props.version.provider && isNewer({ validFrom: props.version.date, revision: props.version.revision }, c),
    ),
  ),
)
/** Estimates that name a card which is not loaded: nobody can say what they cost. */
const unknown = computed(() => earlier.value.filter(({ estimate }) => estimate.cards.some(c => !props.cardOf(c))))
const reviews = computed(() =>
  earlier.value.flatMap(saved => {
    const cards = saved.estimate.cards.map(props.cardOf)
    if (cards.some(c => !c)) return []
    const before = { cards: new Map(cards.map(c => [c!.provider, c!])), uplifts: props.uplifts, rates: props.rates }
    const prices = { ...before, cards: new Map(before.cards).set(props.after.provider, props.after) }
    const { estimate, replaced } = priceOnCard(saved.estimate, before.cards, props.version, props.after)
    const { rows, totals, before: old, after: now, lacks, lackedBefore } = compareEstimates(saved.estimate, before, estimate, prices)
    const names = rowNames(saved.estimate.components)
    return [
      {
        saved,
        estimate,
        currency: now.currency,
        before: figureText(old.total.effectiveMonthly),
        now: figureText(now.total.effectiveMonthly),
        difference: totals.effectiveMonthly,
        rows,
        lacks,
        lackedBefore,
        unpriced: rows.filter(row => !row.effectiveMonthly && now.uncounted.has(row.component) && !old.uncounted.has(row.component)).length,
        replaced: Object.entries(replaced).map(([id, changes]) => `${names.get(id)!}: ${replacedText(changes)}`),
      },
    ]
  }),
)
watch(
  () => props.after,
  () => {
    chosen.value = new Set(reviews.value.filter(r => !r.unpriced).map(r => r.saved.id))
    done.value = ''
  },
  { immediate: true },
)
function toggle(id: string) {
  const next = new Set(chosen.value)
  if (!next.delete(id)) next.add(id)
  chosen.value = next
}
const asked = computed(() => reviews.value.filter(r => chosen.value.has(r.saved.id)))
async function apply() {
  applying.value = true
  problem.value = null
  let n = 0
  try {
    for (const { saved, estimate } of asked.value) {
      await client.send(
        'PUT',
        `estimates/${saved.id}`,
        { basedOn: saved.version, estimate, name: `on the rate card of ${versionText(props.version)}` },
        estimateSaved,
      )
      n++
    }
  } catch (error) {
    problem.value = problemOf(error)
  }
  done.value = n
    ? `${count(n)} ${n === 1 ? 'estimate is' : 'estimates are'} priced on the card of ${versionText(props.version)}. Each has its earlier state under Versions.`
    : ''
  applying.value = false
  emit('applied')
}
</script>

<template>
  <section class="review">
    <h2 class="heading">Estimates on an earlier card <span class="minor">a month, effective</span></h2>
    <p v-if="done" class="good" role="status">{{ done }}</p>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="unknown.length" class="warn">
      {{ unknown.map(saved => saved.estimate.name).join(', ') }}: left out, for a rate card that they name is not loaded.
    </p>
    <p v-if="!reviews.length && !unknown.length && !done" class="note">
      None: every estimate that uses {{ after.provider }} is priced on this card already.
    </p>
    <form v-if="reviews.length" @submit.prevent="apply">
      <div class="scroll" tabindex="0" role="group" aria-label="estimates to review">
        <table class="ledger">
          <thead>
            <tr>
              <th />
              <th>estimate</th>
              <th>priced on</th>
              <th class="n">now</th>
              <th class="n">on the newer card</th>
              <th class="n">difference</th>
              <th class="n">by</th>
              <th>currency</th>
              <th>largest changes by row</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="r in reviews" :key="r.saved.id" class="acts">
              <td>
                <input
                  :id="`apply-${r.saved.id}`"
                  type="checkbox"
                  :checked="chosen.has(r.saved.id)"
                  :aria-label="`price ${r.saved.estimate.name} on the newer card`"
                  @change="toggle(r.saved.id)"
                />
              </td>
              <td>
                <NuxtLink :to="`/estimates/${r.saved.id}`" class="link">{{ r.saved.estimate.name }}</NuxtLink>
              </td>
              <td class="whole">{{ versionText(r.saved.estimate.cards.find(c => c.provider === after.provider)!) }}</td>
              <td class="n">
                {{ money(roundText(r.before), r.currency) }}
                <div v-if="r.lackedBefore" class="bad lack">{{ count(r.lackedBefore) }} not counted</div>
              </td>
              <td class="n">
                {{ money(roundText(r.now), r.currency) }}
                <div v-if="r.lacks" class="bad lack">
                  {{ count(r.lacks.rows) }} {{ r.lacks.rows === 1 ? 'row' : 'rows' }} not counted{{
                    r.lacks.amounts ? `, ${money(roundText(r.lacks.amounts.effectiveMonthly), r.currency)} now` : ''
                  }}
                </div>
              </td>
              <td class="n" :class="toneOf(r.difference.amount)">{{ signedMoney(r.difference.amount, r.currency) }}</td>
              <td class="n" :class="toneOf(r.difference.amount)">
                {{ r.difference.share === null || Number(r.difference.share) === 0 ? '–' : percentText(Number(r.difference.share)) }}
              </td>
              <td>{{ r.currency }}</td>
              <td class="minor">
                <span v-if="r.unpriced > 0" class="bad"
                  >{{ r.unpriced }} {{ r.unpriced === 1 ? 'row has' : 'rows have' }} no price on it; </span
                ><span v-if="r.replaced.length" class="warn">{{ r.replaced.slice(0, 2).join('; ') }}; </span
                >{{
                  r.rows
                    .filter(row => row.effectiveMonthly)
                    .slice(0, 3)
                    .map(row => `${row.label} ${signedMoney(row.effectiveMonthly!.amount, r.currency)}`)
                    .join('; ') || 'none'
                }}
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="under">
        <button class="button main" :disabled="!asked.length || applying">
          {{
            applying
              ? 'Pricing…'
              : `Price ${asked.length === reviews.length ? `all ${count(asked.length)}` : count(asked.length)} on the card of ${versionText(version)}`
          }}</button><span>Each keeps its present state as an earlier version.</span>
      </p>
    </form>
  </section>
</template>

<style scoped>
.whole {
  white-space: nowrap;
}
.lack {
  font-size: 11px;
  white-space: nowrap;
}
.review {
  margin-top: 18px;
}
</style>
