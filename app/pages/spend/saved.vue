<script setup lang="ts">
import type { SavedSentence } from '../../../shared/contracts/spend-settings'
import { tableFormats } from '../../../shared/table-formats'

/** Sentences kept under a name, by folder, and what was asked lately. */
const sentences = useSentences()
useHead({ title: 'Saved sentences · Rain Barrel' })
const { attempt, problem } = useAttempt()
const said = ref<Record<string, string>>({})
onMounted(() => attempt(() => sentences.load()))
const folders = computed(() =>
  [...new Set(sentences.saved.map(s => s.folder))].map(folder => ({ folder, list: sentences.saved.filter(s => s.folder === folder) })),
)
const editing = ref<string | null>(null)
const sendNow = (sentence: SavedSentence) =>
  attempt(async () => {
    said.value = { ...said.value, [sentence.id]: 'sending…' }
    said.value = { ...said.value, [sentence.id]: await sentences.sendNow(sentence.id).catch((error: unknown) => problemOf(error).detail) }
  })
const scheduleText = (sentence: SavedSentence) =>
  sentence.schedule
    ? `${rhythmText(sentence)} as ${tableFormats[sentence.schedule.format].label} to ${sentence.schedule.to.join(', ')}`
    : ''
/** How often, with the day it falls on. */
function rhythmText({ schedule, nextAt }: SavedSentence): string {
  if (!schedule) return ''
  if (!nextAt || schedule.every === 'day') return `every ${schedule.every}`
  const day = nextAt.slice(0, 10)
  return schedule.every === 'week' ? `every ${weekdayText(day)}` : `on the ${ordinal(Number(day.slice(8)))} of each month`
}
</script>

<template>
  <div class="page">
    <PlaceNav place="Spend" />
    <h1 class="sentence">
      {{
        sentences.saved.length
          ? `${sentences.saved.length === 1 ? '1 sentence is' : `${sentences.saved.length} sentences are`} saved.`
          : 'No sentences saved yet: look at something in Spend and press «Save this sentence».'
      }}
    </h1>
    <ProblemNote v-if="problem" :problem="problem" :retry="() => attempt(() => sentences.load())" />
    <section v-for="{ folder, list } in folders" :key="folder" class="folder" tabindex="0" :aria-label="folder || 'Without a folder'">
      <h2 class="heading">{{ folder || 'Without a folder' }}</h2>
      <table class="ledger">
        <thead>
          <tr>
            <th>sentence</th>
            <th>what it answers</th>
            <th>owner</th>
            <th>sent</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="sentence in list" :key="sentence.id" class="acts">
            <td class="name">
              <NuxtLink :to="{ path: '/spend', query: sentence.body.query }" class="link">{{ sentence.name }}</NuxtLink>
            </td>
            <td class="what">{{ sentence.description }}</td>
            <td>
              {{ sentence.owner }}<span class="minor">, {{ sentence.shared ? 'shared' : 'own' }}</span>
            </td>
            <td class="sent">
              {{ scheduleText(sentence) }}<br v-if="sentence.schedule" /><span
                v-if="said[sentence.id] ?? sentence.lastSaid"
                class="minor"
                role="status"
                >{{ said[sentence.id] ?? `${sentence.lastSaid}${sentence.lastSentAt ? `, ${timeText(sentence.lastSentAt)}` : ''}` }}</span
              >
            </td>
            <td class="n">
              <template v-if="sentence.mine">
                <button v-if="sentence.schedule" class="link" @click="sendNow(sentence)">Send now</button>
                <UPopover :open="editing === sentence.id" @update:open="editing = $event ? sentence.id : null"
                  ><button class="link">Change</button
                  ><template #content><SaveSentence :sentence="sentence" @done="editing = null" /></template
                ></UPopover>
                <button class="link" :aria-label="`delete ${sentence.name}`" @click="attempt(() => sentences.remove(sentence.id))">
                  Delete
                </button>
              </template>
            </td>
          </tr>
        </tbody>
      </table>
    </section>
    <section v-if="sentences.recent.length" class="folder">
      <h2 class="heading">Recently viewed in this browser</h2>
      <ul class="recent">
        <li v-for="(asked, i) in sentences.recent" :key="i">
          <NuxtLink :to="{ path: '/spend', query: asked.query }" class="link">{{ asked.title }}</NuxtLink>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.folder {
  margin-top: 16px;
}
.folder .ledger {
  table-layout: fixed;
  min-width: 900px;
}
.folder {
  overflow-x: auto;
  position: relative;
}
.folder th:nth-child(1) {
  width: 20%;
}
.folder th:nth-child(3) {
  width: 14%;
}
.folder th:nth-child(4) {
  width: 14%;
}
.folder th:nth-child(5) {
  width: 15%;
}
.what {
  color: var(--ink-2);
  max-width: 420px;
}
.sent {
  max-width: 260px;
  overflow-wrap: anywhere;
}
.n :deep(.link) {
  margin-left: 12px;
}
.recent {
  columns: 2;
  column-gap: 30px;
}
.recent li {
  break-inside: avoid;
}
</style>
