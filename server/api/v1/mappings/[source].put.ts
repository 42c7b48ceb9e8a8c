import { mappingSchema } from '../../../../core/focus/mapping/mapping'
import { body, parameter, route } from '../../../http/route'
import { saveMapping } from '../../../stores/mappings'

export default route(async ({ event, database, who }) => {
  const source = parameter(event, 'source')
  await saveMapping(database.db, source, await body(event, mappingSchema), who)
  return { source }
})
