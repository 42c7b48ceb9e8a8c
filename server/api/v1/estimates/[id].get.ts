import { notFound } from '../../../http/problem'
import { parameter, route } from '../../../http/route'
import { findEstimate } from '../../../stores/estimates'

export default route(async ({ event, database }) => {
  const id = parameter(event, 'id')
  const found = await findEstimate(database.db, id)
  if (!found) throw notFound('estimate', `No estimate has the id «${id}».`)
  return found
})
