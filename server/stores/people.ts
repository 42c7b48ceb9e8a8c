import type { Bound } from '../../core/allocation/bound'
import type { Db } from '../db/database'
import { person } from '../db/schema'

export type StoredPerson = { id: string; name: string; role: string; bound: Bound | null }

/** People by name, with what each of them may see. */
export async function listPeople(db: Pick<Db, 'select'>): Promise<StoredPerson[]> {
  const rows = await db.select().from(person).orderBy(person.name)
  return rows.map(({ id, name, role, bound, seesPools }) => ({ id, name, role, bound: bound && { centres: bound, seesPools } }))
}

/** People by name as a file has them. */
export const personEntries = async (db: Pick<Db, 'select'>) =>
  db
    .select({ id: person.id, name: person.name, role: person.role, mail: person.mail, bound: person.bound, seesPools: person.seesPools })
    .from(person)
    .orderBy(person.name)

/** The names of people by their ids. */
export async function namesOf(db: Pick<Db, 'select'>): Promise<Map<string, string>> {
  return new Map((await listPeople(db)).map(({ id, name }) => [id, name]))
}
