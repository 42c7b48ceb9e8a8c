import { getQuery, setResponseStatus } from 'h3'
import { importQuery } from '../../../../shared/contracts/imports'
import { arrive } from '../../../http/arrive'
import { query, route } from '../../../http/route'
import { deliver } from '../../../imports/deliver'
import { stated } from '../../../imports/delivered'
import { mappingFor } from '../../../imports/mapping-for'

/** One file's bytes as a delivery of its own. */
export default route(async ({ event, importer, database, who }) => {
  const { source, mapped, deliveredAt } = query(event, importQuery)
  const mapping = await mappingFor(database.db, source, mapped)
  const name = String(getQuery(event).file ?? `${source}.csv`).slice(0, 200)
  const announced = { source, files: [{ name, bytes: 0 }], who, mapping, ...stated(deliveredAt) }
  const id = await deliver(importer, announced, path => arrive(event, name, path))
  setResponseStatus(event, 202)
  return { id }
})
