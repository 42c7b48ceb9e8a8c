<script setup lang="ts">
import { mainTotal } from '../../../core/money/main-total'
import { namedObject } from '../../../core/text/named'
import { tagSums, valueSums, type TagSums } from '../../../core/spend/tag-sums'
import { grainStarts } from '../../../core/time/grain'
import { firstSeen, tagDays } from '../../../shared/contracts/spend'
import { referenceState } from '../../../shared/contracts/spend-settings'

/** Tags: which keys there are and since when, how much cost has them day by day, and one value's spellings side by side. */
const data = useData()
const session = useSession()
useHead({ title: 'Tags · Rain Barrel' })
const { attempt, problem, busy } = useAttempt()
const period = ref<Sentence['period']>('last-90')
const days = computed(() => data.days)
const now = computed(() => days.value && reachingPeriod({ period: period.value }, days.value))
type Key = TagSums & { key: string; firstDay: string | null; inheritable: boolean }
const keys = ref<Key[]>([])
const chosen = ref('')
const currency = ref('EUR')
const byDay = ref<{ starts: string[]; tagged: string[]; missing: string[]; early: string[] } | null>(null)
const values = ref<{ value: string; amount: string }[]>([])
const aliases = ref<Record<string, string>>({})

async function load() {
  if (!now.value || !data.facts) return
  const names = data.facts.tags
  const questions = names.map(name => ({
    measure: 'effectiveCost' as const,
    grain: null,
    ...now.value!,
    splitBy: [name, `TagsFrom/${name.slice(5)}`],
    keep: { ChargeCategory: ['Usage'] },
  }))
  const [answers, { tags }] = await Promise.all([
    questions.length ? askAnswers(questions) : [],
    names.length ? client.send('POST', 'spend/tags/first-seen', { keys: names.map(name => name.slice(5)) }, firstSeen) : { tags: [] },
  ])
  currency.value = mainTotal(answers[0]?.totals ?? [], data.facts?.reportCurrency ?? null)?.currency ?? 'EUR'
  keys.value = names
    .map((name, i): Key => {
      const key = name.slice(5)
      return {
        key,
        firstDay: tags.find(t => t.key === key)?.firstDay ?? null,
        inheritable: data.facts!.inherited.includes(key),
        ...tagSums(answers[i]!.rows, key, currency.value),
      }
    })
    .sort((a, b) => covered(b) - covered(a))
  if (!keys.value.some(k => k.key === chosen.value)) chosen.value = keys.value[0]?.key ?? ''
  await loadKey()
}

async function loadKey() {
  const key = keys.value.find(k => k.key === chosen.value)
  if (!key || !now.value) return
  const name = `Tags/${key.key}`
  const common = { ...now.value, keep: { ChargeCategory: ['Usage'] } }
  await session.load()
  const [{ days: daily }, [all], reference] = await Promise.all([
    client.send('POST', 'spend/tags/coverage', { ...common, key: key.key }, tagDays),
    askAnswers([{ ...common, measure: 'effectiveCost', start: days.value!.firstDay, splitBy: [name], grain: null }]),
    session.seesAll ? client.get('spend/reference', referenceState) : null,
  ])
  const starts = grainStarts(now.value.start, now.value.end, 'day')
  const own = new Map(daily.filter(day => day.currency === currency.value).map(day => [day.start, day]))
  const list = (which: 'tagged' | 'missing' | 'early') => starts.map(start => own.get(start)?.[which] ?? '0')
  byDay.value = { starts, tagged: list('tagged'), missing: list('missing'), early: list('early') }
  values.value = valueSums(all!.rows, name, currency.value)
  const known = reference?.body.aliases ?? {}
  aliases.value = namedObject(Object.hasOwn(known, name) ? known[name] : {})
}
watch(
  () => [now.value?.start, now.value?.end, data.facts?.revision],
  () => attempt(load),
  { immediate: true },
)
watch(chosen, () => attempt(loadKey))

