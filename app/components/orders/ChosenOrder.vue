<script setup lang="ts">
import { MAKER_RULE } from '../../../core/standing-order/maker'
import { doesWords, findsWords, startsWords } from '../../../core/standing-order/order-words'
import { manyOf } from '../../../core/text/many-of'
import type { StandingOrderView } from '../../../shared/contracts/standing-orders'

/** One standing order as a sentence, with what can be done with it. */
const { order } = defineProps<{ order: StandingOrderView }>()
const emit = defineEmits<{ change: [] }>()
const orders = useStandingOrders()
const { attempt, problem, busy } = useAttempt()
const isDeleting = ref(false)
const brakeWords = computed(() => {
  const { resources, monthlyCost } = order.definition.brake
  return `${manyOf(resources, 'resource')}${monthlyCost === null ? '' : ` or ${monthlyCost} a month in any currency`}`
})
const newest = computed(() => order.runs[0] ?? null)
</script>

<template>
  <section :aria-label="order.definition.name">
    <h2 class="heading">{{ order.definition.name }}</h2>
    <p class="says">
      Finds <b>{{ findsWords(order.definition) }}</b><template v-if="order.definition.waitDays"
        >, found for {{ manyOf(order.definition.waitDays, 'day') }} on end</template
      >; then it <b>{{ doesWords(order.definition.does) }}</b>. Runs <b>{{ startsWords(order.definition.starts) }}</b><template
        v-if="order.nextAt"
      >
        (next {{ timeText(order.nextAt) }})</template
      >. A run that would touch more than {{ brakeWords }} does nothing.
    </p>
    <details v-if="order.definition.does.deed === 'tag owner'" class="says">
      <summary>How its creator is identified</summary>
      {{ MAKER_RULE }}
    </details>
    <p v-if="!order.isTried" class="warn">
      This version has not been tried. Start a dry run: it looks for everything and does nothing. After that it can be run, or turned on.
    </p>
    <ProblemNote v-if="problem" :problem="problem" />
    <div class="acts">
      <button
        class="button"
        :class="{ main: !order.isTried }"
        :disabled="busy || orders.isRunning"
        @click="attempt(() => orders.begin(order.id, true))"
      >
        Dry run
      </button>
      <button class="button" :disabled="busy || orders.isRunning || !order.isTried" @click="attempt(() => orders.begin(order.id, false))">
        Run now
      </button>
      <button
        v-if="newest?.state === 'braked' && newest.isCurrent && order.isTried"
        class="button"
        :disabled="busy || orders.isRunning"
        @click="attempt(() => orders.begin(order.id, false, true))"
      >
        Run once beyond the brake
      </button>
      <button
        v-if="order.definition.starts.by !== 'person'"
        class="button"
        :class="{ main: order.isTried && !order.isOn }"
        :disabled="busy || (!order.isOn && !order.isTried)"
        @click="attempt(() => orders.turn(order.id, !order.isOn))"
      >
        {{ order.isOn ? 'Turn off' : 'Turn on' }}
      </button>
      <button class="link" @click="emit('change')">Change</button>
      <button class="link" :aria-expanded="isDeleting" @click="isDeleting = !isDeleting">Delete</button>
      <span v-if="orders.isRunning" class="minor" role="status"
        >Running… <button class="link" @click="attempt(() => orders.stop(order.id))">Stop</button></span
      >
    </div>
    <div v-if="isDeleting" class="inset" role="group" aria-label="delete the order">
      <p>Its runs, exceptions and history are deleted; what it changed at a cloud stays.</p>
      <div class="acts">
        <button class="button" @click="attempt(() => orders.remove(order.id))">Delete it</button>
        <button class="button" @click="isDeleting = false">Cancel</button>
      </div>
    </div>
  </section>
</template>

<style scoped>
.says {
  max-width: 90ch;
  margin: 2px 0 8px;
  line-height: 1.5;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
}
</style>
