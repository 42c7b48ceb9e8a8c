<script setup lang="ts">
import type { Delivered } from '../../stores/connections'

/** The clouds that are connected, with their clock and their bill. A simulated one can let time pass. */
const connections = useConnections()
const emit = defineEmits<{ delivered: [] }>()
onMounted(() => connections.load())
const billing = computed(() => connections.list.filter(({ can }) => can.includes('bill')))
async function deliver(name: string, how: Delivered) {
  await connections.deliver(name, how)
  emit('delivered')
}
const times: { how: Delivered; label: string }[] = [
  { how: 'next-day', label: 'Next day' },
  { how: 'next-week', label: 'Next week' },
  { how: 'next-month', label: 'Next month' },
]
const clock = (now: string) => `${dayText(now)}, ${now.slice(11, 16)}`
</script>

<template>
  <section v-if="billing.length" class="bar" aria-label="Connections">
    <div v-for="connection in billing" :key="connection.name" class="line">
      <b>{{ connection.provider }}</b> <span v-if="connection.played" class="minor">simulated</span>
      <span v-if="connection.now">it is {{ clock(connection.now) }} there</span>
      <span v-else class="bad">{{ connection.problem }}</span>
      <button class="button" :disabled="!!connections.busy" @click="deliver(connection.name, 'fetch')">
        {{ connections.busy === 'fetch' ? 'Loading…' : 'Load the bill to date' }}
      </button>
      <template v-if="connection.played">
        <button
          v-for="{ how, label } in times"
          :key="how"
          class="button"
          :disabled="!!connections.busy"
          @click="deliver(connection.name, how)"
        >
          {{ connections.busy === how ? 'Loading…' : label }}
        </button>
      </template>
      <span class="minor" role="status">{{ connections.said }}</span>
    </div>
    <ProblemNote v-if="connections.problem" :problem="connections.problem" />
  </section>
</template>

<style scoped>
.bar {
  margin: 10px 0;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
}
</style>
