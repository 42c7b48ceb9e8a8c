import type { PeopleList, PersonEntry } from '../../shared/contracts/people'
import { conflict, notFound } from '../problems/problem'
import { currentPlan, savePerson } from '../stores/organisation'
import type { EngineWork } from './engine-work'

/** People, and whom one works as. */
export class Persons {
  constructor(private readonly work: EngineWork) {}

  async list(): Promise<PeopleList> {
    const { people, asker } = this.work
    const me = people.all.find(({ id }) => id === asker.id)
    const centres = me?.bound ? ((await currentPlan(this.work.database.db))?.plan.centres ?? []) : []
    return {
      people: people.all.map(({ id, name, role }) => ({ id, name, role })),
      who: asker.name,
      me: me
        ? {
            ...{ id: me.id, name: me.name, role: me.role, seesPools: me.bound?.seesPools ?? true },
            bound: me.bound?.centres.map(id => ({ id, name: centres.find(centre => centre.id === id)?.name ?? id })) ?? null,
          }
        : null,
    }
  }

  /** @throws Problem where nobody has the id. */
  find(id: string): { id: string } {
    const found = this.work.people.all.find(one => one.id === id)
    if (!found) throw notFound('person', `Nobody has the id «${id}».`)
    return { id: found.id }
  }

  /** Saves someone under an id. */
  async save(id: string, entry: Omit<PersonEntry, 'id'>): Promise<PersonEntry> {
    await savePerson(this.work.database.db, id, entry)
    await this.work.people.changed()
    return { id, ...entry }
  }

  /** Takes someone away. @throws Problem where nobody has the id. */
  async remove(id: string): Promise<{ id: string }> {
    this.find(id)
    if (id === this.work.asker.id) throw conflict('That is you', 'Work as someone else, then take this person away.')
    await savePerson(this.work.database.db, id, null)
    await this.work.people.changed()
    return { id }
  }
}
