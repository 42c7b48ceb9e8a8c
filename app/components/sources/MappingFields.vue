<script setup lang="ts">
import {
  factorOf,
  sourceOf,
  withFactor,
  withoutTag,
  withSource,
  withTag,
  type FieldSource,
  type MappedField,
} from '../../../core/focus/mapping/edit-mapping'
import { mappedNumbers, mappedTexts, mappedTimes, type Mapping } from '../../../core/focus/mapping/mapping'

/** Where each thing that a charge says comes from: a column, a fixed value or a product; what becomes tags; which rows are left out. */
const { mapping } = defineProps<{ mapping: Mapping; header: string[] }>()
const emit = defineEmits<{ change: [mapping: Mapping] }>()
const valueOf = (event: Event) => (event.target as HTMLInputElement | HTMLSelectElement).value

type Row = MappedField & { label: string; must: boolean }
const wanted: Row[] = [
  { column: 'ChargePeriodStart', kind: 'time', label: 'when the charge was', must: true },
  { column: 'BilledCost', kind: 'number', label: 'cost', must: true },
  { column: 'BillingCurrency', kind: 'text', label: 'currency', must: true },
  { column: 'ServiceName', kind: 'text', label: 'service', must: false },
  { column: 'SubAccountName', kind: 'text', label: 'sub account', must: false },
  { column: 'ResourceName', kind: 'text', label: 'resource name', must: false },
  { column: 'ChargeDescription', kind: 'text', label: 'description', must: false },
  { column: 'PricingQuantity', kind: 'number', label: 'quantity', must: false },
  { column: 'PricingUnit', kind: 'text', label: 'unit', must: false },
]
const known = new Set(wanted.map(row => row.column))
const others: Row[] = [
  ...mappedTimes.map(column => ({ column, kind: 'time' as const, label: column, must: false })),
  ...mappedNumbers.map(column => ({ column, kind: 'number' as const, label: column, must: false })),
  ...mappedTexts.map(column => ({ column, kind: 'text' as const, label: dimensionLabel(column), must: false })),
].filter(row => !known.has(row.column))
const FIXED = '\u0000fixed'
const NONE = ''
/** A field's source as the list of choices has it. */
function sourceText(row: Row): string {
  const source = sourceOf(mapping, row)
  return source === null ? NONE : 'constant' in source ? FIXED : source.column
}
const shown = computed(() => [...wanted, ...others.filter(row => sourceText(row) !== NONE)])
const setSource = (row: Row, text: string) => {
  const source: FieldSource = text === NONE ? null : text === FIXED ? { constant: row.kind === 'number' ? '0' : '' } : { column: text }
  emit('change', withSource(mapping, row, source))
}
function constantOf(row: Row): string {
  const source = sourceOf(mapping, row)
  return source && 'constant' in source ? source.constant : ''
}
const setConstant = (row: Row, text: string) =>
  emit('change', withSource(mapping, row, { constant: row.kind === 'number' ? text || '0' : text }))
const leaving = ref({ column: '', is: '' })
function addLeaving() {
  emit('change', { ...mapping, leaveOutRows: [...mapping.leaveOutRows, { ...leaving.value }] })
  leaving.value = { column: '', is: '' }
}
</script>

<template>
  <div>
    <table class="ledger">
      <thead>
        <tr>
          <th>a charge says</th>
          <th>from</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in shown" :key="row.column">
          <td>{{ row.label }}<span v-if="row.must" class="warn" title="every charge needs it"> *</span></td>
          <td>
            <select
              class="field"
              :aria-label="`${row.label} from`"
              :class="{ wrong: row.must && sourceText(row) === NONE }"
              :value="sourceText(row)"
              @change="setSource(row, valueOf($event))"
            >
              <option :value="NONE">nothing</option>
              <option v-if="row.kind !== 'time'" :value="FIXED">always the same</option>
              <option v-for="column in header" :key="column" :value="column">{{ column }}</option>
            </select>
          </td>
          <td>
            <input
              v-if="sourceText(row) === FIXED"
              v-held="constantOf(row)"
              class="field"
              :aria-label="`${row.label}, always`"
              @change="setConstant(row, valueOf($event))"
            />
            <label v-else-if="row.kind === 'number' && sourceText(row) !== NONE" class="times"
              >×
              <input
                v-held="factorOf(mapping, row.column)"
                class="field short"
                :aria-label="`${row.label} times`"
                list="mapping-columns"
                placeholder="1"
                @change="emit('change', withFactor(mapping, row.column, valueOf($event).trim(), header))"
            /></label>
          </td>
        </tr>
        <tr>
          <td>more</td>
          <td colspan="2">
            <select
              class="field"
              aria-label="more that a charge says"
              value=""
              @change="
                setSource(
                  others.find(o => o.column === valueOf($event))!,
                  header[0]!,
                )
              "
            >
              <option value="">choose</option>
              <option v-for="row in others.filter(o => sourceText(o) === NONE)" :key="row.column" :value="row.column">
                {{ row.label }}
              </option>
            </select>
          </td>
        </tr>
        <tr>
          <td>tags</td>
          <td colspan="2">
            <span v-for="(column, key) in mapping.tags" :key="key" class="tag"
              >{{ key }} from {{ column }}
              <button class="shut" :aria-label="`no tag ${key}`" @click="emit('change', withoutTag(mapping, String(key)))">×</button></span
            ><select
              class="field"
              aria-label="tag from column"
              value=""
              @change="valueOf($event) && emit('change', withTag(mapping, valueOf($event)))"
            >
              <option value="">a column as a tag</option>
              <option v-for="column in header" :key="column">{{ column }}</option>
            </select>
          </td>
        </tr>
        <tr>
          <td>rows left out</td>
          <td colspan="2">
            <span v-for="(one, i) in mapping.leaveOutRows" :key="i" class="tag"
              >{{ one.column }} is «{{ one.is }}»
              <button
                class="shut"
                aria-label="no longer leave these rows out"
                @click="emit('change', { ...mapping, leaveOutRows: mapping.leaveOutRows.toSpliced(i, 1) })"
              >
                ×
              </button></span
            ><span class="leaving"
              ><select v-model="leaving.column" class="field" aria-label="leave rows out where">
                <option value="">where a column</option>
                <option v-for="column in header" :key="column">{{ column }}</option>
              </select>
              is <input v-model="leaving.is" class="field short" aria-label="rows left out: value" />{{ ' ' }}
              <button class="link" :disabled="!leaving.column" @click="addLeaving">leave out</button></span
            >
          </td>
        </tr>
      </tbody>
    </table>
    <datalist id="mapping-columns"><option v-for="column in header" :key="column" :value="column" /></datalist>
  </div>
</template>

<style scoped>
.short {
  width: 84px;
}
.times {
  white-space: nowrap;
}
.tag {
  display: inline-flex;
  align-items: center;
  gap: 2px;
  margin-right: 8px;
  white-space: nowrap;
}
.shut {
  min-width: 24px;
  min-height: 24px;
  color: var(--ink-3);
}
.leaving {
  white-space: nowrap;
}
</style>
