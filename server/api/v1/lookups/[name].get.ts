import { operations } from '../../../http/operations'
import { notFound } from '../../../http/problem'
import { route } from '../../../http/route'
import { findLookup } from '../../../stores/lookups'

export default route(operations.allocation.lookup, async ({ database, path: { name } }) => {
  const found = await findLookup(database.db, name)
  if (!found) throw notFound('lookup', `No lookup is called «${name}».`)
  return found
})
