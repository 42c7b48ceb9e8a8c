import { connectionInput } from '../../../../../shared/contracts/connections'
import { makeConnection } from '../../../../connectors/connections'
import { notFound } from '../../../../http/problem'
import { body, parameter, route } from '../../../../http/route'
import { findConnection } from '../../../../stores/connections'

/** Changes how a connection is reached; its name stays. */
export default route(async ({ event, database, who }) => {
  const name = parameter(event, 'name')
  const input = await body(event, connectionInput.omit({ name: true }))
  if (!(await findConnection(database.db, name))) throw notFound('connection', 'It may have been taken out already.')
  await makeConnection(database.db, { ...input, name }, who)
  return { id: name }
})
