<script setup lang="ts">
import { dedicatedHost, sharedHost, systemsOf } from '../../../core/estimate/components/server'
import { waysToPay, type WayToPay } from '../../../core/estimate/estimate'
import type { TypedNeeds } from '../../../core/estimate/finder/typed-needs'
import type { RateUsed } from '../../../core/estimate/pricing/rates'
import type { RateCard } from '../../../core/ratecard/rate-card'

/** What a machine is needed for, as a sentence; the regions that may be looked at, and the rates that offers are compared at. */
const { cards } = defineProps<{ cards: readonly RateCard[]; currency: string; rates: readonly { from: string; used: RateUsed | null }[] }>()
const needs = defineModel<TypedNeeds>('needs', { required: true })
const way = defineModel<WayToPay>('way', { required: true })
/** A rate of one's own for this search, by currency, as typed. */
const ownRates = defineModel<Record<string, string>>('ownRates', { required: true })

const architectures = computed(() => [...new Set(cards.flatMap(c => c.serverSizes.flatMap(s => s.architecture ?? [])))])
const systems = computed(() => [...new Set(cards.flatMap(c => c.regions.flatMap(r => systemsOf(c, r.id))))])
const places = computed(() => cards.flatMap(c => c.regions.map(r => ({ value: `${c.provider}/${r.id}`, label: `${r.id}, ${c.provider}` }))))
const residencies = computed(() => [...new Set(cards.flatMap(c => c.regions.flatMap(r => r.residency ?? [])))])

const isTicked = (list: readonly string[], value: string) => !list.length || list.includes(value)
/** An empty list rules nothing out: unticking the first leaves all others. */
function tick(list: string[], value: string, every: readonly string[]) {
  if (!list.length) list.push(...every.filter(v => v !== value))
  else if (list.includes(value)) list.splice(list.indexOf(value), 1)
  else list.push(value)
}
</script>

<template>
  <div>
    <form class="sentence" @submit.prevent>
      Find what has <input v-model="needs.vcpu" class="field s" aria-label="vCPU" inputmode="decimal" /> vCPU and
      <input v-model="needs.memoryGb" class="field s" aria-label="memory, GB" inputmode="decimal" /> GB,
      <select v-model="needs.architecture" class="field" aria-label="architecture">
        <option value="">any architecture</option>
        <option v-for="a in architectures" :key="a">{{ a }}</option></select
      >,
      <select v-model="needs.system" class="field" aria-label="operating system">
        <option v-for="s in systems" :key="s">{{ s }}</option></select
      >,
      <select v-model="needs.host" class="field" aria-label="host">
        <option>{{ sharedHost }}</option>
        <option>{{ dedicatedHost }}</option></select
      >, with <input v-model="needs.diskGb" class="field s" aria-label="disk, GB" inputmode="decimal" /> GB of disk,
      <input v-model="needs.count" class="field s" aria-label="count" inputmode="numeric" /> of them, running
      <input v-model="needs.hoursPerMonth" class="field m" aria-label="runs" /> a month, cheapest first by
      <select v-model="way" class="field" aria-label="way to pay">
        <option v-for="w in waysToPay" :key="w">{{ w }}</option></select
      >.
    </form>
    <div v-if="places.length" class="under">
      <span>regions:</span
      ><label v-for="p in places" :key="p.value"
        ><input
          type="checkbox"
          :checked="isTicked(needs.places, p.value)"
          @change="
            tick(
              needs.places,
              p.value,
              places.map(x => x.value),
            )
          "
        />
        {{ p.label }}</label
      >
    </div>
    <div v-if="residencies.length || rates.length" class="under">
      <span v-if="residencies.length">data may lie in:</span
      ><label v-for="r in residencies" :key="r"
        ><input type="checkbox" :checked="isTicked(needs.residencies, r)" @change="tick(needs.residencies, r, residencies)" />
        {{ r }}</label
      >
      <label v-for="{ from, used } in rates" :key="from"
        >1 {{ from }} is
        <input
          v-model="ownRates[from]"
          class="field m"
          :aria-label="`rate from ${from}`"
          inputmode="decimal"
          :placeholder="used?.rate ?? 'no rate'"
        />
        {{ currency
        }}<span v-if="used && !used.own" class="minor"
          >of {{ dayText(used.day) }}, from <NuxtLink to="/sources/rates" class="link">Sources</NuxtLink></span
        ><span v-else-if="!used" class="bad"
          >no rate from {{ from }} to {{ currency }}: offers in {{ from }} are not ranked.
          <NuxtLink to="/sources/rates" class="link">Add one under Sources</NuxtLink></span
        ></label
      >
    </div>
  </div>
</template>

<style scoped>
.sentence .field {
  font: 14px var(--sans);
}
.s {
  width: 58px;
  text-align: right;
}
.m {
  width: 86px;
}
.under label {
  display: inline-flex;
  gap: 5px;
  align-items: center;
  min-height: 24px;
  color: var(--ink-2);
}
</style>
