<script setup lang="ts">
import type { ValueCondition } from '../../../core/allocation/condition'
import type { Condition, Rule } from '../../../core/allocation/plan'
import { likelyTarget } from '../../../core/allocation/drafting/likely-target'
import { settlement } from '../../../shared/contracts/allocation'

/** A rule as it is written: conditions, each on values that exist, and where it goes. */
const props = defineProps<{ rule: Rule; currency: string }>()
const allocation = useAllocation()
const byValue = (condition: Condition): condition is ValueCondition => 'values' in condition
const setConditions = (conditions: Condition[]) =>
  allocation.update(props.rule.id, rule => {
    rule.conditions = conditions
  })
const bound = (which: 'from' | 'until', day: string) =>
  allocation.update(props.rule.id, rule => {
    rule[which] = day || null
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
    const tree = toRaw(allocation.plan!)
    const rules = [toRaw(props.rule), ...tree.rules.filter(({ id }) => id !== props.rule.id)]
    const plan = allocation.planWith({ ...tree, rules })
    const { catches } = await client.send('POST', 'allocation/preview', { plan, ...allocation.question!, uplifts: 'none' }, settlement)
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
    <ConditionList :conditions="rule.conditions" :least="1" @change="setConditions" />
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
.done {
  margin-left: auto;
}
</style>
