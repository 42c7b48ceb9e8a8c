import { join } from 'node:path'
import { PGlite } from '@electric-sql/pglite'
import type { Database } from '../../server/db/database'
import { migrateTo, migrationsOf, openPlain } from '../../server/db/open-database'
import { emptyDatabaseOf, postgresUrl } from './postgres'

const serverDir = '.output/server'

/** The database of a new data folder as it was after so many changes of the schema. */
export async function openAsBefore(folder: string, changes: number): Promise<Database> {
  if (!postgresUrl) await (await PGlite.create({ dataDir: join(folder, 'database') })).close()
  const database = await openPlain({ dataDir: folder, serverDir, url: await emptyDatabaseOf(folder) })
  await migrateTo(database, migrationsOf(serverDir).slice(0, changes))
  return database
}
