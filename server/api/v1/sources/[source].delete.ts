import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

/** Takes all of a source out, as a load that can be undone. */
export default route(operations.sources.remove, async ({ importer, who, path }) => ({ id: await importer.takeOut(path.source, who) }))
