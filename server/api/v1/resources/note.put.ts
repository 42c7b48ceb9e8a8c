import { resourceNote as noteInput } from '../../../../shared/contracts/resources'
import { resourceNote } from '../../../db/schema'
import { body, route } from '../../../http/route'

/** Keeps the note of a resource, in Markdown; an empty one takes it away. */
export default route(async ({ event, database, who }) => {
  const { id, body: text } = await body(event, noteInput)
  const savedAt = new Date().toISOString()
  await database.db
    .insert(resourceNote)
    .values({ resourceId: id, body: text, who, savedAt })
    .onConflictDoUpdate({ target: resourceNote.resourceId, set: { body: text, who, savedAt } })
  return { id }
})
