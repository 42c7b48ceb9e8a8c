import { createHash, randomUUID } from 'node:crypto'
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { addDays, monthOf } from '../../core/time/day'
import type { CloudConnector } from '../connectors/cloud-connector'
import type { Services } from '../services'

/** Asks a cloud for its billing period to date and queues it as a delivery. @returns the load's id. */
export async function fetchBill(
  { importer, dataDir }: Pick<Services, 'importer' | 'dataDir'>,
  name: string,
  connector: CloudConnector,
  now: string,
  who: string,
): Promise<string> {
  const month = monthOf(addDays(now.slice(0, 10), -1))
  const bytes = await connector.bill(month)
  const folder = join(dataDir, 'inbox', randomUUID())
  mkdirSync(folder, { recursive: true })
  const path = join(folder, '0')
  writeFileSync(path, bytes)
  return importer.start(
    connector.provider,
    [{ name: `${name}-${month}.csv.gz`, path, bytes: bytes.length, sha256: createHash('sha256').update(bytes).digest('hex') }],
    folder,
    who,
  )
}
