<script setup lang="ts">
import { dedicatedHost, openSystem, sharedHost, systemsOf } from '../../../core/estimate/components/server'
import { newEstimate, waysToPay, type WayToPay } from '../../../core/estimate/estimate'
import { findMachines, type Needs, type Offer } from '../../../core/estimate/finder'
import { readHours } from '../../../core/estimate/hours-text'
import { upliftsFor } from '../../../core/uplift/uplift-set'
import { estimateList, estimateSaved, type SavedEstimate } from '../../../shared/contracts/estimates'

/** What is needed in; all that fits out, over all rate cards, cheapest first. */
const { prices, problem, load } = usePrices()
const router = useRouter()
useHead({ title: 'Finder · Rain Barrel' })
const needs = reactive<Needs>({ vcpu: 6, memoryGb: 24, architecture: '', system: openSystem, host: sharedHost, diskGb: '80', hoursPerMonth: '730', count: '1', places: [], residencies: [] })
const way = ref<WayToPay>('on-demand')
const rate = ref('0.92')
const currency = ref('EUR')
const all = ref(false)
const why = ref(false)
const estimates = shallowRef<SavedEstimate[]>([])
onMounted(async () => {
  estimates.value = (await client.get('estimates', estimateList).catch(() => ({ estimates: [] }))).estimates
})

const cards = computed(() => [...prices.value?.cards.values() ?? []])
const architectures = computed(() => [...new Set(cards.value.flatMap(c => c.serverSizes.flatMap(s => s.architecture ?? [])))])
const systems = computed(() => [...new Set(cards.value.flatMap(c => c.regions.flatMap(r => systemsOf(c, r.id))))])
const places = computed(() => cards.value.flatMap(c => c.regions.map(r => ({ value: `${c.provider}/${r.id}`, label: `${r.id}, ${c.provider}` }))))
const residencies = computed(() => [...new Set(cards.value.flatMap(c => c.regions.flatMap(r => r.residency ?? [])))])
const foreign = computed(() => [...new Set(cards.value.map(c => c.currency))].filter(c => c !== currency.value))
const wrong = computed(() => !(Number(needs.vcpu) > 0) ? 'vCPU must be above 0.' : !(Number(needs.memoryGb) > 0) ? 'Memory must be above 0 GB.' : !readHours(needs.hoursPerMonth) ? 'Hours are such as 730, 55 % or 5d x 10h.' : !(Number(needs.diskGb) >= 0) ? 'The disk must be 0 GB or more.' : !(Number.isInteger(Number(needs.count)) && Number(needs.count) > 0) ? 'The count must be a whole number above 0.' : !(Number(rate.value) > 0) ? 'The rate must be above 0.' : '')
const found = computed(() => !prices.value || wrong.value ? null : findMachines({ ...needs, vcpu: Number(needs.vcpu), memoryGb: Number(needs.memoryGb) }, prices.value, { currency: currency.value, rates: foreign.value.map(from => ({ from, rate: rate.value, day: today() })), discounts: [], month: null }, way.value))
const shown = computed(() => all.value ? found.value?.offers ?? [] : found.value?.offers.slice(0, 14) ?? [])
const reasons = computed(() => {
  const grouped = new Map<string, string[]>()
  for (const r of found.value?.rejected ?? []) {
    const what = r.size ? `${r.size}` : r.region
    grouped.set(r.why, [...grouped.get(r.why) ?? [], what])
  }
  return [...grouped].map(([reason, list]) => ({ reason, list: [...new Set(list)] })).sort((a, b) => b.list.length - a.list.length)
})
const cost = (offer: Offer, which: WayToPay) => offer.ways.find(w => w.way === which)
const own = (offer: Offer) => upliftsFor(prices.value!.uplifts, { kind: 'server', variant: offer.size, pattern: null }).map(u => u.name).join(', ')
const toggle = (list: string[], value: string) => list.includes(value) ? list.splice(list.indexOf(value), 1) : list.push(value)
const columns = computed(() => waysToPay.filter(w => ['on-demand', '1 year, none upfront', '3 years, all upfront', way.value].includes(w)))

