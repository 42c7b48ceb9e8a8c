<script setup lang="ts">
import type { z } from 'zod'
import { cardFetched, cardSchedules } from '../../../../shared/contracts/reference-data'
import { kept } from '../../../../shared/contracts/estimates'

/** Clouds that publish their rate card: asked now, or by themselves every so often. */
const emit = defineEmits<{ fetched: [provider: string, validFrom: string] }>()
const connections = useConnections()
const schedules = ref<z.infer<typeof cardSchedules>['schedules']>([])
const said = ref<Record<string, string>>({})
const problem = ref<ReturnType<typeof problemOf> | null>(null)
const busy = ref<string | null>(null)
const every = [
  { hours: 0, label: 'only on request' },
  { hours: 24, label: 'every day' },
  { hours: 168, label: 'every week' },
]
const scheduleOf = (name: string) => schedules.value.find(s => s.connection === name)

async function attempt(work: () => Promise<void>) {
  try {
    problem.value = null
    await work()
    schedules.value = (await client.get('connections/schedules', cardSchedules)).schedules
  } catch (error) {
    problem.value = problemOf(error)
  }
}
onMounted(() => attempt(() => connections.load()))
const fetchNow = (name: string) =>
  attempt(async () => {
    busy.value = name
    try {
      const card = await client.send('POST', `connections/${encodeURIComponent(name)}/rate-card`, {}, cardFetched)
      said.value = { ...said.value, [name]: card.said }
      emit('fetched', card.provider, card.validFrom)
    } finally {
      busy.value = null
    }
  })
const schedule = (name: string, everyHours: string) =>
  attempt(async () => {
    await client.send('PUT', `connections/${encodeURIComponent(name)}/schedule`, { everyHours: Number(everyHours) }, kept)
  })
</script>

<template>
  <section v-if="connections.list.length" class="fetch">
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-for="connection in connections.list.filter(one => one.can.includes('rate card'))" :key="connection.name" class="line">
      <span>{{ connection.provider }} publishes its rate card.</span>
      <button class="button" :disabled="busy !== null" @click="fetchNow(connection.name)">
        {{ busy === connection.name ? 'Asking…' : 'Fetch it now' }}
      </button>
      <label
        >automatically
        <select
          class="field"
          :value="scheduleOf(connection.name)?.everyHours ?? 0"
          @change="schedule(connection.name, ($event.target as HTMLSelectElement).value)"
        >
          <option v-for="e in every" :key="e.hours" :value="e.hours">{{ e.label }}</option>
        </select></label
      >
      <span role="status" class="note">{{
        said[connection.name] ??
        (scheduleOf(connection.name)?.lastSaid
          ? `asked ${timeText(scheduleOf(connection.name)!.lastAskedAt!)}: ${scheduleOf(connection.name)!.lastSaid}`
          : '')
      }}</span>
    </p>
  </section>
</template>

<style scoped>
.fetch {
  margin: 6px 0 12px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
}
.line label {
  color: var(--ink-3);
}
</style>
