<script setup lang="ts">
import { newEstimate, type Estimate } from '../../../core/estimate/estimate'
import { readEstimate } from '../../../core/estimate/documents/estimate-file'
import { againstBill, estimateFromUse } from '../../../core/estimate/from-use'
import { figureText, priceEstimate } from '../../../core/estimate/pricing/price-estimate'
import type { RateCard } from '../../../core/ratecard/rate-card'
import type { StoredUplift } from '../../../core/uplift/uplift-set'
import { notCounted } from '../../../core/estimate/scenarios/compare'
import { rowLabel } from '../../../core/estimate/sheet/row-name'
import type { Rate } from '../../../core/money/rates'
import {
  estimateList,
  estimateSaved,
  kept as keptReply,
  upliftList,
  usedLines,
  type ListedEstimate,
} from '../../../shared/contracts/estimates'
import { rateList } from '../../../shared/contracts/spend-settings'
import { rateCardList, type RateCardEntry } from '../../../shared/contracts/reference-data'
import { monthEnd } from '../../../core/time/day'

const session = useSession()
const list = shallowRef<ListedEstimate[] | null>(null)
const rates = shallowRef<Rate[]>([])
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

const keyOf = (card: RateCardEntry) => keyOfCard(versionOfEntry(card))
async function load() {
  try {
    const [estimates, known, own, dated] = await Promise.all([
      client.get('estimates', estimateList),
      client.get('rate-cards', rateCardList),
      client.get('uplifts', upliftList),
      client.get('rates', rateList),
    ])
    const wanted = new Map(estimates.estimates.flatMap(saved => saved.estimate?.cards.map(c => [keyOfCard(c), c] as const) ?? []))
    const found = await Promise.all(
      [...wanted].filter(([key]) => !bodies.value.has(key)).map(async ([key, c]) => [key, await findVersion(c)] as const),
    )
    bodies.value = new Map([...bodies.value, ...found.flatMap(([key, card]) => (card ? [[key, card] as const] : []))])
    uplifts.value = own.uplifts
    rates.value = dated.rates
    cards.value = known.cards
    list.value = estimates.estimates
    const [first] = cardsHeld(known.cards, today())
    cardKey.value ||= first ? keyOf(first) : ''
    problem.value = null
  } catch (error) {
    problem.value = problemOf(error)
  }
}
onMounted(load)

const card = computed(() => cards.value.find(c => keyOf(c) === cardKey.value))
watch(card, () => {
  if (!card.value?.regions.includes(region.value)) region.value = card.value?.regions[0] ?? ''
})
type Total = { amount: string; lacks: number; why: string }
/** What an estimate costs a month, or why it cannot be priced; one that fails leaves the others as they are. */
function total(saved: ListedEstimate): Total {
  const none = (why: string): Total => ({ amount: '', lacks: 0, why })
  const { estimate } = saved
  if (!estimate) return none(`cannot be read: ${saved.problem ?? ''}`)
  const missing = estimate.cards.find(c => !bodies.value.get(keyOfCard(c)))
  if (missing) return none(`rate card missing: ${missing.provider}, ${versionText(missing)}`)
  try {
    const priced = priceEstimate(estimate, {
      cards: new Map(estimate.cards.map(c => [c.provider, bodies.value.get(keyOfCard(c))!])),
      uplifts: uplifts.value,
      rates: rates.value,
    })
    return {
      amount: `${money(roundText(figureText(priced.total.effectiveMonthly)), priced.currency)} ${priced.currency}`,
      lacks: notCounted(priced, priced)?.rows ?? 0,
      why: '',
    }
  } catch (error) {
    return none(`cannot be priced: ${error instanceof Error ? error.message : String(error)}`)
  }
}
const totals = computed(() => new Map(list.value?.map(saved => [saved.id, total(saved)])))
const newer = (estimate: Estimate) => estimate.cards.some(c => cards.value.some(k => k.provider === c.provider && isNewer(k, c)))

// where estimates are filed, and what is looked for
const sought = ref('')
const folder = ref<string | null>(null)
const withPutAway = ref(false)
function showAll() {
  sought.value = ''
  folder.value = null
  withPutAway.value = true
}
const folders = computed(() => [...new Set(list.value?.map(saved => saved.folder).filter(Boolean))].sort((a, b) => a.localeCompare(b)))
const textOf = (saved: ListedEstimate) =>
  [
    saved.title,
    saved.folder,
    saved.who,
    saved.name ?? '',
    ...(saved.estimate
      ? [
          saved.estimate.region,
          saved.estimate.note,
          ...saved.estimate.cards.map(c => c.provider),
          ...saved.estimate.components.flatMap(c => [c.part, rowLabel(c), c.inputs.size ?? '']),
        ]
      : []),
  ]
    .join(' ')
    .toLowerCase()
