import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { saveUplift } from '../../../stores/reusable'

/** Keeps a set of own charges; one of the same id is replaced. */
export default route(operations.estimates.saveUplift, async ({ database, who, body: set }) => {
  await saveUplift(database.db, set, who)
  return { id: set.id }
})
