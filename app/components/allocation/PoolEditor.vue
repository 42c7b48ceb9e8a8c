<script setup lang="ts">
import { dividedBy, poolTitles, type Among, type Pool } from '../../../core/allocation/pools'
import { usesOf } from '../../../core/allocation/tree-edits'
import { measureList } from '../../../shared/contracts/measures'
import { lookupList } from '../../../shared/contracts/spend-settings'

/** A pool as it is written: how it is divided, among whom, who answers for it. */
const props = defineProps<{ pool: Pool; currency: string }>()
const emit = defineEmits<{ close: [] }>()
const allocation = useAllocation()
const session = useSession()
const known = useRuleValues()
const set = (more: object) => allocation.setPool({ ...toRaw(props.pool), ...more } as Pool)
/** Another way to divide; what the pool is called, who answers and among whom stays. */
const divide = (method: Pool['method']) => allocation.setPool(dividedBy(toRaw(props.pool), method, lookups.value, measures.value))
const amongWays: { value: Among['of'] | ''; label: string }[] = [
  { value: '', label: 'those with a base' },
  { value: 'everyone', label: 'everyone' },
  { value: 'with cost', label: 'those with cost of their own' },
  { value: 'subtree', label: 'a cost centre and all below it' },
  { value: 'list', label: 'cost centres by name' },
]
function amongWhom(of: Among['of'] | '') {
  const first = allocation.tree.find(one => one.depth > 0)?.id ?? allocation.tree[0]!.id
  const among: Among | undefined =
    of === '' ? undefined : of === 'subtree' ? { of, centre: first } : of === 'list' ? { of, centres: [first] } : { of }
  set({ among })
}
const toggle = (centre: string) => {
  const { among } = props.pool
  if (among?.of !== 'list') return
  const centres = among.centres.includes(centre) ? among.centres.filter(one => one !== centre) : [...among.centres, centre]
  set({ among: { of: 'list', centres } })
}
/** Cost centres and other pools, which can bear a fixed share. */
const bearers = computed(() => [
  ...allocation.tree.map(({ id, name, depth }) => ({ value: id, label: `${'\u2003'.repeat(depth)}${name}` })),
  ...allocation.plan!.pools.filter(({ id }) => id !== props.pool.id).map(({ id, name }) => ({ value: id, label: `${name} (pool)` })),
])
const shares = computed(() => ('shares' in props.pool ? props.pool.shares : {}))
function share(target: string, text: string) {
  const others = Object.entries(shares.value).filter(([one]) => one !== target)
  const own = text.trim().replace(',', '.')
  set({ shares: Object.fromEntries(own ? [...others, [target, own]] : others) })
}
const centreOptions = computed(() => bearers.value.filter(({ label }) => !label.endsWith('(pool)')))
watch(
  () => props.pool.method,
  method => method === 'direct cost' && known.learn(['ServiceName']),
  { immediate: true },
)
const services = computed(() =>
  (known.byDimension.ServiceName ?? []).flatMap(row => (row.values[0] === null ? [] : [{ value: row.values[0]!, label: row.label }])),
)
const chosenServices = computed(() => ('services' in props.pool ? (props.pool.services ?? []) : []))
const tickService = (name: string) => {
  const next = chosenServices.value.includes(name) ? chosenServices.value.filter(one => one !== name) : [...chosenServices.value, name]
  set({ services: next.length ? next : undefined })
}
const lookups = shallowRef<{ name: string; fields: string[] }[]>([])
/** Business measures of the tree that is shown. */
const measures = shallowRef<string[]>([])
const { attempt, problem } = useAttempt()
onMounted(() =>
  attempt(async () => {
    const [known, counted] = await Promise.all([client.get('lookups', lookupList), client.get('measures', measureList)])
    lookups.value = known.lookups
    measures.value = counted.measures.filter(({ tree }) => tree === allocation.treeId).map(({ name }) => name)
  }),
)
const fieldsOf = (lookup: string) => lookups.value.find(({ name }) => name === lookup)?.fields ?? []
const uses = computed(() => usesOf(allocation.plan!, props.pool.id))
async function remove() {
  emit('close')
  await allocation.removePool(props.pool.id)
}
</script>

