import { connectionInput } from '../../../../shared/contracts/connections'
import { makeConnection } from '../../../connectors/connections'
import { conflict } from '../../../http/problem'
import { body, route } from '../../../http/route'
import { findConnection } from '../../../stores/connections'

/** Makes a connection. */
export default route(async ({ event, database, who }) => {
  const input = await body(event, connectionInput)
  if (await findConnection(database.db, input.name))
    throw conflict('There is a connection of that name', 'Change that one, or choose another name.')
  await makeConnection(database.db, input, who)
  return { id: input.name }
})
