<script setup lang="ts">
import { LATE_LOOKUP, lateRules, withLateOwners, type LateOwner } from '../../../core/allocation/drafting/late-owners'
import { namedTargets } from '../../../core/allocation/tree'
import { manyOf } from '../../../core/text/many-of'
import type { Lookup } from '../../../core/spend/lookup'
import { lookupList, lookupSaved, lookupState } from '../../../shared/contracts/spend-settings'

/** What was on nobody because a tag was set later: lookup entries from the resources' beginning on, with what they would move. */
const { month, currency } = defineProps<{ month: string; currency: string }>()
const allocation = useAllocation()
const { attempt, problem, busy } = useAttempt()
const effects = reactive(useMonthEffects())
const late = useLateOwners(
  computed(() => {
    const { question, draft, loading } = allocation
    return !question || draft || loading || question.month !== month ? null : { question, currency }
  }),
)
/** Those that are left out. */
const left = ref(new Set<string>())
watch(late.owners, () => {
  left.value = new Set()
  effects.stop()
})
const toggle = (target: string) => {
  const next = new Set(left.value)
  if (!next.delete(target)) next.add(target)
  left.value = next
  effects.stop()
}
const chosen = computed(() => late.owners.value.filter(({ target }) => !left.value.has(target)))
const words = ({ target, resources, amount }: LateOwner) =>
  `${manyOf(resources.length, 'resource')}, ${money(amount, currency)} ${currency}: on ${allocation.targetName(target)} since`

/** The lookup with these, and the version that it would replace. */
async function made(): Promise<{ lookup: Lookup; basedOn: number | undefined }> {
  const { lookups } = await client.get('lookups', lookupList)
  const isThere = lookups.some(({ name }) => name === LATE_LOOKUP)
  const known = isThere ? await client.get(`lookups/${encodeURIComponent(LATE_LOOKUP)}`, lookupState) : null
  if (known && known.lookup.by !== 'ResourceId')
    throw refusal(
      'Nothing was written',
      `A lookup «${LATE_LOOKUP}» goes by ${dimensionLabel(known.lookup.by)}: give it another name first.`,
    )
  return { lookup: withLateOwners(known?.lookup ?? null, allocation.treeId, toRaw(chosen.value)), basedOn: known?.version }
}
const newId = () => `rule-${crypto.randomUUID().slice(0, 8)}`
const rules = () => lateRules(allocation.plan!, allocation.treeId, chosen.value, newId)
const look = () =>
  attempt(async () => {
    const { lookup } = await made()
    const tree = toRaw(allocation.plan!)
    const plan = allocation.planWith({ ...tree, rules: [...tree.rules, ...rules()] })
    void effects.look(
      { plan, lookups: { [LATE_LOOKUP]: lookup } },
      { measure: allocation.question!.measure, tree: allocation.treeId ?? undefined },
    )
  })
const write = () =>
  attempt(async () => {
    const { lookup, basedOn } = await made()
    const more = rules()
    await client.send('PUT', `lookups/${encodeURIComponent(LATE_LOOKUP)}`, { ...lookup, basedOn }, lookupSaved)
    effects.stop()
    // rules that go by it are a draft: what they do shows before they are saved
    if (more.length) await allocation.addRules(more)
    else await allocation.again()
  })
</script>

<template>
  <div v-if="late.owners.value.length || late.problem.value" class="late" role="group" aria-label="Set late">
    <ProblemNote v-if="late.problem.value" :problem="late.problem.value" />
    <p>
      Some of it has an owner by now: a tag set later does not reach earlier charges. A lookup can assign these resources from their first
      day on.
    </p>
    <label v-for="one in late.owners.value" :key="one.target" class="choice">
      <input type="checkbox" :checked="!left.has(one.target)" @change="toggle(one.target)" />
      <span>{{ words(one) }}</span>
    </label>
    <p class="acts">
      <button class="link" :disabled="busy || !chosen.length" :aria-expanded="effects.left !== null" @click="look">
        What it would move
      </button>
      <button class="button" :disabled="busy || !chosen.length" @click="write">
        Write {{ manyOf(chosen.flatMap(one => one.resources).length, 'entry', 'entries') }}
      </button>
    </p>
    <ProblemNote v-if="problem" :problem="problem" />
    <MonthEffects v-if="effects.left !== null" :months="effects" :targets="namedTargets(allocation.plan!)" />
  </div>
</template>

<style scoped>
.late {
  border-left: 3px solid var(--act);
  padding: 2px 0 2px 10px;
  margin: 6px 0;
}
.late p {
  margin: 2px 0;
}
.choice {
  display: flex;
  gap: 6px;
  align-items: baseline;
}
.acts {
  display: flex;
  gap: 12px;
  align-items: center;
}
</style>
