// Makes the dump that an empty data folder starts from: a database with all migrations applied. Kept until a migration changes.
import { createHash } from 'node:crypto'
import { copyFileSync, existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { PGlite } from '@electric-sql/pglite'
import { drizzle } from 'drizzle-orm/pglite'
import { migrate } from 'drizzle-orm/pglite/migrator'

const root = fileURLToPath(new URL('..', import.meta.url))
const migrations = join(root, 'server/db/migrations')

function filesOf(folder) {
  return readdirSync(folder)
    .sort()
    .flatMap(name => (statSync(join(folder, name)).isDirectory() ? filesOf(join(folder, name)) : [join(folder, name)]))
}

/** Writes the dump to `target`. */
export async function prepareDatabase(target) {
  const hash = createHash('sha256')
  for (const file of filesOf(migrations)) hash.update(readFileSync(file))
  const kept = join(root, 'node_modules/.cache/rain-barrel', `database-${hash.digest('hex').slice(0, 16)}.tar.gz`)
  if (!existsSync(kept)) {
    const client = await PGlite.create()
    await migrate(drizzle(client), { migrationsFolder: migrations })
    const dump = await client.dumpDataDir('gzip')
    mkdirSync(dirname(kept), { recursive: true })
    writeFileSync(kept, Buffer.from(await dump.arrayBuffer()))
    await client.close()
  }
  copyFileSync(kept, target)
}
