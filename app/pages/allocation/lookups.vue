<script setup lang="ts">
import Papa from 'papaparse'
import { lookupTable } from '../../../core/spend/lookup-table'
import { monthEnd, monthStart } from '../../../core/time/day'
import {
  lookupList,
  lookupSaved,
  lookupState,
  unmatched as unmatchedReply,
  type LookupList,
  type LookupState,
  type UnmatchedKeys,
} from '../../../shared/contracts/spend-settings'
import { lookupFileName } from '../../utils/peek'

/** Tables that say something of accounts, tags, resources or names: what each says, and where the charges and it do not meet. */
useHead({ title: 'Lookups · Rain Barrel' })
const data = useData()
const route = useRoute()
const router = useRouter()
const sources = useSources()
const facts = useFactsFile()
const go = (change: Record<string, string | undefined>) => router.push({ query: { ...route.query, ...change } })
const { attempt, problem } = useAttempt()

const list = shallowRef<LookupList['lookups'] | null>(null)
const shown = shallowRef<LookupState | null>(null)
const missed = shallowRef<UnmatchedKeys | null>(null)
const months = computed(() => data.months)
const month = computed(() => months.value.find(one => one === route.query.month) ?? months.value[1] ?? months.value[0] ?? null)
const name = computed(() => list.value?.find(one => one.name === route.query.lookup)?.name ?? list.value?.[0]?.name ?? null)
const load = () =>
  attempt(async () => {
    list.value = (await client.get('lookups', lookupList)).lookups
  })
onMounted(load)
watch(
  [name, month, list, () => data.facts?.revision],
  () =>
    attempt(async () => {
      const [own, of] = [name.value, month.value]
      if (!own) {
        shown.value = missed.value = null
        return
      }
      const state = await client.get(`lookups/${encodeURIComponent(own)}`, lookupState)
      const query = of === null ? null : new URLSearchParams({ month: of, measure: 'effectiveCost' })
      const found = query && (await client.get(`lookups/${encodeURIComponent(own)}/unmatched?${query}`, unmatchedReply))
      if (own !== name.value || of !== month.value) return
      shown.value = state
      missed.value = found
    }),
  { immediate: true },
)
/** A table dropped here is a lookup, whatever its file is called. */
async function drop(files: File[]) {
  for (const file of files) await sources.drop([new File([file], lookupFileName(file.name), { lastModified: file.lastModified })])
  if (!facts.review) await load()
}
watch(
  () => facts.review,
  review => review === null && load(),
)
const dropped = ref(false)
const remove = () =>
  attempt(async () => {
    dropped.value = false
    await client.send('DELETE', `lookups/${encodeURIComponent(shown.value!.name)}`, undefined, lookupSaved)
    list.value = (await client.get('lookups', lookupList)).lookups
  })

const text = ref('')
const MOST_SHOWN = 500
const entries = computed(() => {
  const part = text.value.trim().toLowerCase()
  const all = shown.value?.lookup.entries ?? []
  return part ? all.filter(({ key, values }) => [key, ...Object.values(values)].some(said => said.toLowerCase().includes(part))) : all
})
const hasDays = computed(() => shown.value?.lookup.entries.some(({ from, until }) => from ?? until) ?? false)
const download = (format: 'csv' | 'json') => {
  const { name: called, lookup } = shown.value!
  const table = lookupTable(lookup)
  const said = format === 'json' ? `${JSON.stringify(lookup, null, 2)}\n` : `${Papa.unparse([table.heads, ...table.rows])}\r\n`
  saveFile(new Blob([said], { type: format === 'json' ? 'application/json' : 'text/csv' }), `lookup-${called}.${format}`)
}
/** Charges of a value that the lookup does not know, in Spend. */
const behind = (value: string | null, currency: string) => ({
  path: '/spend',
  query: writeSentence({
    ...readSentence({}),
    ...{ measure: 'effectiveCost' as const, basis: 'billing' as const, currency, splitBy: ['ServiceName'] },
    period: { start: monthStart(month.value!), end: monthEnd(month.value!) },
    keep: { [shown.value!.lookup.by]: [value] },
  }),
})
</script>

