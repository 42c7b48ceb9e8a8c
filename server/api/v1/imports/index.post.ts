import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { randomUUID } from 'node:crypto'
import { getQuery, setResponseStatus } from 'h3'
import { importQuery } from '../../../../shared/contracts/imports'
import { arrive } from '../../../http/arrive'
import { query, route } from '../../../http/route'

/** One file's bytes as a delivery of its own. */
export default route(async ({ event, importer, dataDir, who }) => {
  const { source } = query(event, importQuery)
  const folder = join(dataDir, 'inbox', randomUUID())
  mkdirSync(folder, { recursive: true })
  const name = String(getQuery(event).file ?? `${source}.csv`).slice(0, 200)
  const file = await arrive(event, name, join(folder, '0'))
  const id = await importer.start(source, [file], folder, who)
  setResponseStatus(event, 202)
  return { id }
})
