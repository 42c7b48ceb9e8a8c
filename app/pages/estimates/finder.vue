<script setup lang="ts">
import { openSystem, sharedHost } from '../../../core/estimate/components/server'
import { newEstimate, waysToPay, type Component, type Estimate, type WayToPay } from '../../../core/estimate/estimate'
import { findMachines, reasonsOf, type Offer, type Terms } from '../../../core/estimate/finder/find-machines'
import { addOffer, fillRow } from '../../../core/estimate/finder/take-offer'
import { readNeeds, type TypedNeeds } from '../../../core/estimate/finder/typed-needs'
import { rateOf } from '../../../core/estimate/pricing/rates'
import { ALWAYS_ON } from '../../../core/estimate/sheet/hours-text'
import { rowInPart } from '../../../core/estimate/sheet/row-name'
import { estimateList, estimateSaved, type ListedEstimate } from '../../../shared/contracts/estimates'

/** What is needed in; all that fits out, over all rate cards, cheapest first. */
const { prices, cards: cardList, problem, load } = usePrices()
const router = useRouter()
useHead({ title: 'Finder · Rain Barrel' })
const route = useRoute()
const needs = ref<TypedNeeds>({
  vcpu: 6,
  memoryGb: 24,
  architecture: '',
  system: openSystem,
  host: sharedHost,
  diskGb: '80',
  hoursPerMonth: ALWAYS_ON,
  count: '1',
  places: [],
  residencies: [],
})
const way = ref<WayToPay>('on-demand')
/** A rate of one's own for this search, by currency; the dated rates of Sources hold where none is typed. */
const ownRates = ref<Record<string, string>>({})
const currency = ref('EUR')
const all = ref(false)
const why = ref(false)
const estimates = shallowRef<ListedEstimate[]>([])
/** The row that one came from and whose size is looked for. */
const forRow = shallowRef<{ saved: ListedEstimate & { estimate: Estimate }; row: Component } | null>(null)
onMounted(async () => {
  estimates.value = (await client.get('estimates', estimateList).catch(() => ({ estimates: [] }))).estimates.filter(
    e => e.estimate !== null && !e.putAway,
  )
  const saved = estimates.value.find(e => e.id === route.query.estimate)
  const row = saved?.estimate?.components.find(c => c.id === route.query.row)
  if (!saved?.estimate || !row) return
  forRow.value = { saved: { ...saved, estimate: saved.estimate }, row }
  for (const name of ['vcpu', 'memoryGb'] as const) {
    const asked = Number(route.query[name])
    if (asked > 0) needs.value[name] = asked
  }
  currency.value = saved.estimate.currency ?? currency.value
  for (const name of ['system', 'host', 'hoursPerMonth', 'count'] as const) needs.value[name] = row.inputs[name] ?? needs.value[name]
  needs.value.diskGb = '0'
  way.value = waysToPay.find(w => w === row.inputs.pays) ?? way.value
})

const cards = computed(() => [...(prices.value?.cards.values() ?? [])])
const asked = computed(() => readNeeds(needs.value, ownRates.value, today()))
const wrong = computed(() => ('wrong' in asked.value ? asked.value.wrong : ''))
const terms = computed((): Terms => ({
  currency: currency.value,
  rates: 'rates' in asked.value ? asked.value.rates : [],
  discounts: forRow.value?.saved.estimate.discounts ?? [],
  month: null,
  startsOn: today(),
}))
const found = computed(() =>
  !prices.value || 'wrong' in asked.value ? null : findMachines(asked.value.needs, prices.value, terms.value, way.value),
)
/** The rates that offers in other currencies are compared at; null where there is none. */
const ratesUsed = computed(() =>
  [...new Set(cards.value.map(c => c.currency))]
    .filter(from => from !== currency.value)
    .map(from => ({ from, used: rateOf(terms.value, prices.value!.rates, from, currency.value) })),
)
const shown = computed(() => (all.value ? (found.value?.offers ?? []) : (found.value?.offers.slice(0, 14) ?? [])))
const reasons = computed(() => reasonsOf(found.value?.rejected ?? []))

/** Into a new estimate, as a row of one that is there, or as the size of the row that one came from. */
async function take(offer: Offer, into: string | null) {
  if ('wrong' in asked.value || !prices.value) return
  const saved = into === null ? forRow.value!.saved : estimates.value.find(e => e.id === into)
  const body = prices.value.cards.get(offer.provider)!
  const card = versionOfEntry(cardList.value.find(c => c.provider === offer.provider && c.validFrom === body.validFrom)!)
  const base =
    saved?.estimate ?? newEstimate(`${offer.size} in ${offer.region}`, { ...body, revision: card.revision }, offer.region, today())
  const taken = { offer, needs: asked.value.needs, way: way.value, card }
  const estimate = into === null ? fillRow(base, forRow.value!.row.id, taken) : addOffer(base, taken, newId)
  try {
    const estimateId = saved?.id ?? crypto.randomUUID()
    await client.send('PUT', `estimates/${estimateId}`, { basedOn: saved?.version ?? null, estimate }, estimateSaved)
    await router.push(`/estimates/${estimateId}`)
  } catch (error) {
    problem.value = problemOf(error)
  }
}
</script>

<template>
  <div class="page">
    <PlaceNav place="Estimates" />
    <p v-if="forRow" class="note">
      For row <b>{{ rowInPart(forRow.row) }}</b> of
      <NuxtLink :to="`/estimates/${forRow.saved.id}`" class="link">{{ forRow.saved.estimate.name }}</NuxtLink>: “use” fills in its size.
    </p>
    <h1 class="sr-only">Finder: machines that fit, from all rate cards</h1>
    <FinderNeeds
      v-model:way="way"
      v-model:needs="needs"
      v-model:own-rates="ownRates"
      :cards="cards"
      :currency="currency"
      :rates="ratesUsed"
    />
    <ProblemNote v-if="problem" :problem="problem" :retry="load" />
    <p v-if="wrong" class="bad" role="alert">{{ wrong }}</p>
    <p v-if="!prices && !problem" role="status">Reading…</p>
    <NothingLoaded v-if="prices && !cards.length" missing="rate card" />
    <template v-else-if="found">
      <p class="note">
        <b>{{ count(found.offers.length) }}</b> {{ found.offers.length === 1 ? 'size fits' : 'sizes fit' }}; effective monthly of each way's
        own term in {{ currency }}, disk and uplifts included. {{ count(found.rejected.length) }} do not fit.
        <button class="link" :aria-expanded="why" @click="why = !why">Why</button>
      </p>
      <ul v-if="why" class="why">
        <li v-for="r in reasons.slice(0, 14)" :key="r.reason">
          <b>{{ r.reason }}</b>: {{ r.list.slice(0, 8).join(', ') }}{{ r.list.length > 8 ? ` and ${r.list.length - 8} more` : '' }}
        </li>
      </ul>
      <FinderOffers
        v-if="shown.length"
        :offers="shown"
        :terms="terms"
        :way="way"
        :system="needs.system"
        :uplifts="prices!.uplifts"
        :estimates="estimates"
        :for-row="forRow !== null"
        @take="take"
      />
      <p v-if="!shown.length" class="note">Nothing fits. “Why” above says what ruled each size out.</p>
      <button v-if="found.offers.length > 14" class="link" @click="all = !all">
        {{ all ? 'only the cheapest' : `all ${found.offers.length}` }}
      </button>
    </template>
  </div>
</template>

<style scoped>
.why {
  columns: 2;
  font-size: 12.5px;
  color: var(--ink-2);
  margin-bottom: 8px;
}
</style>
