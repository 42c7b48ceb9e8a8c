import { route } from '../../../http/route'
import { listSources } from '../../../stores/sources'

export default route(async ({ cube, database, importer }) => {
  const { result } = await cube.ask('facts', undefined)
  return { sources: await listSources(database.db, result), loads: await importer.recent(60) }
})
