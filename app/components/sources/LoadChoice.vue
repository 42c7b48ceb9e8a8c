<script setup lang="ts">
import type { DayRun } from '../../../core/time/day-runs'
import type { ImportOptions, ImportStatus } from '../../../shared/contracts/imports'

/** What counts, where a delivery meets what counts already: what would stand empty is said before one chooses. */
defineProps<{ load: ImportStatus; options: ImportOptions }>()
const sources = useSources()

const MOST_RUNS = 6
const runText = ([first, last]: DayRun) => (first === last ? dayText(first) : `${dayText(first)} to ${dayText(last)}`)
const daysText = (runs: DayRun[]) =>
  runs.slice(0, MOST_RUNS).map(runText).join(', ') + (runs.length > MOST_RUNS ? ` and ${runs.length - MOST_RUNS} more times` : '')
const namesOf = (options: ImportOptions) => [...new Set(options.meets.map(({ source }) => source))].join(' and ')
</script>

<template>
  <div class="choose">
    <p v-for="meeting in options.meets" :key="meeting.source + meeting.billingPeriodStart">
      <template v-if="meeting.because === 'newer'"
        >A newer delivery of <b>{{ meeting.source }}</b> counts for {{ monthText(meeting.billingPeriodStart) }}.</template
      ><template v-else
        ><b>{{ meeting.source }}</b> counts for {{ meeting.billingAccountIds.join(', ') }} from {{ dayText(meeting.billingPeriodStart)
        }}<template v-if="meeting.others.length">, together with {{ meeting.others.join(', ') }}</template
        >.</template
      >
    </p>
    <p v-if="!options.meets.length">Nothing overlaps it any more: load it, or delete it.</p>
    <p v-if="options.waiting.length" class="minor">
      Also waiting for the same account and time:
      {{ options.waiting.map(other => `${other.source} (load ${other.id})`).join(', ') }}. The one chosen last counts.
    </p>
    <p v-if="options.emptyWithThis.length" class="warn">
      With {{ load.source }} there would be no charges on {{ daysText(options.emptyWithThis) }}.
    </p>
    <p v-if="options.emptyWithOther.length" class="warn">Without this delivery there are none on {{ daysText(options.emptyWithOther) }}.</p>
    <div class="acts">
      <button class="button main" @click="sources.decide(load.id, 'this')">
        {{
          options.meets.length
            ? `Use this delivery${namesOf(options) === load.source ? '' : ` instead of ${namesOf(options)}`}`
            : 'Load this delivery'
        }}
      </button>
      <button class="button" @click="sources.decide(load.id, 'other')">
        {{ options.meets.length ? 'Leave what counts, delete this' : 'Delete this delivery' }}
      </button>
      <button v-if="options.both" class="button" @click="sources.decide(load.id, 'both')">Both count</button>
    </div>
    <p v-if="options.both" class="minor">They have no sub account in common. If both count, they go on doing so until they have one.</p>
  </div>
</template>

<style scoped>
.choose {
  background: var(--act-soft);
  padding: 8px 10px;
  border-radius: 4px;
  margin: 6px 0;
  display: grid;
  gap: 6px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
</style>
