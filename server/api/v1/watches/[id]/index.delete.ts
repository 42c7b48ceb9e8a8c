import { notFound } from '../../../../http/problem'
import { numberedParameter, route } from '../../../../http/route'
import { stopWatching } from '../../../../jobs/watching'

export default route(async ({ event, database }) => {
  const id = numberedParameter(event, 'id', 'watch')
  if (!(await stopWatching(database.db, id))) throw notFound('watch', 'It may have been taken out already.')
  return { id }
})
