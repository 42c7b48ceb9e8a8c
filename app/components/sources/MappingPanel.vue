<script setup lang="ts">
import { z } from 'zod'
import { dateFormats, mappedNumbers, mappedTexts, mappedTimes, type Mapping } from '../../../core/focus/mapping/mapping'
import { mappingPreview, type MappingPreview } from '../../../shared/contracts/mappings'
import type { Waiting } from '../../stores/sources'

/**
 * How a file that is no FOCUS becomes charges: a column, a fixed value or a product for each thing a charge says, with its first rows as
 * they would become. Kept for the source.
 */
const props = defineProps<{ delivery: Waiting }>()
const sources = useSources()
const preview = ref<MappingPreview | null>(null)
const mapping = ref<Mapping | null>(null)
const { attempt, problem, busy } = useAttempt()

const look = (given: Mapping | null) =>
  attempt(async () => {
    preview.value = await client.send(
      'POST',
      'mappings/preview',
      { source: props.delivery.source, name: props.delivery.files[0]!.name, text: props.delivery.text!.slice(0, 200_000), mapping: given },
      mappingPreview,
    )
    mapping.value ??= preview.value.mapping
  })
// a source without a name has nothing kept for it to ask for: it is asked when it has one
watch(
  () => props.delivery.source.trim(),
  name => {
    if (name && (!mapping.value || problem.value)) void look(mapping.value)
  },
  { immediate: true },
)
function change(edit: (next: Mapping) => void) {
  const next = JSON.parse(JSON.stringify(mapping.value)) as Mapping
  edit(next)
  mapping.value = next
  void look(next)
}

type Row = { column: string; kind: 'text' | 'number' | 'time'; label: string; must: boolean }
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
const isSaid = (row: Row) =>
  !!(row.kind === 'time'
    ? mapping.value?.times[row.column]
    : row.kind === 'number'
      ? mapping.value?.numbers[row.column]
      : mapping.value?.texts[row.column])
const shown = computed(() => [...wanted, ...others.filter(isSaid)])
const FIXED = '\u0000fixed'
const NONE = ''
function sourceOf(row: Row): string {
  const m = mapping.value!
  const from = row.kind === 'time' ? m.times[row.column] : row.kind === 'number' ? m.numbers[row.column] : m.texts[row.column]
  return !from ? NONE : 'constant' in from ? FIXED : from.column
}
function setSource(row: Row, value: string) {
  change(next => {
    const list = (row.kind === 'time' ? next.times : row.kind === 'number' ? next.numbers : next.texts) as Record<
      string,
      { column: string } | { constant: string }
    >
    if (value === NONE) {
      const { [row.column]: _, ...rest } = list
      if (row.kind === 'time') next.times = rest as Mapping['times']
      else if (row.kind === 'number') next.numbers = rest as Mapping['numbers']
      else next.texts = rest as Mapping['texts']
    } else list[row.column] = value === FIXED ? { constant: row.kind === 'number' ? '0' : '' } : { column: value }
  })
}
function fixed(row: Row): string {
  const from = row.kind === 'number' ? mapping.value!.numbers[row.column] : mapping.value!.texts[row.column]
  return from && 'constant' in from ? from.constant : ''
}
const setFixed = (row: Row, value: string) =>
  change(next => {
    if (row.kind === 'number') next.numbers[row.column] = { constant: value || '0' }
    else next.texts[row.column] = { constant: value }
  })
function times(row: Row): string {
  const from = mapping.value!.numbers[row.column]
  return from && 'column' in from ? (from.timesColumn ?? from.times ?? '') : ''
}
const setTimes = (row: Row, value: string) =>
  change(next => {
    const from = next.numbers[row.column]
    if (!from || !('column' in from)) return
    next.numbers[row.column] = {
      column: from.column,
      ...(value &&
        (preview.value!.header.includes(value) ? { timesColumn: value } : /^-?\d+(\.\d+)?$/.test(value) ? { times: value } : {})),
    }
  })
const addTag = (column: string) =>
  column &&
  change(next => {
    next.tags[column.trim().toLowerCase().replace(/\W+/g, '-')] = column
  })
const dropTag = (key: string) =>
  change(next => {
    const { [key]: _, ...rest } = next.tags
    next.tags = rest
  })
const leaving = ref({ column: '', is: '' })
const addLeaving = () =>
  change(next => {
    next.leaveOutRows.push({ ...leaving.value })
    leaving.value = { column: '', is: '' }
  })
