<script setup lang="ts">
import type { ValueCondition } from '../../../core/allocation/condition'
import type { Condition, Rule } from '../../../core/allocation/plan'
import { likelyTarget } from '../../../core/allocation/drafting/likely-target'
import { isRuleDimension } from '../../../core/spend/dimensions'
import { settlement } from '../../../shared/contracts/allocation'

/** A rule as it is written: conditions, each on values that exist, and where it goes. */
const props = defineProps<{ rule: Rule; currency: string }>()
const allocation = useAllocation()
const known = useRuleValues()
const { options } = useDimensionOptions()
const NONE = '\u0000none'
const byValue = (condition: Condition): condition is ValueCondition => 'values' in condition

const dimensions = computed(() => options.value.filter(({ value }) => isRuleDimension(value)))
watch(
  () => props.rule.conditions.filter(byValue).map(c => c.dimension),
  list => known.learn(list),
  { immediate: true },
)
const valueOptions = (dimension: string) =>
  (known.byDimension[dimension] ?? []).map(row => ({
    value: row.values[0] ?? NONE,
    label: row.label,
    note: Number(row.amount) ? `${money(roundText(row.amount), known.currency)} ${known.currency}` : '',
  }))

const set = (index: number, edit: (condition: ValueCondition) => void) =>
  allocation.update(props.rule.id, rule => {
    const condition = rule.conditions[index]!
    if (byValue(condition)) edit(condition)
  })
const look = (index: number, dimension: string) =>
  set(index, condition => {
    condition.dimension = dimension
    condition.values = []
  })
const tick = (index: number, text: string) =>
  set(index, condition => {
    const value = text === NONE ? null : text
    condition.values = condition.values.includes(value) ? condition.values.filter(v => v !== value) : [...condition.values, value]
  })
const addCondition = () =>
  allocation.update(props.rule.id, rule => {
    const used = rule.conditions.filter(byValue).map(one => one.dimension)
    rule.conditions.push({ dimension: dimensions.value.find(({ value }) => !used.includes(value))?.value ?? 'SubAccountName', values: [] })
  })
/** A condition on a name's pattern, or on the amount of the single line. */
const addOther = (condition: Condition) =>
  allocation.update(props.rule.id, rule => {
    rule.conditions.push(condition)
  })
const changeOther = (index: number, condition: Condition) =>
  allocation.update(props.rule.id, rule => {
    rule.conditions[index] = condition
  })
const bound = (which: 'from' | 'until', day: string) =>
  allocation.update(props.rule.id, rule => {
    rule[which] = day || null
  })
const dropCondition = (index: number) =>
  allocation.update(props.rule.id, rule => {
    rule.conditions.splice(index, 1)
  })
const goTo = (target: string) =>
  allocation.update(props.rule.id, rule => {
    rule.target = target
  })
const targets = computed(() => [
  ...allocation.tree.map(c => ({ id: c.id, name: `${'\u2003'.repeat(c.depth)}${c.name}` })),
  ...(allocation.plan?.pools.map(p => ({ id: p.id, name: `${p.name} (pool, shared out)` })) ?? []),
])
/** Where a rule that goes nowhere yet likely belongs, by the single values that it looks at. */
const likely = computed(() => {
  if (props.rule.target !== '') return null
  const single = props.rule.conditions.filter(byValue).filter(({ values }) => values.length === 1)
  return likelyTarget({ values: Object.fromEntries(single.map(({ dimension, values }) => [dimension, values[0]!])) }, allocation.plan!)
})

/** What the rule would catch in the currency that is shown if no other stood before it; null until it is asked for. */
const ifFirst = ref<{ amount: string; count: number } | null>(null)
const { attempt, problem, busy } = useAttempt()
watch(
  () => allocation.plan,
  () => {
    ifFirst.value = null
  },
)
const askFirst = () =>
  attempt(async () => {
    const plan = toRaw(allocation.plan!)
    const rules = [toRaw(props.rule), ...plan.rules.filter(({ id }) => id !== props.rule.id)]
    const { catches } = await client.send('POST', 'allocation/preview', { plan: { ...plan, rules }, ...allocation.question! }, settlement)
    const caught = catches.find(one => one.rule === props.rule.id && one.currency === props.currency)
    ifFirst.value = caught ?? { amount: '0', count: 0 }
  })

