import { savedSentenceInput } from '../../../../../shared/contracts/spend-settings'
import { body, parameter, route } from '../../../../http/route'
import { saveSentence } from '../../../../stores/sentences'

export default route(async ({ event, database, jobs, who }) => {
  const id = parameter(event, 'id')
  await saveSentence(database.db, id, await body(event, savedSentenceInput), who)
  await jobs.tell()
  return { id }
})
