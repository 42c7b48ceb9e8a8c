import { notFound } from '../../../../http/problem'
import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { stopWatching } from '../../../../jobs/watching'

export default route(operations.sources.removeWatch, async ({ database, path }) => {
  const { id } = path
  if (!(await stopWatching(database.db, id))) throw notFound('watch', 'It may have been taken out already.')
  return { id }
})
