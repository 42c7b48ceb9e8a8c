<script setup lang="ts">
import type { ValueCondition } from '../../../core/allocation/condition'
import type { Condition, Rule } from '../../../core/allocation/plan'
import { spendAnswer } from '../../../shared/contracts/spend'

import { conditionWords } from '../../../shared/words/rules'

const props = defineProps<{ rule: Rule; currency: string }>()
const allocation = useAllocation()
const data = useData()
const adding = reactive<Record<number, string>>({})
const suggestions = ref<Record<string, string[]>>({})
const NONE = '(none)'
const byValue = (condition: Condition): condition is ValueCondition => 'values' in condition

const dimensions = computed(() => ['SubAccountName', ...(data.facts?.tags ?? [])])
watch(
  () => props.rule.conditions.filter(byValue).map(c => c.dimension),
  async list => {
    for (const dimension of list) {
      if (suggestions.value[dimension] || !data.facts?.lastDay) continue
      const answer = await client
        .send(
          'POST',
          'spend/answer',
          { measure: 'billedCost', splitBy: [dimension], grain: null, start: data.facts.firstDay!, end: '2200-01-01' },
          spendAnswer,
        )
        .catch(error => {
          allocation.problem = problemOf(error)
        })
      if (!answer) return
      const { rows } = answer
      suggestions.value[dimension] = [...new Set(rows.map(r => r.values[dimension] ?? NONE))]
    }
  },
  { immediate: true },
)

const set = (index: number, edit: (condition: ValueCondition) => void) =>
  allocation.update(props.rule.id, rule => {
    const condition = rule.conditions[index]!
    if (byValue(condition)) edit(condition)
  })
function addValue(index: number) {
  const text = (adding[index] ?? '').trim()
  if (!text) return
  adding[index] = ''
  const value = text === NONE ? null : text
  void set(index, condition => {
    if (!condition.values.includes(value)) condition.values.push(value)
  })
}
const targets = computed(() => [
  ...allocation.tree.map(c => ({ id: c.id, name: `${'\u2003'.repeat(c.depth)}${c.name}` })),
  ...(allocation.plan?.pools.map(p => ({ id: p.id, name: `${p.name} (pool, shared out)` })) ?? []),
])
const id = useId()
</script>

<template>
  <div class="editor">
    <div v-for="(condition, index) in rule.conditions" :key="index" class="condition">
      <span class="minor">{{ index === 0 ? 'where' : 'and' }}</span>
      <template v-if="byValue(condition)">
        <select
          class="field"
          :value="condition.dimension"
          aria-label="what the rule looks at"
          @change="
            set(index, c => {
              c.dimension = ($event.target as HTMLSelectElement).value
              c.values = []
            })
          "
        >
          <option v-for="d in dimensions" :key="d" :value="d">{{ dimensionLabel(d) }}</option>
        </select>
        <span class="minor">is</span>
        <span v-for="value in condition.values" :key="String(value)" class="value"
          >{{ value ?? 'none'
          }}<button
            class="drop"
            :aria-label="`take ${value ?? 'none'} out`"
            @click="
              set(index, c => {
                c.values = c.values.filter(v => v !== value)
              })
            "
          >
            ×
          </button></span
        >
        <input
          v-model="adding[index]"
          class="field add"
          :list="`${id}-${index}`"
          :placeholder="condition.values.length ? 'or …' : 'value …'"
          aria-label="add a value"
          @keydown.enter.prevent="addValue(index)"
          @change="addValue(index)"
        />
        <datalist :id="`${id}-${index}`"><option v-for="s in suggestions[condition.dimension]" :key="s" :value="s" /></datalist>
      </template>
      <span v-else>{{ Object.values(conditionWords(condition)).join(' ') }}</span>
      <button
        v-if="rule.conditions.length > 1"
        class="link"
        @click="
          allocation.update(rule.id, r => {
            r.conditions.splice(index, 1)
          })
        "
      >
        take condition out
      </button>
    </div>
    <div class="condition">
      <button
        class="link"
        @click="
          allocation.update(rule.id, r => {
            r.conditions.push({
              dimension: dimensions.find(d => !r.conditions.some(c => byValue(c) && c.dimension === d)) ?? 'SubAccountName',
              values: [],
            })
          })
        "
      >
        and another condition
      </button>
    </div>
    <div class="condition">
      <span class="minor">goes to</span>
      <select
        class="field"
        :value="rule.target"
        aria-label="cost centre or pool"
        @change="
          allocation.update(rule.id, r => {
            r.target = ($event.target as HTMLSelectElement).value
          })
        "
      >
        <option v-for="t in targets" :key="t.id" :value="t.id">{{ t.name }}</option>
      </select>
      <button class="button" @click="allocation.editing = null">Done</button>
    </div>
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
.add {
  width: 130px;
}
</style>