const shown = computed(() => {
  const words = sought.value.toLowerCase().split(/\s+/).filter(Boolean)
  return (
    list.value?.filter(
      saved =>
        (withPutAway.value || !saved.putAway) &&
        (folder.value === null || saved.folder === folder.value) &&
        words.every(word => textOf(saved).includes(word)),
    ) ?? []
  )
})
const putAway = computed(() => list.value?.filter(saved => saved.putAway).length ?? 0)
const file = (saved: ListedEstimate, change: { folder?: string; putAway?: boolean }) =>
  attempt(async () => {
    await client.send('PUT', `estimates/${saved.id}/filing`, { folder: saved.folder, putAway: saved.putAway, ...change }, keptReply)
    await load()
  })

async function keep(estimate: Estimate) {
  const id = crypto.randomUUID()
  await client.send('PUT', `estimates/${id}`, { basedOn: null, estimate }, estimateSaved)
  await router.push(`/estimates/${id}`)
}
const begin = () =>
  attempt(async () => {
    if (card.value) await keep(newEstimate(name.value.trim(), card.value, region.value, today()))
  })
const copyOf = (saved: ListedEstimate & { estimate: Estimate }) =>
  attempt(() => keep({ ...saved.estimate, name: `${saved.estimate.name}, copy`.slice(0, 120) }))
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
    const missing = read.estimate.cards.find(
      c => !cards.value.some(k => k.provider === c.provider && k.validFrom === c.date && k.revision === c.revision),
    )
    if (missing)
      return refuse(
        title,
        `It is priced on the rate card of ${missing.provider} from ${missing.date}${missing.revision > 1 ? `, revision ${missing.revision}` : ''}, which is not loaded. Drop that card under Sources first.`,
      )
    await keep(read.estimate)
  })
  if (picker.value) picker.value.value = ''
}

// from what runs: Spend hands over a month and what it is narrowed to
const usedMonth = ref('')
const narrowing = ref<{ keep: Record<string, (string | null)[]>; leaveOut: Record<string, (string | null)[]> }>({ keep: {}, leaveOut: {} })
/** What people call what is narrowed to, where the page that one came from knows it. */
const narrowedName = ref('')
const narrowingText = computed(
  () =>
    narrowedName.value ||
    Object.entries(narrowing.value.keep)
      .map(([dimension, values]) => `${dimensionLabel(dimension)} ${values.map(v => valueLabel(dimension, v)).join(' or ')}`)
      .join(', '),
)
const fromUse = ref(false)
onMounted(() => {
  const { month, keep: kept, leaveOut, called } = route.query
  if (typeof month !== 'string') return
  fromUse.value = true
  usedMonth.value = month
  if (typeof called === 'string') narrowedName.value = called
  try {
    narrowing.value = {
      keep: JSON.parse(typeof kept === 'string' ? kept : '{}'),
      leaveOut: JSON.parse(typeof leaveOut === 'string' ? leaveOut : '{}'),
    }
  } catch {
    refuse('The address does not say what ran', 'Open Spend, narrow to what shall be priced, and choose “Estimate from this” there.')
  }
})
const beginFromUse = () =>
  attempt(async () => {
    const used = await client.send('POST', 'spend/used', { month: usedMonth.value, ...narrowing.value }, usedLines)
    if (!used.lines.length)
      return refuse(
        'Nothing ran',
        `No usage is charged in ${monthText(usedMonth.value)}${narrowingText.value ? ` for ${narrowingText.value}` : ''}.`,
      )
    const found = new Map<string, RateCard>()
    for (const provider of new Set(used.lines.map(l => l.provider))) {
      // the card that held at the end of that month
      const held = await findCard(provider, monthEnd(usedMonth.value))
      if (held) found.set(provider, held)
    }
    const revisions = new Map(
      [...found].map(([provider, body]) => [
        provider,
        Math.max(1, ...cards.value.filter(c => c.provider === provider && c.validFrom === body.validFrom).map(c => c.revision)),
      ]),
    )
    const { estimate, unknown } = estimateFromUse(
      `${narrowingText.value || 'Everything'}, ${monthText(usedMonth.value)}`.slice(0, 120),
      usedMonth.value,
      used.lines,
      found,
      () => crypto.randomUUID().slice(0, 8),
      revisions,
    )
    if (!estimate.components.length)
      return refuse(
        'Nothing of it can be priced',
        `No rate card is loaded that has the SKUs of ${[...new Set(unknown.map(l => l.provider))].join(', ')}.`,
      )
    const bill = againstBill(estimate, found, used.lines, used.listCost)
    const apart =
      bill && Math.abs(Number(bill.difference)) >= 0.005
        ? [
            `Priced for itself it is ${money(sizeText(roundText(bill.difference)), estimate.currency!)} ${estimate.currency} ${bill.difference.startsWith('-') ? 'less' : 'more'}: the bill counts the tiers of ${bill.tiered.join(' and ')} over everything in the account.`,
          ]
        : []
    const notes = [
      `What ran in ${monthText(usedMonth.value)}${narrowingText.value ? `, ${narrowingText.value}` : ''}; at list price the bill says ${used.listCost.map(c => `${money(c.amount, c.currency)} ${c.currency}`).join(', ')}.`,
      ...apart,
      ...(unknown.length ? [`${unknown.length} lines of use have no price on a rate card and are left out.`] : []),
      ...(used.notUsage ? [`${used.notUsage} charges that are no use (purchases, credits, corrections) are left out.`] : []),
    ]
    await keep({ ...estimate, note: notes.join(' ') })
  })
