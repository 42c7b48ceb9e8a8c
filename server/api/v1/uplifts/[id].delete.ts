import { notFound } from '../../../http/problem'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { removeUplift } from '../../../stores/reusable'

export default route(operations.estimates.removeUplift, async ({ database, path }) => {
  const { id } = path
  if (!(await removeUplift(database.db, id))) throw notFound('set of own charges', `No set has the id «${id}».`)
  return { id }
})
