<script setup lang="ts">
import { judgeTag, requiredTagScope, type JudgedTag, type RequiredTag } from '../../../core/spend/required-tags'
import { centreList } from '../../../shared/contracts/allocation'
import { requiredTags, referenceState } from '../../../shared/contracts/spend-settings'

/** Tags that usage must have: what fails, how it goes month by month, whose it is, and what it costs that nobody can be charged with. */
const { period, currency } = defineProps<{ period: { start: string; end: string }; currency: string }>()
const data = useData()
const { attempt, problem, busy } = useAttempt()
const tags = ref<RequiredTag[]>([])
const judged = ref<JudgedTag[]>([])
/** Names of cost centres by id. */
const centres = shallowRef(new Map<string, string>())
const opened = ref<string | null>(null)
const isMaking = ref(false)
/** Of values, sources and sub accounts one stands in a line: their names may have any sign in them. */
const nothing = { key: '', values: '', subAccounts: '', sources: '' }
const draft = reactive({ ...nothing })
/** The tag that is changed; null where another is required. */
const changing = ref<string | null>(null)
const sources = computed(() => data.facts?.sources.map(({ source }) => source) ?? [])

async function load() {
  const [{ body }, { centres: all }] = await Promise.all([
    client.get('spend/reference', referenceState),
    client.get('allocation/centres', centreList),
  ])
  tags.value = body.requiredTags
  centres.value = new Map(all.map(({ id, name }) => [id, name]))
  await judge()
}
async function judge() {
  if (!tags.value.length) return void (judged.value = [])
  const questions = tags.value.map(tag => ({
    ...requiredTagScope(tag),
    ...period,
    measure: 'effectiveCost' as const,
    grain: 'month' as const,
  }))
  const answers = await askAnswers(questions)
  judged.value = tags.value.map((tag, i) => judgeTag(answers[i]!.rows, tag, currency))
}
watch(
  () => [period.start, period.end, currency, data.facts?.revision],
  () => attempt(load),
  { immediate: true },
)
const save = (next: RequiredTag[]) =>
  attempt(async () => {
    tags.value = (await client.send('PUT', 'spend/required-tags', { tags: next }, requiredTags)).tags
    begin(null)
    isMaking.value = false
    await judge()
  })
const list = (text: string) => [...new Set(text.split('\n').map(one => one.trim()))].filter(Boolean)
const add = () => {
  const { key, values, subAccounts, sources: of } = draft
  const others = tags.value.filter(one => one.key !== changing.value && one.key !== key.trim())
  return save([...others, { key: key.trim(), sources: list(of), subAccounts: list(subAccounts), values: list(values) }])
}
/** Opens the form with what is required of a tag; with nothing for another one. */
function begin(tag: RequiredTag | null) {
  changing.value = tag?.key ?? null
  const lines = (of: string[]) => of.join('\n')
  if (!tag) Object.assign(draft, nothing)
  else Object.assign(draft, { key: tag.key, values: lines(tag.values), subAccounts: lines(tag.subAccounts), sources: lines(tag.sources) })
  isMaking.value = true
}
const where = ({ sources: of, subAccounts }: RequiredTag) =>
  [of.join(', '), subAccounts.join(', ')].filter(Boolean).join(' · ') || 'everywhere'
const rows = computed(() => tags.value.flatMap((tag, i) => (judged.value[i] ? [{ tag, own: judged.value[i] }] : [])))
const failingSteps = ({ steps }: JudgedTag) => steps.map(({ missing, wrong }) => addTexts([missing, wrong]))
/** Those charges in Spend: whatever has none of the values that it may have, or none at all. */
const inSpend = ({ key, sources: of, subAccounts, values }: RequiredTag) => ({
  path: '/spend',
  query: {
    by: 'ResourceName',
    from: period.start,
    to: period.end,
    in: currency,
    keep: [
      ...(values.length ? [] : [`Tags/${key}`]),
      'ChargeCategory=Usage',
      ...of.map(source => `Source=${source}`),
      ...subAccounts.map(account => `SubAccountName=${account}`),
    ],
    without: values.map(value => `Tags/${key}=${value}`),
  },
})
</script>