const keep = () =>
  attempt(async () => {
    await client.send('PUT', `mappings/${encodeURIComponent(props.delivery.source)}`, mapping.value, z.object({ source: z.string() }))
    await sources.loadMapped()
    sources.mapping = null
  })
const places = (column: string) => preview.value!.columns.indexOf(column)
const previewed = computed(() =>
  preview.value
    ? [
        'ChargePeriodStart',
        'ChargePeriodEnd',
        'BilledCost',
        'BillingCurrency',
        'ServiceName',
        'SubAccountName',
        'ChargeCategory',
        'PricingQuantity',
        'PricingUnit',
        'ChargeDescription',
        'Tags',
      ].filter(c => places(c) >= 0)
    : [],
)
</script>

<template>
  <section v-if="mapping && preview" class="panel" aria-label="Mapping">
    <div class="top">
      <h3 class="heading">How {{ delivery.files[0]!.name }} becomes charges</h3>
      <button class="link" @click="sources.mapping = null">close</button>
    </div>
    <p class="minor">
      {{
        preview.saved
          ? 'As kept for this source before.'
          : 'A first suggestion from the names of its columns: look at each, then keep it. The next file of this source is read the same way.'
      }}
    </p>
    <div class="ways">
      <label
        >columns parted by
        <select
          class="field"
          :value="mapping.delimiter"
          @change="
            change(n => {
              n.delimiter = ($event.target as HTMLSelectElement).value as Mapping['delimiter']
            })
          "
        >
          <option value=",">comma</option>
          <option value=";">semicolon</option>
          <option value="&#9;">tab</option>
          <option value="|">bar</option>
        </select></label
      >
      <label
        >lines above the header
        <input
          v-held="mapping.skipLines"
          class="field short"
          type="number"
          min="0"
          max="100"
          @change="
            change(n => {
              n.skipLines = Number(($event.target as HTMLInputElement).value) || 0
            })
          "
      /></label>
      <label
        >encoding
        <select
          class="field"
          :value="mapping.encoding"
          @change="
            change(n => {
              n.encoding = ($event.target as HTMLSelectElement).value as Mapping['encoding']
            })
          "
        >
          <option value="utf-8">UTF-8</option>
          <option value="windows-1252">Windows-1252</option>
          <option value="utf-16le">UTF-16</option>
        </select></label
      >
      <label
        >dates
        <select
          class="field"
          :value="mapping.dateFormat"
          @change="
            change(n => {
              n.dateFormat = ($event.target as HTMLSelectElement).value as Mapping['dateFormat']
            })
          "
        >
          <option v-for="format in dateFormats" :key="format">{{ format }}</option>
        </select></label
      >
      <label
        >a charge lasts
        <select
          class="field"
          :value="mapping.lasts"
          @change="
            change(n => {
              n.lasts = ($event.target as HTMLSelectElement).value as Mapping['lasts']
            })
          "
        >
          <option value="hour">an hour</option>
          <option value="day">a day</option>
          <option value="month">a month</option>
        </select></label
      >
      <label
        >decimals after
        <select
          class="field"
          :value="mapping.decimal"
          @change="
            change(n => {
              n.decimal = ($event.target as HTMLSelectElement).value as Mapping['decimal']
            })
          "
        >
          <option value=".">a point</option>
          <option value=",">a comma</option>
        </select></label
      >
      <label
        >thousands by
        <select
          class="field"
          :value="mapping.thousands"
          @change="
            change(n => {
              n.thousands = ($event.target as HTMLSelectElement).value as Mapping['thousands']
            })
          "
        >
          <option value="">nothing</option>
          <option value=",">comma</option>
          <option value=".">point</option>
          <option value=" ">space</option>
          <option value="'">apostrophe</option>
        </select></label
      >
    </div>
    <div class="sides">
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
                :class="{ wrong: row.must && !isSaid(row) }"
                :value="sourceOf(row)"
                @change="setSource(row, ($event.target as HTMLSelectElement).value)"
              >
                <option :value="NONE">nothing</option>
                <option v-if="row.kind !== 'time'" :value="FIXED">always the same</option>
                <option v-for="column in preview.header" :key="column" :value="column">{{ column }}</option>
              </select>
            </td>
            <td>
              <input
                v-if="sourceOf(row) === FIXED"
                v-held="fixed(row)"
                class="field"
                :aria-label="`${row.label}, always`"
                @change="setFixed(row, ($event.target as HTMLInputElement).value)"
              />
              <label v-else-if="row.kind === 'number' && isSaid(row)" class="times"
                >×
                <input
                  v-held="times(row)"
                  class="field short"
                  :aria-label="`${row.label} times`"
                  list="mapping-columns"
                  placeholder="1"
                  @change="setTimes(row, ($event.target as HTMLInputElement).value.trim())"
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
                    others.find(o => o.column === ($event.target as HTMLSelectElement).value)!,
                    preview.header[0]!,
                  )
                "
              >
                <option value="">choose</option>
                <option v-for="row in others.filter(o => !isSaid(o))" :key="row.column" :value="row.column">{{ row.label }}</option>
              </select>
            </td>
          </tr>
          <tr>
            <td>tags</td>
            <td colspan="2">
              <span v-for="(column, key) in mapping.tags" :key="key" class="tag"
                >{{ key }} from {{ column }} <button class="shut" :aria-label="`no tag ${key}`" @click="dropTag(key)">×</button></span
              ><select class="field" aria-label="tag from column" value="" @change="addTag(($event.target as HTMLSelectElement).value)">
                <option value="">a column as a tag</option>
                <option v-for="column in preview.header" :key="column">{{ column }}</option>
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
                  @click="
                    change(n => {
                      n.leaveOutRows.splice(i, 1)
                    })
                  "
                >
                  ×
                </button></span
              ><span class="leaving"
                ><select v-model="leaving.column" class="field" aria-label="leave rows out where">
                  <option value="">where a column</option>
                  <option v-for="column in preview.header" :key="column">{{ column }}</option>
                </select>
                is <input v-model="leaving.is" class="field short" aria-label="rows left out: value" />{{ ' ' }}
                <button class="link" :disabled="!leaving.column" @click="addLeaving">leave out</button></span
              >
            </td>
          </tr>
        </tbody>
      </table>
      <datalist id="mapping-columns"><option v-for="column in preview.header" :key="column" :value="column" /></datalist>
      <div class="result">
        <h4 class="minor">The first rows as charges</h4>
        <ul v-if="preview.problems.length" class="bad">
          <li v-for="(p, i) in preview.problems.slice(0, 6)" :key="i">
            <template v-if="p.row">row {{ p.row }}, </template>{{ p.column
            }}<template v-if="p.value"
              >, <code>{{ p.value }}</code></template
            >: {{ p.reason }}. {{ p.mend }}
          </li>
        </ul>
        <div class="scroll" tabindex="0" role="group" aria-label="first rows as charges">
          <table v-if="preview.columns.length" class="ledger small" data-testid="mapped">
            <thead>
              <tr>
                <th v-for="column in previewed" :key="column">{{ column }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(row, i) in preview.rows" :key="i">
                <td v-if="row === null" :colspan="previewed.length" class="minor">left out: {{ preview.raw[i]?.join(' ') }}</td>
                <template v-else
                  ><td v-for="column in previewed" :key="column">{{ row[places(column)] }}</td></template
                >
              </tr>
            </tbody>
          </table>
        </div>
        <h4 class="minor">As they stand in the file</h4>
        <div class="scroll" tabindex="0" role="group" aria-label="first rows of the file">
          <table class="ledger small">
            <thead>
              <tr>
                <th v-for="column in preview.header" :key="column">{{ column }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(row, i) in preview.raw.slice(0, 5)" :key="i">
                <td v-for="(cell, c) in row" :key="c">{{ cell }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </div>
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <button class="button main" :disabled="busy || !preview.columns.length || preview.problems.length > 0" @click="keep">
      Keep this mapping for {{ delivery.source }}
    </button>
  </section>
  <ProblemNote v-else-if="problem" :problem="problem" :retry="() => look(null)" />
</template>

<style scoped>
.panel {
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  padding: 10px 14px;
  margin: 10px 0;
  background: var(--paper-raised);
}
.top {
  display: flex;
  justify-content: space-between;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  margin: 6px 0 10px;
}
.ways label {
  display: grid;
  font-size: 12px;
  color: var(--ink-3);
}
.short {
  width: 84px;
}
.sides {
  display: grid;
  grid-template-columns: 480px minmax(0, 1fr);
  gap: 22px;
  align-items: start;
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
.result {
  min-width: 0;
}
.small td,
.small th {
  white-space: nowrap;
  font-size: 12px;
}
h4 {
  margin: 8px 0 2px;
  font-weight: 560;
}
.button.main {
  margin-top: 10px;
}
@media (max-width: 1050px) {
  .sides {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
