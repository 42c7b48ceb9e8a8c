<script setup lang="ts">
import type { Estimate } from '../../../core/estimate/estimate'
import { readEstimate } from '../../../core/estimate/estimate-file'
import { priceEstimate } from '../../../core/estimate/price-estimate'
import { rateCardSchema, type RateCard } from '../../../core/ratecard/rate-card'
import type { ProblemDetails } from '../../../shared/contracts/common'
import { estimateList, estimateSaved, type SavedEstimate } from '../../../shared/contracts/estimates'
import { rateCardList, type RateCardEntry } from '../../../shared/contracts/reference-data'

const list = ref<SavedEstimate[] | null>(null)
const cards = ref<RateCardEntry[]>([])
const bodies = shallowRef(new Map<string, RateCard>())
const problem = ref<ProblemDetails | null>(null)
const name = ref('')
const cardKey = ref('')
const region = ref('')
const picker = useTemplateRef<HTMLInputElement>('picker')
const router = useRouter()
useHead({ title: 'Estimates · Rain Barrel' })

async function load() {
  try {
    const [estimates, known] = await Promise.all([client.get('estimates', estimateList), client.get('rate-cards', rateCardList)])
    const wanted = new Map(known.cards.map(c => [`${c.provider} ${c.validFrom}`, c]))
    for (const [key, c] of wanted) if (!bodies.value.has(key)) bodies.value.set(key, await client.get(`rate-cards/${encodeURIComponent(c.provider)}?date=${c.validFrom}`, rateCardSchema))
    cards.value = known.cards
    list.value = estimates.estimates
    cardKey.value ||= known.cards[0] ? `${known.cards[0].provider} ${known.cards[0].validFrom}` : ''
    problem.value = null
  }
  catch (error) {
    problem.value = problemOf(error)
  }
}
onMounted(load)

const card = computed(() => bodies.value.get(cardKey.value))
watch(card, () => {
  if (!card.value?.regions.some(r => r.id === region.value)) region.value = card.value?.regions[0]?.id ?? ''
})
const total = (estimate: Estimate) => {
  const body = bodies.value.get(`${estimate.provider} ${estimate.rateCardDate}`)
  if (!body) return null
  const { totals, currency } = priceEstimate(estimate, body)
  return `${money(roundText(totals.effectiveMonthly), currency)} ${currency}`
}

async function keep(estimate: Estimate) {
  const id = crypto.randomUUID()
  await client.send('PUT', `estimates/${id}`, { basedOn: null, estimate }, estimateSaved)
  await router.push(`/estimates/${id}`)
}
async function begin() {
  if (!card.value) return
  try {
    await keep({ format: 'rain-barrel estimate 1', name: name.value.trim(), provider: card.value.provider, rateCardDate: card.value.validFrom, region: region.value, target: null, useFreeAllowance: false, discountPercent: '0', taxPercent: '0', components: [], dismissed: [] })
  }
  catch (error) {
    problem.value = problemOf(error)
  }
}
async function bringIn(files: FileList | null) {
  const file = files?.[0]
  if (!file) return
  const refuse = (detail: string) => {
    problem.value = { type: '', status: 0, code: 'invalid', title: `«${file.name}» is not an estimate`, detail }
  }
  try {
    const read = readEstimate(await file.text())
    if ('problems' in read) return refuse(`${read.problems.slice(0, 5).join('; ')}.`)
    const { estimate } = read
    if (!bodies.value.has(`${estimate.provider} ${estimate.rateCardDate}`)) return refuse(`It is priced on the rate card of ${estimate.provider} from ${estimate.rateCardDate}, which is not loaded. Drop that card under Sources first.`)
    await keep(estimate)
  }
  catch (error) {
    problem.value = problemOf(error)
  }
  finally {
    if (picker.value) picker.value.value = ''
  }
}
</script>

<template>
  <div class="page">
    <h1 class="sentence">{{ list?.length ? `${count(list.length)} ${list.length === 1 ? 'estimate' : 'estimates'}, last saved first.` : 'Price a workload before it is built.' }}</h1>
    <ProblemNote v-if="problem" :problem="problem" :retry="list ? undefined : load" />
    <p v-if="!list && !problem" class="note" role="status">Reading…</p>
    <template v-if="list">
      <form v-if="cards.length" class="begin" @submit.prevent="begin">
        <label>name <input v-model="name" class="field name" required maxlength="120" placeholder="what is it for?"></label>
        <label>rate card <select v-model="cardKey" class="field"><option v-for="c in cards" :key="c.provider + c.validFrom" :value="`${c.provider} ${c.validFrom}`">{{ c.provider }}, {{ dayText(c.validFrom) }}, {{ c.currency }}</option></select></label>
        <label>region <select v-model="region" class="field"><option v-for="r in card?.regions" :key="r.id" :value="r.id">{{ r.id }}</option></select></label>
        <button class="button main" :disabled="!name.trim()">Begin an estimate</button>
        <button type="button" class="button" @click="picker?.click()">Bring one in (JSON)</button>
        <input ref="picker" type="file" accept=".json" class="sr-only" tabindex="-1" aria-label="estimate file" @change="bringIn(($event.target as HTMLInputElement).files)">
      </form>
      <p v-else class="note">No rate card is loaded. <NuxtLink to="/sources" class="link">Drop one under Sources</NuxtLink></p>
      <div v-if="list.length" class="scroll"><table class="ledger">
        <thead><tr><th>estimate</th><th>rate card</th><th>region</th><th class="n">components</th><th class="n">a month</th><th>version</th><th>by</th><th>saved</th></tr></thead>
        <tbody>
          <tr v-for="saved in list" :key="saved.id" class="acts">
            <td><NuxtLink :to="`/estimates/${saved.id}`" class="link">{{ saved.estimate.name }}</NuxtLink></td>
            <td>{{ saved.estimate.provider }}, {{ dayText(saved.estimate.rateCardDate) }}</td><td>{{ saved.estimate.region }}</td><td class="n">{{ saved.estimate.components.length }}</td>
            <td class="n">{{ total(saved.estimate) ?? 'rate card missing' }}</td><td>{{ saved.version }}</td><td>{{ saved.who }}</td><td>{{ timeText(saved.savedAt) }}</td>
          </tr>
        </tbody>
      </table></div>
      <p v-else-if="cards.length" class="note">None yet. Give one a name and begin.</p>
    </template>
  </div>
</template>

<style scoped>
.begin { display: flex; flex-wrap: wrap; gap: 12px; align-items: end; margin: 10px 0 18px; }
.begin label { display: grid; gap: 2px; font-size: 12px; color: var(--ink-3); }
.name { width: 260px; }
</style>
