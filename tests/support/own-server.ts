import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll } from 'vitest'
import type { Database } from '../../server/db/database'
import { openKept, remove, startServer, type Running } from './server'

/** A server for the tests of one file: begun on a new folder before the first of them, ended and taken away after the last. */
export function ownServer(options: Parameters<typeof startServer>[0] = {}): Running {
  const server = {} as Running
  beforeAll(async () => {
    Object.assign(server, await startServer(options))
  })
  afterAll(async () => {
    await server.stop()
    remove(server.folder)
  })
  return server
}

/** A database for the tests of one file, without a server: on a new folder, closed and taken away after the last of them. */
export function ownDatabase(): { database: Database } {
  const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-'))
  const own = {} as { database: Database }
  beforeAll(async () => {
    own.database = await openKept(folder)
  })
  afterAll(async () => {
    await own.database.close()
    remove(folder)
  })
  return own
}
