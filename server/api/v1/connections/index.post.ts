import { makeConnection } from '../../../connectors/connections'
import { conflict } from '../../../http/problem'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { findConnection } from '../../../stores/connections'

/** Makes a connection. */
export default route(operations.connections.make, async ({ database, who, body: input }) => {
  if (await findConnection(database.db, input.name))
    throw conflict('There is a connection of that name', 'Change that one, or choose another name.')
  await makeConnection(database.db, input, who)
  return { id: input.name }
})
