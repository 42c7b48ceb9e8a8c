import { dropConnection } from '../../../../connectors/connections'
import { notFound } from '../../../../http/problem'
import { parameter, route } from '../../../../http/route'

/** Takes a connection out with what runs through it by itself; what it has delivered stays. */
export default route(async ({ event, database }) => {
  const name = parameter(event, 'name')
  if (!(await dropConnection(database.db, name))) throw notFound('connection', 'It may have been taken out already.')
  return { id: name }
})
