import { operations } from '../../../http/operations'
import { notFound } from '../../../http/problem'
import { route } from '../../../http/route'
import { findLookup, saveLookup } from '../../../stores/lookups'

/** Takes a lookup away; its earlier states are kept. */
export default route(operations.allocation.dropLookup, async ({ database, cube, who, path: { name } }) => {
  if (!(await findLookup(database.db, name))) throw notFound('lookup', `No lookup is called «${name}».`)
  await saveLookup(database.db, name, null, who)
  await cube.refreshReference()
  return { name, entries: 0 }
})
