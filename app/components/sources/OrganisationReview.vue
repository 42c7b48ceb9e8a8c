<script setup lang="ts">
import type { ListDifference, TreeDifference } from '../../../core/allocation/plan-difference'

/** What a file of people, cost centres and rules would change, and what would move in each month, before it is taken. */
const emit = defineEmits<{ taken: [name: string, said: string] }>()
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
const isMoved = computed(() => review.value.plan.tree.rules.moved || review.value.plan.trees.some(tree => tree.rules.moved))
/** As many names as one reads. */
const named = (names: readonly string[]) =>
  names.slice(0, 12).join('; ') + (names.length > 12 ? ` and ${count(names.length - 12)} more` : '')

const nameOf = (centre: string | null) => {
  if (centre === null) return 'unallocated'
  const { file, current } = review.value
  return [...file.plan.centres, ...current.plan.centres].find(({ id }) => id === centre)?.name ?? centre
}
/** Centres down, months across: what each bears more or less. */
const moved = computed(() => {
  const rows = new Map<string, { centre: string | null; currency: string; byMonth: Map<string, string> }>()
  for (const { month, effects } of store.effects) {
    for (const { centre, currency, difference } of effects) {
      const key = JSON.stringify([centre, currency])
      const row = rows.get(key) ?? { centre, currency, byMonth: new Map<string, string>() }
      row.byMonth.set(month, difference)
      rows.set(key, row)
    }
  }
  return [...rows.values()]
})
const monthsMoved = computed(() => store.effects.filter(({ effects }) => effects.length).map(({ month }) => month))

async function take() {
  const { name } = review.value
  const said = await store.take()
  if (said === null) return
  await data.load()
  emit('taken', name, said)
}
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
          <th scope="row">{{ what }}</th>
          <td>{{ named(list.added) || '–' }}</td>
          <td>{{ named(list.changed.map(({ name, fields }) => `${name} (${fields.join(', ')})`)) || '–' }}</td>
          <td :class="{ bad: list.removed.length }">{{ named(list.removed) || '–' }}</td>
        </tr>
        <tr v-if="isMoved">
          <th scope="row">order</th>
          <td colspan="3">Rules stand in another order; the first match wins.</td>
        </tr>
      </tbody>
    </table>
    <template v-if="!store.isSame && data.facts?.lastDay">
      <h3 class="heading">What each cost centre would bear more or less, effective cost</h3>
      <p v-if="store.left" class="minor" role="status">
        {{ count(store.left) }} {{ store.left === 1 ? 'month' : 'months' }} left to reckon
      </p>
      <p v-else-if="!moved.length" class="note">Nothing moves in any month.</p>
      <div v-if="moved.length" class="scroll" tabindex="0" role="group" aria-label="effects by month">
        <table class="ledger" data-testid="effects">
          <thead>
            <tr>
              <th>cost centre</th>
              <th v-for="month in monthsMoved" :key="month" class="n">{{ monthText(month) }}</th>
              <th>currency</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in moved" :key="`${row.centre} ${row.currency}`">
              <td>{{ nameOf(row.centre) }}</td>
              <td v-for="month in monthsMoved" :key="month" class="n">{{ signedMoney(row.byMonth.get(month) ?? '0', row.currency) }}</td>
              <td>{{ row.currency }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
    <p class="acts">
      <button v-if="!store.isSame" class="button main" :disabled="store.busy" @click="take">Use this file</button
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
.acts {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-top: 10px;
}
</style>
