import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { saveLookup } from '../../../stores/lookups'

/** A lookup in place of the one of that name: at once a dimension for each of its fields. */
export default route(operations.allocation.saveLookup, async ({ database, cube, who, path: { name }, body }) => {
  await saveLookup(database.db, name, body, who)
  await cube.refreshReference()
  return { name, entries: body.entries.length }
})
