<script setup lang="ts">
import { grains } from '../../../core/time/grain'
import { measures } from '../../../core/spend/question'
import { MOST_SPLITS } from '../../../core/spend/sentence'

/** What is being looked at, in words; every underlined part is a choice, and the whole is the address. */
const spend = useSpend()
const data = useData()
const actions = useSpendActions()
const sentence = computed(() => spend.sentence!)

const measureOptions = measures.map(value => ({ value, label: measureNames[value], note: measureNotes[value] }))
const grainOptions = computed(() =>
  grains
    .filter(g => g !== 'hour' || data.facts?.hourly)
    .map(value => ({ value, label: value, ...(value === 'hour' && { note: 'where charges are by the hour' }) })),
)
const basisOptions = [
  { value: 'charge' as const, label: 'by charge period', note: 'when it was used' },
  { value: 'billing' as const, label: 'by billing period', note: 'when it was billed, as on invoices' },
]
const NOTHING = ''
const split = (index: number, value: string) => {
  const next = [...sentence.value.splitBy]
  if (value === NOTHING) next.splice(index)
  else next[index] = value
  actions.go({ splitBy: next.filter((d, i) => next.indexOf(d) === i) })
}
const splits = computed(() => (sentence.value.splitBy.length < MOST_SPLITS ? [...sentence.value.splitBy, null] : sentence.value.splitBy))
const reportOptions = computed(() => [
  { value: NOTHING, label: 'as billed' },
  ...(data.facts?.currencies ?? []).map(value => ({ value, label: `in ${value}`, note: 'at each day’s rate' })),
])

/** Conditions of one list, a group for each dimension: `keeping team tag booking or none`. */
const groups = (list: 'keep' | 'leaveOut') => Object.entries(sentence.value[list]).map(([dimension, values]) => ({ dimension, values }))
// a resource is kept by its id; where its name is known the Sentence says the name
const valueText = (dimension: string, value: string | null) => {
  if (value === null) return 'none'
  const row =
    (sentence.value.splitBy.length === 1 && sentence.value.splitBy[0] === dimension ? spend.rows.find(r => r.values[0] === value) : null) ??
    spend.columns.find(c => c.dimension === dimension)?.rows.find(r => r.values[0] === value)
  return row?.label ?? value
}
const adding = ref(false)
const editing = ref<string | null>(null)
useSingleKey(
  '/',
  () => {
    adding.value = true
  },
  'add a condition',
)
</script>

<template>
  <h1 class="sentence">
    Show
    <SentenceChoice
      label="measure"
      :options="measureOptions"
      :chosen="sentence.measure"
      :text="measureNames[sentence.measure]"
      @choose="actions.go({ measure: $event, currency: null })"
    /><template v-if="(data.facts?.currencies.length ?? 0) > 1 && spend.isMoney"
      >{{ ' '
      }}<SentenceChoice
        label="currency"
        :options="reportOptions"
        :chosen="sentence.reportCurrency ?? NOTHING"
        :text="sentence.reportCurrency ? `in ${sentence.reportCurrency}` : 'as billed'"
        @choose="actions.go({ reportCurrency: $event || null, currency: null })" /></template
    >, split by
    <template v-for="(dimension, i) in splits" :key="i"
      ><template v-if="i > 0 && dimension"> and </template><template v-else-if="i > 0">{{ ' ' }}</template
      ><DimensionChoice
        :chosen="dimension ?? NOTHING"
        :label="i === 0 ? 'split by' : `and split by, ${i + 1}`"
        :text="dimension ? dimensionLabel(dimension) : i === 0 ? 'nothing' : 'and …'"
        :first="[{ value: NOTHING, label: i === 0 ? 'nothing' : 'nothing more' }]"
        :without="sentence.splitBy.filter(d => d !== dimension)"
        @choose="split(i, $event)" /></template
    >, each
    <SentenceChoice
      label="grain"
      :options="grainOptions"
      :chosen="sentence.grain"
      :text="sentence.grain"
      @choose="actions.go({ grain: $event })"
    />, in <PeriodChoice v-if="spend.days" :period="sentence.period" :days="spend.days" @choose="actions.go({ period: $event })" />{{ ' ' }}
    <SentenceChoice
      label="which periods"
      :options="basisOptions"
      :chosen="sentence.basis"
      :text="sentence.basis === 'billing' ? 'by billing period' : 'by charge period'"
      @choose="actions.go({ basis: $event })"
    />
    against
    <AgainstChoice />
    <template v-for="(list, l) in ['keep', 'leaveOut'] as const" :key="list"
      ><template v-for="({ dimension, values }, g) in groups(list)" :key="dimension"
        >{{ g === 0 ? (l === 0 ? ', keeping' : ', leaving out') : ' and' }}
        <UPopover :open="editing === `${list} ${dimension}`" @update:open="editing = $event ? `${list} ${dimension}` : null"
          ><button class="control" :aria-label="`conditions on ${dimensionLabel(dimension)}`">{{ dimensionLabel(dimension) }}</button
          ><template #content><ConditionEditor :dimension="dimension" :leave-out="list === 'leaveOut'" @done="editing = null" /></template
        ></UPopover>
        <template v-for="(value, v) in values" :key="`${value}`"
          >{{ v > 0 ? ' or ' : ' '
          }}<span class="condition"
            ><button
              class="kept"
              :aria-label="`${valueText(dimension, value)}: ${list === 'keep' ? 'keep' : 'leave out'} another ${dimensionLabel(dimension)} too`"
              @click="editing = `${list} ${dimension}`"
            >
              {{ valueText(dimension, value) }}</button
            ><button
              class="drop"
              :aria-label="`no longer ${list === 'keep' ? 'keep' : 'leave out'} ${dimensionLabel(dimension)} ${valueText(dimension, value)}`"
              @click="actions.drop(list, dimension, value)"
            >
              ×
            </button></span
          ></template
        ></template
      ></template
    >
    <template v-for="condition in sentence.conditions" :key="JSON.stringify(condition)"
      >, {{ condition.keep ? 'keeping' : 'leaving out' }} {{ dimensionLabel(condition.dimension) }}
      <span class="condition"
        ><span class="kept">{{ 'contains' in condition ? `with «${condition.contains}»` : `above ${condition.above}` }}</span
        ><button
          class="drop"
          :aria-label="`no longer ${condition.keep ? 'keep' : 'leave out'} ${dimensionLabel(condition.dimension)}`"
          @click="actions.dropCondition(condition)"
        >
          ×
        </button></span
      ></template
    >
    <UPopover v-model:open="adding"
      ><button class="add" aria-label="add a condition">+ condition</button
      ><template #content><ConditionEditor @done="adding = false" /></template
    ></UPopover>
  </h1>
</template>

<style scoped>
.condition {
  white-space: nowrap;
}
.kept {
  color: var(--ink);
  font-weight: 560;
  border-bottom: 1.5px solid var(--line-strong);
}
.add {
  font: 12.5px var(--sans);
  color: var(--act);
  font-weight: 560;
  min-height: 24px;
  padding: 0 4px;
  border-radius: 3px;
  margin-left: 4px;
}
.add:hover {
  background: var(--act-soft);
}
</style>
