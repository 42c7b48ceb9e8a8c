import { savedSentenceBody } from '../../../../../shared/contracts/spend-settings'
import { body, route } from '../../../../http/route'
import { keepLongSentence } from '../../../../stores/sentences'

/** A short id for the address of a Sentence that is too long for one. */
export default route(async ({ event, database }) => {
  const { query } = await body(event, savedSentenceBody)
  return { id: await keepLongSentence(database.db, query) }
})
