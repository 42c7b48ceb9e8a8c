<script setup lang="ts">
import { compareCards, type LineChange } from '../../../../core/ratecard/compare-cards'
import type { RateCard } from '../../../../core/ratecard/rate-card'

/** What differs from one version of a rate card to the next, in plain words. */
const props = defineProps<{ before: RateCard; after: RateCard }>()
const MOST_SHOWN = 120
const only = ref<LineChange['change'] | 'all'>('all')
const search = ref('')
const kinds = ['dearer', 'cheaper', 'new', 'gone', 'other terms'] as const
const changes = computed(() => compareCards(props.before, props.after))
const counted = computed(() => kinds.map(kind => ({ kind, n: changes.value.filter(c => c.change === kind).length })))
const found = computed(() => {
  const wanted = search.value.trim().toLowerCase()
  return changes.value
    .filter(c => (only.value === 'all' || c.change === only.value) && (!wanted || `${c.words} ${c.sku}`.toLowerCase().includes(wanted)))
    .sort((a, b) => kinds.indexOf(a.change) - kinds.indexOf(b.change) || Math.abs(Number(b.share ?? 0)) - Math.abs(Number(a.share ?? 0)))
})
const tone = (change: string) => (change === 'dearer' ? 'bad' : change === 'cheaper' ? 'good' : '')
</script>

<template>
  <section>
    <h2 class="heading">
      What changes
      <span class="minor"
        >{{ after.provider }}, from the card of {{ dayText(before.validFrom) }} to that of {{ dayText(after.validFrom) }}</span
      >
    </h2>
    <p v-if="!changes.length" class="note">Nothing: every price and every term is the same.</p>
    <template v-else>
      <p class="under">
        <button class="link" :class="{ on: only === 'all' }" :aria-pressed="only === 'all'" @click="only = 'all'">
          all {{ count(changes.length) }}
        </button>
        <button
          v-for="c in counted"
          :key="c.kind"
          class="link"
          :class="{ on: only === c.kind }"
          :disabled="!c.n"
          :aria-pressed="only === c.kind"
          @click="only = c.kind"
        >
          {{ c.n ? count(c.n) : 'none' }} {{ c.kind }}
        </button>
        <input v-model="search" class="field" type="search" placeholder="find a price" aria-label="find a price" />
      </p>
      <div class="scroll tall" tabindex="0" role="region" aria-label="differences">
        <table class="ledger">
          <thead>
            <tr>
              <th>what</th>
              <th>SKU</th>
              <th>change</th>
              <th class="n">before, {{ before.currency }}</th>
              <th class="n">after, {{ after.currency }}</th>
              <th class="n">by</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="c in found.slice(0, MOST_SHOWN)" :key="c.sku + c.change">
              <td>{{ c.words }}</td>
              <td class="minor">{{ c.sku }}</td>
              <td :class="tone(c.change)">{{ c.change }}</td>
              <td class="n">{{ c.before === null ? '–' : fullPrice(c.before) }}</td>
              <td class="n">{{ c.after === null ? '–' : fullPrice(c.after) }}</td>
              <td class="n" :class="tone(c.change)">
                {{ c.share === null || Number(c.share) === 0 ? '–' : percentText(Number(c.share)) }}
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="found.length > MOST_SHOWN" class="minor">{{ count(found.length - MOST_SHOWN) }} more; narrow with the search.</p>
    </template>
  </section>
</template>

<style scoped>
.on {
  color: var(--ink);
  box-shadow: inset 0 -2px var(--act);
}
.tall {
  max-height: 300px;
  overflow-y: auto;
}
thead th {
  position: sticky;
  top: 0;
  background: var(--paper);
}
</style>