// what was just begun comes into sight, at what is still open
const editor = useTemplateRef<HTMLElement>('editor')
onMounted(() => {
  editor.value?.scrollIntoView({ block: 'center' })
  const open = props.rule.conditions.some(one => byValue(one) && !one.values.length) ? 'button.control' : 'select'
  editor.value?.querySelector<HTMLElement>(open)?.focus({ preventScroll: true })
})
</script>

<template>
  <div ref="editor" class="editor" role="group" aria-label="Rule">
    <ProblemNote v-if="known.problem" :problem="known.problem" />
    <div v-for="(condition, index) in rule.conditions" :key="index" class="condition">
      <span class="minor">{{ index === 0 ? 'where' : 'and' }}</span>
      <template v-if="byValue(condition)">
        <SentenceChoice
          label="what the rule looks at"
          :options="dimensions"
          :chosen="condition.dimension"
          :text="dimensionLabel(condition.dimension)"
          @choose="look(index, $event)"
        />
        <span class="minor">is</span>
        <span v-for="value in condition.values" :key="String(value)" class="value"
          >{{ value ?? 'none'
          }}<button class="drop" :aria-label="`not ${value ?? 'none'}`" @click="tick(index, value ?? NONE)">×</button></span
        >
        <UPopover>
          <button class="control" :aria-label="`values of ${dimensionLabel(condition.dimension)}`">
            {{ condition.values.length ? 'or …' : 'choose values …' }}
          </button>
          <template #content
            ><OptionList
              :options="valueOptions(condition.dimension)"
              :several="condition.values.map(value => value ?? NONE)"
              :busy="!known.byDimension[condition.dimension]"
              label="values"
              sortable
              @choose="tick(index, $event)"
          /></template>
        </UPopover>
      </template>
      <RuleOtherCondition v-else :condition="condition" :dimensions="dimensions" @change="changeOther(index, $event)" />
      <button v-if="rule.conditions.length > 1" class="link" @click="dropCondition(index)">delete condition</button>
    </div>
    <div class="condition">
      <button class="link" @click="addCondition">and another condition</button>
      <button class="link" @click="addOther({ dimension: 'ResourceName', pattern: '*' })">and a name like …</button>
      <button class="link" @click="addOther({ measure: 'billedCost', atLeast: '0' })">and an amount</button>
    </div>
    <div class="condition">
      <span class="minor">goes to</span>
      <select
        class="field"
        :class="{ wrong: rule.target === '' }"
        :value="rule.target"
        aria-label="cost centre or pool"
        @change="goTo(($event.target as HTMLSelectElement).value)"
      >
        <option value="" disabled>choose …</option>
        <option v-for="t in targets" :key="t.id" :value="t.id">{{ t.name }}</option>
      </select>
      <button v-if="likely" class="button" @click="goTo(likely.target)">{{ allocation.targetName(likely.target) }}</button>
      <span v-if="likely" class="minor">likely: “{{ likely.value }}” looks like “{{ likely.looksLike }}”</span>
      <button class="button done" @click="allocation.editing = null">Done</button>
    </div>
    <div class="condition">
      <label class="minor"
        >from <input class="field" type="date" :value="rule.from ?? ''" @change="bound('from', ($event.target as HTMLInputElement).value)"
      /></label>
      <label class="minor"
        >until before
        <input class="field" type="date" :value="rule.until ?? ''" @change="bound('until', ($event.target as HTMLInputElement).value)"
      /></label>
      <span v-if="ifFirst" class="minor" data-testid="if-first"
        >first of all it would catch <b>{{ money(ifFirst.amount, currency) }}</b> in {{ count(ifFirst.count) }}
        {{ ifFirst.count === 1 ? 'line' : 'lines' }}</span
      ><button v-else-if="!allocation.planProblem" class="link" :disabled="busy" @click="askFirst">
        What it would catch if it stood first
      </button>
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
  </div>
</template>

<style scoped>
.editor {
  padding: 8px 10px 10px;
  background: var(--paper-raised);
  border: 1px solid var(--act);
  border-radius: 4px;
  display: grid;
  gap: 6px;
}
.condition {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.value {
  display: inline-flex;
  align-items: center;
  background: var(--act-soft);
  border-radius: 3px;
  padding-left: 8px;
}
.drop {
  min-width: 24px;
  min-height: 24px;
}
.editor :deep(.control) {
  min-height: 26px;
  border-radius: 3px;
  text-decoration: underline;
  text-decoration-color: var(--act);
  text-underline-offset: 3px;
}
.done {
  margin-left: auto;
}
</style>
