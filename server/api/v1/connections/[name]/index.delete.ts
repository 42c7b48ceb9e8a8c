import { dropConnection } from '../../../../connectors/connections'
import { notFound } from '../../../../http/problem'
import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'

/** Takes a connection out with what runs through it by itself; what it has delivered stays. */
export default route(operations.connections.remove, async ({ database, path }) => {
  const { name } = path
  if (!(await dropConnection(database.db, name))) throw notFound('connection', 'It may have been taken out already.')
  return { id: name }
})
