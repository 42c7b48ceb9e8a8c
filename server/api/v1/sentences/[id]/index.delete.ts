import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { removeSentence } from '../../../../stores/sentences'

export default route(operations.sentences.remove, async ({ database, who, path }) => {
  const { id } = path
  await removeSentence(database.db, id, who)
  return { id }
})
