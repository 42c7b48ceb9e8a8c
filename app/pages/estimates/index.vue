<script setup lang="ts">
import { newEstimate, type Estimate } from '../../../core/estimate/estimate'
import { readEstimate } from '../../../core/estimate/estimate-file'
import { againstBill, estimateFromUse } from '../../../core/estimate/from-use'
import { figureText, priceEstimate } from '../../../core/estimate/price-estimate'
import type { RateCard } from '../../../core/ratecard/rate-card'
import type { StoredUplift } from '../../../core/uplift/uplift-set'
import { estimateList, estimateSaved, upliftList, usedLines, type SavedEstimate } from '../../../shared/contracts/estimates'
import { rateCardList, type RateCardEntry } from '../../../shared/contracts/reference-data'
import { monthEnd } from '../../../core/time/day'

const list = ref<SavedEstimate[] | null>(null)
const cards = ref<RateCardEntry[]>([])
const bodies = shallowRef(new Map<string, RateCard>())
const uplifts = shallowRef<StoredUplift[]>([])
const { problem, attempt } = useAttempt()
const name = ref('')
const cardKey = ref('')
const region = ref('')
const picker = useTemplateRef<HTMLInputElement>('picker')
const router = useRouter()
const route = useRoute()
useHead({ title: 'Estimates · Rain Barrel' })

const keyOf = (provider: string, date: string) => `${provider} ${date}`
async function load() {
  try {
    const [estimates, known, own] = await Promise.all([client.get('estimates', estimateList), client.get('rate-cards', rateCardList), client.get('uplifts', upliftList)])
    const wanted = new Map(estimates.estimates.flatMap(saved => saved.estimate.cards.map(c => [keyOf(c.provider, c.date), c] as const)))
    const found = await Promise.all([...wanted].filter(([key]) => !bodies.value.has(key)).map(async ([key, c]) => [key, await findCard(c.provider, c.date)] as const))
    bodies.value = new Map([...bodies.value, ...found.flatMap(([key, card]) => card ? [[key, card] as const] : [])])
    uplifts.value = own.uplifts
    cards.value = known.cards
    list.value = estimates.estimates
    const [first] = cardsHeld(known.cards, today())
    cardKey.value ||= first ? keyOf(first.provider, first.validFrom) : ''
    problem.value = null
  }
  catch (error) {
    problem.value = problemOf(error)
  }
}
onMounted(load)

const card = computed(() => cards.value.find(c => keyOf(c.provider, c.validFrom) === cardKey.value))
watch(card, () => {
  if (!card.value?.regions.includes(region.value)) region.value = card.value?.regions[0] ?? ''
})
const total = (estimate: Estimate) => {
  const named = estimate.cards.map(c => bodies.value.get(keyOf(c.provider, c.date)))
  if (named.some(c => !c)) return null
  const priced = priceEstimate(estimate, { cards: new Map(named.map(c => [c!.provider, c!])), uplifts: uplifts.value })
  return `${money(roundText(figureText(priced.total.effectiveMonthly)), priced.currency)} ${priced.currency}`
}
const totals = computed(() => new Map(list.value?.map(saved => [saved.id, total(saved.estimate)])))
const newer = (estimate: Estimate) => estimate.cards.some(c => cards.value.some(k => k.provider === c.provider && k.validFrom > c.date))

