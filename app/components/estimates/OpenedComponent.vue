<script setup lang="ts">
import { findKind } from '../../../core/estimate/components'
import { fieldProblem, type Field } from '../../../core/estimate/components/field'
import { helpersFor } from '../../../core/estimate/helpers'
import { applies, hasPlace } from '../../../core/estimate/components/kind'
import type { Component } from '../../../core/estimate/estimate'
import { evaluate } from '../../../core/working/working'
import { figureOf, paybackMonths } from '../../../core/estimate/pricing/ways-to-pay'
import { chargedFor } from '../../../core/ratecard/describe'
import { sheetKey } from '../../composables/useSheet'

/** A row opened: all its inputs beside its Workings and every way to pay. Opening changes nothing. */
const props = defineProps<{ component: Component }>()
const store = useEstimate()
const { options, value } = inject(sheetKey)!
const kind = computed(() => findKind(props.component.kind))
const row = computed(() => store.priced!.byId.get(props.component.id)!)
const figures = ['upfront', 'monthly', 'effectiveMonthly', 'firstYear', 'wholeTerm', 'breakEvenHours'] as const
const cheapest = computed(
  () => row.value.ways.map(way => ({ way, cost: evaluate(way.effectiveMonthly) })).sort((a, b) => a.cost.cmp(b.cost))[0]?.way,
)
const helping = ref<string | null>(null)
function takeHelp(field: string, value: string) {
  store.set([props.component.id], field, value)
  helping.value = null
}
const monthHours = computed(() => store.priced!.monthHours)
/** Told while one types, at the input, the same as in the sheet, by paste and by import. */
const problemOf = (field: Field) =>
  row.value.problems[field.name] ??
  (row.value.place
    ? fieldProblem(field, value(props.component, field), row.value.place.card, row.value.place.region, monthHours.value)
    : null)
const commit = (field: string, event: Event) => store.set([props.component.id], field, (event.target as HTMLInputElement).value)
/** What an input holds, as it can be typed; its unit stands behind it. */
function boxText(field: Field): string {
  const text = value(props.component, field)
  const shown = field.type === 'number' ? shownInput(field, text) : text
  return field.unit && shown.endsWith(` ${field.unit}`) ? shown.slice(0, -field.unit.length - 1) : shown
}
const wayKey = (way: { way: string; commits: string | null }) => [way.way, way.commits].filter(Boolean).join(', ')
function takeWay(way: { way: string; commits: string | null }) {
  if (way.commits !== null) store.set([props.component.id], 'commitTo', way.commits)
  store.set([props.component.id], 'pays', way.way)
}
const severalCounts = computed(() => new Set(row.value.ways.map(way => way.commits).filter(Boolean)).size > 1)
const where: Field = {
  type: 'choice',
  name: 'where',
  label: 'where',
  help: 'Another region, or another provider whose rate card the estimate names.',
  options: () => [],
  usual: () => '',
}
const fields = computed((): Field[] => [
  ...(kind.value?.fields ?? []).filter(field => !row.value.place || applies(field, row.value.inputs, row.value.place)),
  ...(kind.value && hasPlace(kind.value) ? [where] : []),
])
const payback = (index: number) => {
  const months = paybackMonths(row.value.ways[index]!, row.value.ways[0]!)
  return months ? decimals(months.round(1).toFixed(), 1) : '–'
}
const each = computed(() =>
  row.value.charges?.each && row.value.chosen
    ? {
        label: row.value.charges.each.label,
        count: evaluate(row.value.charges.each.count),
        cost: evaluate(figureOf(row.value.chosen, 'effectiveMonthly', store.priced!.termYears)),
      }
    : null,
)
/** What is known of the card's line: what it is charged for, what the provider promises and what it leaves out. */
const line = computed(() => {
  const sku = row.value.charges?.running?.[0]?.line
  const place = row.value.place
  const field = kind.value?.fields.find(f => f.type === 'choice' && f.meter && f.column === 'size')
  return (
    sku ??
    (place && field?.type === 'choice'
      ? place.card.prices.find(p => p.meter === field.meter && p.region === place.region && p.variant === row.value.inputs[field.name])
      : undefined) ??
    null
  )
})
const months = computed(() => row.value.chosen?.months?.map(month => Number(evaluate(month).toFixed(4))) ?? null)
</script>

