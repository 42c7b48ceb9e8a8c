<script setup lang="ts">
import type { StandingOrderView } from '../../../shared/contracts/standing-orders'

/** The runs of an order, the newest first, and all of one: what was found, done and failed, with the evidence. */
const { order } = defineProps<{ order: StandingOrderView }>()
const orders = useStandingOrders()
const { attempt, problem } = useAttempt()
const causeWords = { person: '', schedule: ' by schedule', event: ' after an event' } as const
const options = computed(() =>
  order.runs.map(run => ({
    value: String(run.id),
    label: `${run.isDry ? 'dry run' : 'run'}${causeWords[run.cause]} ${timeText(run.beganAt)}`,
    note: `${run.state === 'done' ? '' : `${run.state}, `}${run.who}`,
  })),
)
const run = computed(() => (orders.run?.order === order.id ? orders.run : null))
const shown = computed(() => options.value.find(({ value }) => value === String(run.value?.id))?.label ?? '')
</script>

<template>
  <section v-if="order.runs.length" aria-label="runs">
    <ProblemNote v-if="problem" :problem="problem" />
    <h3 class="heading headline">
      Results of the
      <SentenceChoice
        label="run"
        :options="options"
        :chosen="String(run?.id)"
        :text="shown"
        @choose="id => attempt(() => orders.openRun(Number(id)))"
      />
    </h3>
    <template v-if="run">
      <p
        :class="{ warn: run.state === 'braked' || run.state === 'failed' || run.state === 'not whole' }"
        role="status"
        data-testid="run-said"
      >
        <template v-if="run.state === 'running'">Running…</template> {{ run.said }}
        <span v-if="!run.isCurrent" class="minor">The order has changed since.</span>
      </p>
      <RunItems v-if="run.items.length" :order="order" :run="run" />
    </template>
  </section>
</template>

<style scoped>
.headline {
  margin-top: 18px;
}
.headline :deep(.control) {
  text-decoration: underline;
  text-decoration-color: var(--act);
  text-underline-offset: 3px;
}
</style>
