<script setup lang="ts">
import { waterfall, type Bar } from '../../../core/spend/page/waterfall'
import type { SpendComparison } from '../../../shared/contracts/spend'
import type { ValueRef } from '../../stores/spend'

/** From one amount to another in bars: the largest steps, and the rest as one. A step's name opens the menu of its value. */
type Contribution = SpendComparison['contributions'][number]
const { total, contributions, label, target } = defineProps<{
  total: SpendComparison['totals'][number]
  contributions: readonly Contribution[]
  label: (contribution: Contribution) => string
  target: (contribution: Contribution) => ValueRef
}>()
const spend = useSpend()
const { openMenu, onKey } = useValueKeys()
const drawn = computed(() => waterfall(total, contributions))
const contributionOf = ({ of }: Bar) => (typeof of === 'object' && 'values' in of ? of : null)
function nameOf(bar: Bar): string {
  if (bar.of === 'before') return spend.compared ? periodText(spend.compared) : 'before'
  if (bar.of === 'now') return periodText(spend.period)
  return 'values' in bar.of ? label(bar.of) : `the other ${count(bar.of.others)}`
}
</script>

<template>
  <ol class="waterfall" aria-label="From before to now">
    <li v-for="(bar, i) in drawn.bars" :key="i" class="bar">
      <component
        :is="contributionOf(bar) ? 'button' : 'span'"
        class="label"
        :class="{ level: bar.kind === 'level' }"
        :title="nameOf(bar)"
        @click="contributionOf(bar) && openMenu(target(contributionOf(bar)!), $event.currentTarget as Element)"
        @keydown="contributionOf(bar) && onKey($event, target(contributionOf(bar)!))"
        >{{ nameOf(bar) }}</component
      >
      <span class="track"
        ><span
          class="fill"
          :class="[bar.kind, { less: bar.kind === 'step' && Number(bar.amount) < 0, cut: drawn.isCut && bar.kind === 'level' }]"
          :style="{ left: `${bar.left}%`, width: `${bar.width}%` }"
      /></span>
      <span class="amount">{{ bar.kind === 'level' ? money(bar.amount, spend.currency) : signedMoney(bar.amount, spend.currency) }}</span>
    </li>
  </ol>
  <p v-if="drawn.isCut" class="minor">
    The first and last bar are cut off on the left: the scale begins above zero so that the steps can be seen.
  </p>
</template>

<style scoped>
.waterfall {
  display: grid;
  gap: 3px;
  margin-bottom: 8px;
}
.bar {
  display: grid;
  grid-template-columns: minmax(120px, 230px) minmax(0, 1fr) 110px;
  gap: 10px;
  align-items: center;
}
.label {
  min-height: 24px;
  text-align: left;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  border-radius: 3px;
  display: block;
  line-height: 24px;
}
button.label:hover {
  color: var(--act);
  text-decoration: underline;
  text-underline-offset: 3px;
}
.label.level {
  font-weight: 620;
}
.track {
  position: relative;
  height: 16px;
}
.fill {
  position: absolute;
  top: 0;
  bottom: 0;
  border-radius: 2px;
}
.fill.level {
  background: var(--act);
}
.fill.level.cut {
  border-left: 4px double var(--paper);
}
.fill.step {
  background: var(--warn);
}
.fill.step.less {
  background: var(--good);
}
.amount {
  text-align: right;
  white-space: nowrap;
}
</style>
