import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { keepLongSentence } from '../../../../stores/sentences'

/** A short id for the address of a Sentence that is too long for one. */
export default route(operations.sentences.keepLong, async ({ database, body }) => {
  const { query } = body
  return { id: await keepLongSentence(database.db, query) }
})
