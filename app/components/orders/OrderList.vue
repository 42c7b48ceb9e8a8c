<script setup lang="ts">
/** The standing orders by name, each with where it stands. */
const orders = useStandingOrders()
</script>

<template>
  <ul class="list" aria-label="standing orders">
    <li v-for="order in orders.state!.orders" :key="order.id">
      <button
        class="entry"
        :class="{ on: order.id === orders.chosenId }"
        :aria-current="order.id === orders.chosenId"
        @click="orders.choose(order.id)"
      >
        <b>{{ order.definition.name }}</b>
        <span class="state" :class="{ warn: orderState(order).wants, good: orderState(order).words === 'on' }">{{
          orderState(order).words
        }}</span>
        <span class="minor">{{
          order.runs[0] ? `${order.runs[0].isDry ? 'dry run' : 'run'} ${timeText(order.runs[0].beganAt)}` : 'never run'
        }}</span>
      </button>
    </li>
  </ul>
</template>

<style scoped>
.list {
  list-style: none;
  margin: 0 0 10px;
  padding: 0;
  border-top: 1px solid var(--line);
}
.entry {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 8px;
  width: 100%;
  padding: 7px 8px;
  text-align: left;
  border-bottom: 1px solid var(--line);
}
.entry:hover {
  background: var(--paper-raised);
}
.entry.on {
  background: var(--paper-raised);
  box-shadow: inset 3px 0 var(--act);
}
.entry .minor {
  grid-column: 1 / -1;
}
</style>