/** Into a new estimate, or as a row of one that is there. */
async function take(offer: Offer, into: string) {
  const inputs = { size: offer.size, system: needs.system, host: needs.host, hoursPerMonth: needs.hoursPerMonth, count: needs.count, pays: way.value }
  const saved = estimates.value.find(e => e.id === into)
  const card = prices.value!.cards.get(offer.provider)!
  const base = saved?.estimate ?? newEstimate(`${offer.size} in ${offer.region}`, card, offer.region)
  const where = offer.provider === base.provider ? offer.region === base.region ? '' : offer.region : `${offer.provider}/${offer.region}`
  const row = (kind: string, values: Record<string, string>) => ({ id: crypto.randomUUID().slice(0, 8), part: base.components.at(-1)?.part ?? 'Workload', kind, inputs: { ...values, ...(where && { where }) }, confirmed: Object.keys(values), note: '', muted: false, pattern: null })
  const rows = [row('server', inputs), ...offer.diskClass ? [row('disk', { class: offer.diskClass, storageGb: needs.diskGb, count: needs.count })] : []]
  const known = base.cards.some(c => c.provider === offer.provider)
  const needed = foreign.value.includes(card.currency) && !base.rates.some(r => r.from === card.currency) && (base.currency ?? prices.value!.cards.get(base.provider)?.currency) !== card.currency
  const estimate = { ...base, components: [...base.components, ...rows], cards: known ? base.cards : [...base.cards, { provider: card.provider, date: card.validFrom }], rates: needed ? [...base.rates, { from: card.currency, rate: rate.value, day: today() }] : base.rates }
  try {
    const id = saved?.id ?? crypto.randomUUID()
    await client.send('PUT', `estimates/${id}`, { basedOn: saved?.version ?? null, estimate }, estimateSaved)
    await router.push(`/estimates/${id}`)
  }
  catch (error) {
    problem.value = problemOf(error)
  }
}
const chosenFor = ref<string | null>(null)
const into = ref('')
</script>

