import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { savePattern } from '../../../stores/reusable'

/** Keeps a pattern; one of the same id is replaced. */
export default route(operations.estimates.savePattern, async ({ database, who, body: set }) => {
  await savePattern(database.db, set, who)
  return { id: set.id }
})
