<script setup lang="ts">
import { dedicatedHost, openSystem, sharedHost, systemsOf } from '../../../core/estimate/components/server'
import { findKind } from '../../../core/estimate/components'
import { newEstimate, newRow, waysToPay, type Component, type Estimate, type WayToPay } from '../../../core/estimate/estimate'
import { findMachines, isRanked, type Needs, type Offer, type Terms } from '../../../core/estimate/finder'
import { ALWAYS_ON } from '../../../core/estimate/sheet/hours-text'
import { nameCard } from '../../../core/estimate/sheet/name-card'
import { placeText } from '../../../core/estimate/pricing/place'
import { rateOf } from '../../../core/estimate/pricing/rates'
import { rowInPart } from '../../../core/estimate/sheet/row-name'
import { readQuantity, readTyped } from '../../../core/estimate/sheet/typed-text'
import { decimalText } from '../../../core/money/decimal'
import { upliftsFor } from '../../../core/uplift/uplift-set'
import { estimateList, estimateSaved, type ListedEstimate } from '../../../shared/contracts/estimates'

/** What is needed in; all that fits out, over all rate cards, cheapest first. */
const { prices, cards: cardList, problem, load } = usePrices()
const router = useRouter()
useHead({ title: 'Finder · Rain Barrel' })
const route = useRoute()
const needs = reactive<Needs>({
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
const ownRates = reactive<Record<string, string>>({})
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
    if (asked > 0) needs[name] = asked
  }
  currency.value = saved.estimate.currency ?? currency.value
  needs.system = row.inputs.system ?? needs.system
  needs.host = row.inputs.host ?? needs.host
  needs.hoursPerMonth = row.inputs.hoursPerMonth ?? needs.hoursPerMonth
  needs.count = row.inputs.count ?? needs.count
  needs.diskGb = '0'
  way.value = waysToPay.find(w => w === row.inputs.pays) ?? way.value
})

const cards = computed(() => [...(prices.value?.cards.values() ?? [])])
const architectures = computed(() => [...new Set(cards.value.flatMap(c => c.serverSizes.flatMap(s => s.architecture ?? [])))])
const systems = computed(() => [...new Set(cards.value.flatMap(c => c.regions.flatMap(r => systemsOf(c, r.id))))])
const places = computed(() =>
  cards.value.flatMap(c => c.regions.map(r => ({ value: `${c.provider}/${r.id}`, label: `${r.id}, ${c.provider}` }))),
)
const residencies = computed(() => [...new Set(cards.value.flatMap(c => c.regions.flatMap(r => r.residency ?? [])))])
const foreign = computed(() => [...new Set(cards.value.map(c => c.currency))].filter(c => c !== currency.value))
const fields = {
  disk: findKind('disk')!.fields.find(f => f.name === 'storageGb')!,
  hours: findKind('server')!.fields.find(f => f.name === 'hoursPerMonth')!,
  count: findKind('server')!.fields.find(f => f.name === 'count')!,
}
/** The needs as they are kept, or what is wrong with them. */
const asked = computed((): { needs: Needs; rates: Estimate['rates'] } | { wrong: string } => {
  const number = (text: string | number, label: string, unit?: string) => {
    const read = readQuantity(String(text), { label, unit })
    return typeof read === 'string'
      ? read
      : read.isRange || read.likely.lte(0)
        ? `${label} must be one number above 0`
        : Number(decimalText(read.likely))
  }
  const [vcpu, memoryGb] = [number(needs.vcpu, 'vCPU'), number(needs.memoryGb, 'memory', 'GB')]
  const texts = (['disk', 'hours', 'count'] as const).map(name =>
    readTyped(fields[name], name === 'disk' ? needs.diskGb : name === 'hours' ? needs.hoursPerMonth : needs.count),
  )
  const bad = [vcpu, memoryGb].find(n => typeof n === 'string') ?? texts.flatMap(read => ('problem' in read ? [read.problem] : []))[0]
  if (typeof bad === 'string') return { wrong: `${bad}.` }
  const [diskGb, hoursPerMonth, many] = texts.map(read => ('value' in read ? read.value : '')) as [string, string, string]
  const rates: Estimate['rates'] = []
  for (const [from, text] of Object.entries(ownRates)) {
    if (!text.trim()) continue
    const rate = readQuantity(text, { label: 'rate' })
    if (typeof rate === 'string' || rate.isRange || rate.likely.lte(0)) return { wrong: `The rate from ${from} must be a number above 0.` }
    rates.push({ from, rate: decimalText(rate.likely), day: today() })
  }
  return { needs: { ...needs, vcpu: vcpu as number, memoryGb: memoryGb as number, diskGb, hoursPerMonth, count: many }, rates }
})
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
const ranked = (offer: Offer) => isRanked(offer, terms.value, way.value)
const rateUsed = (from: string) => prices.value && rateOf(terms.value, prices.value.rates, from, currency.value)
const shown = computed(() => (all.value ? (found.value?.offers ?? []) : (found.value?.offers.slice(0, 14) ?? [])))
const reasons = computed(() => {
  const grouped = new Map<string, string[]>()
  for (const r of found.value?.rejected ?? []) {
    const what = r.size ? `${r.size}` : r.region
    grouped.set(r.why, [...(grouped.get(r.why) ?? []), what])
  }
  return [...grouped].map(([reason, list]) => ({ reason, list: [...new Set(list)] })).sort((a, b) => b.list.length - a.list.length)
})
const cost = (offer: Offer, which: WayToPay) => offer.ways.find(w => w.way === which)
const own = (offer: Offer) =>
  upliftsFor(prices.value!.uplifts, { kind: 'server', variant: offer.size, pattern: null, system: needs.system }, today())
    .map(u => u.name)
    .join(', ')
