import { cpSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { drizzle } from 'drizzle-orm/pglite'
import { beginDatabase, checkDatabase, notOpened } from './check-folder'
import { channelName, type Database, type Db, type Session } from './database'
import { PgliteClient } from './pglite-client'
import * as schema from './schema'

/**
 * Opens the embedded database of a data folder, in a thread. An empty folder begins as a copy of the one that the build has made.
 * @param serverDir the built server: holds `workers/` and that database.
 * @param folder the database's folder. @param bare begins an empty folder from nothing instead.
 */
export async function openEmbedded(folder: string, serverDir: string, { bare = false } = {}): Promise<Database> {
  const isNew = checkDatabase(folder)
  const open = () => PgliteClient.open(pathToFileURL(join(serverDir, 'workers/database.mjs')), folder)
  const begin = () => {
    if (!bare) cpSync(join(serverDir, 'empty-database'), folder, { recursive: true })
    return open()
  }
  const client = isNew
    ? await beginDatabase(folder, begin)
    : await open().catch((error: unknown) => {
        throw new Error(notOpened(folder), { cause: error })
      })
  return {
    kind: 'embedded',
    db: drizzle(client as never, { schema }) as unknown as Db,
    ...sessionOf(client),
    transaction: (work, mode) =>
      client.transaction(async tx => {
        // nothing else is answered meanwhile: a state is one by itself
        if (mode === 'read') await tx.exec('set transaction read only')
        return work(sessionOf(tx))
      }),
    async listen(channel, heard) {
      await client.listen(channelName(channel), heard)
      return () => client.unlisten(channelName(channel), heard)
    },
    async notify(channel, payload) {
      await client.query('select pg_notify($1, $2)', [channelName(channel), payload])
    },
    close: () => client.close(),
  }
}

const sessionOf = (client: Pick<PgliteClient, 'query'>): Session => ({
  query: async (sql, params) => (await client.query(sql, params, { rowMode: 'array' })).rows as unknown[][],
  async copyIn(table, options, bytes) {
    await client.query(`copy ${table} from '/dev/blob' (${options})`, [], { blob: bytes })
  },
  async copyOut(query, options) {
    const { blob } = await client.query(`copy (${query}) to '/dev/blob' (${options})`)
    return blob ?? new Uint8Array() // no rows, no bytes
  },
})
