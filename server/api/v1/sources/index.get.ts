import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { listSources } from '../../../stores/sources'

export default route(operations.sources.list, async ({ cube, database, importer }) => {
  const { result } = await cube.ask('facts', undefined)
  return { sources: await listSources(database.db, result), loads: await importer.recent(60) }
})
