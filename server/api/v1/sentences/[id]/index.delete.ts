import { parameter, route } from '../../../../http/route'
import { removeSentence } from '../../../../stores/sentences'

export default route(async ({ event, database, who }) => {
  const id = parameter(event, 'id')
  await removeSentence(database.db, id, who)
  return { id }
})
