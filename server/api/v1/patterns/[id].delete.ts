import { notFound } from '../../../http/problem'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { removePattern } from '../../../stores/reusable'

export default route(operations.estimates.removePattern, async ({ database, path }) => {
  const { id } = path
  if (!(await removePattern(database.db, id))) throw notFound('pattern', `No pattern has the id «${id}».`)
  return { id }
})
