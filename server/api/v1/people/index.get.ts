import { person } from '../../../db/schema'
import { route } from '../../../http/route'

export default route(async ({ database, who }) => ({ people: await database.db.select().from(person).orderBy(person.name), who }))
