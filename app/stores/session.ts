import { defineStore } from 'pinia'
import { chosenPerson, peopleList, type Person } from '../../shared/contracts/people'

/** Whom one works as. Until there is sign-in one chooses a person; the server writes the name wherever "who" is kept. */
export const useSession = defineStore('session', () => {
  const people = ref<Person[]>([])
  const who = ref('')
  const person = computed(() => people.value.find(p => p.name === who.value))
  const initials = computed(
    () =>
      person.value?.name
        .split(' ')
        .map(part => part[0])
        .join('')
        .slice(0, 2)
        .toUpperCase() ?? '',
  )

  async function load() {
    const list = await client.get('people', peopleList)
    people.value = list.people
    who.value = list.who
    const first = list.people.find(p => p.role.includes('analyst')) ?? list.people[0]
    if (!person.value && first) await workAs(first.id)
  }

  async function workAs(id: string) {
    await client.send('POST', 'people/chosen', { id }, chosenPerson)
    who.value = people.value.find(p => p.id === id)?.name ?? ''
  }

  return { people, who, person, initials, load, workAs }
})
