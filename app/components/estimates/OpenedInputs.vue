<script setup lang="ts">
import { findKind } from '../../../core/estimate/components'
import { fieldProblem, type Field } from '../../../core/estimate/components/field'
import { applies, hasPlace } from '../../../core/estimate/components/kind'
import type { Component } from '../../../core/estimate/estimate'
import { helpersFor } from '../../../core/estimate/helpers'
import type { PricedComponent } from '../../../core/estimate/pricing/price-row'
import { whereField } from '../../../core/estimate/sheet/columns'
import { sheetKey } from '../../composables/useSheet'

/** All inputs of a row that apply where it stands, each with what it means; a number can be worked out, a default be agreed to. */
const props = defineProps<{ component: Component; row: PricedComponent }>()
const store = useEstimate()
const { options, value } = inject(sheetKey)!
const helping = ref<string | null>(null)
function takeHelp(field: string, value: string) {
  store.set([props.component.id], field, value)
  helping.value = null
}
/** Told while one types, at the input, the same as in the sheet, by paste and by import. */
const problemOf = (field: Field) =>
  props.row.problems[field.name] ??
  (props.row.place
    ? fieldProblem(field, value(props.component, field), props.row.place.card, props.row.place.region, store.priced!.monthHours)
    : null)
const commit = (field: string, event: Event) => store.set([props.component.id], field, (event.target as HTMLInputElement).value)
/** What an input holds, as it can be typed; its unit stands behind it. */
function boxText(field: Field): string {
  const text = value(props.component, field)
  const shown = field.type === 'number' ? shownInput(field, text) : text
  return field.unit && shown.endsWith(` ${field.unit}`) ? shown.slice(0, -field.unit.length - 1) : shown
}
const fields = computed((): Field[] => {
  const kind = findKind(props.component.kind)
  if (!kind) return []
  const { inputs, place } = props.row
  return [...kind.fields.filter(field => !place || applies(field, inputs, place)), ...(hasPlace(kind) ? [where] : [])]
})
const where: Field = { ...whereField, help: 'Another region, or another provider whose rate card the estimate names.' }
const isDefault = (field: Field) => field.name !== 'where' && !props.component.confirmed.includes(field.name)
</script>

<template>
  <div class="inputs">
    <div v-for="field in fields" :key="field.name" class="input">
      <label :for="`${component.id}-${field.name}`">{{ field.label }}<i v-if="isDefault(field)" class="warn"> · default</i></label>
      <select
        v-if="field.type === 'choice'"
        :id="`${component.id}-${field.name}`"
        class="field"
        :class="{ wrong: problemOf(field) }"
        :value="value(component, field)"
        @change="commit(field.name, $event)"
      >
        <option v-if="!options(component, field).some(o => o.value === value(component, field))" :value="value(component, field)">
          {{ value(component, field) }}
        </option>
        <option v-for="option in options(component, field)" :key="option.value" :value="option.value">
          {{ option.note && option.value !== value(component, field) ? `${option.label} · ${option.note}` : option.label }}
        </option>
      </select>
      <span v-else class="number"
        ><input
          :id="`${component.id}-${field.name}`"
          v-held="boxText(field)"
          class="field"
          :class="{ wrong: problemOf(field), wide: field.type === 'text' }"
          @change="commit(field.name, $event)"
        />{{ ' ' }}
        <span v-if="field.type === 'number'" class="minor">{{ field.unit }}</span>
        <button
          v-if="helpersFor(component.kind, field.name).length"
          type="button"
          class="link"
          :aria-expanded="helping === field.name"
          @click="helping = helping === field.name ? null : field.name"
        >
          work it out
        </button>
      </span>
      <span class="minor help"
        >{{ field.help
        }}<button
          v-if="isDefault(field) && !store.scenarioId"
          type="button"
          class="link agree"
          @click="store.confirm(component.id, field.name)"
        >
          confirm it
        </button></span
      >
      <InputHelper
        v-if="helping === field.name"
        :kind="component.kind"
        :field="field.name"
        class="helper"
        @made="takeHelp(field.name, $event)"
      />
    </div>
  </div>
</template>

<style scoped>
.inputs {
  max-height: 470px;
  overflow-y: auto;
  padding-right: 6px;
}
.input {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  gap: 1px 8px;
  align-items: center;
  margin-bottom: 5px;
}
.input > label {
  color: var(--ink-2);
  line-height: 1.15;
}
.help,
.helper {
  grid-column: 1 / -1;
  line-height: 1.25;
}
.agree {
  margin-left: 6px;
  font-size: 12px;
  min-height: 20px;
}
.number {
  display: flex;
  gap: 6px;
  align-items: center;
  min-width: 0;
}
.number .field {
  width: 84px;
  min-width: 0;
  flex: none;
}
.number .field.wide {
  width: 100%;
  flex: 1;
}
select.field {
  width: 100%;
  min-width: 0;
}
</style>