<template>
  <div class="page">
    <EstimateNav />
    <form class="sentence" @submit.prevent>
      Find what has <input v-model="needs.vcpu" class="field s" aria-label="vCPU" inputmode="decimal"> vCPU and <input v-model="needs.memoryGb" class="field s" aria-label="memory, GB" inputmode="decimal"> GB,
      <select v-model="needs.architecture" class="field" aria-label="architecture"><option value="">any architecture</option><option v-for="a in architectures" :key="a">{{ a }}</option></select>,
      <select v-model="needs.system" class="field" aria-label="operating system"><option v-for="s in systems" :key="s">{{ s }}</option></select>,
      <select v-model="needs.host" class="field" aria-label="host"><option>{{ sharedHost }}</option><option>{{ dedicatedHost }}</option></select>,
      with <input v-model="needs.diskGb" class="field s" aria-label="disk, GB" inputmode="decimal"> GB of disk, <input v-model="needs.count" class="field s" aria-label="count" inputmode="numeric"> of them, running <input v-model="needs.hoursPerMonth" class="field m" aria-label="runs"> a month,
      cheapest first by <select v-model="way" class="field" aria-label="way to pay"><option v-for="w in waysToPay" :key="w">{{ w }}</option></select>.
    </form>
    <div class="under">
      <span>regions:</span><label v-for="p in places" :key="p.value"><input type="checkbox" :checked="!needs.places.length || needs.places.includes(p.value)" @change="needs.places.length ? toggle(needs.places, p.value) : needs.places.push(...places.map(x => x.value).filter(v => v !== p.value))"> {{ p.label }}</label>
    </div>
    <div class="under">
      <span>data may lie in:</span><label v-for="r in residencies" :key="r"><input type="checkbox" :checked="!needs.residencies.length || needs.residencies.includes(r)" @change="needs.residencies.length ? toggle(needs.residencies, r) : needs.residencies.push(...residencies.filter(v => v !== r))"> {{ r }}</label>
      <label v-for="from in foreign" :key="from">1 {{ from }} is <input v-model="rate" class="field s" :aria-label="`rate from ${from}`" inputmode="decimal"> {{ currency }}</label>
    </div>
    <ProblemNote v-if="problem" :problem="problem" :retry="load" />
    <p v-if="wrong" class="bad" role="alert">{{ wrong }}</p>
    <p v-if="!prices && !problem" role="status">Reading…</p>
    <template v-if="found">
      <p class="note"><b>{{ count(found.offers.length) }}</b> {{ found.offers.length === 1 ? 'size fits' : 'sizes fit' }}; effective monthly in {{ currency }}, disk and own charges included. {{ count(found.rejected.length) }} fell out. <button class="link" :aria-expanded="why" @click="why = !why">Why</button></p>
      <ul v-if="why" class="why"><li v-for="r in reasons.slice(0, 14)" :key="r.reason"><b>{{ r.reason }}</b>: {{ r.list.slice(0, 8).join(', ') }}{{ r.list.length > 8 ? ` and ${r.list.length - 8} more` : '' }}</li></ul>
      <div class="scroll"><table v-if="shown.length" class="ledger">
        <thead><tr><th>size</th><th class="n">vCPU</th><th class="n">GB</th><th>architecture</th><th>region</th><th>provider</th><th>disk</th><th v-for="w in columns" :key="w" class="n" :class="{ by: w === way }">{{ w }}</th><th class="n">breaks even at</th><th /></tr></thead>
        <tbody>
          <tr v-for="(offer, i) in shown" :key="offer.provider + offer.region + offer.size" class="acts">
            <td>{{ offer.size }}<span v-if="i === 0" class="minor"> ◂ cheapest</span><span v-if="own(offer)" class="warn minor"> own charge: {{ own(offer) }}</span></td><td class="n">{{ offer.facts.vcpu }}</td><td class="n">{{ offer.facts.memoryGb }}</td><td>{{ offer.facts.architecture }}</td><td>{{ offer.region }}</td><td>{{ offer.provider }}</td><td>{{ offer.diskClass ?? '–' }}</td>
            <td v-for="w in columns" :key="w" class="n" :class="{ by: w === way }">{{ cost(offer, w) ? money(roundText(cost(offer, w)!.effectiveMonthly), currency) : '–' }}</td>
            <td class="n">{{ cost(offer, way)?.breakEvenHours ? `${decimals(roundText(cost(offer, way)!.breakEvenHours!), 0)} h` : cost(offer, '1 year, none upfront')?.breakEvenHours ? `${decimals(roundText(cost(offer, '1 year, none upfront')!.breakEvenHours!), 0)} h` : '–' }}</td>
            <td class="take"><button class="link" :aria-expanded="chosenFor === offer.provider + offer.region + offer.size" @click="chosenFor = chosenFor === offer.provider + offer.region + offer.size ? null : offer.provider + offer.region + offer.size">take</button>
              <form v-if="chosenFor === offer.provider + offer.region + offer.size" class="into" @submit.prevent="take(offer, into)"><select v-model="into" class="field" aria-label="into which estimate"><option value="">a new estimate</option><option v-for="e in estimates" :key="e.id" :value="e.id">{{ e.estimate.name }}</option></select><button class="button main">Put it in</button></form>
            </td>
          </tr>
        </tbody>
      </table></div>
      <p v-if="!shown.length" class="note">Nothing fits. “Why” above says what ruled each size out.</p>
      <button v-if="found.offers.length > 14" class="link" @click="all = !all">{{ all ? 'only the cheapest' : `all ${found.offers.length}` }}</button>
    </template>
  </div>
</template>

<style scoped>
.sentence .field { font: 14px var(--sans); }
.s { width: 58px; text-align: right; } .m { width: 86px; }
.under label { display: inline-flex; gap: 5px; align-items: center; min-height: 24px; color: var(--ink-2); }
.why { columns: 2; font-size: 12.5px; color: var(--ink-2); margin-bottom: 8px; }
.by { background: color-mix(in srgb, var(--act-soft) 50%, transparent); font-weight: 560; }
.take { position: relative; }
.into { display: flex; gap: 6px; padding: 4px 0; }
</style>
