import { eq } from 'drizzle-orm'
import { setCookie } from 'h3'
import { person } from '../../../db/schema'
import { notFound } from '../../../http/problem'
import { operations } from '../../../http/operations'
import { PERSON_COOKIE, route } from '../../../http/route'

/** Chooses whom one works as. */
export default route(operations.people.choose, async ({ event, database, body }) => {
  const { id } = body
  const [found] = await database.db.select().from(person).where(eq(person.id, id))
  if (!found) throw notFound('person', `Nobody has the id «${id}».`)
  setCookie(event, PERSON_COOKIE, found.name, { httpOnly: true, sameSite: 'strict', path: '/', maxAge: 60 * 60 * 24 * 365 })
  return { id }
})
