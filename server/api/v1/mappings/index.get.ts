import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { listMapped } from '../../../stores/mappings'

/** The sources whose files are read through a mapping. */
export default route(operations.sources.mappings, async ({ database }) => ({ sources: await listMapped(database.db) }))