<template>
  <div class="inset" role="group" :aria-label="`Pool ${pool.name}`">
    <div class="row">
      <label>name <input class="field" :value="pool.name" @change="set({ name: ($event.target as HTMLInputElement).value })" /></label>
      <label
        >owner
        <select class="field" :value="pool.owner ?? ''" @change="set({ owner: ($event.target as HTMLSelectElement).value || null })">
          <option value="">nobody yet</option>
          <option v-for="person in session.people" :key="person.id" :value="person.id">{{ person.name }}</option>
        </select></label
      >
    </div>
    <div class="row">
      <label
        >divided
        <select class="field" :value="pool.method" @change="divide(($event.target as HTMLSelectElement).value as Pool['method'])">
          <option v-for="one in poolTitles" :key="one.method" :value="one.method">{{ one.title }}</option>
        </select></label
      >
      <label v-if="pool.method !== 'shares'"
        >among
        <select
          class="field"
          :value="pool.among?.of ?? ''"
          @change="amongWhom(($event.target as HTMLSelectElement).value as Among['of'] | '')"
        >
          <option v-for="one in amongWays" :key="one.value" :value="one.value">{{ one.label }}</option>
        </select></label
      >
      <label v-if="pool.among?.of === 'subtree'"
        ><span class="sr-only">cost centre</span>
        <select
          class="field"
          :value="pool.among.centre"
          @change="set({ among: { of: 'subtree', centre: ($event.target as HTMLSelectElement).value } })"
        >
          <option v-for="one in centreOptions" :key="one.value" :value="one.value">{{ one.label }}</option>
        </select></label
      >
      <UPopover v-if="pool.among?.of === 'list'">
        <button class="control">{{ pool.among.centres.map(allocation.targetName).join(', ') || 'choose cost centres …' }}</button>
        <template #content
          ><OptionList :options="centreOptions" :several="pool.among.centres" label="cost centres" @choose="toggle"
        /></template>
      </UPopover>
    </div>
    <div v-if="pool.method === 'direct cost'" class="row">
      <span class="minor">cost of</span>
      <UPopover>
        <button class="control">{{ chosenServices.join(', ') || 'all services' }}</button>
        <template #content><OptionList :options="services" :several="chosenServices" label="services" @choose="tickService" /></template>
      </UPopover>
    </div>
    <div v-if="pool.method === 'quantity'" class="row">
      <label
        >measured
        <select class="field" :value="pool.measure" @change="set({ measure: ($event.target as HTMLSelectElement).value })">
          <option value="consumedQuantity">consumed quantity</option>
          <option value="pricingQuantity">pricing quantity</option>
        </select></label
      >
      <label>unit <input class="field" :value="pool.unit" @change="set({ unit: ($event.target as HTMLInputElement).value })" /></label>
    </div>
    <ConditionList v-if="pool.method === 'quantity'" :conditions="pool.conditions" :least="0" @change="set({ conditions: $event })" />
    <div v-if="pool.method === 'measure'" class="row">
      <label
        >business measure
        <select class="field" :value="pool.measure" @change="set({ measure: ($event.target as HTMLSelectElement).value })">
          <option v-for="one in measures" :key="one" :value="one">{{ one }}</option>
        </select></label
      >
      <ProblemNote v-if="problem" :problem="problem" />
      <span v-else-if="!measures.length" class="warn">There is no business measure of this tree yet.</span>
    </div>
    <div v-if="pool.method === 'lookup'" class="row">
      <label
        >lookup
        <select class="field" :value="pool.lookup" @change="set({ lookup: ($event.target as HTMLSelectElement).value })">
          <option v-for="one in lookups" :key="one.name" :value="one.name">{{ one.name }}</option>
        </select></label
      >
      <label
        >field
        <select class="field" :value="pool.field" @change="set({ field: ($event.target as HTMLSelectElement).value })">
          <option v-for="one in fieldsOf(pool.lookup)" :key="one" :value="one">{{ one }}</option>
        </select></label
      >
      <ProblemNote v-if="problem" :problem="problem" />
      <span v-else-if="!lookups.length" class="warn">There is no lookup yet.</span>
    </div>
    <div v-if="pool.method === 'shares'" class="shares">
      <label v-for="one in bearers" :key="one.value"
        ><span>{{ one.label }}</span>
        <input
          class="field n"
          inputmode="decimal"
          :aria-label="`share of ${one.label.trim()}`"
          :value="shares[one.value] ?? ''"
          @change="share(one.value, ($event.target as HTMLInputElement).value)"
      /></label>
    </div>
    <div class="row">
      <button class="button" @click="emit('close')">Done</button>
      <button class="link" :disabled="uses.length > 0" @click="remove">Delete the pool</button>
      <span v-if="uses.length" class="minor">It is used by {{ uses.join(', ') }}.</span>
    </div>
  </div>
</template>

<style scoped>
.shares {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 2px 18px;
  margin: 6px 0;
}
.shares label {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  align-items: center;
}
.shares .field {
  width: 70px;
}
</style>
