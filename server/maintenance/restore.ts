import { existsSync, renameSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { segmentCopy } from '../charges/segment-copy'
import type { Database, Session } from '../db/database'
import { openEmbedded } from '../db/embedded'
import { lockFolder } from '../db/folder-lock'
import { migrateIn, migrateTo, migrationsOf, type DatabasePlace } from '../db/open-database'
import { openServer } from '../db/postgres-server'
import { readArchive, verifyBackup } from './archive'
import { MaintenanceFailed, type Manifest } from './manifest'

/**
 * Makes of a backup what it was made of, on either database, in a place where nothing is kept yet. The file is read whole and checked
 * before anything is written; ended in the middle, nothing is there.
 */
export async function restoreBackup(file: string, place: DatabasePlace): Promise<Manifest> {
  const unlock = lockFolder(place.dataDir)
  try {
    const manifest = await verifyBackup(file)
    const migrations = migrationsOf(place.serverDir)
    if (manifest.migrations.some((hash, i) => migrations[i]?.hash !== hash))
      throw new MaintenanceFailed(
        `${file} was made by a newer or another version of Rain Barrel. Restore it with that version, or a later one.`,
      )
    if (place.url) await restoreOnServer(file, manifest, place.url, place.serverDir)
    else await restoreInFolder(file, manifest, place)
    return manifest
  } finally {
    unlock()
  }
}

async function restoreInFolder(file: string, manifest: Manifest, { dataDir, serverDir }: DatabasePlace): Promise<void> {
  const folder = join(dataDir, 'database')
  if (existsSync(join(folder, 'PG_VERSION')))
    throw new MaintenanceFailed(
      `The data folder ${dataDir} is not empty. Restore into another one: set RAIN_BARREL_DATA to a folder that is not there yet.`,
    )
  // made beside and moved into place: what a kill leaves is taken away by the next
  const made = `${folder}.restoring`
  rmSync(made, { recursive: true, force: true })
  // what is of this version's schema goes into a copy of its empty database, which is there at once
  const database = await openEmbedded(made, serverDir, { bare: manifest.migrations.length < migrationsOf(serverDir).length })
  try {
    await database.transaction(session => fill(session, file, manifest, serverDir))
    await migrateTo(database, migrationsOf(serverDir))
  } finally {
    await database.close()
  }
  rmSync(folder, { recursive: true, force: true })
  renameSync(made, folder)
}

async function restoreOnServer(file: string, manifest: Manifest, url: string, serverDir: string): Promise<void> {
  const database: Database = await openServer(url)
  try {
    await database.transaction(async session => {
      const [row] = await session.query(`select count(*)::int from information_schema.tables where table_schema in ('public', 'drizzle')`)
      if (row![0] !== 0)
        throw new MaintenanceFailed('The database of DATABASE_URL is not empty. Make a new one, such as with «createdb», and name that.')
      await fill(session, file, manifest, serverDir)
    })
    await migrateTo(database, migrationsOf(serverDir))
  } finally {
    await database.close()
  }
}

/** Brings the schema to where it was, then fills it. */
async function fill(session: Session, file: string, manifest: Manifest, serverDir: string): Promise<void> {
  await migrateIn(session, migrationsOf(serverDir).slice(0, manifest.migrations.length))
  const tables = new Map(manifest.tables.map(table => [table.part, table]))
  const segments = new Map(manifest.segments.map(segment => [segment.part, segment]))
  await readArchive(file, async (part, bytes) => {
    const table = tables.get(part)
    const segment = segments.get(part)
    if (table) {
      const columns = table.columns.map(column => `"${column}"`).join(', ')
      // a change of the schema may have put rows there: the backup has its own
      await session.query(`delete from "${table.name}"`)
      if (bytes.length) await session.copyIn(`"${table.name}" (${columns})`, 'format text', bytes)
    } else if (segment) {
      const { loadId, start, number, rows } = segment
      await session.copyIn(
        'charge_segment',
        'format binary',
        segmentCopy(loadId, { periodStart: Date.parse(start) / 1000, number, rows, bytes }),
      )
    }
  })
  await setCounters(session)
  await leaveBehind(session, manifest)
}

/** Lets ids go on after the last. */
async function setCounters(session: Session): Promise<void> {
  const counted = (await session.query(`
    select table_name::text, column_name::text from information_schema.columns
    where table_schema = 'public' and (is_identity = 'YES' or column_default like 'nextval(%')`)) as [string, string][]
  for (const [table, column] of counted)
    await session.query(
      `select setval(pg_get_serial_sequence('"${table}"', '${column}'), (select coalesce(max("${column}"), 0) + 1 from "${table}"), false)`,
    )
}

/** What was under way when the backup was made is left as by a process that was killed; files of loads are not in it. */
async function leaveBehind(session: Session, manifest: Manifest): Promise<void> {
  const has = (name: string) => manifest.tables.some(table => table.name === name)
  if (!has('job')) return
  await session.query(`delete from load where not arrived`)
  await session.query(
    `update load set state = 'stopped', place = null, finished_at = now(), message = 'It was being read when the backup was made. Nothing of it was loaded: drop the files again.' where state in ('checking', 'loading')`,
  )
  await session.query(`delete from job where kind = 'load'`)
  await session.query(
    `update job set claimed_by = 'a process of before the backup', lease_until = now(), place = null where claimed_by is not null`,
  )
}
