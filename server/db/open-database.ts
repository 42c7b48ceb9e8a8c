import { join } from 'node:path'
import { readMigrationFiles, type MigrationMeta } from 'drizzle-orm/migrator'
import type { Database, Session } from './database'
import { openEmbedded } from './embedded'
import { openServer } from './postgres-server'

/** Kept while a process brings the schema up to date, so that another waits. */
const MIGRATING = 7_246_001

export type DatabasePlace = { dataDir: string; serverDir: string; url?: string | undefined }

/** Opens the database, a server's where an address is given, else the embedded one of the data folder, with its schema as it is today. */
export async function openDatabase(place: DatabasePlace): Promise<Database> {
  const database = await openPlain(place)
  try {
    await migrateTo(database, migrationsOf(place.serverDir))
  } catch (error) {
    await database.close()
    throw error
  }
  return database
}

/** Opens the database as it is. */
export function openPlain({ dataDir, serverDir, url }: DatabasePlace): Promise<Database> {
  return url ? openServer(url) : openEmbedded(join(dataDir, 'database'), serverDir)
}

/** Every change of the schema, in their order. */
export const migrationsOf = (serverDir: string): MigrationMeta[] => readMigrationFiles({ migrationsFolder: join(serverDir, 'migrations') })

/**
 * Makes those changes of the schema that have not been made, in one transaction. Two processes that begin together on one server make each
 * once.
 * The table that notes them is the one that the migrator of drizzle-orm keeps.
 */
export async function migrateTo(database: Database, migrations: readonly MigrationMeta[]): Promise<void> {
  await database.transaction(session => migrateIn(session, migrations))
}

/** The same inside a transaction. */
export async function migrateIn(session: Session, migrations: readonly MigrationMeta[]): Promise<void> {
  await session.query('select pg_advisory_xact_lock($1)', [MIGRATING])
  await session.query('create schema if not exists drizzle')
  await session.query(
    'create table if not exists drizzle.__drizzle_migrations (id serial primary key, hash text not null, created_at bigint)',
  )
  const [last] = await session.query('select max(created_at)::text from drizzle.__drizzle_migrations')
  for (const { sql, hash, folderMillis } of migrations) {
    if (last![0] !== null && folderMillis <= Number(last![0])) continue
    for (const statement of sql) await session.query(statement)
    await session.query('insert into drizzle.__drizzle_migrations (hash, created_at) values ($1, $2)', [hash, folderMillis])
  }
}
