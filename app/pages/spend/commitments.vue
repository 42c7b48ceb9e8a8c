<script setup lang="ts">
import { commitmentLines, commitmentSplits } from '../../../core/spend/commitment-lines'

/** Purchases as they were billed beside the cost spread over what they cover: the difference explained purchase by purchase. */
const data = useData()
useHead({ title: 'Commitments · Rain Barrel' })
const period = ref<Sentence['period']>('this-year')
const { attempt, problem, busy } = useAttempt()
const found = ref<ReturnType<typeof commitmentLines>>({ lines: [], totals: [] })
const lines = computed(() => found.value.lines)
const days = computed(() => data.days)
const now = computed(() => days.value && reachingPeriod({ period: period.value }, days.value))
const chosen = ref<string | null>(null)

watch(
  () => [now.value?.start, now.value?.end, data.facts?.revision],
  () =>
    now.value &&
    attempt(async () => {
      const question = { splitBy: [...commitmentSplits], grain: 'month' as const, ...now.value! }
      const [billed, effective] = await askAnswers([
        { ...question, measure: 'billedCost' },
        { ...question, measure: 'effectiveCost' },
      ])
      found.value = commitmentLines(billed!.rows, effective!.rows)
    }),
  { immediate: true },
)

const text = (amount: string, currency: string) => (amount === '0' ? '–' : money(amount, currency))
const shown = computed(() => lines.value.find(l => `${l.id} ${l.currency}` === chosen.value) ?? lines.value.find(l => l.id))
</script>

<template>
  <div class="page">
    <PlaceNav place="Spend" />
    <h1 class="sentence">
      Billed beside effective cost, purchase by purchase<template v-if="days"
        >, in <PeriodChoice :period="period" :days="days" @choose="period = $event"
      /></template>
    </h1>
    <ProblemNote v-if="problem" :problem="problem" />
    <NothingLoaded v-if="data.facts && !days" missing="charges" />
    <p v-else-if="!lines.length" class="note">
      {{ busy || !data.facts ? 'Reading…' : 'No charges in this period: choose another above.' }}
    </p>
    <div v-else class="scroll" tabindex="0" role="group" aria-label="purchases">
      <table class="ledger" data-testid="amortised">
        <thead>
          <tr>
            <th>commitment</th>
            <th class="n">purchases billed</th>
            <th class="n">other billed</th>
            <th class="n">billed</th>
            <th class="n">covered use</th>
            <th class="n">unused</th>
            <th class="n">other effective</th>
            <th class="n">effective</th>
            <th class="n">difference</th>
            <th>why</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="line in lines" :key="line.id + line.currency" class="acts">
            <td>
              <button v-if="line.id" class="link" :aria-pressed="shown === line" @click="chosen = `${line.id} ${line.currency}`">
                {{ line.name }}</button><template v-else>everything else, {{ line.currency }}</template
              ><br v-if="line.id && line.name !== line.id" /><span v-if="line.id && line.name !== line.id" class="minor">{{
                line.id
              }}</span>
            </td>
            <td class="n">{{ text(line.purchased, line.currency) }}</td>
            <td class="n">{{ text(line.billedOther, line.currency) }}</td>
            <td class="n strong">{{ text(line.billed, line.currency) }}</td>
            <td class="n">{{ text(line.used, line.currency) }}</td>
            <td class="n" :class="{ warn: line.unused !== '0' }">{{ text(line.unused, line.currency) }}</td>
            <td class="n">{{ text(line.other, line.currency) }}</td>
            <td class="n strong">{{ text(line.effective, line.currency) }}</td>
            <td class="n">{{ signedMoney(line.difference, line.currency) }}</td>
            <td class="why">{{ line.why }}</td>
          </tr>
        </tbody>
        <tfoot>
          <tr v-for="total in found.totals" :key="total.currency" class="total">
            <td>Total, {{ total.currency }}</td>
            <td class="n">{{ text(total.purchased, total.currency) }}</td>
            <td class="n">{{ text(total.billedOther, total.currency) }}</td>
            <td class="n">{{ text(total.billed, total.currency) }}</td>
            <td class="n">{{ text(total.used, total.currency) }}</td>
            <td class="n">{{ text(total.unused, total.currency) }}</td>
            <td class="n">{{ text(total.other, total.currency) }}</td>
            <td class="n">{{ text(total.effective, total.currency) }}</td>
            <td class="n">{{ signedMoney(total.difference, total.currency) }}</td>
            <td />
          </tr>
        </tfoot>
      </table>
    </div>
    <section v-if="shown" class="months">
      <h2 class="heading">{{ shown.name }}, month by month</h2>
      <TimeBars
        :label="`${shown.name}, billed and effective`"
        :starts="shown.months.map(m => m.start)"
        grain="month"
        :unit="shown.currency"
        :series="[
          { name: 'billed', amounts: shown.months.map(m => m.billed) },
          { name: 'effective', amounts: shown.months.map(m => m.effective) },
        ]"
      />
    </section>
  </div>
</template>

<style scoped>
.strong {
  font-weight: 620;
}
.why {
  color: var(--ink-2);
  min-width: 190px;
  font-size: 12.5px;
}
.months {
  margin-top: 20px;
  max-width: 760px;
}
</style>
