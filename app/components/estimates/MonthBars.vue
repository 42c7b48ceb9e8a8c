<script setup lang="ts">
/** What each of several months costs where they differ. */
const props = defineProps<{ amounts: number[]; currency: string }>()
const WIDTH = 520
const HEIGHT = 60
const most = computed(() => Math.max(...props.amounts, 1e-9))
const bars = computed(() =>
  props.amounts.map((amount, i) => ({
    amount,
    x: (i * WIDTH) / props.amounts.length,
    width: WIDTH / props.amounts.length - 2,
    height: (amount / most.value) * HEIGHT,
  })),
)
const text = (amount: number) => money(amount.toFixed(4), props.currency)
</script>

<template>
  <figure class="months">
    <svg
      :viewBox="`0 -14 ${WIDTH} ${HEIGHT + 30}`"
      role="img"
      :aria-label="`${amounts.length} months, from ${text(amounts[0] ?? 0)} to ${text(amounts.at(-1) ?? 0)} ${currency}`"
    >
      <rect
        v-for="bar in bars"
        :key="bar.x"
        :x="bar.x"
        :y="HEIGHT - bar.height"
        :width="bar.width"
        :height="Math.max(bar.height, 1)"
        fill="var(--c1)"
      >
        <title>month {{ Math.round((bar.x / WIDTH) * amounts.length) + 1 }}: {{ text(bar.amount) }} {{ currency }}</title>
      </rect>
      <line x1="0" :x2="WIDTH" :y1="HEIGHT" :y2="HEIGHT" stroke="var(--ink-3)" />
      <text x="0" :y="HEIGHT + 13">month 1: {{ text(amounts[0] ?? 0) }}</text>
      <text :x="WIDTH" :y="HEIGHT + 13" text-anchor="end">month {{ amounts.length }}: {{ text(amounts.at(-1) ?? 0) }}</text>
    </svg>
    <details>
      <summary class="minor">month by month</summary>
      <table class="ledger">
        <tbody>
          <tr v-for="(amount, i) in amounts" :key="i">
            <td>month {{ i + 1 }}</td>
            <td class="n">{{ text(amount) }}</td>
          </tr>
        </tbody>
      </table>
    </details>
  </figure>
</template>

<style scoped>
.months {
  margin-top: 8px;
}
svg {
  width: 100%;
  max-width: 640px;
  display: block;
}
text {
  font: 10.5px var(--sans);
  fill: var(--ink-3);
}
summary {
  cursor: pointer;
  min-height: 24px;
}
.ledger {
  max-width: 260px;
}
</style>
