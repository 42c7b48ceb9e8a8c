<script setup lang="ts">
import type { LedgerLine } from '../../../shared/contracts/savings'

/** How what a line of the ledger shows as seen is worked out, SKU by SKU. */
defineProps<{ line: LedgerLine }>()
</script>

<template>
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
      <tr v-for="working in line.workings" :key="`${working.sku} ${working.unit} ${working.isCommitted}`">
        <td>{{ working.words }}{{ working.isCommitted ? ', paid by a commitment' : '' }}</td>
        <td class="n">{{ money(working.costBefore, line.currency) }}</td>
        <td class="n">{{ money(working.costBefore, line.currency) }} / {{ quantity(working.unitsBefore) }} {{ working.unit }}</td>
        <td class="n">{{ quantity(working.unitsElse) }} {{ working.unit }}</td>
        <td class="n">{{ money(working.counterfactual, line.currency) }}</td>
        <td class="n">{{ money(working.actual, line.currency) }}</td>
      </tr>
      <tr v-for="{ commitment, amount } in line.unusedCommitments" :key="commitment">
        <td colspan="4">left free of commitment {{ commitment }} and used by nobody: it is paid all the same</td>
        <td class="n">{{ money('0', line.currency) }}</td>
        <td class="n">{{ money(amount, line.currency) }}</td>
      </tr>
    </tbody>
  </table>
  <p class="note">
    Seen in effective cost: {{ money(line.seen!, line.currency) }} {{ line.currency }}; in billed cost:
    {{ money(line.seenBilled!, line.currency) }} {{ line.currency }}.
  </p>
</template>
