<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { mainTotal } from '../../../core/money/main-total'
import { daysBetween } from '../../../core/time/day'
import { laggards } from '../../../core/spend/sentence-period'
import { monthToDate } from '../../../core/time/period'
import { withinSaid } from '../../../shared/words/within'

/** Under the bar: the month to date against the same days of the month before, in the currency that is reported in, or the largest. */
const data = useData()
const jobs = useJobs()
const LOOK_AT_JOBS_EVERY_MS = 60_000
const session = useSession()
// the next look may find the server again
const look = () => {
  if (session.seesAll) void jobs.load().catch(() => {})
}
watch(() => session.seesAll, look, { immediate: true })
useIntervalFn(look, LOOK_AT_JOBS_EVERY_MS)

const amounts = computed(() =>
  (data.monthNow?.totals ?? []).map(now => {
    const before = data.monthBefore?.totals.find(t => t.currency === now.currency)?.amount ?? '0'
    return { ...now, before, share: Number(before) > 0 ? Number(now.amount) / Number(before) : null }
  }),
)
const main = computed(() => mainTotal(amounts.value, data.facts?.reportCurrency ?? null))
const others = computed(() => amounts.value.filter(a => a !== main.value))
/** Sources whose days end sooner. */
const lagging = computed(() => {
  if (!data.days) return []
  const { current } = monthToDate(data.days.lastDay)
  return laggards(current, data.days)
})
const days = computed(() => {
  if (!data.facts?.lastDay) return null
  const { current } = monthToDate(data.facts.lastDay)
  return { count: daysBetween(current.start, current.end), month: monthText(current.start) }
})
</script>

<template>
  <div class="strip" data-testid="level-strip">
    <b v-if="data.facts?.within" class="within" data-testid="within" :title="`Every figure is of ${withinSaid(data.facts.within)}`">{{
      data.facts.within.length ? `Only ${data.facts.within.join(', ')}` : 'No cost centre'
    }}</b>
    <template v-if="main && days">
      <b class="wide">{{ days.month }}</b>
      <LevelGauge
        v-if="main.share !== null"
        :used="main.share"
        :notches="[0.5]"
        :tone="main.share > 1.05 ? 'bad' : 'act'"
        :label="`${whole(main.amount)} ${main.currency} this month, ${whole(main.before)} on the same days of the month before`"
      />
      <span>
        <b>{{ whole(main.amount) }} {{ currencySign(main.currency) }}</b> billed in {{ days.count }} {{ days.count === 1 ? 'day' : 'days'
        }}<template v-if="main.share !== null"
          >, <b :class="{ bad: main.share > 1.05 }">{{ percent(main.amount, main.before) }}</b> of the same days a month before</template
        >
      </span>
      <span v-for="other in others" :key="other.currency" class="wide"
        >· {{ whole(other.amount) }} {{ other.currency
        }}<template v-if="other.share !== null">, {{ percent(other.amount, other.before) }}</template></span
      >
      <span class="end"
        >data to <b>{{ dayShortText(data.facts!.lastDay!) }}</b><template v-if="lagging.length"
          >, {{ lagging[0]!.source }} to {{ dayShortText(lagging[0]!.lastDay)
          }}{{ lagging.length > 1 ? ` and ${lagging.length - 1} more behind` : '' }}</template
        ></span
      >
    </template>
    <span v-else-if="data.failed" class="bad"
      >The month to date could not be read. <button class="link" @click="data.load()">Try again</button></span
    >
    <span v-else-if="data.facts?.within">No charge is on what you see.</span>
    <span v-else-if="data.facts">Nothing is loaded yet. Drop a bill under Sources.</span>
    <span v-else>Reading…</span>
    <NuxtLink v-if="jobs.wanting.length" class="link bad" to="/sources/runs"
      >{{ jobs.wanting.length }} {{ jobs.wanting.length === 1 ? 'job needs' : 'jobs need' }} attention</NuxtLink
    >
  </div>
</template>

<style scoped>
.strip {
  min-height: 30px;
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 3px 20px;
  background: var(--paper-sunk);
  border-bottom: 1px solid var(--line);
  font-size: 12px;
  color: var(--ink-2);
}
.strip b {
  color: var(--ink);
  font-weight: 620;
}
.strip b.bad {
  color: var(--bad);
}
.strip b.within {
  color: var(--warn);
  white-space: nowrap;
}
.end {
  margin-left: auto;
  white-space: nowrap;
}
@media (max-width: 900px) {
  .wide {
    display: none;
  }
  .strip {
    flex-wrap: wrap;
  }
}
</style>
