import { notFound } from '../../../http/problem'
import { parameter, route } from '../../../http/route'
import { removePattern } from '../../../stores/reusable'

export default route(async ({ event, database }) => {
  const id = parameter(event, 'id')
  if (!(await removePattern(database.db, id))) throw notFound('pattern', `No pattern has the id «${id}».`)
  return { id }
})
