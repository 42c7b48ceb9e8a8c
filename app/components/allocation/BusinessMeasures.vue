<script setup lang="ts">
import Papa from 'papaparse'
import { measureTable } from '../../../core/unit-cost/measure-table'
import { measureDropped, measureState, type MeasureList } from '../../../shared/contracts/measures'

/** The business measures that there are; files of them are dropped here, and each is taken away or downloaded. */
defineProps<{ list: MeasureList['measures'] }>()
const emit = defineEmits<{ changed: [] }>()
const sources = useSources()
const facts = useFactsFile()
const { attempt, problem } = useAttempt()
watch(
  () => facts.review,
  review => review === null && emit('changed'),
)
async function drop(files: File[]) {
  await sources.drop(files)
  if (!facts.review) emit('changed')
}
/** A measure as a file that can be dropped again. */
const download = (called: string, format: 'csv' | 'json') =>
  attempt(async () => {
    const { name, unit, grain, tree, values } = await client.get(`measures/${encodeURIComponent(called)}`, measureState)
    const measures = [{ name, unit, grain, tree, values }]
    if (format === 'json') {
      saveFile(new Blob([`${JSON.stringify({ measures }, null, 2)}\n`], { type: 'application/json' }), `measure-${called}.json`)
      return
    }
    const { heads, rows } = measureTable(measures)
    saveFile(new Blob([`${Papa.unparse([heads, ...rows])}\r\n`], { type: 'text/csv' }), `measure-${called}.csv`)
  })
const dropping = ref<string | null>(null)
const remove = (called: string) =>
  attempt(async () => {
    dropping.value = null
    await client.send('DELETE', `measures/${encodeURIComponent(called)}`, undefined, measureDropped)
    emit('changed')
  })
</script>

<template>
  <section aria-label="Business measures">
    <h2 class="heading">Business measures</h2>
    <DropPlace
      what="Drop business measures here: a CSV with the columns measure, unit, date, cost centre and value. A value for a day that has one already replaces it."
      @files="drop"
    />
    <TakenFiles />
    <ProblemNote v-if="problem" :problem="problem" />
    <table v-if="list.length" class="ledger" data-testid="measures">
      <thead>
        <tr>
          <th>measure</th>
          <th>counted in</th>
          <th>by</th>
          <th class="n">cost centres</th>
          <th>from</th>
          <th>to</th>
          <th class="n">values</th>
          <th>saved</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in list" :key="one.name">
          <td>{{ one.name }}</td>
          <td>{{ one.unit }}</td>
          <td>{{ one.grain }}</td>
          <td class="n">{{ count(one.centres) }}</td>
          <td>{{ one.grain === 'day' ? dayText(one.first) : monthText(one.first) }}</td>
          <td>{{ one.grain === 'day' ? dayText(one.last) : monthText(one.last) }}</td>
          <td class="n">{{ count(one.values) }}</td>
          <td>{{ one.saved ? `${one.saved.who}, ${timeText(one.saved.savedAt)}` : '' }}</td>
          <td class="deeds">
            <button class="link" @click="download(one.name, 'csv')">CSV</button>
            <button class="link" @click="download(one.name, 'json')">JSON</button>
            <button v-if="dropping !== one.name" class="link" @click="dropping = one.name">Delete</button>
            <template v-else
              ><button class="link bad" @click="remove(one.name)">Delete it</button>
              <button class="link" @click="dropping = null">Cancel</button></template
            >
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
section {
  margin-top: 20px;
}
.deeds {
  white-space: nowrap;
}
.deeds .link {
  margin-right: 8px;
}
</style>
