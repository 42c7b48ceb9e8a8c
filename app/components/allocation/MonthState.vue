<script setup lang="ts">
import { adjustedSums } from '../../../core/allocation/closing/adjustments'
import { addMonths } from '../../../core/time/day'
import type { StatementPurpose } from '../../../core/allocation/statements/month-statements'
import { closingOutlook, type ClosingOutlook } from '../../../shared/contracts/allocation'
import { measureNames } from '../../../shared/words/table-heads'

/** Whether a month is open or closed, and how it is closed. */
const { month, currency } = defineProps<{ month: string; currency: string }>()
const emit = defineEmits<{ basis: ['billed' | 'effective'] }>()
const allocation = useAllocation()
const closings = useClosings()
const session = useSession()
const outlook = ref<ClosingOutlook | null>(null)
/** What the statements are for. */
const purpose = ref<StatementPurpose>('chargeback')
const purposes: Record<StatementPurpose, string> = {
  chargeback: 'chargeback: the ledger is posted by the journal',
  showback: 'showback: cost centres are told, nothing is posted',
}
const confirm = useTemplateRef('confirm')
const { attempt, problem } = useAttempt()
/** How this month was closed, also where it is shown otherwise. */
const closed = computed(() => closings.stateOf(month))
/** Months as people write them, in what the server says. */
const inWords = (said: string) => said.replace(/\b\d{4}-\d\d\b(?!-)/g, monthText)
const proof = computed(() => allocation.proofOf(currency))
const adjusted = computed(() => adjustedSums(allocation.settled?.adjustments ?? [], currency))

async function look() {
  if (outlook.value) {
    outlook.value = null
    return
  }
  await attempt(async () => {
    outlook.value = await client.get(`allocation/closings/${month}`, closingOutlook)
  })
  await nextTick()
  confirm.value?.focus()
}
async function close() {
  await allocation.closeMonth(purpose.value)
  outlook.value = null
}
watch(
  () => month,
  () => {
    outlook.value = null
  },
)
</script>

<template>
  <section aria-label="Month">
    <p v-if="allocation.closed" class="state">
      <b>Closed</b> by {{ allocation.closed.who }}, {{ timeText(allocation.closed.closedAt) }}, by
      {{ measureNames[allocation.closed.measure] }}{{ allocation.closed.purpose ? `, for ${allocation.closed.purpose}` : '' }}, rules of
      version {{ allocation.closed.version }}. It never changes; what changes later is adjusted in {{ monthText(closings.firstOpen!) }}.
    </p>
    <p v-else-if="closed" class="state">
      {{ monthText(month) }} was closed by {{ measureNames[closed.measure] }}. This is how it looks today{{
        allocation.question?.measure === closed.measure ? '' : ` by ${measureNames[allocation.question!.measure]}`
      }}, not what was closed.
      <button
        v-if="allocation.question?.measure !== closed.measure"
        class="link"
        @click="emit('basis', closed.measure === 'billedCost' ? 'billed' : 'effective')"
      >
        Show it as it was closed
      </button>
    </p>
    <p v-else class="state">
      {{ monthText(month) }} is open.
      <button v-if="!allocation.draft" class="link" :aria-expanded="!!outlook" @click="look">Close the month</button>
    </p>
    <StatementMails v-if="allocation.closed && session.seesAll" :month="month" />
    <ProblemNote v-if="problem" :problem="problem" />
    <div v-if="outlook" class="closing">
      <p v-if="outlook.barrier" class="warn">{{ monthText(month) }} cannot be closed: {{ inWords(outlook.barrier) }}.</p>
      <template v-else>
        <p>
          This closes {{ monthText(month) }} by {{ measureNames[allocation.question!.measure] }}, in all currencies, under version
          {{ allocation.saved?.version }} of the rules.
          <template v-if="proof">
            In {{ currency }}: {{ money(proof.bill, currency) }} on the bill, {{ money(proof.unallocated, currency) }} of it unallocated ({{
              percent(proof.unallocated, proof.bill)
            }}).
          </template>
          <template v-if="allocation.settled!.adjustments.length">
            It carries {{ signedMoney(adjusted.borne, currency) }} of adjustments to months closed before.
          </template>
        </p>
        <p>
          Its statements never change after that. Charges delivered later and changed rules arrive as adjustments in
          {{ monthText(addMonths(month, 1)) }}. This cannot be undone.
        </p>
        <p>
          <label
            >Its statements are for
            <select v-model="purpose" class="field">
              <option v-for="(words, value) in purposes" :key="value" :value="value">{{ words }}</option>
            </select></label
          >
        </p>
        <p v-for="warning in outlook.warnings" :key="warning" class="warn">{{ inWords(warning) }}.</p>
        <p class="buttons">
          <button ref="confirm" class="button main" :disabled="closings.busy" @click="close">Close {{ monthText(month) }}</button>
          <button class="button" @click="outlook = null">Cancel</button>
        </p>
      </template>
    </div>
  </section>
</template>

<style scoped>
.state {
  margin: 0 0 10px;
  color: var(--ink-2);
}
.closing {
  border-left: 3px solid var(--warn);
  padding: 4px 12px;
  margin: 6px 0 14px;
}
.closing p {
  margin: 4px 0;
}
.buttons {
  display: flex;
  gap: 8px;
}
</style>