async function keep(estimate: Estimate) {
  const id = crypto.randomUUID()
  await client.send('PUT', `estimates/${id}`, { basedOn: null, estimate }, estimateSaved)
  await router.push(`/estimates/${id}`)
}
const begin = () => attempt(async () => {
  if (card.value) await keep(newEstimate(name.value.trim(), card.value, region.value))
})
const copyOf = (saved: SavedEstimate) => attempt(() => keep({ ...saved.estimate, name: `${saved.estimate.name}, copy`.slice(0, 120) }))
const refuse = (title: string, detail: string) => {
  problem.value = { type: '', status: 0, code: 'invalid', title, detail }
}
async function bringIn(files: FileList | null) {
  const file = files?.[0]
  if (!file) return
  await attempt(async () => {
    const title = `«${file.name}» is not an estimate`
    const read = readEstimate(await file.text())
    if ('problems' in read) return refuse(title, `${read.problems.slice(0, 5).join('; ')}.`)
    const missing = read.estimate.cards.find(c => !cards.value.some(k => k.provider === c.provider && k.validFrom <= c.date))
    if (missing) return refuse(title, `It is priced on the rate card of ${missing.provider} from ${missing.date}, which is not loaded. Drop that card under Sources first.`)
    await keep(read.estimate)
  })
  if (picker.value) picker.value.value = ''
}

// from what runs: Spend hands over a month and what it is narrowed to
const usedMonth = ref('')
const narrowing = ref<{ keep: Record<string, (string | null)[]>, leaveOut: Record<string, (string | null)[]> }>({ keep: {}, leaveOut: {} })
const narrowingText = computed(() => Object.entries(narrowing.value.keep).map(([dimension, values]) => `${dimensionLabel(dimension)} ${values.map(v => valueLabel(dimension, v)).join(' or ')}`).join(', '))
const fromUse = ref(false)
onMounted(() => {
  const { month, keep: kept, leaveOut } = route.query
  if (typeof month !== 'string') return
  fromUse.value = true
  usedMonth.value = month
  try {
    narrowing.value = { keep: JSON.parse(typeof kept === 'string' ? kept : '{}'), leaveOut: JSON.parse(typeof leaveOut === 'string' ? leaveOut : '{}') }
  }
  catch {
    refuse('The address does not say what ran', 'Open Spend, narrow to what shall be priced, and choose “Estimate from this” there.')
  }
})
const beginFromUse = () => attempt(async () => {
  const used = await client.send('POST', 'spend/used', { month: usedMonth.value, ...narrowing.value }, usedLines)
  if (!used.lines.length) return refuse('Nothing ran', `No usage is charged in ${monthText(usedMonth.value)}${narrowingText.value ? ` for ${narrowingText.value}` : ''}.`)
  const found = new Map<string, RateCard>()
  for (const provider of new Set(used.lines.map(l => l.provider))) {
    // the card that held at the end of that month
    const held = await findCard(provider, monthEnd(usedMonth.value))
    if (held) found.set(provider, held)
  }
  const { estimate, unknown } = estimateFromUse(`${narrowingText.value || 'Everything'}, ${monthText(usedMonth.value)}`.slice(0, 120), usedMonth.value, used.lines, found, () => crypto.randomUUID().slice(0, 8))
  if (!estimate.components.length) return refuse('Nothing of it can be priced', `No rate card is loaded that has the SKUs of ${[...new Set(unknown.map(l => l.provider))].join(', ')}.`)
  const bill = againstBill(estimate, found, used.lines, used.listCost)
  const apart = bill && Math.abs(Number(bill.difference)) >= 0.005 ? [`Priced for itself it is ${money(sizeText(roundText(bill.difference)), estimate.currency!)} ${estimate.currency} ${bill.difference.startsWith('-') ? 'less' : 'more'}: the bill counts the tiers of ${bill.tiered.join(' and ')} over everything in the account.`] : []
  const notes = [`What ran in ${monthText(usedMonth.value)}${narrowingText.value ? `, ${narrowingText.value}` : ''}; at list price the bill says ${used.listCost.map(c => `${money(c.amount, c.currency)} ${c.currency}`).join(', ')}.`, ...apart, ...unknown.length ? [`${unknown.length} lines of use have no price on a rate card and are left out.`] : [], ...used.notUsage ? [`${used.notUsage} charges that are no use (purchases, credits, corrections) are left out.`] : []]
  await keep({ ...estimate, note: notes.join(' ') })
})
</script>

