import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { randomUUID } from 'node:crypto'
import { getQuery, setResponseStatus } from 'h3'
import { importQuery } from '../../../../shared/contracts/imports'
import { arrive } from '../../../http/arrive'
import { mappingFor } from '../../../imports/mapping-for'
import { query, route } from '../../../http/route'

/** One file's bytes as a delivery of its own. */
export default route(async ({ event, importer, database, dataDir, who }) => {
  const { source, mapped } = query(event, importQuery)
  const mapping = await mappingFor(database.db, source, mapped)
  const folder = join(dataDir, 'inbox', randomUUID())
  mkdirSync(folder, { recursive: true })
  const name = String(getQuery(event).file ?? `${source}.csv`).slice(0, 200)
  const file = await arrive(event, name, join(folder, '0'))
  const id = await importer.start(source, [file], folder, who, mapping)
  setResponseStatus(event, 202)
  return { id }
})
