import { defineStore } from 'pinia'
import { chosenPerson, peopleList, type PeopleList, type Person } from '../../shared/contracts/people'
import { computed, ref } from 'vue'
import { client } from '../utils/client'

/** Whom one works as, and so what one sees. Until there is sign-in one chooses a person. */
export const useSession = defineStore('session', () => {
  const people = ref<Person[]>([])
  const me = ref<PeopleList['me']>(null)
  const person = computed(() => me.value)
  const who = computed(() => me.value?.name ?? '')
  /** Known once it was asked: whether whoever asks sees the whole company. */
  const seesAll = computed(() => known.value && !me.value?.bound)
  /** Whether it was found out who asks. */
  const known = ref(false)
  let asked: Promise<void> | null = null
  const initials = computed(
    () =>
      person.value?.name
        .split(' ')
        .map(part => part[0])
        .join('')
        .slice(0, 2)
        .toUpperCase() ?? '',
  )

  /** Who asks, found out once. */
  const load = () =>
    (asked ??= find().catch((error: unknown) => {
      asked = null // it may be asked again
      throw error
    }))
  /** Who there is now, after a file of people has come. */
  const again = () => {
    asked = null
    return load()
  }

  async function find() {
    const list = await client.get('people', peopleList)
    people.value = list.people
    me.value = list.me
    const first = list.people.find(p => p.role.includes('analyst')) ?? list.people[0]
    if (!list.me && first) await workAs(first.id)
    known.value = true
  }

  async function workAs(id: string) {
    const before = me.value?.bound ?? null
    await client.send('POST', 'people/chosen', { id }, chosenPerson)
    me.value = (await client.get('people', peopleList)).me
    // of what the one before has seen nothing stays
    if (before || me.value?.bound) location.reload()
  }

  return { people, who, person, known, seesAll, initials, load, again, workAs }
})
