import { makeConnection } from '../../../../connectors/connections'
import { notFound } from '../../../../http/problem'
import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { findConnection } from '../../../../stores/connections'

/** Changes how a connection is reached; its name stays. */
export default route(operations.connections.change, async ({ database, who, path, body: input }) => {
  const { name } = path
  if (!(await findConnection(database.db, name))) throw notFound('connection', 'It may have been taken out already.')
  await makeConnection(database.db, { ...input, name }, who)
  return { id: name }
})
