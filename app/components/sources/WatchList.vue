<script setup lang="ts">
import { everyWords } from '../../../core/time/rhythm'
import { WATCH_LIMITS } from '../../../shared/contracts/watches'

/** Folders that are looked into and connections that are asked, by themselves. */
const sources = useSources()
const connections = useConnections()
const { attempt, problem, busy } = useAttempt()
const adding = ref(false)
const kind = ref<'folder' | 'connection'>('folder')
const source = ref('')
const place = ref('')
const minutes = ref(60)
const together = ref<'file' | 'folder'>('file')
const add = () =>
  attempt(async () => {
    await sources.watchPlace({
      source: source.value,
      kind: kind.value,
      place: place.value,
      together: together.value,
      everyMinutes: Number(minutes.value),
    })
    adding.value = false
    source.value = place.value = ''
  })
watch(kind, chosen => {
  if (chosen === 'connection') {
    place.value = connections.list[0]?.name ?? ''
    source.value = connections.list[0]?.provider ?? source.value
    minutes.value = 1440
  }
})
const everyText = (minutes: number) => everyWords({ count: minutes, unit: 'minute' })
</script>

<template>
  <section class="section">
    <h2 class="heading">
      Watched folders and connections
      <button class="link" :aria-expanded="adding" @click="adding = !adding">
        {{ adding ? 'cancel' : 'Watch a folder or a connection' }}
      </button>
    </h2>
    <form v-if="adding" class="add" @submit.prevent="add">
      <label
        >what
        <select v-model="kind" class="field">
          <option value="folder">a folder</option>
          <option value="connection" :disabled="!connections.list.length">a connection</option>
        </select></label
      >
      <label>source <input v-model="source" class="field" required maxlength="80" /></label>
      <label v-if="kind === 'folder'" class="wide"
        >full path <input v-model="place" class="field" required :placeholder="`${sources.watchable[0] ?? '/srv'}/bills`"
      /></label>
      <label v-if="kind === 'folder'"
        >one delivery is
        <select v-model="together" class="field">
          <option value="file">each file</option>
          <option value="folder">all files of a folder</option>
        </select></label
      >
      <label v-else
        >connection
        <select v-model="place" class="field">
          <option v-for="c in connections.list" :key="c.name" :value="c.name">{{ c.provider }}</option>
        </select></label
      >
      <label>every, minutes <input v-model.number="minutes" type="number" min="1" class="field short" /></label>
      <button class="button" :disabled="busy">Watch it</button>
      <p v-if="kind === 'folder'" class="minor wide-note">
        {{
          together === 'file'
            ? 'Each file replaces what its billing periods had from this source: for exports that come whole.'
            : 'All files of a folder, and of each folder below it, are read together and replace what their billing periods had: for exports cut in parts.'
        }}
        Inside {{ sources.watchable.join(' or ') }}; {{ WATCH_LIMITS.depth }} folders deep, up to {{ count(WATCH_LIMITS.entries) }} entries
        and {{ WATCH_LIMITS.deliveries }} new deliveries a look; links are not followed.
      </p>
    </form>
    <ProblemNote v-if="problem" :problem="problem" />
    <table v-if="sources.watches.length" class="ledger">
      <thead>
        <tr>
          <th>source</th>
          <th>where</th>
          <th>how often</th>
          <th>last</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="w in sources.watches" :key="w.id">
          <td>{{ w.source }}</td>
          <td class="place">
            {{ w.kind }} {{ w.place }}<br v-if="w.kind === 'folder'" /><span v-if="w.kind === 'folder'" class="minor">{{
              w.together === 'file' ? 'each file a delivery' : 'all files of a folder a delivery'
            }}</span>
          </td>
          <td>{{ everyText(w.everyMinutes) }}</td>
          <td>
            {{ w.lastSaid ?? 'not yet' }}<span v-if="w.lastAskedAt" class="minor">, {{ timeText(w.lastAskedAt) }}</span>
          </td>
          <td class="n">
            <button class="link" @click="attempt(() => sources.lookNow(w.id))">check now</button
            ><button class="link beside" @click="attempt(() => sources.unwatch(w.id))">stop watching</button>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else-if="!adding" class="minor">Nothing is watched: drop files, or load from a connection by hand.</p>
  </section>
</template>

<style scoped>
.section {
  margin-top: 20px;
}
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: end;
  margin: 6px 0;
}
.add label {
  display: grid;
  font-size: 12px;
  color: var(--ink-3);
}
.wide .field {
  width: 300px;
}
.wide-note {
  flex-basis: 100%;
}
.beside {
  margin-left: 14px;
}
.short {
  width: 90px;
}
.place {
  overflow-wrap: anywhere;
}
</style>
