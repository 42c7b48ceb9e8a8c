<script setup lang="ts">
import { adjustedSums } from '../../../core/allocation/closing/adjustments'
import { movedLines, type MovedLines } from '../../../shared/contracts/imports'

/** What closed months are adjusted by in this one, beside its bill, and the charges behind it. */
const { currency, month } = defineProps<{ currency: string; month: string }>()
const allocation = useAllocation()
const { attempt, problem } = useAttempt()
const adjustments = computed(() => allocation.settled?.adjustments ?? [])
const sums = computed(() => adjustedSums(adjustments.value, currency))
const months = computed(() => [...new Set(adjustments.value.map(one => one.month))].sort())
/** Months that are adjusted because their charges changed. */
const charged = computed(() => months.value.filter(of => adjustments.value.some(one => one.month === of && one.cause === 'charges')))
const shown = ref<string | null>(null)
const changes = shallowRef<MovedLines | null>(null)
watch(
  () => month,
  () => {
    shown.value = null
  },
)
async function look(of: string) {
  if (shown.value === of) {
    shown.value = null
    return
  }
  await attempt(async () => {
    changes.value = await client.get(`allocation/closings/${of}/changes`, movedLines)
    shown.value = of
  })
}
</script>

<template>
  <div v-if="adjustments.length" class="adjusted" data-testid="adjusted">
    <p class="minor">
      Beside the bill, adjustments to {{ months.map(monthText).join(', ') }} arrive here: <b>{{ signedMoney(sums.borne, currency) }}</b> on
      cost centres<template v-if="sums.unallocated !== '0'"
        >, <b>{{ signedMoney(sums.unallocated, currency) }}</b> unallocated</template
      >.
      <button v-for="of in charged" :key="of" class="link" :aria-expanded="shown === of" @click="look(of)">
        {{ shown === of ? 'Hide the charges' : `Charges of ${monthText(of)} that changed` }}
      </button>
    </p>
    <ProblemNote v-if="problem" :problem="problem" />
    <ChangedLines v-if="shown && changes" :moved="changes" />
  </div>
</template>

<style scoped>
.adjusted {
  margin: -4px 0 8px;
}
.link {
  margin-left: 8px;
}
</style>
