// Makes the database that an empty data folder starts from, with all migrations applied, as a folder that is copied. Kept until a migration
// or this file changes.
import { createHash } from 'node:crypto'
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { PGlite } from '@electric-sql/pglite'
import { drizzle } from 'drizzle-orm/pglite'
import { migrate } from 'drizzle-orm/pglite/migrator'

const root = fileURLToPath(new URL('..', import.meta.url))
const LOG_FILE_MB = 4
const migrations = join(root, 'server/db/migrations')

function filesOf(folder) {
  return readdirSync(folder)
    .sort()
    .flatMap(name => (statSync(join(folder, name)).isDirectory() ? filesOf(join(folder, name)) : [join(folder, name)]))
}

/** Puts the database's folder at `target`. */
export async function prepareDatabase(target) {
  const hash = createHash('sha256')
  for (const file of [...filesOf(migrations), fileURLToPath(import.meta.url)]) hash.update(readFileSync(file))
  const kept = join(root, 'node_modules/.cache/rain-barrel', `database-${hash.digest('hex').slice(0, 16)}`)
  if (!existsSync(kept)) {
    const making = `${kept}.making`
    rmSync(making, { recursive: true, force: true })
    mkdirSync(dirname(kept), { recursive: true })
    // small, since every new folder is a copy: a log of small files, and none of the databases that nothing ever opens
    const client = await PGlite.create(making, { initDbStartParams: [`--wal-segsize=${LOG_FILE_MB}`] })
    await migrate(drizzle(client), { migrationsFolder: migrations })
    await client.query('update pg_database set datistemplate = false where datname <> current_database()')
    const { rows } = await client.query('select datname from pg_database where datname <> current_database()')
    for (const { datname } of rows) await client.query(`drop database "${datname}"`)
    await client.close()
    renameSync(making, kept) // there whole or not at all
  }
  rmSync(target, { recursive: true, force: true })
  cpSync(kept, target, { recursive: true })
}
