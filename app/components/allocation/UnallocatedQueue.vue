<script setup lang="ts">
import type { OwnerReason } from '../../../core/allocation/drafting/likely-owners'
import { centreDimension } from '../../../core/spend/dimension'
import { addMonths, monthEnd, monthStart } from '../../../core/time/day'
import type { UnallocatedGroup } from '../../../shared/contracts/allocation'

/** So many groups at the top are looked into. */
const MOST_REASONED = 12

/** What nobody owns, the largest first, each with its likeliest owner and why; accepted ones become rules of the draft. */
const props = defineProps<{ currency: string; month: string }>()
const emit = defineEmits<{ rule: [UnallocatedGroup] }>()
const allocation = useAllocation()
const isFixed = computed(() => allocation.closed !== null && !allocation.draft)
const all = computed(() => allocation.settled!.unallocated.filter(g => g.currency === props.currency))
const most = ref(6)
const shown = computed(() => all.value.slice(0, most.value))
/** What the smaller groups of a closed month were kept as: one without a name. */
const isRest = ({ values, pool }: UnallocatedGroup) => !pool && !Object.keys(values).length
const reasoned = computed(() => shown.value.filter(group => !group.pool && !isRest(group)).slice(0, MOST_REASONED))
const { owners, problem } = useLikelyOwners(
  computed(() => {
    const { plan, question } = allocation
    // figures that are on their way out are not looked at
    if (!plan || !question || allocation.loading || question.month !== props.month) return null
    return { groups: reasoned.value, tree: plan, question, currency: props.currency }
  }),
)
const likeliest = computed(() => new Map(reasoned.value.map((group, at) => [group, owners.value[at]?.[0] ?? null])))
const likely = (group: UnallocatedGroup) => likeliest.value.get(group) ?? null
const reasonWords = (reason: OwnerReason): string => {
  const share = 'share' in reason ? ratioText(reason.share) : ''
  if (reason.kind === 'spelling') return `“${reason.value}” looks like “${reason.looksLike}”`
  if (reason.kind === 'neighbours') return `${share} of what is allocated in ${reason.value}`
  if (reason.kind === 'container') return `${share} of what else is in ${reason.path ?? `its ${count(reason.containers)} containers`}`
  if (reason.kind === 'maker')
    return `${reason.by} made ${reason.made === 1 ? 'it' : count(reason.made)}, and ${share} of what else they made is there`
  if (reason.kind === 'attached')
    return `made by ${reason.to === 1 ? 'a resource' : `${count(reason.to)} resources`} of which ${share} is there`
  return `${share} of what bore ${reason.names === 1 ? 'its name' : `its ${count(reason.names)} names`} in ${monthText(addMonths(props.month, -1))}`
}
/** Groups that are to be accepted together. */
const ticked = ref(new Set<UnallocatedGroup>())
watch(all, () => {
  ticked.value = new Set()
})
const tick = (group: UnallocatedGroup) => {
  const next = new Set(ticked.value)
  if (!next.delete(group)) next.add(group)
  ticked.value = next
}
const accept = (groups: readonly UnallocatedGroup[]) =>
  allocation.acceptOwners(groups.flatMap(group => (likely(group) ? [{ group, target: likely(group)!.target }] : [])))
/** What a group is called: by the first tag that it has, else by its account. */
const calledBy = ({ values }: UnallocatedGroup) =>
  Object.keys(values).find(dimension => dimension.startsWith('Tags/') && values[dimension] !== null) ?? 'SubAccountName'