</script>

<template>
  <div class="page">
    <PlaceNav place="Estimates" />
    <h1 class="sentence">
      {{
        list?.length
          ? `${count(list.length)} ${list.length === 1 ? 'estimate' : 'estimates'}, last saved first.`
          : 'Price a workload before it is built.'
      }}
    </h1>
    <ProblemNote v-if="problem" :problem="problem" :retry="list ? undefined : load" />
    <p v-if="!list && !problem" class="note" role="status">Reading…</p>
    <template v-if="list">
      <form v-if="cards.length" class="begin" @submit.prevent="begin">
        <label>name <input v-model="name" class="field name" required maxlength="120" placeholder="what is it for?" /></label>
        <label
          >rate card
          <select v-model="cardKey" class="field">
            <option v-for="c in cards" :key="keyOf(c)" :value="keyOf(c)">
              {{ c.provider }}, {{ versionText(versionOfEntry(c)) }}, {{ c.currency }}
            </option>
          </select></label
        >
        <label
          >region
          <select v-model="region" class="field">
            <option v-for="r in card?.regions" :key="r" :value="r">{{ r }}</option>
          </select></label
        >
        <button class="button main" :disabled="!name.trim()">Begin an estimate</button>
        <button type="button" class="button" :aria-expanded="fromUse" @click="fromUse = !fromUse">From what runs</button>
        <button type="button" class="button" @click="picker?.click()">Bring one in (JSON)</button>
        <input
          ref="picker"
          type="file"
          accept=".json"
          class="sr-only"
          tabindex="-1"
          aria-label="estimate file"
          @change="bringIn(($event.target as HTMLInputElement).files)"
        />
      </form>
      <NothingLoaded v-else missing="rate card" />
      <form v-if="fromUse && cards.length" class="begin used" @submit.prevent="beginFromUse">
        <label>what ran in <input v-model="usedMonth" type="month" class="field" required /></label>
        <span class="note">{{
          narrowingText
            ? `keeping ${narrowingText}`
            : 'everything; to take a part of it, narrow to it under Spend and choose “Estimate from this” there'
        }}</span>
        <button class="button main" :disabled="!usedMonth">Begin with its quantities</button>
      </form>
      <form v-if="list.length" class="under sift" role="search" @submit.prevent>
        <label
          >search
          <input
            v-model="sought"
            class="field"
            type="search"
            placeholder="name, part, component, size, person"
            aria-label="search estimates"
        /></label>
        <label v-if="folders.length"
          >folder
          <select v-model="folder" class="field" aria-label="folder">
            <option :value="null">all</option>
            <option v-for="f in folders" :key="f" :value="f">{{ f }}</option>
            <option value="">not filed</option>
          </select></label
        >
        <label v-if="putAway"><input v-model="withPutAway" type="checkbox" /> with the {{ count(putAway) }} put away</label>
        <span v-if="shown.length !== list.length - (withPutAway ? 0 : putAway)">{{ count(shown.length) }} found</span>
      </form>
      <datalist id="folders"><option v-for="f in folders" :key="f" :value="f" /></datalist>
      <div v-if="shown.length" class="scroll" tabindex="0" role="group" aria-label="estimates">
        <table class="ledger">
          <thead>
            <tr>
              <th>estimate</th>
              <th>folder</th>
              <th>rate cards</th>
              <th>region</th>
              <th class="n">components</th>
              <th class="n">scenarios</th>
              <th class="n">effective monthly</th>
              <th>version</th>
              <th>by</th>
              <th>saved</th>
              <th />
            </tr>
          </thead>
          <tbody>
            <tr v-for="saved in shown" :key="saved.id" class="acts" :class="{ away: saved.putAway }">
              <td>
                <NuxtLink :to="`/estimates/${saved.id}`" class="link">{{ saved.title }}</NuxtLink><span v-if="saved.putAway" class="minor"
                  >, put away</span
                >
              </td>
              <td>
                <input
                  v-held="saved.folder"
                  class="field folder"
                  list="folders"
                  maxlength="80"
                  placeholder="–"
                  :aria-label="`folder of ${saved.title}`"
                  @change="file(saved, { folder: ($event.target as HTMLInputElement).value.trim() })"
                />
              </td>
              <td>
                <template v-if="saved.estimate"
                  >{{ saved.estimate.cards.map(c => `${c.provider}, ${versionText(c)}`).join('; ')
                  }}<NuxtLink v-if="newer(saved.estimate)" to="/estimates/rate-cards" class="link newer">a newer one</NuxtLink></template
                >
              </td>
              <td>{{ saved.estimate?.region ?? '–' }}</td>
              <td class="n">{{ saved.estimate?.components.length ?? '–' }}</td>
              <td class="n">{{ saved.estimate?.scenarios.length || '–' }}</td>
              <td class="n">
                <span v-if="totals.get(saved.id)?.why" class="bad why">{{ totals.get(saved.id)!.why }}</span><template v-else
                  >{{ totals.get(saved.id)?.amount }}
                  <div v-if="totals.get(saved.id)?.lacks" class="bad lack">
                    {{ count(totals.get(saved.id)!.lacks) }} {{ totals.get(saved.id)!.lacks === 1 ? 'row' : 'rows' }} not counted
                  </div></template
                >
              </td>
              <td>{{ saved.version }}{{ saved.name ? ` “${saved.name}”` : '' }}</td>
              <td>{{ saved.who }}</td>
              <td>{{ timeText(saved.savedAt) }}</td>
              <td>
                <button
                  v-if="saved.estimate"
                  class="link"
                  :aria-label="`copy ${saved.title}`"
                  @click="copyOf({ ...saved, estimate: saved.estimate })"
                >
                  copy</button
                >{{ ' ' }}
                <button
                  class="link"
                  :aria-label="`${saved.putAway ? 'bring back' : 'put away'} ${saved.title}`"
                  @click="file(saved, { putAway: !saved.putAway })"
                >
                  {{ saved.putAway ? 'bring back' : 'put away' }}
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-else-if="list.length" class="note">
        No matches.
        <button class="link" @click="showAll">Show all of them</button>
      </p>
      <p v-else-if="cards.length" class="note">
        None yet. Give one a name and begin.<template v-if="session.person?.bound">
          Estimates of people who see more than you come as a link or a file.</template
        >
      </p>
    </template>
  </div>
</template>

<style scoped>
.begin {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: end;
  margin: 10px 0 14px;
}
.begin label {
  display: grid;
  gap: 2px;
  font-size: 12px;
  color: var(--ink-3);
}
.used {
  align-items: center;
}
.name {
  width: 260px;
}
td:not(:nth-child(-n + 3)):not(:nth-child(8)) {
  white-space: nowrap;
}
.sift {
  margin-bottom: 6px;
}
.sift label {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
.folder {
  width: 92px;
}
.folder:not(:hover, :focus) {
  border-color: transparent;
  background: none;
}
.sift input[type='search'] {
  width: 290px;
}
.away td {
  color: var(--ink-3);
}
.why {
  white-space: normal;
  display: inline-block;
  max-width: 220px;
  text-align: left;
  line-height: 1.25;
  font-size: 12px;
}
.lack {
  font-size: 11px;
}
.newer {
  color: var(--warn);
  margin-left: 10px;
}
</style>
