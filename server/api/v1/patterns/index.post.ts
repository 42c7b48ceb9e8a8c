import { patternSchema } from '../../../../core/estimate/pattern'
import { body, route } from '../../../http/route'
import { savePattern } from '../../../stores/reusable'

/** Keeps a pattern; one of the same id is replaced. */
export default route(async ({ event, database, who }) => {
  const set = await body(event, patternSchema)
  await savePattern(database.db, set, who)
  return { id: set.id }
})
