import { notFound } from '../../../../http/problem'
import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { findLongSentence } from '../../../../stores/sentences'

/** The address that a short id stands for. */
export default route(operations.sentences.findLong, async ({ database, path }) => {
  const { id } = path
  const query = await findLongSentence(database.db, id)
  if (!query) throw notFound('Sentence', `No Sentence is kept under «${id}». Ask whoever sent the link for it anew.`)
  return { query }
})
