import { upliftSetSchema } from '../../../../core/uplift/uplift-set'
import { body, route } from '../../../http/route'
import { saveUplift } from '../../../stores/reusable'

/** Keeps a set of own charges; one of the same id is replaced. */
export default route(async ({ event, database, who }) => {
  const set = await body(event, upliftSetSchema)
  await saveUplift(database.db, set, who)
  return { id: set.id }
})
