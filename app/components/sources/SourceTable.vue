<script setup lang="ts">
import type { DayRun } from '../../../core/time/day-runs'
import { daysBetween } from '../../../core/time/day'
import type { SourceState } from '../../../shared/contracts/imports'

/** What is loaded of each source, how far it reaches, and what it lacks. */
defineProps<{ list: SourceState[] }>()
const sources = useSources()
const data = useData()

/** The newest billing period of a source, one entry per currency. */
function latest(source: SourceState) {
  const start = source.periods.at(-1)?.billingPeriodStart
  return source.periods.filter(p => p.billingPeriodStart === start)
}
/** Days by which a source lies behind the newest one. */
const behind = (source: SourceState) => (source.lastDay && data.facts?.lastDay ? daysBetween(source.lastDay, data.facts.lastDay) : 0)
const months = (source: SourceState) => new Set(source.periods.map(p => p.billingPeriodStart)).size
const runText = ([first, last]: DayRun) => (first === last ? dayText(first) : `${dayText(first)} to ${dayText(last)}`)
const asking = ref<string | null>(null)
function takeOut(source: string) {
  asking.value = null
  void sources.takeOut(source)
}
</script>

<template>
  <section>
    <h2 class="heading">Sources</h2>
    <div class="scroll" tabindex="0" role="group" aria-label="sources">
      <table class="ledger" data-testid="sources">
        <thead>
          <tr>
            <th>source</th>
            <th>data to</th>
            <th>days without charges</th>
            <th class="n">billing periods</th>
            <th>newest period</th>
            <th class="n">billed in it</th>
            <th class="n">charges</th>
            <th>loaded</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="source in list" :key="source.source" class="acts">
            <td>
              <button class="link" @click="sources.choose(source.periods.at(-1)!.loadId)">{{ source.source }}</button><span
                v-if="source.mapped"
                class="minor"
              >
                mapped</span
              >
            </td>
            <td>
              {{ source.lastDay ? dayText(source.lastDay) : '–'
              }}<template v-if="behind(source)"
                ><br /><span class="warn">{{ behind(source) === 1 ? '1 day' : `${count(behind(source))} days` }} behind</span></template
              ><template v-if="source.partialDay"
                ><br /><span class="minor">{{ dayShortText(source.partialDay) }} in part</span></template
              ><template v-if="source.laterFrom"
                ><br /><span class="minor">more begins {{ dayText(source.laterFrom) }}</span></template
              >
            </td>
            <td>
              <span v-if="source.missingCount" class="warn" :title="source.missingDays.map(runText).join(', ')">{{
                source.missingDays.length > 2
                  ? `${count(source.missingCount)}, from ${dayText(source.missingDays[0]![0])}`
                  : source.missingDays.map(runText).join(', ')
              }}</span><template v-else>none</template>
            </td>
            <td class="n">{{ months(source) }}</td>
            <td>{{ monthText(source.periods.at(-1)!.billingPeriodStart) }}</td>
            <td class="n">
              <div v-for="period in latest(source)" :key="period.currency">
                {{ money(period.billedCost, period.currency) }} {{ period.currency }}
              </div>
            </td>
            <td class="n">{{ count(latest(source).reduce((n, p) => n + p.rows, 0)) }}</td>
            <td>{{ timeText(source.lastLoadedAt) }}</td>
            <td class="n">
              <template v-if="asking === source.source"
                ><button class="link" @click="takeOut(source.source)">All {{ months(source) }} periods</button>{{ ' ' }}
                <button class="link" @click="asking = null">cancel</button></template
              ><button v-else class="link" :aria-label="`delete all of ${source.source}`" @click="asking = source.source">delete</button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>
