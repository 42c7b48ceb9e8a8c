<script setup lang="ts">
const spend = useSpend()
const data = useData()
const actions = useSpendActions()
const view = computed(() => spend.view!)

const measures = [{ value: 'effectiveCost' as const, label: 'effective cost', note: 'purchases spread over their term' }, { value: 'billedCost' as const, label: 'billed cost', note: 'as invoiced' }]
const grains = [{ value: 'day' as const, label: 'day' }, { value: 'month' as const, label: 'month' }]
const dimensions = computed(() => {
  const columns = data.facts?.columns ?? []
  const ordered = [...usualDimensions.filter(d => columns.includes(d)), ...(data.facts?.tags ?? []), ...columns.filter(d => !usualDimensions.includes(d))]
  return ordered.map(value => ({ value, label: dimensionLabel(value) }))
})
const NOTHING = ''
const firstSplit = computed(() => [{ value: NOTHING, label: 'nothing' }, ...dimensions.value])
const secondSplit = computed(() => [{ value: NOTHING, label: 'nothing more' }, ...dimensions.value.filter(d => d.value !== view.value.splitBy[0])])
const split = (index: number, value: string) => {
  const next = [...view.value.splitBy]
  if (value === NOTHING) next.splice(index)
  else next[index] = value
  actions.go({ splitBy: next.filter((d, i) => next.indexOf(d) === i) })
}
const conditions = (list: 'keep' | 'leaveOut') => Object.entries(view.value[list]).flatMap(([dimension, values]) => values.map(value => ({ dimension, value })))
// a resource is kept by its id; where its name is known the Sentence says the name
const conditionText = (dimension: string, value: string | null) => {
  const row = spend.rows.find(r => view.value.splitBy.length === 1 && view.value.splitBy[0] === dimension && r.values[0] === value) ?? spend.columns.find(c => c.dimension === dimension)?.rows.find(r => r.values[0] === value)
  return `${dimensionLabel(dimension)} ${value === null ? 'none' : row?.label ?? value}`
}
</script>

<template>
  <h1 class="sentence">
    Show <SentenceChoice label="cost basis" :options="measures" :chosen="view.measure" :text="measures.find(m => m.value === view.measure)!.label" @choose="actions.go({ measure: $event })" />
    split by <SentenceChoice label="split by" :options="firstSplit" :chosen="view.splitBy[0] ?? NOTHING" :text="view.splitBy[0] ? dimensionLabel(view.splitBy[0]) : 'nothing'" @choose="split(0, $event)" /><template v-if="view.splitBy[0]">
      and <SentenceChoice label="and split by" :options="secondSplit" :chosen="view.splitBy[1] ?? NOTHING" :text="view.splitBy[1] ? dimensionLabel(view.splitBy[1]) : 'nothing more'" @choose="split(1, $event)" /></template>,
    each <SentenceChoice label="grain" :options="grains" :chosen="view.grain" :text="view.grain" @choose="actions.go({ grain: $event })" />,
    in <PeriodChoice v-if="data.facts?.lastDay" :period="view.period" :first-day="data.facts.firstDay!" :last-day="data.facts.lastDay" @choose="actions.go({ period: $event })" />
    <template v-for="({ dimension, value }, i) in conditions('keep')" :key="`k${dimension}${value}`">{{ i === 0 ? ', keeping' : ' or' }} <span class="condition"><span class="kept">{{ conditionText(dimension, value) }}</span><button class="drop" :aria-label="`no longer keep ${conditionText(dimension, value)}`" @click="actions.drop('keep', dimension, value)">×</button></span></template><template v-for="({ dimension, value }, i) in conditions('leaveOut')" :key="`l${dimension}${value}`">{{ i === 0 ? ', leaving out' : ' and' }} <span class="condition"><span class="kept">{{ conditionText(dimension, value) }}</span><button class="drop" :aria-label="`no longer leave out ${conditionText(dimension, value)}`" @click="actions.drop('leaveOut', dimension, value)">×</button></span></template>.
  </h1>
</template>

<style scoped>
.condition { white-space: nowrap; }
.kept { color: var(--ink); font-weight: 560; border-bottom: 1.5px solid var(--line-strong); }
</style>
