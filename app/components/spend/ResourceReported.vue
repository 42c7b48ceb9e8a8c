<script setup lang="ts">
import { resourceReport, type ResourceReport } from '../../../shared/contracts/resources'

/** What a cloud says of a resource now. It is asked beside the page: it may take a while, or fail. */
const { id } = defineProps<{ id: string }>()
const report = ref<ResourceReport['report']>(null)
const measured = ref<ResourceReport['measured']>([])
const asking = useAttempt()
watch(
  () => id,
  () => {
    report.value = null
    measured.value = []
    void asking.attempt(async () => {
      const said = await client.get(`resources/reported?id=${encodeURIComponent(id)}`, resourceReport)
      report.value = said.report
      measured.value = said.measured
    })
  },
  { immediate: true },
)
type Measured = ResourceReport['measured'][number]
const average = (numbers: number[]) => quantity((numbers.reduce((n, one) => n + one, 0) / Math.max(1, numbers.length)).toFixed(2))
/** A second is in the words already. */
const unitOf = ({ unit }: Measured) => (unit === '1/s' ? '' : unit)
const used = (one: Measured) => `${quantity(String(Math.max(...one.days.map(d => d.amount))))} ${unitOf(one)}`
const outcomeWords = { done: 'done', refused: 'refused', 'nothing to do': 'there was nothing to do' } as const
</script>

<template>
  <div v-if="report || asking.problem.value">
    <h2 class="heading">At its provider</h2>
    <p v-if="asking.problem.value" class="warn">{{ asking.problem.value.title }}: {{ asking.problem.value.detail }}</p>
    <template v-if="report">
      <p>At {{ report.by }} it is {{ report.status }} now{{ report.locks.length ? '' : ', and not locked' }}.</p>
      <p v-for="lock in report.locks" :key="lock.against" data-testid="lock">
        <b>Locked against {{ lock.against }}</b> since {{ dayText(lock.since) }} by {{ lock.by }}: {{ lock.why }}.
      </p>
      <p v-for="step in report.plan" :key="step.does" :class="{ warn: step.last?.outcome === 'refused' }" data-testid="planned">
        To {{ step.does }} {{ step.when
        }}<template v-if="step.last"
          >; the last time, {{ timeText(step.last.at) }}, {{ outcomeWords[step.last.outcome]
          }}<template v-if="step.last.why">: {{ step.last.why }}</template></template
        >.
      </p>
    </template>
  </div>
  <div v-if="measured.length">
    <h2 class="heading">What was measured</h2>
    <p v-for="m in measured" :key="m.what" class="measured" data-testid="measured">
      <SparkLine :amounts="m.days.map(d => String(d.amount))" />
      <span v-if="m.ofHour === 'sum'"
        ><b>{{ average(m.days.map(d => d.amount)) }} {{ m.unit }}</b> {{ m.what }} a day, measured over
        {{ count(m.days.length) }} days</span
      >
      <span v-else
        ><b>{{ used(m) }}</b> {{ m.what }} at most, {{ average(m.days.map(d => d.mean)) }} {{ unitOf(m) }} on average, measured over
        {{ count(m.days.length) }} days</span
      >
    </p>
  </div>
</template>

<style scoped>
.heading {
  margin: 18px 0 4px;
}
.measured {
  display: flex;
  gap: 12px;
  align-items: center;
}
</style>
