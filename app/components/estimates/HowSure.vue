<script setup lang="ts">
import type { Simulated } from '../../../core/estimate/ranges/simulate'
import { DRAWS } from '../../../core/estimate/ranges/simulate'

/** How sure the total is: what thousands of draws of the ranges give, and which range matters most. */
const props = defineProps<{ simulated: Simulated | null; drawn: number | null }>()
const store = useEstimate()
const WIDTH = 235
const HEIGHT = 58
const text = (value: number) => money(value.toFixed(4), store.currency)
const bars = computed(() => {
  const { counts } = props.simulated!.histogram
  const most = Math.max(...counts, 1)
  return counts.map((n, i) => ({ x: (i * WIDTH) / counts.length, width: WIDTH / counts.length - 1, height: (n / most) * HEIGHT, n }))
})
const at = (value: number) => {
  const { from, to } = props.simulated!.histogram
  return to > from ? ((value - from) / (to - from)) * WIDTH : 0
}
const spread = computed(() => props.simulated?.tornado.reduce((sum, swing) => sum + swing.size, 0) ?? 0)
const scale = computed(() => {
  const swings = props.simulated?.tornado ?? []
  const from = Math.min(...swings.map(s => Math.min(s.low, s.high)))
  const to = Math.max(...swings.map(s => Math.max(s.low, s.high)))
  return (value: number) => (to > from ? ((value - from) / (to - from)) * WIDTH : 0)
})
const lead = computed(() => props.simulated?.tornado[0])
const figures = ['effectiveMonthly', 'upfront', 'firstYear', 'wholeTerm'] as const
const labels = { effectiveMonthly: 'a month', upfront: 'upfront', firstYear: '12 months', wholeTerm: 'whole term' } as const
</script>

<template>
  <section v-if="simulated?.draws || drawn !== null" aria-label="How sure">
    <h2 class="heading">
      How sure <span v-if="drawn !== null" class="minor" role="status">{{ count(drawn) }} of {{ count(DRAWS) }} draws</span>
    </h2>
    <template v-if="simulated?.draws">
      <svg
        :viewBox="`0 -12 ${WIDTH} ${HEIGHT + 26}`"
        role="img"
        :aria-label="`Of ${simulated.draws} draws one in ten lies under ${text(simulated.quantiles.effectiveMonthly.p10)}, half under ${text(simulated.quantiles.effectiveMonthly.p50)}, nine in ten under ${text(simulated.quantiles.effectiveMonthly.p90)}`"
      >
        <rect v-for="bar in bars" :key="bar.x" :x="bar.x" :y="HEIGHT - bar.height" :width="bar.width" :height="bar.height" fill="var(--c4)">
          <title>{{ count(bar.n) }} draws</title>
        </rect>
        <line x1="0" :x2="WIDTH" :y1="HEIGHT" :y2="HEIGHT" stroke="var(--ink-3)" />
        <g v-for="(name, i) in ['p10', 'p50', 'p90'] as const" :key="name">
          <line
            :x1="at(simulated.quantiles.effectiveMonthly[name])"
            :x2="at(simulated.quantiles.effectiveMonthly[name])"
            y1="-2"
            :y2="HEIGHT + 3"
            stroke="var(--warn)"
            stroke-dasharray="2 2"
          />
          <text
            :x="i === 0 ? 0 : i === 1 ? WIDTH / 2 : WIDTH"
            :y="HEIGHT + 13"
            :text-anchor="i === 0 ? 'start' : i === 1 ? 'middle' : 'end'"
          >
            {{ name.toUpperCase() }} {{ text(simulated.quantiles.effectiveMonthly[name]) }}
          </text>
        </g>
      </svg>
      <p class="note">
        9 of 10 draws lie under <b>{{ text(simulated.quantiles.effectiveMonthly.p90) }} {{ currencySign(store.currency) }}</b
        >.
        <template v-if="lead && spread > 0">{{ lead.label }} makes {{ Math.round((lead.size / spread) * 100) }} % of the spread.</template>
      </p>
      <div class="tornado" aria-label="what matters">
        <div v-for="swing in simulated.tornado.slice(0, 6)" :key="swing.ref">
          <span class="minor">{{ swing.label }}</span>
          <svg :viewBox="`0 0 ${WIDTH} 8`" role="img" :aria-label="`${swing.label}: from ${text(swing.low)} to ${text(swing.high)}`">
            <rect
              :x="scale(Math.min(swing.low, swing.high))"
              y="1"
              :width="Math.max(1.5, Math.abs(scale(swing.high) - scale(swing.low)))"
              height="6"
              fill="var(--c4)"
            >
              <title>{{ text(swing.low) }} to {{ text(swing.high) }}</title>
            </rect>
          </svg>
        </div>
      </div>
      <details>
        <summary class="minor">all figures</summary>
        <table class="ledger">
          <thead>
            <tr>
              <th />
              <th class="n">P10</th>
              <th class="n">P50</th>
              <th class="n">P90</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="name in figures" :key="name">
              <td>{{ labels[name] }}</td>
              <td class="n">{{ text(simulated.quantiles[name].p10) }}</td>
              <td class="n">{{ text(simulated.quantiles[name].p50) }}</td>
              <td class="n">{{ text(simulated.quantiles[name].p90) }}</td>
            </tr>
          </tbody>
        </table>
      </details>
    </template>
  </section>
</template>

<style scoped>
svg {
  width: 100%;
  display: block;
}
text {
  font: 9.5px var(--sans);
  fill: var(--ink-2);
}
.tornado {
  display: grid;
  gap: 2px;
  margin-top: 4px;
}
summary {
  cursor: pointer;
  min-height: 24px;
}
</style>
