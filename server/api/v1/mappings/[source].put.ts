import { mappingSchema } from '../../../../core/focus/mapping/mapping'
import { body, parameter, route } from '../../../http/route'
import { saveMapping } from '../../../stores/mappings'

/** A mapping as it is kept: one that says nothing of a file, or something unknown, would fail with every file. */
const kept = mappingSchema
  .strict()
  .refine(({ numbers }) => Object.keys(numbers).length > 0, { path: ['numbers'], error: 'name at least the column that holds the cost' })

export default route(async ({ event, database, who }) => {
  const source = parameter(event, 'source')
  await saveMapping(database.db, source, await body(event, kept), who)
  return { source }
})
