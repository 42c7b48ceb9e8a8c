<script setup lang="ts">
import type { BillChangeKind } from '../../../core/opportunity/bill-change'
import { addDays } from '../../../core/time/day'
import { billAndSavings, type BillAndSavings } from '../../../shared/contracts/savings'

/** What was saved, beside all else that the bill did: together exactly its change. */
const data = useData()
const savings = useSavings()
const { attempt, problem } = useAttempt()
const bill = ref<BillAndSavings | null>(null)
const load = () =>
  attempt(async () => {
    bill.value = await client.get('savings/bill', billAndSavings.nullable())
  })
watch([() => data.facts?.revision, () => savings.ledger.length], () => void load(), { immediate: true })
const words: Record<BillChangeKind, string> = {
  ...effectWords,
  saved: 'saved by what was done from the ledger',
  otherwise: 'what was acted on, as it would have gone on',
  quantity: `${effectWords.quantity}, by everything else`,
}
/** So many days, from the first to the last. */
const daysOf = ({ start, end }: BillAndSavings['now']) => `${dayText(start)} to ${dayText(addDays(end, -1))}`
</script>

<template>
  <ProblemNote v-if="problem" :problem="problem" :retry="load" />
  <section v-if="bill" aria-label="What the whole bill did">
    <h3 class="heading">The whole bill against the month before</h3>
    <p class="note">{{ daysOf(bill.now) }} against {{ daysOf(bill.before) }}, in effective cost.</p>
    <div class="side-by-side">
      <AmountsBetween
        v-for="change in bill.changes"
        :key="change.currency"
        :label="`the bill in ${change.currency}`"
        :currency="change.currency"
        :from="{ label: 'the same days of the month before', amount: change.before }"
        :between="change.parts.map(({ kind, amount }) => ({ label: words[kind], amount, isGood: kind === 'saved' }))"
        :to="{ label: 'this month to date', amount: change.now }"
      />
    </div>
    <p v-if="bill.behind" class="note">
      {{ count(bill.behind) }} {{ bill.behind === 1 ? 'source has' : 'sources have' }} delivered fewer days: of them the same fewer days of
      both months are compared.
    </p>
  </section>
</template>

<style scoped>
.side-by-side {
  display: flex;
  flex-wrap: wrap;
  gap: 12px 34px;
  align-items: flex-start;
}
</style>
