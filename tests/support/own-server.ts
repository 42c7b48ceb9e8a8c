import { afterAll, beforeAll } from 'vitest'
import { remove, startServer, type Running } from './server'

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
