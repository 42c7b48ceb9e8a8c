import { resourceNote } from '../../../db/schema'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

/** Keeps the note of a resource, in Markdown; an empty one takes it away. */
export default route(operations.spend.saveResourceNote, async ({ database, who, body }) => {
  const { id, body: text } = body
  const savedAt = new Date().toISOString()
  await database.db
    .insert(resourceNote)
    .values({ resourceId: id, body: text, who, savedAt })
    .onConflictDoUpdate({ target: resourceNote.resourceId, set: { body: text, who, savedAt } })
  return { id }
})
