import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { saveSentence } from '../../../../stores/sentences'

export default route(operations.sentences.save, async ({ database, jobs, who, path, body }) => {
  const { id } = path
  await saveSentence(database.db, id, body, who)
  await jobs.tell()
  return { id }
})
