<script setup lang="ts">
import type { LedgerSum } from '../../../core/opportunity/ledger-groups'

/** Why what is seen on the bill is not what was promised, to the minor unit. */
defineProps<{ sum: LedgerSum }>()
const words: Record<LedgerSum['differences'][number]['kind'], string> = {
  before: 'cost of the days just before, against what the promise was worked out from',
  days: 'planned hours of these very days, against an average month',
  use: 'used otherwise than planned',
  price: 'another price a unit',
  new: 'charged for the first time',
}
</script>

<template>
  <table v-if="sum.differences.length" class="ledger between" aria-label="from promised to seen">
    <tbody>
      <tr>
        <td>promised until now</td>
        <td class="n">{{ money(sum.promised, sum.currency) }}</td>
      </tr>
      <tr v-for="{ kind, amount } in sum.differences" :key="kind">
        <td>{{ words[kind] }}</td>
        <td class="n">{{ signedMoney(amount, sum.currency) }}</td>
      </tr>
      <tr class="total">
        <td>seen on the bill</td>
        <td class="n">{{ money(sum.seen, sum.currency) }} {{ sum.currency }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.between {
  width: auto;
  margin: 8px 0;
}
</style>