const covered = ({ tagged, inherited }: Key) => Number(tagged) + Number(inherited)
const share = (part: string, { whole }: Key) => percent(part, whole)
const width = (part: string, { whole }: Key) => `${Number(whole) ? Math.max(0, (Number(part) / Number(whole)) * 100) : 0}%`
/** What counts as one has changed: all figures are asked for anew. */
async function changed() {
  await data.load()
  await load()
}
</script>

<template>
  <div class="page">
    <PlaceNav place="Spend" />
    <h1 class="sentence">
      Tags on usage, in <PeriodChoice v-if="days" :period="period" :days="days" @choose="period = $event" />, in {{ currency }}
    </h1>
    <ProblemNote v-if="problem" :problem="problem" :retry="() => attempt(load)" />
    <NothingLoaded v-if="data.facts && !days" missing="charges" />
    <p v-else-if="!keys.length" class="note">
      {{
        busy || !data.facts
          ? 'Reading…'
          : 'No charge has a tag. Bills bring tags in the column Tags; a mapping takes them from columns of any name.'
      }}
    </p>
    <RequiredTags v-if="now && session.seesAll && keys.length" :period="now" :currency="currency" />
    <div v-if="keys.length" class="columns">
      <section aria-label="Tag keys">
        <table class="ledger">
          <thead>
            <tr>
              <th>tag</th>
              <th>first seen</th>
              <th class="n">values</th>
              <th>share of cost</th>
              <th class="n">own</th>
              <th class="n">inherited</th>
              <th class="n">without</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="key in keys" :key="key.key" class="acts" :class="{ chosen: key.key === chosen }">
              <td>
                <button class="link" :aria-pressed="key.key === chosen" @click="chosen = key.key">{{ key.key }}</button>
              </td>
              <td>{{ key.firstDay ? dayText(key.firstDay) : 'never, only inherited' }}</td>
              <td class="n">{{ key.values }}</td>
              <td class="bar" :aria-label="`${share(key.tagged, key)} own, ${share(key.inherited, key)} inherited`">
                <span class="own" :style="{ width: width(key.tagged, key) }" /><span
                  class="inherited"
                  :style="{ width: width(key.inherited, key) }"
                /><span class="without" :style="{ width: width(key.untagged, key) }" />
              </td>
              <td class="n">{{ share(key.tagged, key) }}</td>
              <td class="n">{{ key.inheritable ? share(key.inherited, key) : '–' }}</td>
              <td class="n">
                <NuxtLink
                  class="link"
                  :to="{
                    path: '/spend',
                    query: {
                      by: 'SubAccountName',
                      keep: [`Tags/${key.key}`, 'ChargeCategory=Usage'],
                      ...(typeof period === 'string' ? { period } : { from: period.start, to: period.end }),
                    },
                  }"
                  >{{ share(key.untagged, key) }}</NuxtLink
                >
              </td>
            </tr>
          </tbody>
        </table>
        <h2 class="heading">Cost with the {{ chosen }} tag, day by day</h2>
        <TimeBars
          v-if="byDay"
          :label="`cost with and without the ${chosen} tag`"
          :starts="byDay.starts"
          grain="day"
          :unit="currency"
          :height="120"
          stacked
          :series="[
            { name: 'tagged', amounts: byDay.tagged },
            { name: 'missing', amounts: byDay.missing, look: 'missing' },
            { name: 'not yet reported', amounts: byDay.early, look: 'without' },
          ]"
        />
      </section>
      <TagSpellings :key="chosen" :tag="chosen" :currency="currency" :values="values" :aliases="aliases" @changed="attempt(changed)" />
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr);
  gap: 30px;
}
.heading {
  margin: 16px 0 4px;
}
.bar {
  width: 150px;
  white-space: nowrap;
  font-size: 0;
}
.bar span {
  display: inline-block;
  height: 10px;
}
.own {
  background: var(--act);
}
.inherited {
  background: var(--c4);
}
.without {
  background: var(--hatch);
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