const toggle = (list: string[], value: string) => (list.includes(value) ? list.splice(list.indexOf(value), 1) : list.push(value))
const columns = computed(() =>
  waysToPay.filter(w => ['on-demand', '1 year, paid monthly', '3 years, all in advance', way.value].includes(w)),
)

/** Into a new estimate, as a row of one that is there, or as the size of the row that one came from. */
async function take(offer: Offer, into: string | 'row') {
  if ('wrong' in asked.value || !prices.value) return
  const wanted = asked.value.needs
  const saved = into === 'row' ? forRow.value!.saved : estimates.value.find(e => e.id === into)
  const card = prices.value.cards.get(offer.provider)!
  const version = versionOfEntry(cardList.value.find(c => c.provider === offer.provider && c.validFrom === card.validFrom)!)
  const base =
    saved?.estimate ?? newEstimate(`${offer.size} in ${offer.region}`, { ...card, revision: version.revision }, offer.region, today())
  const where = placeText(offer.provider, offer.region, base)
  const place: Record<string, string> = where ? { where } : {}
  const machine = {
    size: offer.size,
    system: wanted.system,
    host: wanted.host,
    hoursPerMonth: wanted.hoursPerMonth,
    count: wanted.count,
    pays: way.value,
    ...place,
  }
  const part = base.components.at(-1)?.part ?? 'Workload'
  const rows = [
    newRow(newId(), part, 'server', machine),
    ...(offer.diskClass
      ? [newRow(newId(), part, 'disk', { class: offer.diskClass, storageGb: wanted.diskGb, count: wanted.count, ...place })]
      : []),
  ]
  const filled = (row: Component): Component => ({
    ...row,
    inputs: {
      ...row.inputs,
      size: offer.size,
      ...(row.inputs.pays !== undefined && offer.ways.some(w => w.way === way.value) && { pays: way.value }),
      where,
    },
    confirmed: [...new Set([...row.confirmed, 'size'])],
  })
  const components =
    into === 'row' ? base.components.map(c => (c.id === forRow.value!.row.id ? filled(c) : c)) : [...base.components, ...rows]
  const estimate = { ...(base.cards.some(c => c.provider === offer.provider) ? base : nameCard(base, version)), components }
  try {
    const estimateId = saved?.id ?? crypto.randomUUID()
    await client.send('PUT', `estimates/${estimateId}`, { basedOn: saved?.version ?? null, estimate }, estimateSaved)
    await router.push(`/estimates/${estimateId}`)
  } catch (error) {
    problem.value = problemOf(error)
  }
}
const chosenFor = ref<string | null>(null)
const into = ref('')
</script>

