<script setup lang="ts">
import { addDays } from '../../../../core/time/day'
import { kept, linkList, linkMade, LONGEST_LINK_DAYS, type ExportFormat } from '../../../../shared/contracts/estimates'
import type { z } from 'zod'

/**
 * Out of the door: files, and links that open without login. What leaves is a saved version; a customer's copy never holds own cost or
 * terms.
 */
const store = useEstimate()
const audience = ref<'own' | 'customer'>('own')
/** The column that headline, target and lines are of: the one that is looked at, unless another is chosen. */
const scenario = ref(store.scenarioId ?? '')
watch(
  () => store.scenarioId,
  id => {
    scenario.value = id ?? ''
  },
)
const lacking = computed(() => store.columns.find(c => (c.scenario ?? '') === scenario.value)?.unpriced ?? 0)
const busy = ref('')
const failed = ref('')
const links = ref<z.infer<typeof linkList>['links']>([])
const made = ref('')
const expiresOn = ref(addDays(today(), 30))

const fileName = computed(() => store.estimate!.name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase())
const takeJson = () => saveFile(new Blob([store.json()], { type: 'application/json' }), `${fileName.value}.json`)

async function attempt(what: string, work: () => Promise<void>) {
  busy.value = what
  failed.value = ''
  try {
    // what leaves is what is on the screen: it is saved first
    if (store.unsaved && !(await store.save())) throw new Error('It could not be saved first; see above.')
    await work()
  } catch (error) {
    failed.value = problemOf(error).detail
  }
  busy.value = ''
}
const take = (format: ExportFormat) =>
  attempt(format, async () => {
    const { blob, name } = await client.file(`estimates/${store.id}/export`, {
      format,
      audience: audience.value,
      version: store.saved!.version,
      scenario: scenario.value || null,
    })
    saveFile(blob, name ?? `${fileName.value}.${format}`)
  })
const load = async () => {
  ;({ links: links.value } = await client.get(`estimates/${store.id}/links`, linkList))
}
onMounted(() =>
  load().catch(error => {
    failed.value = problemOf(error).detail
  }),
)
const makeLink = () =>
  attempt('link', async () => {
    const { path } = await client.send(
      'POST',
      `estimates/${store.id}/links`,
      { version: store.saved!.version, audience: audience.value, scenario: scenario.value || null, expiresOn: expiresOn.value },
      linkMade,
    )
    made.value = `${window.location.origin}${path}`
    await load()
  })
const revoke = (id: string) =>
  attempt('revoke', async () => {
    await client.send('DELETE', `links/${id}`, {}, kept)
    made.value = ''
    await load()
  })
const copy = () => navigator.clipboard.writeText(made.value)
const state = (link: { revokedAt: string | null; expiresOn: string; opens: boolean }) =>
  !link.opens
    ? "closed: it was made before customers' copies were built from a list, and cannot be made anew; make another"
    : link.revokedAt
      ? 'withdrawn'
      : link.expiresOn < today()
        ? 'expired'
        : `open until ${dayText(link.expiresOn)}`
</script>

<template>
  <div class="box">
    <h2 class="heading">Share and download</h2>
    <fieldset class="line">
      <legend class="sr-only">for whom</legend>
      <label><input v-model="audience" type="radio" value="own" /> for our own people, with cost, terms and Workings</label>
      <label
        ><input v-model="audience" type="radio" value="customer" /> for a customer: prices only, without own cost, margin or terms</label
      >
    </fieldset>
    <p v-if="store.estimate!.scenarios.length" class="line">
      <label
        >of
        <select v-model="scenario" class="field" aria-label="scenario of the document">
          <option value="">A · as it stands</option>
          <option v-for="(s, i) in store.estimate!.scenarios" :key="s.id" :value="s.id">{{ columnLetter(i + 1) }} · {{ s.name }}</option>
        </select></label
      ><span class="minor">Headline, target and lines are those of this column.</span>
    </p>
    <p v-if="lacking" class="bad">
      {{ count(lacking) }} {{ lacking === 1 ? 'row' : 'rows' }} of it cannot be priced: every document says that the total lacks
      {{ lacking === 1 ? 'it' : 'them' }}.
    </p>
    <div class="line">
      <button class="button" :disabled="!!busy" @click="take('pdf')">PDF</button>
      <button class="button" :disabled="!!busy" @click="take('xlsx')">XLSX{{ audience === 'own' ? ', live formulas' : '' }}</button>
      <button class="button" :disabled="!!busy" @click="take('csv')">CSV</button>
      <button v-if="audience === 'own'" class="button" @click="takeJson">JSON, to import again</button>
      <span v-if="busy" class="minor" role="status">Writing…</span>
    </div>
    <form class="line" @submit.prevent="makeLink">
      <label
        >a link that shows version {{ store.unsaved ? store.saved!.version + 1 : store.saved!.version }} to anyone who has it, until
        <input v-model="expiresOn" type="date" class="field" :min="today()" :max="addDays(today(), LONGEST_LINK_DAYS)" required
      /></label>
      <button class="button" :disabled="!!busy">Make a link</button>
    </form>
    <p v-if="made" class="made">
      <input
        class="field"
        readonly
        :value="made"
        aria-label="address of the link"
        @focus="($event.target as HTMLInputElement).select()"
      />{{ ' ' }} <button class="button" @click="copy">Copy</button> <span class="minor">The address is shown only once.</span>
    </p>
    <p v-if="failed" class="bad" role="alert">{{ failed }}</p>
    <table v-if="links.length" class="ledger">
      <thead>
        <tr>
          <th>link</th>
          <th>version</th>
          <th>for</th>
          <th>made</th>
          <th>by</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="link in links" :key="link.id">
          <td>{{ state(link) }}</td>
          <td>{{ link.version }}</td>
          <td>{{ link.audience === 'own' ? 'own people' : 'a customer' }}</td>
          <td>{{ timeText(link.madeAt) }}</td>
          <td>{{ link.who }}</td>
          <td><button v-if="!link.revokedAt" class="link" @click="revoke(link.id)">withdraw it</button></td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.box {
  display: grid;
  gap: 8px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: center;
}
.line label {
  display: flex;
  gap: 6px;
  align-items: center;
  min-height: 24px;
}
.made {
  display: flex;
  gap: 8px;
  align-items: center;
}
.made .field {
  width: 560px;
  max-width: 60vw;
}
.ledger {
  max-width: 800px;
}
</style>
