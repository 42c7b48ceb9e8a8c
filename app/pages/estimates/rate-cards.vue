<script setup lang="ts">
import Papa from 'papaparse'
import { cardColumns } from '../../../core/ratecard/card-columns'
import { cardToTable } from '../../../core/ratecard/card-to-table'
import type { RateCard } from '../../../core/ratecard/rate-card'
import type { CardVersion } from '../../../core/estimate/sheet/name-card'
import type { Rate } from '../../../core/money/rates'
import { rateList } from '../../../shared/contracts/spend-settings'
import type { StoredUplift } from '../../../core/uplift/uplift-set'
import { estimateList, upliftList, type SavedEstimate } from '../../../shared/contracts/estimates'
import { rateCardList, type RateCardEntry } from '../../../shared/contracts/reference-data'

/** Rate cards by provider and version: what changes from one to the next, and which estimates it touches. */
const session = useSession()
const list = ref<RateCardEntry[] | null>(null)
const estimates = shallowRef<SavedEstimate[]>([])
const rates = shallowRef<Rate[]>([])
const uplifts = shallowRef<StoredUplift[]>([])
const bodies = shallowRef(new Map<string, RateCard>())
const chosen = ref('')
const { problem, attempt } = useAttempt()
useHead({ title: 'Rate cards · Rain Barrel' })

const keyOf = (card: RateCardEntry) => keyOfCard(versionOfEntry(card))
/** A version of a card, read once; null when it is not loaded. */
async function body(version: CardVersion): Promise<RateCard | null> {
  const key = keyOfCard(version)
  const card = bodies.value.get(key) ?? (await findVersion(version))
  if (card) bodies.value = new Map(bodies.value).set(key, card)
  return card
}
/** The version before a card; none for the first. */
const earlier = (of: RateCardEntry) => list.value?.find(c => c.provider === of.provider && isNewer(of, versionOfEntry(c)))
const load = () =>
  attempt(async () => {
    const [{ cards }, listed, own, found] = await Promise.all([
      client.get('rate-cards', rateCardList),
      client.get('estimates', estimateList),
      client.get('uplifts', upliftList),
      client.get('rates', rateList),
    ])
    uplifts.value = own.uplifts
    rates.value = found.rates
    const saved = listed.estimates.flatMap(({ estimate, ...rest }) => (estimate ? [{ ...rest, estimate }] : []))
    await Promise.all([...new Map(saved.flatMap(s => s.estimate.cards).map(c => [keyOfCard(c), c])).values()].map(body))
    estimates.value = saved
    list.value = cards
    const newest = cards.find(c => earlier(c))
    if (!chosen.value && newest) await choose(newest)
  })
onMounted(load)
async function choose(entry: RateCardEntry) {
  const before = earlier(entry)
  await Promise.all([body(versionOfEntry(entry)), ...(before ? [body(versionOfEntry(before))] : [])])
  chosen.value = keyOf(entry)
}
const entry = computed(() => list.value?.find(c => keyOf(c) === chosen.value))
const after = computed(() => bodies.value.get(chosen.value))
const before = computed(() => {
  const found = entry.value && earlier(entry.value)
  return found && bodies.value.get(keyOf(found))
})
async function fetched(provider: string, validFrom: string) {
  chosen.value = `${provider} ${validFrom}`
  await load()
  const found = list.value?.find(c => c.provider === provider && c.validFrom === validFrom)
  if (found) await attempt(() => choose(found))
}
const save = (of: RateCardEntry, format: 'csv' | 'json') =>
  attempt(async () => {
    const card = await body(versionOfEntry(of))
    if (!card) return
    const text =
      format === 'json'
        ? JSON.stringify(card, null, 1) + '\n'
        : Papa.unparse({ fields: [...cardColumns], data: cardToTable(card) }, { newline: '\r\n', escapeFormulae: true }) + '\r\n'
    saveFile(
      new Blob([text], { type: format === 'json' ? 'application/json' : 'text/csv' }),
      `rate card ${of.provider} ${of.validFrom}${of.revision > 1 ? ` revision ${of.revision}` : ''}.${format}`,
    )
  })
const providers = computed(() => new Set(list.value?.map(c => c.provider)).size)
</script>

<template>
  <div class="page">
    <PlaceNav place="Estimates" />
    <h1 class="sentence">
      {{
        list?.length
          ? `Rate cards of ${count(providers)} ${providers === 1 ? 'provider' : 'providers'}; an estimate stays on the version it was priced on until someone changes it.`
          : 'Rate cards hold list prices.'
      }}
    </h1>
    <ProblemNote v-if="problem" :problem="problem" :retry="list ? undefined : load" />
    <p v-if="!list && !problem" class="note" role="status">Reading…</p>
    <CardFetch v-if="session.seesAll" @fetched="fetched" />
    <div v-if="list?.length" class="scroll" tabindex="0" role="group" aria-label="rate cards">
      <table class="ledger">
        <thead>
          <tr>
            <th>provider</th>
            <th>holds from</th>
            <th class="n">prices</th>
            <th>regions</th>
            <th>currency</th>
            <th>loaded</th>
            <th>by</th>
            <th>download</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="card in list" :key="keyOf(card)" class="acts" :class="{ chosen: chosen === keyOf(card) }">
            <td>{{ card.provider }}</td>
            <td>{{ versionText(versionOfEntry(card)) }}</td>
            <td class="n">{{ count(card.prices) }}</td>
            <td>{{ card.regions.join(', ') }}</td>
            <td>{{ card.currency }}</td>
            <td>{{ timeText(card.loadedAt) }}</td>
            <td>{{ card.who }}</td>
            <td>
              <button class="link" :aria-label="`${card.provider} of ${card.validFrom} as CSV`" @click="save(card, 'csv')">CSV</button> ·
              <button class="link" :aria-label="`${card.provider} of ${card.validFrom} as JSON`" @click="save(card, 'json')">JSON</button>
            </td>
            <td><button v-if="earlier(card)" class="link" @click="attempt(() => choose(card))">what changes</button></td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-else-if="list" class="note">
      None is loaded. <NuxtLink to="/sources" class="link">Drop one under Sources</NuxtLink>, as JSON or CSV.
    </p>
    <p v-if="list?.length" class="minor foot">
      Further versions and providers are dropped under <NuxtLink to="/sources" class="link">Sources</NuxtLink>, as JSON or CSV.
    </p>
    <template v-if="before && after">
      <CardReview
        :after="after"
        :estimates="estimates"
        :version="versionOfEntry(entry!)"
        :card-of="version => bodies.get(keyOfCard(version))"
        :uplifts="uplifts"
        :rates="rates"
        @applied="load"
      />
      <CardDifferences class="section" :before="before" :after="after" />
    </template>
    <p v-else-if="list?.length" class="note foot">
      No provider has a second version yet: with one, its differences and the estimates that it touches stand here.
    </p>
  </div>
</template>

<style scoped>
.foot {
  margin-top: 8px;
}
.section {
  margin-top: 18px;
}
</style>
