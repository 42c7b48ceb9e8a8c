<script setup lang="ts">
import type { ValueCondition } from '../../../core/allocation/condition'
import type { Condition } from '../../../core/allocation/plan'
import { isRuleDimension } from '../../../core/spend/dimensions'

/** Conditions as they are written, all of which have to hold: on values that exist, on a name, on the amount of a line. */
const props = defineProps<{ conditions: readonly Condition[]; /** So many there have to be. */ least: number }>()
const emit = defineEmits<{ change: [Condition[]] }>()
const known = useRuleValues()
const { options } = useDimensionOptions()
const NONE = '\u0000none'
const byValue = (condition: Condition): condition is ValueCondition => 'values' in condition

const dimensions = computed(() => options.value.filter(({ value }) => isRuleDimension(value)))
watch(
  () => props.conditions.filter(byValue).map(c => c.dimension),
  list => known.learn(list),
  { immediate: true },
)
const valueOptions = (dimension: string) =>
  (known.byDimension[dimension] ?? []).map(row => ({
    value: row.values[0] ?? NONE,
    label: row.label,
    note: Number(row.amount) ? `${money(roundText(row.amount), known.currency)} ${known.currency}` : '',
  }))

/** As they are kept, not as they are watched here. */
const own = () => props.conditions.map(condition => toRaw(condition))
const put = (index: number, condition: Condition) => emit('change', own().with(index, condition))
const add = (condition: Condition) => emit('change', [...own(), condition])
const drop = (index: number) => emit('change', own().toSpliced(index, 1))
const tick = (index: number, { dimension, values }: ValueCondition, text: string) => {
  const value = text === NONE ? null : text
  put(index, { dimension, values: values.includes(value) ? values.filter(v => v !== value) : [...values, value] })
}
function addByValue() {
  const used = props.conditions.filter(byValue).map(one => one.dimension)
  add({ dimension: dimensions.value.find(({ value }) => !used.includes(value))?.value ?? 'SubAccountName', values: [] })
}
</script>

<template>
  <ProblemNote v-if="known.problem" :problem="known.problem" />
  <div v-for="(condition, index) in conditions" :key="index" class="condition">
    <span class="minor">{{ index === 0 ? 'where' : 'and' }}</span>
    <template v-if="byValue(condition)">
      <SentenceChoice
        label="what the rule looks at"
        :options="dimensions"
        :chosen="condition.dimension"
        :text="dimensionLabel(condition.dimension)"
        @choose="put(index, { dimension: $event, values: [] })"
      />
      <span class="minor">is</span>
      <span v-for="value in condition.values" :key="String(value)" class="value"
        >{{ value ?? 'none'
        }}<button class="drop" :aria-label="`not ${value ?? 'none'}`" @click="tick(index, condition, value ?? NONE)">×</button></span
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
            @choose="tick(index, condition, $event)"
        /></template>
      </UPopover>
    </template>
    <RuleOtherCondition v-else :condition="condition" :dimensions="dimensions" @change="put(index, $event)" />
    <button v-if="conditions.length > least" class="link" @click="drop(index)">delete condition</button>
  </div>
  <div class="condition">
    <button class="link" @click="addByValue">{{ conditions.length ? 'and another condition' : 'only where …' }}</button>
    <button class="link" @click="add({ dimension: 'ResourceName', pattern: '*' })">
      {{ conditions.length ? 'and a name like …' : 'only with a name like …' }}
    </button>
    <button class="link" @click="add({ measure: 'billedCost', atLeast: '0' })">
      {{ conditions.length ? 'and an amount' : 'only with an amount' }}
    </button>
  </div>
</template>

<style scoped>
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
.condition :deep(.control) {
  min-height: 26px;
  border-radius: 3px;
  text-decoration: underline;
  text-decoration-color: var(--act);
  text-underline-offset: 3px;
}
</style>
