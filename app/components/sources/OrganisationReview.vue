<script setup lang="ts">
import { namedTargets } from '../../../core/allocation/tree'
import type { ListDifference, TreeDifference } from '../../../core/allocation/plan-difference'

/** What a file of people, cost centres and rules would change, and what would move in each month, before it is taken. */
const emit = defineEmits<{ use: [] }>()
const store = useOrganisationFile()
const review = computed(() => store.review!)

type Line = { what: string; list: ListDifference }
const linesOf = ({ centres, pools, rules }: TreeDifference, of = ''): Line[] => [
  { what: `cost centres${of}`, list: centres },
  { what: `pools${of}`, list: pools },
  { what: `rules${of}`, list: rules },
]
const lines = computed(() =>
  [
    { what: 'people', list: review.value.people },
    ...linesOf(review.value.plan.tree),
    ...review.value.plan.trees.flatMap(tree => linesOf(tree, ` of «${tree.id}»`)),
  ].flatMap(({ what, list: { added, changed, removed } }) =>
    added.length || changed.length || removed.length
      ? [{ what, added, changed: changed.map(({ name, fields }) => `${name} (${fields.join(', ')})`), removed }]
      : [],
  ),
)
const isServed = computed(() => [review.value.plan.tree, ...review.value.plan.trees].some(tree => tree.serving))
const isMoved = computed(() => review.value.plan.tree.rules.moved || review.value.plan.trees.some(tree => tree.rules.moved))
const targets = computed(() => [review.value.file.plan, review.value.current.plan].flatMap(namedTargets))
</script>

<template>
  <FileReview
    label="Review of cost centres"
    :is-same="store.isSame"
    :problem="store.problem"
    :busy="store.busy"
    :months="store.months"
    :targets="targets"
    note="What is there now stays as an older version."
    @use="emit('use')"
    @leave="store.leave()"
    @again="store.again()"
  >
    <template #heading>«{{ review.name }}» beside version {{ review.current.version }}</template>
    <ChangedNames :lines="lines">
      <tr v-for="tree in review.plan.trees.filter(one => one.renamed)" :key="`name of ${tree.id}`">
        <td>tree «{{ tree.id }}»</td>
        <td colspan="3">It has another name.</td>
      </tr>
      <tr v-if="isServed">
        <td>serving</td>
        <td colspan="3">Pools that serve each other are settled otherwise.</td>
      </tr>
      <tr v-if="isMoved">
        <td>order</td>
        <td colspan="3">Rules stand in another order; the first match wins.</td>
      </tr>
    </ChangedNames>
    <template #below>
      <LeaveClosed v-if="store.months.closings.closed.length" v-model="store.leavesClosed" />
    </template>
  </FileReview>
</template>
