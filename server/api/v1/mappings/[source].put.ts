import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { saveMapping } from '../../../stores/mappings'

export default route(operations.sources.saveMapping, async ({ database, who, path, body }) => {
  const { source } = path
  await saveMapping(database.db, source, body, who)
  return { source }
})
