<script setup lang="ts">
import { freeId } from '../../../core/text/free-id'
import { chosenPerson, personEntry, type PersonEntry } from '../../../shared/contracts/people'
import { organisationState } from '../../../shared/contracts/reference-data'

/** People of the company and what each of them sees. */
const allocation = useAllocation()
const session = useSession()
const { attempt, problem, busy } = useAttempt()
const people = shallowRef<PersonEntry[]>([])
/** Who is being written; an id of null is someone new. */
const written = ref<(Omit<PersonEntry, 'id'> & { id: string | null }) | null>(null)
const read = () =>
  attempt(async () => {
    people.value = (await client.get('organisation', organisationState)).people
  })
onMounted(read)
const sees = ({ bound }: PersonEntry) => (bound ? bound.map(allocation.targetName).join(', ') || 'nothing' : 'the whole company')
const write = (person: PersonEntry | null) => {
  written.value = person ? structuredClone(person) : { id: null, name: '', role: '', mail: null, bound: null, seesPools: true }
}
const centreOptions = computed(() =>
  allocation.tree.map(({ id, name, depth }) => ({ value: id, label: `${'\u2003'.repeat(depth)}${name}` })),
)
const tick = (centre: string) => {
  const { bound } = written.value!
  if (bound) written.value!.bound = bound.includes(centre) ? bound.filter(one => one !== centre) : [...bound, centre]
}
const done = async () => {
  written.value = null
  // what whoever works here sees may be another by now
  await session.again()
  allocation.forget()
  await Promise.all([read(), allocation.again()])
}
const save = () =>
  attempt(async () => {
    const { id, ...entry } = written.value!
    const name = entry.name.trim()
    const mail = entry.mail?.trim() || null
    const own = id ?? freeId(name, people.value.map(one => one.id)) // prettier-ignore
    await client.send('PUT', `people/${encodeURIComponent(own)}`, { ...entry, name, mail }, personEntry)
    await done()
  })
const remove = () =>
  attempt(async () => {
    await client.send('DELETE', `people/${encodeURIComponent(written.value!.id!)}`, undefined, chosenPerson)
    await done()
  })
</script>

<template>
  <section aria-label="People">
    <div class="headed">
      <h2 class="heading">People</h2>
      <button class="link" @click="write(null)">Add someone</button>
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="!people.length" class="minor">No people yet: everyone who opens Rain Barrel sees everything.</p>
    <table v-else class="ledger">
      <thead>
        <tr>
          <th>name</th>
          <th>role</th>
          <th>mail</th>
          <th>sees</th>
          <th><span class="sr-only">change</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="person in people" :key="person.id">
          <td>{{ person.name }}</td>
          <td class="minor">{{ person.role }}</td>
          <td class="minor">{{ person.mail ?? '–' }}</td>
          <td class="minor">{{ sees(person) }}{{ person.bound && person.seesPools ? ', with the whole of pools' : '' }}</td>
          <td class="n"><button class="link" :aria-label="`change ${person.name}`" @click="write(person)">Change</button></td>
        </tr>
      </tbody>
    </table>
    <form v-if="written" class="inset" aria-label="Person" @submit.prevent="save">
      <div class="row">
        <label>name <input v-model="written.name" class="field" required /></label>
        <label>role <input v-model="written.role" class="field" /></label>
        <label>mail <input v-model="written.mail" class="field" type="email" placeholder="none" /></label>
        <label
          >sees
          <select
            class="field"
            :value="written.bound ? 'part' : 'all'"
            @change="written.bound = ($event.target as HTMLSelectElement).value === 'all' ? null : []"
          >
            <option value="all">the whole company</option>
            <option value="part">cost centres by name</option>
          </select></label
        >
        <UPopover v-if="written.bound">
          <button type="button" class="control">
            {{ written.bound.map(allocation.targetName).join(', ') || 'choose cost centres …' }}
          </button>
          <template #content><OptionList :options="centreOptions" :several="written.bound" label="cost centres" @choose="tick" /></template>
        </UPopover>
        <label v-if="written.bound"><input v-model="written.seesPools" type="checkbox" /> with the whole of pools</label>
        <button class="button main" :disabled="busy || !written.name.trim()">Save</button>
        <button type="button" class="button" @click="written = null">Cancel</button>
        <button v-if="written.id" type="button" class="link" :disabled="busy" @click="remove">Delete</button>
      </div>
    </form>
  </section>
</template>

<style scoped>
section {
  margin-top: 18px;
}
</style>
