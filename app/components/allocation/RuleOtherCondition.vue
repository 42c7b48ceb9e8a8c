<script setup lang="ts">
import type { Condition } from '../../../core/allocation/plan'
import type { AmountCondition, PatternCondition } from '../../../core/allocation/condition'
import { costMeasures } from '../../../core/spend/question'
import { measureNames } from '../../../shared/words/table-heads'

/** A condition that is no list of values: a pattern of a name, or the amount of the single charge line. */
const props = defineProps<{ condition: PatternCondition | AmountCondition; dimensions: { value: string; label: string }[] }>()
const emit = defineEmits<{ change: [Condition] }>()
const text = (event: Event) => (event.target as HTMLInputElement).value.trim()
const pattern = (more: Partial<PatternCondition>) => emit('change', { ...(toRaw(props.condition) as PatternCondition), ...more })
/** A bound of the amount, with a comma or a point; empty for none. */
const amount = (which: 'atLeast' | 'below', given: string) => {
  const { [which]: _, ...rest } = toRaw(props.condition) as AmountCondition
  emit('change', { ...rest, ...(given ? { [which]: given.replace(',', '.') } : {}) } as AmountCondition)
}
</script>

<template>
  <template v-if="'pattern' in condition">
    <SentenceChoice
      label="what the pattern is of"
      :options="dimensions"
      :chosen="condition.dimension"
      :text="dimensionLabel(condition.dimension)"
      @choose="pattern({ dimension: $event })"
    />
    <span class="minor">is like</span>
    <input
      class="field"
      :value="condition.pattern"
      aria-label="pattern"
      placeholder="crew-*"
      @change="pattern({ pattern: text($event) })"
    />
  </template>
  <template v-else>
    <select
      class="field"
      :value="condition.measure"
      aria-label="cost of a line"
      @change="emit('change', { ...toRaw(condition), measure: text($event) as AmountCondition['measure'] })"
    >
      <option v-for="one in costMeasures" :key="one" :value="one">{{ measureNames[one] }} of a line</option>
    </select>
    <label class="minor"
      >at least <input class="field amount" :value="condition.atLeast ?? ''" inputmode="decimal" @change="amount('atLeast', text($event))"
    /></label>
    <label class="minor"
      >below <input class="field amount" :value="condition.below ?? ''" inputmode="decimal" @change="amount('below', text($event))"
    /></label>
  </template>
</template>

<style scoped>
.amount {
  width: 110px;
}
</style>
