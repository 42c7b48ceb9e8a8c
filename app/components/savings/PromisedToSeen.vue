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
  commitment: 'paid by a commitment, so not promised, and now used by others',
}
</script>

<template>
  <AmountsBetween
    v-if="sum.differences.length"
    label="from promised to seen"
    :currency="sum.currency"
    :from="{ label: 'promised until now', amount: sum.promised }"
    :between="sum.differences.map(({ kind, amount }) => ({ label: words[kind], amount }))"
    :to="{ label: 'seen on the bill', amount: sum.seen }"
  />
</template>
