<script setup lang="ts">
import type { Condition } from '../../../core/spend/question'
import type { SpendRow } from '../../../core/spend/page/rows'

/**
 * One more condition: a dimension, kept or left out, by values, by what their text contains, or by what they cost. Or another set of values
 * for one.
 */
const props = defineProps<{ dimension?: string | null; leaveOut?: boolean }>()
const emit = defineEmits<{ done: [] }>()
const spend = useSpend()
const actions = useSpendActions()
const { options } = useDimensionOptions()
const dimension = ref<string | null>(props.dimension ?? null)
const keeps = ref(!props.leaveOut)
const way = ref<'values' | 'contains' | 'above'>('values')
const NONE = '\u0000none'
const ticked = ref<string[]>([])
const text = ref('')
const above = ref('')
const values = ref<SpendRow[]>([])
const { attempt, problem, busy } = useAttempt()

const form = useTemplateRef<HTMLElement>('form')
watch(
  dimension,
  async chosen => {
    values.value = []
    if (!chosen) return
    void nextTick(() => form.value?.querySelector<HTMLElement>('.search')?.focus()) // the list of dimensions that had the focus is gone
    const known = spend.sentence![keeps.value ? 'keep' : 'leaveOut'][chosen] ?? []
    ticked.value = known.map(value => value ?? NONE)
    await attempt(async () => {
      values.value = await spend.valuesOf(chosen)
    })
  },
  { immediate: true },
)

const valueOptions = computed(() =>
  values.value.map(row => ({
    value: row.values[0] ?? NONE,
    label: row.label,
    note: Number(row.amount) ? measured(row.amount, spend.currency, spend.isMoney ? spend.sentence!.measure : 'effectiveCost') : '',
  })),
)
const tick = (value: string) => {
  ticked.value = ticked.value.includes(value) ? ticked.value.filter(v => v !== value) : [...ticked.value, value]
}
const wrong = computed(() =>
  way.value === 'contains'
    ? !text.value.trim()
    : way.value === 'above'
      ? !/^\d+(\.\d+)?$/.test(above.value.trim())
      : !ticked.value.length && !props.dimension,
)

function apply() {
  const by = dimension.value
  if (!by || wrong.value) return
  const list = keeps.value ? 'keep' : 'leaveOut'
  if (way.value === 'values') {
    const { [by]: _, ...others } = spend.sentence![list]
    const { [by]: __, ...otherSide } = spend.sentence![keeps.value ? 'leaveOut' : 'keep']
    const chosen = ticked.value.map(value => (value === NONE ? null : value))
    actions.go({
      [list]: chosen.length ? { ...others, [by]: chosen } : others,
      ...(keeps.value ? { leaveOut: otherSide } : { keep: otherSide }),
      steps: [],
    })
  } else {
    const condition: Condition =
      way.value === 'contains'
        ? { dimension: by, keep: keeps.value, contains: text.value.trim() }
        : { dimension: by, keep: keeps.value, above: above.value.trim() }
    actions.go({ conditions: [...spend.sentence!.conditions, condition], steps: [] })
  }
  emit('done')
}
</script>

<template>
  <form ref="form" class="editor" @submit.prevent="apply" @keydown.ctrl.enter.prevent="apply">
    <OptionList v-if="!dimension" :options="options" label="what to narrow by" @choose="dimension = $event" />
    <template v-else>
      <div class="head">
        <span class="kinds" role="group" aria-label="Keep or leave out">
          <button type="button" class="kind" :aria-pressed="keeps" @click="keeps = true">keep</button>
          <button type="button" class="kind" :aria-pressed="!keeps" @click="keeps = false">leave out</button>
        </span>
        <b class="dimension">{{ dimensionLabel(dimension) }}</b>
      </div>
      <div class="kinds ways" role="group" aria-label="How">
        <button type="button" class="kind" :aria-pressed="way === 'values'" @click="way = 'values'">values</button>
        <button type="button" class="kind" :aria-pressed="way === 'contains'" @click="way = 'contains'">text contains</button>
        <button type="button" class="kind" :aria-pressed="way === 'above'" @click="way = 'above'">cost above</button>
      </div>
      <ProblemNote v-if="problem" :problem="problem" />
      <OptionList
        v-if="way === 'values'"
        :options="valueOptions"
        :several="ticked"
        :label="dimensionLabel(dimension)"
        sortable
        :busy="busy"
        @choose="tick"
      />
      <label v-else-if="way === 'contains'" class="line"
        >contains <input v-model="text" class="field" aria-label="Text that it contains"
      /></label>
      <label v-else class="line"
        >billed cost in the period above <input v-model="above" class="field short" inputmode="decimal" aria-label="Cost above" />
        {{ spend.isMoney ? spend.currency : '' }}</label
      >
      <div class="foot">
        <button class="button main" :disabled="wrong">
          {{ way === 'values' && ticked.length > 1 ? `Apply ${ticked.length} values` : 'Apply' }}
        </button>
        <span v-if="way === 'values'" class="minor">Enter ticks, Ctrl Enter applies</span>
      </div>
    </template>
  </form>
</template>

<style scoped>
.editor {
  width: 344px;
  padding-bottom: 4px;
}
.head {
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 8px 12px 2px;
}
.dimension {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.kinds {
  display: inline-flex;
  gap: 8px;
  white-space: nowrap;
}
.ways {
  padding: 0 12px;
}
.kind {
  min-height: 24px;
  color: var(--ink-3);
  font-size: 12.5px;
}
.kind[aria-pressed='true'] {
  color: var(--ink);
  font-weight: 650;
  box-shadow: inset 0 -2px var(--act);
}
.line {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 8px 12px;
}
.line .field {
  flex: 1;
  min-width: 0;
}
.line .short {
  flex: none;
  width: 90px;
  text-align: right;
}
.foot {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 4px 12px 8px;
}
</style>
