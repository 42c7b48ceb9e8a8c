<script setup lang="ts">
import { scaled, scaledText } from '../../../core/money/scaled'

/** Purchases as they were billed beside the cost spread over what they cover: the difference explained purchase by purchase. */
const data = useData()
useHead({ title: 'Commitments · Rain Barrel' })
const period = ref<SpendView['period']>('this-year')
const { attempt, problem, busy } = useAttempt()
type Line = {
  id: string
  name: string
  currency: string
  purchased: bigint
  used: bigint
  unused: bigint
  billedOther: bigint
  other: bigint
  months: { start: string; billed: bigint; effective: bigint }[]
}
const lines = ref<Line[]>([])
const days = computed(() => data.days)
const now = computed(() => days.value && reachingPeriod({ period: period.value }, days.value))
const chosen = ref<string | null>(null)

watch(
  () => [now.value?.start, now.value?.end, data.facts?.revision],
  () =>
    now.value &&
    attempt(async () => {
      const question = {
        splitBy: ['CommitmentDiscountId', 'CommitmentDiscountName', 'ChargeCategory', 'CommitmentDiscountStatus'],
        grain: 'month' as const,
        ...now.value!,
      }
      const [billed, effective] = await askAnswers([
        { ...question, measure: 'billedCost' },
        { ...question, measure: 'effectiveCost' },
      ])
      const found = new Map<string, Line>()
      const line = (row: { values: Record<string, string | null>; currency: string }) => {
        const id = row.values.CommitmentDiscountId ?? ''
        const key = `${id} ${row.currency}`
        const known = found.get(key) ?? {
          id,
          name: row.values.CommitmentDiscountName ?? (id || 'everything else'),
          currency: row.currency,
          purchased: 0n,
          used: 0n,
          unused: 0n,
          billedOther: 0n,
          other: 0n,
          months: [],
        }
        found.set(key, known)
        return known
      }
      const month = (of: Line, start: string) => {
        const known = of.months.find(m => m.start === start) ?? { start, billed: 0n, effective: 0n }
        if (!of.months.includes(known)) of.months.push(known)
        return known
      }
      for (const row of billed!.rows) {
        const of = line(row)
        if (row.values.ChargeCategory === 'Purchase' && of.id) of.purchased += scaled(row.amount)
        else of.billedOther += scaled(row.amount)
        month(of, row.start!).billed += scaled(row.amount)
      }
      for (const row of effective!.rows) {
        const of = line(row)
        if (row.values.CommitmentDiscountStatus === 'Used') of.used += scaled(row.amount)
        else if (row.values.CommitmentDiscountStatus === 'Unused') of.unused += scaled(row.amount)
        else of.other += scaled(row.amount)
        month(of, row.start!).effective += scaled(row.amount)
      }
      lines.value = [...found.values()].sort((a, b) => (a.id === '' ? 1 : b.id === '' ? -1 : a.id < b.id ? -1 : 1))
    }),
  { immediate: true },
)

const billedOf = (line: Line) => line.purchased + line.billedOther
const effectiveOf = (line: Line) => line.used + line.unused + line.other
const text = (amount: bigint, currency: string) => (amount === 0n ? '–' : money(scaledText(amount), currency))
const currencies = computed(() => [...new Set(lines.value.map(l => l.currency))])
const totalOf = (currency: string, of: (line: Line) => bigint) =>
  lines.value.filter(l => l.currency === currency).reduce((n, l) => n + of(l), 0n)
const explained = (line: Line) => {
  const difference = effectiveOf(line) - billedOf(line)
  if (!line.id) return difference === 0n ? 'as billed' : 'effective cost that the provider reports otherwise than billed'
  if (difference === 0n) return 'paid as it is used'
  return difference > 0n ? 'paid for before this period, or less paid in it than used' : 'paid in this period for later use'
}
const shown = computed(() => lines.value.find(l => `${l.id} ${l.currency}` === chosen.value) ?? lines.value.find(l => l.id))
</script>

<template>
  <div class="page">
    <PlaceNav place="Spend" />
    <h1 class="sentence">
      Billed beside effective cost, purchase by purchase, in
      <PeriodChoice v-if="days" :period="period" :days="days" @choose="period = $event" />
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
            <td class="n strong">{{ text(billedOf(line), line.currency) }}</td>
            <td class="n">{{ text(line.used, line.currency) }}</td>
            <td class="n" :class="{ warn: line.unused > 0n }">{{ text(line.unused, line.currency) }}</td>
            <td class="n">{{ text(line.other, line.currency) }}</td>
            <td class="n strong">{{ text(effectiveOf(line), line.currency) }}</td>
            <td class="n">{{ signedMoney(scaledText(effectiveOf(line) - billedOf(line)), line.currency) }}</td>
            <td class="why">{{ explained(line) }}</td>
          </tr>
        </tbody>
        <tfoot>
          <tr v-for="currency in currencies" :key="currency" class="total">
            <td>Total, {{ currency }}</td>
            <td class="n">
              {{
                text(
                  totalOf(currency, l => l.purchased),
                  currency,
                )
              }}
            </td>
            <td class="n">
              {{
                text(
                  totalOf(currency, l => l.billedOther),
                  currency,
                )
              }}
            </td>
            <td class="n">{{ text(totalOf(currency, billedOf), currency) }}</td>
            <td class="n">
              {{
                text(
                  totalOf(currency, l => l.used),
                  currency,
                )
              }}
            </td>
            <td class="n">
              {{
                text(
                  totalOf(currency, l => l.unused),
                  currency,
                )
              }}
            </td>
            <td class="n">
              {{
                text(
                  totalOf(currency, l => l.other),
                  currency,
                )
              }}
            </td>
            <td class="n">{{ text(totalOf(currency, effectiveOf), currency) }}</td>
            <td class="n">{{ signedMoney(scaledText(totalOf(currency, l => effectiveOf(l) - billedOf(l))), currency) }}</td>
            <td />
          </tr>
        </tfoot>
      </table>
    </div>
    <section v-if="shown" class="months">
      <h2 class="heading">{{ shown.name }}, month by month</h2>
      <TimeBars
        :label="`${shown.name}, billed and effective`"
        :starts="shown.months.map(m => m.start).sort()"
        grain="month"
        :unit="shown.currency"
        :series="[
          { name: 'billed', amounts: [...shown.months].sort((a, b) => (a.start < b.start ? -1 : 1)).map(m => scaledText(m.billed)) },
          { name: 'effective', amounts: [...shown.months].sort((a, b) => (a.start < b.start ? -1 : 1)).map(m => scaledText(m.effective)) },
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
