import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { watchableFolders } from '../../../imports/watched-files'
import { watched } from '../../../jobs/watching'

export default route(operations.sources.watches, async ({ database, dataDir }) => ({
  watches: await watched(database.db),
  folders: watchableFolders(dataDir),
}))
