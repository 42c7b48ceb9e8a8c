<script setup lang="ts">
import { centreDimension } from '../../../core/spend/dimension'
import { unallocatedByMonth, type MonthShare } from '../../../core/allocation/unallocated-share'
import { monthEnd } from '../../../core/time/day'
import type { ProblemDetails } from '../../../shared/contracts/common'
import { askAnswers } from '../../utils/ask-answers'

/** How much of the bill was on nobody, month by month, by the rules that hold for each now. */
const props = defineProps<{ currency: string }>()
const allocation = useAllocation()
const data = useData()
const months = shallowRef<MonthShare[]>([])
const problem = shallowRef<ProblemDetails | null>(null)
watch(
  () => [props.currency, allocation.question?.measure, allocation.treeId, allocation.saved?.version, data.facts?.revision] as const,
  async ([currency, measure, tree]) => {
    if (!measure || !data.facts?.firstDay || !data.facts.lastDay) return
    const asked = { measure, splitBy: [centreDimension(tree)], grain: 'month' as const, basis: 'billing' as const }
    try {
      const [answer] = await askAnswers([
        { ...asked, start: `${data.facts.firstDay.slice(0, 7)}-01`, end: monthEnd(data.facts.lastDay.slice(0, 7)) },
      ])
      months.value = unallocatedByMonth(answer!.rows, currency, centreDimension(tree)).slice(-13)
      problem.value = null
    } catch (error) {
      months.value = []
      problem.value = problemOf(error)
    }
  },
  { immediate: true },
)
const top = computed(() => Math.max(0.01, ...months.value.map(({ share }) => share ?? 0)))
</script>

<template>
  <p v-if="problem" class="warn">The share of each month could not be worked out: {{ problem.detail }}</p>
  <figure v-if="months.length > 1" class="progress">
    <div class="bars" aria-hidden="true">
      <span
        v-for="one in months"
        :key="one.month"
        class="bar"
        :class="{ now: one.month === allocation.question?.month }"
        :title="`${monthText(one.month)}: ${one.share === null ? '–' : percent(one.share.toFixed(6), '1')}`"
        :style="{ height: `${Math.max(1, ((one.share ?? 0) / top) * 34)}px` }"
      />
    </div>
    <figcaption class="minor">
      unallocated by month:
      {{
        months
          .map(one => `${monthText(one.month)} ${one.share === null ? '–' : percent(one.share.toFixed(6), '1')}`)
          .slice(-3)
          .join(', ')
      }}
    </figcaption>
  </figure>
</template>

<style scoped>
.progress {
  margin: 2px 0 6px;
}
.bars {
  display: flex;
  gap: 3px;
  align-items: flex-end;
  height: 36px;
}
.bar {
  flex: 1;
  max-width: 24px;
  background: var(--line-strong);
  border-radius: 1px 1px 0 0;
}
.bar.now {
  background: var(--warn);
}
</style>
