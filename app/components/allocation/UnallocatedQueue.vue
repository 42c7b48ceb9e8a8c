<script setup lang="ts">
import type { UnallocatedGroup } from '../../../shared/contracts/allocation'

const props = defineProps<{ currency: string; month: string }>()
const emit = defineEmits<{ rule: [UnallocatedGroup] }>()
const allocation = useAllocation()
const all = computed(() => allocation.settled!.unallocated.filter(g => g.currency === props.currency))
const most = ref(6)
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
const link = (group: UnallocatedGroup) => {
  const start = `${props.month}-01`
  const next = new Date(Date.UTC(Number(props.month.slice(0, 4)), Number(props.month.slice(5)), 1)).toISOString().slice(0, 10)
  return {
    path: '/spend',
    query: {
      cost: allocation.question?.measure === 'billedCost' ? 'billed' : undefined,
      from: start,
      to: next,
      by: 'ResourceId',
      currency: props.currency,
      keep: Object.entries(group.values).map(([d, v]) => (v === null ? d : `${d}=${v}`)),
    },
  }
}
</script>

<template>
  <section aria-label="Unallocated queue">
    <div class="top">
      <h2 class="heading">Unallocated, largest first</h2>
      <span class="minor">{{ money(allocation.proofOf(currency)!.unallocated, currency) }} {{ currency }}</span>
    </div>
    <p v-if="!all.length" class="good">Every charge of the month has an owner.</p>
    <ul class="queue">
      <li v-for="(group, index) in all.slice(0, most)" :key="index">
        <div class="line">
          <NuxtLink :to="link(group)" class="name">{{ title(group) }}</NuxtLink><span class="amount">{{
            money(group.amount, currency)
          }}</span
          ><button class="link" @click="emit('rule', group)">make a rule</button>
        </div>
        <div class="minor">{{ where(group) }}</div>
      </li>
    </ul>
    <button v-if="all.length > most" class="link" @click="most = all.length">show the other {{ all.length - most }}</button>
  </section>
</template>

<style scoped>
.top {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
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
