import { person } from '../../../db/schema'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

export default route(operations.people.list, async ({ database, who }) => ({
  people: await database.db.select().from(person).orderBy(person.name),
  who,
}))
