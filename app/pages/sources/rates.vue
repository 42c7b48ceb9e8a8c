<script setup lang="ts">
import { currencies } from '../../../core/money/currency'
import { rateList, referenceState, reportCurrencyChange } from '../../../shared/contracts/spend-settings'
import type { z } from 'zod'

/** Exchange rates by the day from which they hold; costs in one currency are converted at the rate of each charge's day. */
const rates = ref<z.infer<typeof rateList>['rates']>([])
const sources = useSources()
const data = useData()
useHead({ title: 'Exchange rates · Rain Barrel' })
const { attempt, problem, busy } = useAttempt()
const load = () =>
  attempt(async () => {
    const [list, reference] = await Promise.all([client.get('rates', rateList), client.get('spend/reference', referenceState)])
    rates.value = list.rates
    reportCurrency.value = reference.body.reportCurrency
  })
/** What cost centres have directly is compared in it when pools are divided. */
const reportCurrency = ref<string | null>(null)
const report = (currency: string | null) =>
  attempt(async () => {
    const saved = await client.send('PUT', 'spend/report-currency', { reportCurrency: currency }, reportCurrencyChange)
    reportCurrency.value = saved.reportCurrency
  })
/** Those of the charges and rates first. */
const choices = computed(() => {
  const near = [...new Set([...(data.facts?.currencies ?? []), ...rates.value.flatMap(rate => [rate.from, rate.to])])].sort()
  return [...near, ...currencies.filter(currency => !near.includes(currency))]
})
onMounted(load)
async function drop(files: File[]) {
  await sources.drop(files)
  await load()
}
const pairs = computed(() => [...new Set(rates.value.map(r => `${r.from} to ${r.to}`))])
/** One line to a day from which rates hold, a column to a pair; beside each rate what it changed by since the one before. */
const byDay = computed(() => {
  const found = new Map<string, Map<string, (typeof rates.value)[number]>>()
  for (const rate of rates.value)
    found.set(rate.validFrom, (found.get(rate.validFrom) ?? new Map()).set(`${rate.from} to ${rate.to}`, rate))
  const days = [...found.keys()].sort()
  const before = new Map<string, string>()
  return days
    .map(day => {
      const cells = pairs.value.map(pair => {
        const rate = found.get(day)!.get(pair)
        const last = before.get(pair)
        if (rate) before.set(pair, rate.rate)
        const moved = rate && last ? subtractTexts(rate.rate, last) : '0'
        return rate ? { ...rate, change: Number(moved) === 0 ? '' : `${Number(moved) > 0 ? '+' : ''}${percent(moved, last!)}` } : null
      })
      return { day, cells, who: [...new Set(cells.flatMap(cell => (cell ? [`${cell.who}, ${timeText(cell.loadedAt)}`] : [])))].join('; ') }
    })
    .reverse()
})
const digits = computed(() => Math.max(0, ...rates.value.map(rate => (rate.rate.split('.')[1] ?? '').length)))
const lacking = computed(() =>
  (data.facts?.currencies ?? []).filter(currency => !rates.value.some(r => r.from === currency || r.to === currency)),
)
</script>

<template>
  <div class="page">
    <PlaceNav place="Sources" />
    <h1 class="sentence">
      {{
        rates.length
          ? `${rates.length} exchange rates for ${pairs.join(', ')}.`
          : 'No exchange rates are loaded: costs are shown in the currency they were billed in.'
      }}
    </h1>
    <DropPlace @files="drop" />
    <TakenFiles />
    <p class="minor">
      A CSV with the columns <code>from,to,valid from,rate</code>: from that day on one unit of the first currency is worth so many of the
      second.
    </p>
    <p v-if="lacking.length && rates.length" class="warn">Charges are billed in {{ lacking.join(', ') }} too, and no rate knows it.</p>
    <p class="report">
      <label for="report-currency">The company reports in</label>
      <select
        id="report-currency"
        class="field"
        :value="reportCurrency ?? ''"
        @change="report(($event.target as HTMLSelectElement).value || null)"
      >
        <option value="">no currency of its own</option>
        <option v-for="currency in choices" :key="currency" :value="currency">{{ currency }}</option>
      </select>
      <span class="minor">{{
        reportCurrency
          ? `Direct costs of cost centres are compared in ${reportCurrency}, at the rates of the month’s last day, when a pool is divided by them.`
          : 'A pool is divided by what cost centres have directly in the currency it was billed in; those billed in others bear nothing of it.'
      }}</span>
    </p>
    <ProblemNote v-if="problem" :problem="problem" :retry="load" />
    <div v-if="rates.length" class="scroll list" tabindex="0" role="group" aria-label="exchange rates">
      <table class="ledger" data-testid="rates">
        <thead>
          <tr>
            <th>holds from</th>
            <template v-for="pair in pairs" :key="pair"
              ><th class="n">{{ pair }}</th>
              <th class="n">change</th></template
            >
            <th>by</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="line in byDay" :key="line.day">
            <td class="day">{{ dayText(line.day) }}</td>
            <template v-for="(cell, i) in line.cells" :key="pairs[i]"
              ><td class="n">{{ cell ? decimals(cell.rate, digits) : '' }}</td>
              <td class="n minor">{{ cell?.change }}</td></template
            >
            <td class="minor day">{{ line.who }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-else-if="busy" class="note">Reading…</p>
  </div>
</template>

<style scoped>
.day {
  white-space: nowrap;
}
.report {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  margin: 10px 0;
}
.list {
  max-width: 900px;
  margin-top: 10px;
}
code {
  background: var(--paper-sunk);
  padding: 0 4px;
  border-radius: 3px;
}
</style>