<template>
  <div class="page">
    <PlaceNav place="Allocation" />
    <h1 v-if="name && shown" class="sentence">
      Compare
      <SentenceChoice
        label="lookup"
        :options="list!.map(one => ({ value: one.name, label: one.name, note: `by ${dimensionLabel(one.by)}` }))"
        :chosen="name"
        :text="name"
        @choose="go({ lookup: $event })"
      />
      with the charges of
      <SentenceChoice
        v-if="month"
        label="billing month"
        :options="months.map(one => ({ value: one, label: monthText(one) }))"
        :chosen="month"
        :text="monthText(month)"
        @choose="go({ month: $event })"
      /><template v-else>no month yet</template>.
    </h1>
    <h1 v-else-if="list && !list.length" class="sentence">No lookups yet.</h1>
    <DropPlace what="Drop a lookup here: a CSV whose first column is what it goes by, such as Tags/product, or JSON." @files="drop" />
    <TakenFiles />
    <ProblemNote v-if="problem" :problem="problem" :retry="load" />
    <div v-if="shown" class="columns">
      <section aria-label="Entries">
        <div class="headed">
          <h2 class="heading">{{ shown.name }}, by {{ dimensionLabel(shown.lookup.by) }}</h2>
          <span class="minor"
            >{{ count(shown.lookup.entries.length) }} entries, saved by {{ shown.who }}, {{ timeText(shown.savedAt) }}</span
          >
        </div>
        <p class="tools">
          <input v-model="text" class="field" type="search" placeholder="Find in it" aria-label="Find in the lookup" />
          <button class="link" @click="download('csv')">Download CSV</button>
          <button class="link" @click="download('json')">Download JSON</button>
          <button v-if="!dropped" class="link" @click="dropped = true">Delete</button>
          <template v-else
            ><span class="warn">Rules and pools that go by it will find nothing.</span>
            <button class="link bad" @click="remove">Delete it</button>
            <button class="link" @click="dropped = false">Cancel</button></template
          >
        </p>
        <div class="scroll entries" tabindex="0" role="group" aria-label="entries of the lookup">
          <table class="ledger" data-testid="entries">
            <thead>
              <tr>
                <th>{{ dimensionLabel(shown.lookup.by) }}</th>
                <th v-if="hasDays">days</th>
                <th v-for="field in shown.lookup.fields" :key="field">{{ field }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(entry, i) in entries.slice(0, MOST_SHOWN)" :key="i">
                <td>{{ entry.key }}<span v-if="entry.match" class="minor"> pattern</span></td>
                <td v-if="hasDays" class="minor days">
                  {{ entry.from ? `from ${dayText(entry.from)}` : '' }} {{ entry.until ? `until ${dayText(entry.until)}` : '' }}
                </td>
                <td v-for="field in shown.lookup.fields" :key="field">{{ entry.values[field] ?? '–' }}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-if="entries.length > MOST_SHOWN" class="minor">
          and {{ count(entries.length - MOST_SHOWN) }} more: find them, or download all
        </p>
      </section>
      <aside v-if="missed && month" class="margin">
        <section aria-label="Values that it does not know">
          <h2 class="heading">Not in it, with their money</h2>
          <p class="minor">{{ monthText(month) }}, effective cost</p>
          <table class="ledger" data-testid="unknown">
            <tbody>
              <tr v-for="one in missed.unknown" :key="`${one.value} ${one.currency}`">
                <td>
                  <NuxtLink class="link" :to="behind(one.value, one.currency)">{{ one.value }}</NuxtLink>
                </td>
                <td class="n">{{ money(one.amount, one.currency) }}</td>
                <td>{{ one.currency }}</td>
              </tr>
              <tr v-for="one in missed.without" :key="`none ${one.currency}`">
                <td>
                  <NuxtLink class="link" :to="behind(null, one.currency)">no {{ dimensionLabel(shown.lookup.by) }}</NuxtLink>
                </td>
                <td class="n">{{ money(one.amount, one.currency) }}</td>
                <td>{{ one.currency }}</td>
              </tr>
            </tbody>
          </table>
          <p v-if="!missed.unknown.length && !missed.without.length" class="good">Every charge of the month is in it.</p>
          <p v-if="missed.more" class="minor">and {{ count(missed.more) }} more values</p>
        </section>
        <section aria-label="Keys that no charge has">
          <h2 class="heading">In it, and on no charge</h2>
          <p v-if="missed.unused.length" data-testid="unused">
            {{ missed.unused.map(({ key }) => key).join(', ')
            }}<template v-if="missed.moreUnused"> and {{ count(missed.moreUnused) }} more</template>
          </p>
          <p v-else class="good">Every key is on some charge.</p>
        </section>
      </aside>
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 360px;
  gap: 22px;
}
.margin section {
  margin-bottom: 18px;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
  margin: 6px 0;
}
.entries {
  max-height: 480px;
  overflow: auto;
}
.days {
  white-space: nowrap;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