<template>
  <section aria-label="Required tags" class="required">
    <h2 class="heading">
      Required tags
      <button class="link" :aria-expanded="isMaking" @click="isMaking ? (isMaking = false) : begin(null)">
        {{ isMaking ? 'cancel' : 'Require a tag' }}
      </button>
    </h2>
    <ProblemNote v-if="problem" :problem="problem" />
    <form v-if="isMaking" class="inset fields" @submit.prevent="add">
      <label>tag <input v-model="draft.key" class="field" required maxlength="128" placeholder="owner" /></label>
      <label
        >allowed values, one per line
        <textarea v-model="draft.values" class="field wide" rows="3" placeholder="any" />
      </label>
      <label
        >sources, one per line
        <textarea
          v-model="draft.sources"
          class="field wide"
          rows="3"
          :placeholder="['every source, or', ...sources.slice(0, 2)].join('\n')"
        />
      </label>
      <label
        >sub accounts, one per line
        <textarea v-model="draft.subAccounts" class="field wide" rows="3" placeholder="every sub account" />
      </label>
      <button class="button main" :disabled="busy || !draft.key.trim()">Save</button>
    </form>
    <div v-if="rows.length" class="scroll" tabindex="0" role="group" aria-label="required tags">
      <table class="ledger">
        <thead>
          <tr>
            <th>tag</th>
            <th>required</th>
            <th>allowed</th>
            <th class="n">fails, {{ currency }}</th>
            <th class="n">of the cost</th>
            <th>by month</th>
            <th class="n">of it on no cost centre</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <template v-for="{ tag, own } in rows" :key="tag.key">
            <tr class="acts" :class="{ chosen: opened === tag.key }">
              <td>
                <button class="link" :aria-expanded="opened === tag.key" @click="opened = opened === tag.key ? null : tag.key">
                  {{ tag.key }}
                </button>
              </td>
              <td>{{ where(tag) }}</td>
              <td>{{ tag.values.length ? tag.values.slice(0, 4).join(', ') : 'anything' }}{{ tag.values.length > 4 ? ' …' : '' }}</td>
              <td class="n">
                <NuxtLink v-if="own.failing !== '0'" class="link" :to="inSpend(tag)">{{ money(own.failing, currency) }}</NuxtLink><template
                  v-else
                  >nothing</template
                >
              </td>
              <td class="n">{{ percent(own.failing, own.whole) }}</td>
              <td><SparkLine :amounts="failingSteps(own)" /></td>
              <td class="n" :class="{ warn: own.unplaced !== '0' }">{{ money(own.unplaced, currency) }}</td>
              <td class="n">
                <button class="link" :aria-label="`Change ${tag.key}`" @click="begin(tag)">Change</button>
                <button
                  class="link beside"
                  :aria-label="`Delete ${tag.key}`"
                  :disabled="busy"
                  @click="save(tags.filter(({ key }) => key !== tag.key))"
                >
                  Delete
                </button>
              </td>
            </tr>
            <tr v-if="opened === tag.key">
              <td colspan="8">
                <p v-if="own.wrongValues.length" class="note">
                  Values not allowed:
                  <template v-for="(one, i) in own.wrongValues.slice(0, 8)" :key="one.value"
                    >{{ i ? ', ' : '' }}«{{ one.value }}» {{ money(one.amount, currency) }}</template
                  >{{ own.wrongValues.length > 8 ? ' …' : '' }}
                </p>
                <table v-if="own.who.length" class="ledger" aria-label="who fails">
                  <thead>
                    <tr>
                      <th>cost centre</th>
                      <th>sub account</th>
                      <th class="n">without it</th>
                      <th class="n">with a wrong value</th>
                      <th class="n">together</th>
                    </tr>
                  </thead>
                  <tbody>
                    <tr v-for="one in own.who.slice(0, 12)" :key="`${one.centre} ${one.subAccount}`">
                      <td>{{ one.centre === null ? 'nobody’s' : (centres.get(one.centre) ?? one.centre) }}</td>
                      <td>{{ one.subAccount ?? 'none' }}</td>
                      <td class="n">{{ money(one.missing, currency) }}</td>
                      <td class="n">{{ money(one.wrong, currency) }}</td>
                      <td class="n">{{ money(one.failing, currency) }}</td>
                    </tr>
                  </tbody>
                </table>
                <p v-if="own.who.length > 12" class="note">{{ count(own.who.length - 12) }} more fail with less.</p>
              </td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>
    <p v-else-if="!busy && !isMaking" class="note">No tag is required yet.</p>
  </section>
</template>

<style scoped>
.required {
  margin: 8px 0 18px;
}
.heading {
  display: flex;
  gap: 14px;
  align-items: baseline;
}
.wide {
  width: 230px;
}
.beside {
  margin-left: 12px;
}
</style>