const title = (group: UnallocatedGroup) => {
  const dimension = calledBy(group)
  const value = group.values[dimension]
  return value && dimension.startsWith('Tags/') ? `${dimension.slice(5)} “${value}”` : valueLabel(dimension, value ?? null)
}
/** What else it has, and which tags it lacks. */
const where = (group: UnallocatedGroup) => {
  const others = Object.entries(group.values).filter(([dimension]) => dimension !== calledBy(group))
  const said = others.flatMap(([dimension, value]) => {
    if (value === null) return dimension.startsWith('Tags/') ? [valueLabel(dimension, null)] : []
    return [dimension === 'SubAccountName' ? value : `${dimensionLabel(dimension)} ${value}`]
  })
  const much = group.resources
    ? `${count(group.resources)} ${group.resources === 1 ? 'resource' : 'resources'}`
    : `${count(group.count)} charges`
  return [...said, much].join(' · ')
}
/** Its charges in Spend, over the billing periods of the month; what a draft leaves over may be on somebody as it is saved. */
const link = (group: UnallocatedGroup) => {
  const keep = Object.fromEntries(Object.entries(group.values).map(([dimension, value]) => [dimension, [value]]))
  const query = writeSentence({
    ...readSentence({}),
    ...{ measure: allocation.question!.measure, splitBy: ['ResourceId'], basis: 'billing', currency: props.currency },
    keep: allocation.draft ? keep : { ...keep, [centreDimension(allocation.treeId)]: [null] },
    period: { start: monthStart(props.month), end: monthEnd(props.month) },
  })
  return { path: '/spend', query }
}
</script>

<template>
  <section aria-label="Unallocated queue">
    <div class="headed">
      <h2 class="heading">Unallocated, largest first</h2>
      <span class="minor">{{ money(allocation.proofOf(currency)!.unallocated, currency) }} {{ currency }}</span>
    </div>
    <p v-if="!all.length" class="good">Every charge of the month has an owner.</p>
    <UnallocatedProgress :currency="currency" />
    <p v-if="problem" class="warn">Likely owners could not be worked out: {{ problem.detail }}</p>
    <LateOwners v-if="!isFixed && all.length" :month="month" :currency="currency" />
    <ul class="queue">
      <li v-for="(group, index) in shown" :key="index">
        <template v-if="group.pool">
          <div class="line">
            <span class="name">{{ group.pool.name }}, a pool that is not divided</span
            ><span class="amount">{{ money(group.amount, currency) }}</span>
          </div>
          <div class="warn">{{ group.pool.why }}</div>
        </template>
        <template v-else>
          <div class="line">
            <span v-if="isRest(group)" class="name">all smaller groups</span
            ><NuxtLink v-else :to="link(group)" class="name">{{ title(group) }}</NuxtLink
            ><span class="amount">{{ money(group.amount, currency) }}</span
            ><button v-if="!isFixed" class="link" @click="emit('rule', group)">make a rule</button>
          </div>
          <div class="minor">{{ where(group) }}</div>
          <div v-if="likely(group)" class="likely">
            <input
              v-if="!isFixed"
              type="checkbox"
              :checked="ticked.has(group)"
              :aria-label="`accept ${allocation.targetName(likely(group)!.target)} for ${title(group)}`"
              @change="tick(group)"
            />
            <span
              >likely <b>{{ allocation.targetName(likely(group)!.target) }}</b>, {{ ratioText(likely(group)!.weight) }}:
              <span class="minor">{{ likely(group)!.reasons.map(reasonWords).join('; ') }}</span></span
            >
            <button v-if="!isFixed" class="link" @click="accept([group])">accept</button>
          </div>
        </template>
      </li>
    </ul>
    <button v-if="ticked.size" class="button main" @click="accept([...ticked])">
      Accept {{ count(ticked.size) }} {{ ticked.size === 1 ? 'owner' : 'owners' }}
    </button>
    <button v-if="all.length > most" class="link" @click="most = all.length">show the other {{ all.length - most }}</button>
  </section>
</template>

<style scoped>
.queue {
  list-style: none;
  padding: 0;
}
.queue li {
  padding: 5px 0;
  border-bottom: 1px solid var(--line);
}
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 12px;
  align-items: center;
}
.likely {
  display: flex;
  gap: 6px;
  align-items: baseline;
}
.likely .link {
  margin-left: auto;
}
.name {
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
  min-height: 24px;
}
.name:hover {
  color: var(--act);
  text-decoration: underline;
}
</style>
