import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { stated } from '../../../imports/delivered'
import { arriving } from '../../../imports/deliveries'
import { mappingFor } from '../../../imports/mapping-for'

/** Announces files that belong together; each is then sent, and the last one starts the load. */
export default route(operations.sources.announce, async ({ importer, database, who, body: delivery }) => {
  const mapping = await mappingFor(database.db, delivery.source, delivery.mapped)
  const { source, files, deliveredAt, isFileTime } = delivery
  const load = await importer.announce({ source, files, who, mapping, ...stated(deliveredAt, isFileTime ? 'file' : 'stated') })
  const none = () => delivery.files.map(() => null)
  arriving.begin({ ...delivery, load, claimed: none(), arrived: none() }, () => importer.forget(load))
  return { id: String(load) }
})
