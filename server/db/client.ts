import { existsSync, mkdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { PgliteDatabase } from 'drizzle-orm/pglite'
import { drizzle } from 'drizzle-orm/pglite'
import { migrate } from 'drizzle-orm/pglite/migrator'
import { pathToFileURL } from 'node:url'
import { PgliteClient } from './pglite-client'
import * as schema from './schema'

export type Db = PgliteDatabase<typeof schema>
/** What a transaction hands to its work: the same calls, on the open transaction. */
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0]
export type Handle = { db: Db; client: PgliteClient; close: () => Promise<void> }

/**
 * Opens the embedded database of a data folder and brings its schema up to date. An empty folder begins from the prepared dump that
 * the build has made.
 * @param serverDir the built server: holds `workers/`, `migrations/` and the dump.
 */
export async function openDb(dataDir: string, serverDir: string): Promise<Handle> {
  const folder = join(dataDir, 'database')
  const isNew = !existsSync(join(folder, 'PG_VERSION'))
  mkdirSync(folder, { recursive: true })
  const client = await PgliteClient.open(pathToFileURL(join(serverDir, 'workers/database.mjs')), {
    dataDir: folder,
    ...(isNew && { loadDataDir: readFileSync(join(serverDir, 'empty-database.tar.gz')) }),
  })
  const db = drizzle(client as never, { schema }) as unknown as Db
  await migrate(db, { migrationsFolder: join(serverDir, 'migrations') })
  return { db, client, close: () => client.close() }
}
