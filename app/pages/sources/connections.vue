<script setup lang="ts">
import { z } from 'zod'
import {
  connectionTested,
  connectorKindList,
  type ConnectionTested,
  type ConnectionView,
  type ConnectorKindView,
} from '../../../shared/contracts/connections'

/** Outside services that are connected: how each is reached, what it can do, and whether it answers. */
const connections = useConnections()
const { attempt, problem, busy } = useAttempt()
useHead({ title: 'Connections · Rain Barrel' })
const named = z.object({ id: z.string() })
const kinds = ref<ConnectorKindView[]>([])
const load = () =>
  attempt(async () => {
    kinds.value = (await client.get('connections/kinds', connectorKindList)).kinds
    await connections.load()
  })
onMounted(load)

/** The connection that is made or changed; its name is null for a new one. */
const editing = ref<string | null | undefined>(undefined)
const empty = () => ({ name: '', kind: 'cloud', address: '', secret: '', provider: '' })
const form = ref(empty())
const tested = ref<ConnectionTested | null>(null)
const kind = computed(() => kinds.value.find(known => known.kind === form.value.kind))
function open(connection: ConnectionView | null) {
  problem.value = null
  tested.value = null
  editing.value = connection ? connection.name : null
  form.value = connection ? { ...connection, secret: connection.secret ?? '' } : empty()
}
const settings = () => ({
  name: form.value.name,
  kind: form.value.kind,
  address: form.value.address.trim(),
  secret: form.value.secret.trim() || null,
})
const test = () =>
  attempt(async () => {
    tested.value = null
    tested.value = await client.send('POST', 'connections/test', settings(), connectionTested)
    if (tested.value.provider && !form.value.provider) form.value.provider = tested.value.provider
  })
async function save() {
  const isGood = await attempt(async () => {
    const { name, ...rest } = settings()
    const provider = form.value.provider.trim() || undefined
    if (editing.value === null) await client.send('POST', 'connections', { name, ...rest, provider }, named)
    else await client.send('PUT', `connections/${encodeURIComponent(name)}`, { ...rest, provider }, named)
    await connections.load()
  })
  if (isGood) editing.value = undefined
}
const asked = ref<string | null>(null)
async function drop(name: string) {
  asked.value = null
  await attempt(async () => {
    await client.send('DELETE', `connections/${encodeURIComponent(name)}`, undefined, named)
    await connections.load()
  })
}
const answering = computed(() => connections.list.filter(connection => connection.now !== null).length)
</script>

<template>
  <div class="page">
    <PlaceNav place="Sources" />
    <h1 class="sentence">
      <template v-if="connections.list.length"
        >{{ connections.list.length }} {{ connections.list.length === 1 ? 'connection' : 'connections' }},
        {{
          answering === connections.list.length
            ? answering === 1
              ? 'and it answers'
              : 'and all answer'
            : `of which ${answering} ${answering === 1 ? 'answers' : 'answer'}`
        }}.</template
      >
      <template v-else>Nothing is connected yet.</template>
    </h1>
    <p class="lead">
      <button v-if="editing === undefined" class="button main" @click="open(null)">Add a connection</button>
    </p>
    <form v-if="editing !== undefined" class="form" @submit.prevent="save" @keydown.esc="editing = undefined">
      <label
        ><span>name</span><input v-model="form.name" class="field" required maxlength="60" :disabled="editing !== null" autofocus
      /></label>
      <label
        ><span>kind</span>
        <select v-model="form.kind" class="field" @change="tested = null">
          <option v-for="one in kinds" :key="one.kind" :value="one.kind">{{ one.label }}</option>
        </select></label
      >
      <label class="wide"
        ><span>address</span
        ><input v-model="form.address" class="field" required placeholder="https://control.example.org" @input="tested = null"
      /></label>
      <label
        ><span>secret, by reference</span
        ><input v-model="form.secret" class="field" placeholder="none, env:NAME or file:/path" @input="tested = null"
      /></label>
      <label
        ><span>provider, as its charges name it</span
        ><input v-model="form.provider" class="field" maxlength="80" placeholder="asked when left empty"
      /></label>
      <div class="buttons">
        <button type="button" class="button" :disabled="busy" @click="test">Test</button>
        <button class="button main" :disabled="busy">Save</button>
        <button type="button" class="link" @click="editing = undefined">Cancel</button>
        <span role="status">
          <template v-if="tested?.problem"
            ><span class="bad">{{ tested.problem }}.</span></template
          >
          <template v-else-if="tested">It answers: {{ tested.provider }}, where it is {{ tested.now }}.</template>
        </span>
      </div>
      <p v-if="kind" class="minor help">{{ kind.help }} It has: {{ kind.can.join(', ') }}.</p>
    </form>
    <ProblemNote v-if="problem" :problem="problem" />
    <div v-if="connections.list.length" class="scroll" tabindex="0" role="group" aria-label="connections">
      <table class="ledger">
        <thead>
          <tr>
            <th>name</th>
            <th>provider</th>
            <th>kind and address</th>
            <th>what it offers</th>
            <th>answers</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="connection in connections.list" :key="connection.name" :data-connection="connection.name">
            <td>
              <b>{{ connection.name }}</b>
              <div class="minor">by {{ connection.who }}, {{ timeText(connection.savedAt) }}</div>
            </td>
            <td>{{ connection.provider }}</td>
            <td class="address">
              {{ connection.label }}
              <div>{{ connection.address }}</div>
              <div class="minor">{{ connection.secret ? `secret in ${connection.secret}` : 'no secret' }}</div>
            </td>
            <td>
              <ul class="can">
                <li v-for="one in connection.can" :key="one">{{ one }}</li>
              </ul>
            </td>
            <td class="answers">
              <template v-if="connection.now">yes, it is {{ timeText(connection.now) }} there</template>
              <span v-else class="bad">{{ connection.problem }}</span>
            </td>
            <td class="acts">
              <template v-if="asked === connection.name">
                <span>Delete it and the jobs that use it? What it delivered stays.</span>
                <button class="link" @click="drop(connection.name)">Delete</button>
                <button class="link" @click="asked = null">Cancel</button>
              </template>
              <template v-else>
                <button class="link" @click="open(connection)">Change</button>
                <button class="link" @click="asked = connection.name">Delete</button>
              </template>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
.lead {
  margin: 8px 0;
}
.form {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 14px;
  align-items: end;
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 10px 12px;
  margin: 8px 0;
}
.form label {
  display: grid;
  gap: 2px;
  font-size: 12px;
  color: var(--ink-2);
}
.form .field {
  width: 200px;
}
.form .wide .field {
  width: 320px;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
}
.help {
  flex-basis: 100%;
  margin: 0;
}
.ledger td {
  vertical-align: top;
  padding-top: 6px;
  padding-bottom: 6px;
}
.address,
.answers {
  max-width: 300px;
  overflow-wrap: anywhere;
}
.can {
  margin: 0;
  padding: 0;
  list-style: none;
  columns: 2;
  column-gap: 14px;
}
.acts {
  max-width: 190px;
}
.acts .link + .link {
  margin-left: 12px;
}
</style>