<template>
  <div class="page">
    <PlaceNav place="Estimates" />
    <p v-if="forRow" class="note">
      For the row <b>{{ rowInPart(forRow.row) }}</b> of
      <NuxtLink :to="`/estimates/${forRow.saved.id}`" class="link">{{ forRow.saved.estimate.name }}</NuxtLink>: “take” fills its size.
    </p>
    <h1 class="sr-only">Finder: machines of all rate cards that fit</h1>
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
    <div class="under">
      <span>regions:</span
      ><label v-for="p in places" :key="p.value"
        ><input
          type="checkbox"
          :checked="!needs.places.length || needs.places.includes(p.value)"
          @change="
            needs.places.length ? toggle(needs.places, p.value) : needs.places.push(...places.map(x => x.value).filter(v => v !== p.value))
          "
        />
        {{ p.label }}</label
      >
    </div>
    <div class="under">
      <span>data may lie in:</span
      ><label v-for="r in residencies" :key="r"
        ><input
          type="checkbox"
          :checked="!needs.residencies.length || needs.residencies.includes(r)"
          @change="needs.residencies.length ? toggle(needs.residencies, r) : needs.residencies.push(...residencies.filter(v => v !== r))"
        />
        {{ r }}</label
      >
      <label v-for="from in foreign" :key="from"
        >1 {{ from }} is
        <input
          v-model="ownRates[from]"
          class="field m"
          :aria-label="`rate from ${from}`"
          inputmode="decimal"
          :placeholder="rateUsed(from)?.rate ?? 'no rate'"
        />
        {{ currency
        }}<span v-if="rateUsed(from) && !rateUsed(from)!.own" class="minor"
          >of {{ dayText(rateUsed(from)!.day) }}, from <NuxtLink to="/sources/rates" class="link">Sources</NuxtLink></span
        ><span v-else-if="!rateUsed(from)" class="bad"
          >no rate from {{ from }} to {{ currency }}: offers in {{ from }} are not ranked.
          <NuxtLink to="/sources/rates" class="link">Give one under Sources</NuxtLink></span
        ></label
      >
    </div>
    <ProblemNote v-if="problem" :problem="problem" :retry="load" />
    <p v-if="wrong" class="bad" role="alert">{{ wrong }}</p>
    <p v-if="!prices && !problem" role="status">Reading…</p>
    <NothingLoaded v-if="prices && !cards.length" missing="rate card" />
    <template v-else-if="found">
      <p class="note">
        <b>{{ count(found.offers.length) }}</b> {{ found.offers.length === 1 ? 'size fits' : 'sizes fit' }}; effective monthly of each way's
        own term in {{ currency }}, disk and own charges included. {{ count(found.rejected.length) }} fell out.
        <button class="link" :aria-expanded="why" @click="why = !why">Why</button>
      </p>
      <ul v-if="why" class="why">
        <li v-for="r in reasons.slice(0, 14)" :key="r.reason">
          <b>{{ r.reason }}</b>: {{ r.list.slice(0, 8).join(', ') }}{{ r.list.length > 8 ? ` and ${r.list.length - 8} more` : '' }}
        </li>
      </ul>
      <div class="scroll" tabindex="0" role="group" aria-label="sizes">
        <table v-if="shown.length" class="ledger">
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
            <tr v-for="(offer, i) in shown" :key="offer.provider + offer.region + offer.size" class="acts">
              <td>
                {{ offer.size }}<span v-if="i === 0 && ranked(offer)" class="minor"> ◂ cheapest</span
                ><span v-if="offer.currency !== currency" class="warn minor"> in {{ offer.currency }}, not ranked</span
                ><span v-if="own(offer)" class="warn minor"> with own charges: {{ own(offer) }}</span>
              </td>
              <td class="n">{{ offer.facts.vcpu }}</td>
              <td class="n">{{ offer.facts.memoryGb }}</td>
              <td>{{ offer.facts.architecture }}</td>
              <td>{{ offer.region }}</td>
              <td>{{ offer.provider }}</td>
              <td>{{ offer.diskClass ?? '–' }}</td>
              <td v-for="w in columns" :key="w" class="n" :class="{ by: w === way }">
                {{
                  cost(offer, w)
                    ? `${money(roundText(cost(offer, w)!.effectiveMonthly), offer.currency)}${offer.currency === currency ? '' : ` ${offer.currency}`}`
                    : '–'
                }}
              </td>
              <td class="n">
                {{
                  cost(offer, way)?.breakEvenHours
                    ? `${decimals(roundText(cost(offer, way)!.breakEvenHours!), 0)} h`
                    : cost(offer, '1 year, paid monthly')?.breakEvenHours
                      ? `${decimals(roundText(cost(offer, '1 year, paid monthly')!.breakEvenHours!), 0)} h`
                      : '–'
                }}
              </td>
              <td class="take">
                <button v-if="forRow" class="link" @click="take(offer, 'row')">take for the row</button
                ><button
                  v-else
                  class="link"
                  :aria-expanded="chosenFor === offer.provider + offer.region + offer.size"
                  @click="
                    chosenFor = chosenFor === offer.provider + offer.region + offer.size ? null : offer.provider + offer.region + offer.size
                  "
                >
                  take
                </button>
                <form v-if="chosenFor === offer.provider + offer.region + offer.size" class="into" @submit.prevent="take(offer, into)">
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
      <p v-if="!shown.length" class="note">Nothing fits. “Why” above says what ruled each size out.</p>
      <button v-if="found.offers.length > 14" class="link" @click="all = !all">
        {{ all ? 'only the cheapest' : `all ${found.offers.length}` }}
      </button>
    </template>
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
.why {
  columns: 2;
  font-size: 12.5px;
  color: var(--ink-2);
  margin-bottom: 8px;
}
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
