import { notFound } from '../../../http/problem'
import { parameter, route } from '../../../http/route'
import { removeUplift } from '../../../stores/reusable'

export default route(async ({ event, database }) => {
  const id = parameter(event, 'id')
  if (!(await removeUplift(database.db, id))) throw notFound('set of own charges', `No set has the id «${id}».`)
  return { id }
})
