import { arrive } from '../../../http/arrive'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { deliver } from '../../../imports/deliver'
import { stated } from '../../../imports/delivered'
import { mappingFor } from '../../../imports/mapping-for'

/** One file's bytes as a delivery of its own. */
export default route(operations.sources.importFile, async ({ event, importer, database, who, query }) => {
  const { source, file, mapped, deliveredAt } = query
  const mapping = await mappingFor(database.db, source, mapped)
  const name = (file ?? `${source}.csv`).slice(0, 200)
  const announced = { source, files: [{ name, bytes: 0 }], who, mapping, ...stated(deliveredAt) }
  const id = await deliver(importer, announced, path => arrive(event, name, path))
  return { id }
})