<template>
  <div class="page">
    <EstimateNav />
    <h1 class="sentence">{{ list?.length ? `${count(list.length)} ${list.length === 1 ? 'estimate' : 'estimates'}, last saved first.` : 'Price a workload before it is built.' }}</h1>
    <ProblemNote v-if="problem" :problem="problem" :retry="list ? undefined : load" />
    <p v-if="!list && !problem" class="note" role="status">Reading…</p>
    <template v-if="list">
      <form v-if="cards.length" class="begin" @submit.prevent="begin">
        <label>name <input v-model="name" class="field name" required maxlength="120" placeholder="what is it for?"></label>
        <label>rate card <select v-model="cardKey" class="field"><option v-for="c in cards" :key="c.provider + c.validFrom" :value="keyOf(c.provider, c.validFrom)">{{ c.provider }}, {{ dayText(c.validFrom) }}, {{ c.currency }}</option></select></label>
        <label>region <select v-model="region" class="field"><option v-for="r in card?.regions" :key="r" :value="r">{{ r }}</option></select></label>
        <button class="button main" :disabled="!name.trim()">Begin an estimate</button>
        <button type="button" class="button" :aria-expanded="fromUse" @click="fromUse = !fromUse">From what runs</button>
        <button type="button" class="button" @click="picker?.click()">Bring one in (JSON)</button>
        <input ref="picker" type="file" accept=".json" class="sr-only" tabindex="-1" aria-label="estimate file" @change="bringIn(($event.target as HTMLInputElement).files)">
      </form>
      <p v-else class="note">No rate card is loaded. <NuxtLink to="/sources" class="link">Drop one under Sources</NuxtLink></p>
      <form v-if="fromUse && cards.length" class="begin used" @submit.prevent="beginFromUse">
        <label>what ran in <input v-model="usedMonth" type="month" class="field" required></label>
        <span class="note">{{ narrowingText ? `keeping ${narrowingText}` : 'everything; to take a part of it, narrow to it under Spend and choose “Estimate from this” there' }}</span>
        <button class="button main" :disabled="!usedMonth">Begin with its quantities</button>
      </form>
      <div v-if="list.length" class="scroll"><table class="ledger">
        <thead><tr><th>estimate</th><th>rate cards</th><th>region</th><th class="n">components</th><th class="n">scenarios</th><th class="n">effective monthly</th><th>version</th><th>by</th><th>saved</th><th /></tr></thead>
        <tbody>
          <tr v-for="saved in list" :key="saved.id" class="acts">
            <td><NuxtLink :to="`/estimates/${saved.id}`" class="link">{{ saved.estimate.name }}</NuxtLink></td>
            <td>{{ saved.estimate.cards.map(c => `${c.provider}, ${dayText(c.date)}`).join('; ') }}<NuxtLink v-if="newer(saved.estimate)" to="/estimates/rate-cards" class="link newer">a newer one</NuxtLink></td><td>{{ saved.estimate.region }}</td><td class="n">{{ saved.estimate.components.length }}</td><td class="n">{{ saved.estimate.scenarios.length || '–' }}</td>
            <td class="n">{{ totals.get(saved.id) ?? 'rate card missing' }}</td><td>{{ saved.version }}{{ saved.name ? ` “${saved.name}”` : '' }}</td><td>{{ saved.who }}</td><td>{{ timeText(saved.savedAt) }}</td><td><button class="link" :aria-label="`copy ${saved.estimate.name}`" @click="copyOf(saved)">copy</button></td>
          </tr>
        </tbody>
      </table></div>
      <p v-else-if="cards.length" class="note">None yet. Give one a name and begin.</p>
    </template>
  </div>
</template>

<style scoped>
.begin { display: flex; flex-wrap: wrap; gap: 12px; align-items: end; margin: 10px 0 14px; }
.begin label { display: grid; gap: 2px; font-size: 12px; color: var(--ink-3); }
.used { align-items: center; }
.name { width: 260px; }
td:not(:nth-child(-n+2)):not(:nth-child(7)) { white-space: nowrap; }
.newer { color: var(--warn); margin-left: 10px; }
</style>
