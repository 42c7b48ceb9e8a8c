<script setup lang="ts">
import type { RunItem } from '../../../shared/contracts/standing-orders'

/** What a run knew of one thing that it found: the event word by word, what it costs, whose it is. */
const { item } = defineProps<{ item: RunItem }>()
const orders = useStandingOrders()
const costs = (list: RunItem['found']['costSoFar']) =>
  list.map(one => `${money(one.amount, one.currency)} ${one.currency}`).join(', ') || 'nothing yet'
const owner = computed(() => orders.state!.people.find(({ id }) => id === item.found.owner)?.name ?? 'nobody')
</script>

<template>
  <dl class="evidence">
    <dt>because</dt>
    <dd>{{ item.because }}</dd>
    <dt>resource</dt>
    <dd>
      <code>{{ item.found.resourceId }}</code>
    </dd>
    <template v-for="one in item.found.makings" :key="one.id">
      <dt>event</dt>
      <dd>
        made by «{{ one.by }}» at {{ one.at }} <span class="minor">{{ one.id }}</span>
        <pre v-if="one.raw">{{ one.raw }}</pre>
      </dd>
    </template>
    <dt v-if="!item.found.makings.length">event</dt>
    <dd v-if="!item.found.makings.length">no event records its creation</dd>
    <dt>first charged</dt>
    <dd>{{ item.found.firstDay ? dayText(item.found.firstDay) : 'not yet' }}</dd>
    <dt>cost so far</dt>
    <dd>{{ costs(item.found.costSoFar) }}</dd>
    <dt>owner by allocation</dt>
    <dd>{{ owner }}</dd>
  </dl>
</template>

<style scoped>
.evidence {
  display: grid;
  grid-template-columns: max-content minmax(0, 1fr);
  gap: 2px 14px;
  margin: 4px 0 10px;
}
dt {
  color: var(--ink-2);
}
dd {
  margin: 0;
}
pre {
  margin: 2px 0;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  font-size: 12px;
}
</style>
