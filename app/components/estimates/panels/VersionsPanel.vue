<script setup lang="ts">
import type { z } from 'zod'
import { compareEstimates, type EstimateComparison } from '../../../../core/estimate/compare-estimates'
import { figureNames, figureWords, type Prices } from '../../../../core/estimate/pricing/price-estimate'
import { kept, savedEstimate, versionList } from '../../../../shared/contracts/estimates'
import type { Estimate } from '../../../../core/estimate/estimate'

/** Saved states, named ones first to come back to, and what differs between any two in inputs and in money. */
const store = useEstimate()
const versions = ref<z.infer<typeof versionList>['versions']>([])
const name = ref('')
const failed = ref('')
const first = ref<number | 'screen'>('screen')
const second = ref<number | 'screen'>('screen')
const comparison = shallowRef<EstimateComparison | null>(null)

async function attempt(work: () => Promise<void>) {
  try {
    failed.value = ''
    await work()
  } catch (error) {
    failed.value = problemOf(error).detail
  }
}
const load = () =>
  attempt(async () => {
    ;({ versions: versions.value } = await client.get(`estimates/${store.id}/versions`, versionList))
    if (first.value === 'screen') first.value = store.overtaken?.version ?? versions.value[0]?.version ?? 'screen'
  })
onMounted(load)
watch(() => store.saved?.version, load)

async function stateOf(which: number | 'screen'): Promise<{ estimate: Estimate; prices: Prices }> {
  const estimate =
    which === 'screen' ? store.estimate! : (await client.get(`estimates/${store.id}?version=${which}`, savedEstimate)).estimate
  const cards = await Promise.all(estimate.cards.map(store.loadCard))
  return { estimate, prices: { cards: new Map(cards.map(c => [c.provider, c])), uplifts: store.uplifts, rates: store.rates } }
}
const compare = () =>
  attempt(async () => {
    const [a, b] = [await stateOf(first.value), await stateOf(second.value)]
    comparison.value = compareEstimates(a.estimate, a.prices, b.estimate, b.prices)
  })
const keep = () =>
  attempt(async () => {
    if (store.unsaved || !store.saved) await store.save(name.value.trim())
    else {
      await client.send('PUT', `estimates/${store.id}/versions/${store.saved.version}`, { name: name.value.trim() }, kept)
      store.saved = { ...store.saved, name: name.value.trim() }
    }
    name.value = ''
    await load()
  })
/** Takes an earlier state onto the screen; nothing is saved over until someone saves. */
const goBack = (version: number) =>
  attempt(async () => {
    const { estimate } = await client.get(`estimates/${store.id}?version=${version}`, savedEstimate)
    store.change(() => estimate)
  })
const label = (which: number | 'screen') =>
  which === 'screen'
    ? 'what is on the screen'
    : `version ${which}${versions.value.find(v => v.version === which)?.name ? ` “${versions.value.find(v => v.version === which)!.name}”` : ''}`
const signed = (amount: string) => signedMoney(amount, store.currency)
</script>

<template>
  <div>
    <h2 class="heading">Versions</h2>
    <p v-if="failed" class="bad" role="alert">{{ failed }}</p>
    <form class="line" @submit.prevent="keep">
      <label
        >save what is on the screen as
        <input v-model="name" class="field" required maxlength="120" placeholder="name of the version" /></label
      ><button class="button" :disabled="!name.trim()">Save</button>
    </form>
    <form class="line" @submit.prevent="compare">
      <label
        >from
        <select v-model="first" class="field">
          <option value="screen">{{ label('screen') }}</option>
          <option v-for="v in versions" :key="v.version" :value="v.version">{{ label(v.version) }}</option>
        </select></label
      >
      <label
        >to
        <select v-model="second" class="field">
          <option value="screen">{{ label('screen') }}</option>
          <option v-for="v in versions" :key="v.version" :value="v.version">{{ label(v.version) }}</option>
        </select></label
      >
      <button class="button">What differs</button>
    </form>
    <div v-if="comparison" class="difference" data-testid="comparison">
      <p v-if="!comparison.changes.length && !comparison.rows.length">Nothing differs.</p>
      <template v-else>
        <p>
          Total:
          <template v-for="figure in figureNames" :key="figure"
            >{{ figureWords[figure] }}
            <b :class="Number(comparison.totals[figure].amount) > 0 ? 'bad' : 'good'">{{ signed(comparison.totals[figure].amount) }}</b>
            · </template
          >{{ store.currency
          }}<span v-if="comparison.lacks || comparison.lackedBefore" class="bad"
            >; rows that one of the two cannot price are left out of both:
            {{ (comparison.lacks?.rows ?? 0) + comparison.lackedBefore }}</span
          >
        </p>
        <div class="two">
          <table class="ledger">
            <thead>
              <tr>
                <th>input</th>
                <th>was</th>
                <th>is</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(change, i) in comparison.changes.slice(0, 60)" :key="i">
                <td>{{ change.what }}, {{ change.field }}</td>
                <td>{{ change.before ?? '–' }}</td>
                <td>{{ change.after ?? '–' }}</td>
              </tr>
            </tbody>
          </table>
          <table class="ledger">
            <thead>
              <tr>
                <th>row</th>
                <th class="n">a month</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in comparison.rows.slice(0, 60)" :key="row.component">
                <td>{{ row.label }}</td>
                <td class="n">{{ row.effectiveMonthly ? signed(row.effectiveMonthly.amount) : 'not compared' }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </template>
    </div>
    <table class="ledger list">
      <thead>
        <tr>
          <th>version</th>
          <th>name</th>
          <th>by</th>
          <th>saved</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="v in versions.slice(0, 30)" :key="v.version">
          <td>{{ v.version }}</td>
          <td>{{ v.name ?? '' }}</td>
          <td>{{ v.who }}</td>
          <td>{{ timeText(v.savedAt) }}</td>
          <td><button v-if="v.version !== store.saved?.version" class="link" @click="goBack(v.version)">open it</button></td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
  margin-bottom: 6px;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 20px;
  align-items: start;
}
.difference {
  border: 1px solid var(--line-strong);
  border-radius: 3px;
  padding: 8px 10px;
  background: var(--paper);
  margin-bottom: 8px;
  max-height: 340px;
  overflow: auto;
}
.list {
  max-width: 760px;
}
</style>
