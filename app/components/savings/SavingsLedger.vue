<script setup lang="ts">
import type { LedgerLine } from '../../../shared/contracts/savings'

/** What was promised beside what the bill shows since. */
const savings = useSavings()
const share = (line: LedgerLine) => (line.promised && Number(line.promised) > 0 ? Number(line.seen) / Number(line.promised) : 0)
const opened = ref<string | null>(null)
const differenceWords: Record<LedgerLine['differences'][number]['kind'], string> = {
  before: 'cost of the days just before, against what the promise was worked out from',
  days: 'planned hours of these very days, against an average month',
  use: 'used otherwise than planned',
  price: 'another price a unit',
  new: 'charged for the first time',
}
</script>

<template>
  <section v-if="savings.state?.ledger.length" aria-label="Savings ledger" class="ledger-section" data-testid="ledger">
    <h2 class="heading">Savings ledger</h2>
    <table class="ledger">
      <thead>
        <tr>
          <th>done</th>
          <th>what</th>
          <th class="n">promised a month</th>
          <th class="n">promised until now</th>
          <th class="n">seen on the bill</th>
          <th>seen of promised</th>
          <th>bill to</th>
        </tr>
      </thead>
      <tbody>
        <template v-for="line in savings.state.ledger" :key="line.id">
          <tr class="acts">
            <td>
              {{ dayText(line.doneAt) }}<br /><span class="minor">{{ line.doneAt.slice(11, 16) }}, {{ line.approvedBy }}</span>
            </td>
            <td>
              <button class="link" :disabled="!line.workings?.length" @click="opened = opened === line.id ? null : line.id">
                {{ line.resourceName }}
              </button>
            </td>
            <td class="n">{{ money(line.promisedMonthly, line.currency) }}</td>
            <td class="n">{{ line.promised === null ? '–' : money(line.promised, line.currency) }}</td>
            <td class="n good">{{ line.seen === null ? '–' : money(line.seen, line.currency) }}</td>
            <td>
              <LevelGauge
                v-if="line.seen !== null && line.promised !== null"
                :width="90"
                :height="11"
                :used="Math.min(share(line), 2)"
                tone="act"
                :label="`${percent(line.seen, line.promised)} of what was promised`"
              /><span v-else class="minor">the bill does not reach it yet</span>
            </td>
            <td>{{ line.seenTo ? dayText(line.seenTo) : '–' }}</td>
          </tr>
          <tr v-if="opened === line.id && line.workings?.length">
            <td colspan="7">
              <table class="ledger" aria-label="how it is worked out">
                <thead>
                  <tr>
                    <th>charged for</th>
                    <th class="n">{{ line.daysBefore }} days before</th>
                    <th class="n">unit price then</th>
                    <th class="n">use that would have been, {{ line.daysSince }} {{ line.daysSince === 1 ? 'day' : 'days' }}</th>
                    <th class="n">would have cost</th>
                    <th class="n">was charged</th>
                  </tr>
                </thead>
                <tbody>
                  <tr v-for="working in line.workings" :key="`${working.sku} ${working.unit}`">
                    <td>{{ working.words }}</td>
                    <td class="n">{{ money(working.costBefore, line.currency) }}</td>
                    <td class="n">
                      {{ money(working.costBefore, line.currency) }} / {{ quantity(working.unitsBefore) }} {{ working.unit }}
                    </td>
                    <td class="n">{{ quantity(working.unitsElse) }} {{ working.unit }}</td>
                    <td class="n">{{ money(working.counterfactual, line.currency) }}</td>
                    <td class="n">{{ money(working.actual, line.currency) }}</td>
                  </tr>
                </tbody>
              </table>
              <table v-if="line.differences.length" class="ledger between" aria-label="from promised to seen">
                <tbody>
                  <tr>
                    <td>promised until now</td>
                    <td class="n">{{ money(line.promised!, line.currency) }}</td>
                  </tr>
                  <tr v-for="{ kind, amount } in line.differences" :key="kind">
                    <td>{{ differenceWords[kind] }}</td>
                    <td class="n">{{ signedMoney(amount, line.currency) }}</td>
                  </tr>
                  <tr class="total">
                    <td>seen on the bill</td>
                    <td class="n">{{ money(line.seen!, line.currency) }}</td>
                  </tr>
                </tbody>
              </table>
              <p class="note">
                Seen in effective cost: {{ money(line.seen!, line.currency) }} {{ line.currency }}; in billed cost:
                {{ money(line.seenBilled!, line.currency) }} {{ line.currency }}.
              </p>
            </td>
          </tr>
        </template>
        <tr class="total">
          <td colspan="3">Total</td>
          <td class="n">{{ money(savings.promised, savings.currency) }}</td>
          <td class="n">{{ money(savings.seen, savings.currency) }} {{ savings.currency }}</td>
          <td colspan="2">{{ percent(savings.seen, savings.promised) }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.ledger-section {
  margin-top: 20px;
}
.between {
  width: auto;
  margin-top: 8px;
}
.ledger-section .link {
  white-space: nowrap;
}
</style>
