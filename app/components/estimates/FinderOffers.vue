<script setup lang="ts">
import { waysToPay, type WayToPay } from '../../../core/estimate/estimate'
import { isRanked, type Offer, type Terms } from '../../../core/estimate/finder/find-machines'
import { upliftsFor, type StoredUplift } from '../../../core/uplift/uplift-set'
import type { ListedEstimate } from '../../../shared/contracts/estimates'

/** Machines that fit, with what they cost each way; one is taken into an estimate, or for a row. */
const { offers, terms, way, system, uplifts } = defineProps<{
  offers: readonly Offer[]
  terms: Terms
  way: WayToPay
  system: string
  uplifts: readonly StoredUplift[]
  estimates: readonly ListedEstimate[]
  forRow: boolean
}>()
/** Into the estimate of an id, a new one for no id; null for the row that one came from. */
const emit = defineEmits<{ take: [offer: Offer, into: string | null] }>()

const columns = computed(() => waysToPay.filter(w => ['on-demand', '1 year, paid monthly', '3 years, all in advance', way].includes(w)))
const keyOf = (offer: Offer) => offer.provider + offer.region + offer.size
const cost = (offer: Offer, which: WayToPay) => offer.ways.find(w => w.way === which)
const costText = (offer: Offer, which: WayToPay) => {
  const found = cost(offer, which)
  if (!found) return '–'
  return money(roundText(found.effectiveMonthly), offer.currency) + (offer.currency === terms.currency ? '' : ` ${offer.currency}`)
}
/** Of the way looked at; of a year paid monthly where that one has nothing to break even with. */
const breakEven = (offer: Offer) => {
  const hours = cost(offer, way)?.breakEvenHours ?? cost(offer, '1 year, paid monthly')?.breakEvenHours
  return hours ? `${decimals(roundText(hours), 0)} h` : '–'
}
const upliftNames = (offer: Offer) =>
  upliftsFor(uplifts, { kind: 'server', variant: offer.size, pattern: null, system }, terms.startsOn)
    .map(u => u.name)
    .join(', ')
const chosenFor = ref<string | null>(null)
const into = ref('')
</script>

<template>
  <div class="scroll" tabindex="0" role="group" aria-label="sizes">
    <table class="ledger">
      <thead>
        <tr>
          <th>size</th>
          <th class="n">vCPU</th>
          <th class="n">GB</th>
          <th>architecture</th>
          <th>region</th>
          <th>provider</th>
          <th>disk</th>
          <th v-for="w in columns" :key="w" class="n" :class="{ by: w === way }">{{ w }}</th>
          <th class="n">breaks even at</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="(offer, i) in offers" :key="keyOf(offer)" class="acts">
          <td>
            {{ offer.size }}<span v-if="i === 0 && isRanked(offer, terms, way)" class="minor"> ◂ cheapest</span
            ><span v-if="offer.currency !== terms.currency" class="warn minor"> in {{ offer.currency }}, not ranked</span
            ><span v-if="upliftNames(offer)" class="warn minor"> with uplifts: {{ upliftNames(offer) }}</span>
          </td>
          <td class="n">{{ offer.facts.vcpu }}</td>
          <td class="n">{{ offer.facts.memoryGb }}</td>
          <td>{{ offer.facts.architecture }}</td>
          <td>{{ offer.region }}</td>
          <td>{{ offer.provider }}</td>
          <td>{{ offer.diskClass ?? '–' }}</td>
          <td v-for="w in columns" :key="w" class="n" :class="{ by: w === way }">
            {{ costText(offer, w) }}
          </td>
          <td class="n">{{ breakEven(offer) }}</td>
          <td class="take">
            <button v-if="forRow" class="link" @click="emit('take', offer, null)">use for the row</button
            ><button
              v-else
              class="link"
              :aria-expanded="chosenFor === keyOf(offer)"
              @click="chosenFor = chosenFor === keyOf(offer) ? null : keyOf(offer)"
            >
              take
            </button>
            <form v-if="chosenFor === keyOf(offer)" class="into" @submit.prevent="emit('take', offer, into)">
              <select v-model="into" class="field" aria-label="into which estimate">
                <option value="">a new estimate</option>
                <option v-for="e in estimates" :key="e.id" :value="e.id">{{ e.title }}</option></select
              ><button class="button main">Put it in</button>
            </form>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.by {
  background: color-mix(in srgb, var(--act-soft) 50%, transparent);
  font-weight: 560;
}
.take {
  position: relative;
}
.into {
  display: flex;
  gap: 6px;
  padding: 4px 0;
}
</style>
