<script setup lang="ts">
import type { Component } from '../../../core/estimate/estimate'
import type { PricedComponent } from '../../../core/estimate/pricing/price-row'
import { paybackMonths } from '../../../core/estimate/pricing/ways-to-pay'
import { evaluate } from '../../../core/working/working'

/** Every way in which a row can be paid, each over its own term; one is taken by its name. */
const props = defineProps<{ component: Component; row: PricedComponent }>()
const store = useEstimate()
const figures = ['upfront', 'monthly', 'effectiveMonthly', 'firstYear', 'wholeTerm', 'breakEvenHours'] as const
const cheapest = computed(
  () => props.row.ways.map(way => ({ way, cost: evaluate(way.effectiveMonthly) })).sort((a, b) => a.cost.cmp(b.cost))[0]?.way,
)
const wayKey = (way: { way: string; commits: string | null }) => [way.way, way.commits].filter(Boolean).join(', ')
function takeWay(way: { way: string; commits: string | null }) {
  if (way.commits !== null) store.set([props.component.id], 'commitTo', way.commits)
  store.set([props.component.id], 'pays', way.way)
}
const severalCounts = computed(() => new Set(props.row.ways.map(way => way.commits).filter(Boolean)).size > 1)
const payback = (index: number) => {
  const months = paybackMonths(props.row.ways[index]!, props.row.ways[0]!)
  return months ? decimals(months.round(1).toFixed(), 1) : '–'
}
</script>

<template>
  <div>
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
      A commitment is charged for all {{ store.priced!.monthHours }} hours of the month. Below its break-even hours on-demand costs less.
      Each way is shown over its own term; the sheet spreads what is paid at once over {{ store.priced!.termYears }}
      {{ store.priced!.termYears === 1 ? 'year' : 'years' }}.
    </p>
  </div>
</template>

<style scoped>
h3 {
  margin: 10px 0 3px;
}
.way {
  font-weight: 500;
  white-space: nowrap;
}
.cheapest {
  margin-left: 6px;
  white-space: nowrap;
}
.ledger th {
  white-space: normal;
}
.ledger :is(th, td) {
  padding-inline: 4px;
}
.committed {
  padding-top: 8px;
  text-align: left;
  color: var(--ink-2);
}
</style>
