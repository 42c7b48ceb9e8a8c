<script setup lang="ts">
import type { StandingOrderView } from '../../../shared/contracts/standing-orders'

/** Resources that an order leaves alone, each with who said so and why. */
const { order } = defineProps<{ order: StandingOrderView }>()
const orders = useStandingOrders()
const { attempt, problem } = useAttempt()
</script>

<template>
  <section v-if="order.exceptions.length" aria-label="exceptions">
    <h3 class="heading">Exceptions</h3>
    <ProblemNote v-if="problem" :problem="problem" />
    <ul class="list">
      <li v-for="one in order.exceptions" :key="one.resourceId">
        <NuxtLink class="link" :to="{ path: '/spend/resource', query: { id: one.resourceId } }">{{ one.resourceId }}</NuxtLink>
        {{ one.until ? `until ${dayText(one.until)}` : 'for good' }}: {{ one.reason }}
        <span class="minor">{{ one.who }}, {{ timeText(one.at) }}</span>
        <button class="link" @click="attempt(() => orders.takeException(order.id, one.resourceId))">Delete</button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.list {
  margin: 0 0 6px;
  padding-left: 18px;
}
</style>
