<script setup lang="ts">
import type { ListDifference, TreeDifference } from '../../../core/allocation/plan-difference'

/** What a file of people, cost centres and rules would change, and what would move in each month, before it is taken. */
const emit = defineEmits<{ use: [] }>()
const data = useData()
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
  ].filter(({ list }) => list.added.length || list.changed.length || list.removed.length),
)
const isServed = computed(() => [review.value.plan.tree, ...review.value.plan.trees].some(tree => tree.serving))
const isMoved = computed(() => review.value.plan.tree.rules.moved || review.value.plan.trees.some(tree => tree.rules.moved))
/** As many names as one reads. */
const named = (names: readonly string[]) =>
  names.slice(0, 12).join('; ') + (names.length > 12 ? ` and ${count(names.length - 12)} more` : '')

const centres = computed(() => [...review.value.file.plan.centres, ...review.value.current.plan.centres])
</script>

<template>
  <section class="review" aria-label="Review of cost centres">
    <h2 class="heading">«{{ review.name }}» beside version {{ review.current.version }}</h2>
    <ProblemNote v-if="store.problem" :problem="store.problem" :retry="store.again" />
    <p v-if="store.isSame" class="note">It says what is there already.</p>
    <table v-else class="ledger">
      <thead>
        <tr>
          <th />
          <th>added</th>
          <th>changed</th>
          <th>removed</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ what, list } in lines" :key="what">
          <td class="what">{{ what }}</td>
          <td>{{ named(list.added) || '–' }}</td>
          <td>{{ named(list.changed.map(({ name, fields }) => `${name} (${fields.join(', ')})`)) || '–' }}</td>
          <td :class="{ bad: list.removed.length }">{{ named(list.removed) || '–' }}</td>
        </tr>
        <tr v-for="tree in review.plan.trees.filter(one => one.renamed)" :key="`name of ${tree.id}`">
          <td class="what">tree «{{ tree.id }}»</td>
          <td colspan="3">It has another name.</td>
        </tr>
        <tr v-if="isServed">
          <td class="what">serving</td>
          <td colspan="3">Pools that serve each other are settled otherwise.</td>
        </tr>
        <tr v-if="isMoved">
          <td class="what">order</td>
          <td colspan="3">Rules stand in another order; the first match wins.</td>
        </tr>
      </tbody>
    </table>
    <template v-if="!store.isSame && data.facts?.lastDay">
      <h3 class="heading">What each cost centre would bear more or less, effective cost</h3>
      <ProblemNote v-if="store.months.problem" :problem="store.months.problem" />
      <MonthEffects
        v-if="store.months.left !== null"
        :effects="store.months.effects"
        :left="store.months.left"
        :centres="centres"
        :closings="store.months.closings"
      />
      <LeaveClosed v-if="store.months.closings.closed.length" v-model="store.leavesClosed" />
    </template>
    <p class="acts">
      <button v-if="!store.isSame" class="button main" :disabled="store.busy" @click="emit('use')">Use this file</button
      ><button class="button" @click="store.leave()">{{ store.isSame ? 'Close' : 'Discard it' }}</button
      ><span v-if="!store.isSame" class="minor">What is there now stays as an older version.</span>
    </p>
  </section>
</template>

<style scoped>
.review {
  background: var(--paper-raised);
  border: 1px solid var(--act);
  border-radius: 4px;
  padding: 10px 14px 12px;
  margin: 8px 0 12px;
}
.review .heading {
  margin: 2px 0 6px;
}
.review h3.heading {
  margin-top: 12px;
}
.review td {
  white-space: normal;
  vertical-align: top;
}
.what {
  white-space: nowrap;
  color: var(--ink-2);
}
.acts {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-top: 10px;
}
</style>