<template>
  <div class="opened">
    <div class="inputs">
      <div v-for="field in fields" :key="field.name" class="input">
        <label :for="`${component.id}-${field.name}`"
          >{{ field.label }}<i v-if="field.name !== 'where' && !component.confirmed.includes(field.name)" class="warn"> · default</i></label
        >
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
            v-if="field.name !== 'where' && !component.confirmed.includes(field.name) && !store.scenarioId"
            type="button"
            class="link agree"
            @click="store.confirm(component.id, field.name)"
          >
            it is right
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
    <div class="beside">
      <template v-if="row.chosen">
        <p v-if="line" class="minor facts">
          Charged for {{ chargedFor(line) === 'existing' ? 'existing' : 'use'
          }}<template v-if="line.serviceLevel"> · {{ line.serviceLevel }}</template
          ><template v-if="line.excludes"> · not in it: {{ line.excludes }}</template>
        </p>
        <p v-if="row.charges?.facts?.length || each" class="facts">
          <template v-for="fact in row.charges?.facts" :key="fact.label"
            >{{ fact.label }} <b>{{ quantity(evaluate(fact.working).toFixed()) }}</b> · </template
          ><template v-if="each"
            >cost per {{ each.label }}
            <b>{{ each.count.gt(0) ? money(roundText(each.cost.div(each.count).toFixed()), store.currency) : '–' }} {{ store.currency }}</b>
            a month</template
          >
        </p>
        <p v-if="row.uplifts.length" class="facts own">
          Own charges: {{ row.uplifts.map(u => `${u.name} (${u.who}, from ${dayText(u.validFrom)})`).join('; ') }}
        </p>
        <MonthBars v-if="months" :amounts="months" :currency="store.currency" />
        <template v-if="row.ways.length > 1">
          <h3 class="minor">Every way to pay</h3>
          <table class="ledger">
            <thead>
              <tr>
                <th />
                <th class="n">upfront</th>
                <th class="n">monthly</th>
                <th class="n">effective monthly</th>
                <th class="n">first 12 months</th>
                <th class="n">its term</th>
                <th class="n">breaks even at</th>
                <th class="n">paid back, months</th>
              </tr>
            </thead>
            <tbody>
              <template v-for="(way, index) in row.ways" :key="wayKey(way)">
                <tr v-if="severalCounts && way.commits && way.commits !== row.ways[index - 1]?.commits">
                  <th colspan="8" scope="rowgroup" class="committed">committed to {{ way.commits }}</th>
                </tr>
                <tr class="acts" :class="{ chosen: way === row.chosen }">
                  <td>
                    <button class="link way" :aria-pressed="way === row.chosen" @click="takeWay(way)">{{ way.way }}</button><span
                      v-if="severalCounts && way.commits"
                      class="sr-only"
                      >, {{ way.commits }}</span
                    ><span v-if="way === cheapest" class="minor cheapest" title="cheapest a month">◂ cheapest</span>
                  </td>
                  <td v-for="name in figures" :key="name" class="n">
                    <ExplainedFigure
                      :text="way[name] ? evaluate(way[name]).toFixed() : null"
                      :asked="{ of: 'row', component: component.id, way: wayKey(way), figure: name }"
                      :scenario="store.scenarioId"
                    />
                  </td>
                  <td class="n">{{ index ? payback(index) : '–' }}</td>
                </tr>
              </template>
            </tbody>
          </table>
          <p class="minor">
            A commitment is charged for all {{ monthHours }} hours of the month. Below its break-even hours on-demand costs less. Each way
            is told over its own term; the sheet spreads what is paid at once over {{ store.priced!.termYears }}
            {{ store.priced!.termYears === 1 ? 'year' : 'years' }}.
          </p>
        </template>
        <h3 class="minor">Workings, {{ row.chosen.way }}, a month</h3>
        <WorkingsTree :working="figureOf(row.chosen, 'effectiveMonthly', store.priced!.termYears)" :currency="store.currency" />
      </template>
      <p v-else class="bad">{{ Object.values(row.problems).join('. ') }}.</p>
    </div>
  </div>
</template>

<style scoped>
.opened {
  display: grid;
  grid-template-columns: 262px minmax(0, 1fr);
  gap: 20px;
  padding: 10px 14px 12px;
  border: 1px solid var(--act);
  border-radius: 0 0 4px 4px;
  background: var(--paper);
  white-space: normal;
}
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
.beside h3 {
  margin: 2px 0 3px;
}
.beside h3:not(:first-child) {
  margin-top: 10px;
}
.way {
  font-weight: 500;
  white-space: nowrap;
}
.cheapest {
  margin-left: 6px;
  white-space: nowrap;
}
.facts {
  margin-top: 5px;
}
.own {
  color: var(--warn);
}
.beside {
  overflow-x: auto;
}
.beside th {
  white-space: normal;
}
.beside .ledger :is(th, td) {
  padding-inline: 4px;
}
.committed {
  padding-top: 8px;
  text-align: left;
  color: var(--ink-2);
}
@media (max-width: 800px) {
  .opened {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
