import { spawn, type ChildProcess } from 'node:child_process'
import { existsSync, mkdtempSync, rmSync } from 'node:fs'
import { createServer, type AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

import type { Database } from '../../server/db/database'
import { openPlain } from '../../server/db/open-database'
import { databaseOf } from './postgres'

/** So many connections that were kept may have been closed meanwhile. */
const MOST_KEPT = 5

export const BUILT = '.output/server/index.mjs'

/** A port that was free a moment ago. */
export function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo
      probe.close(() => resolve(port))
    })
    probe.on('error', reject)
  })
}

export type Running = {
  base: string
  folder: string
  process: ChildProcess
  log: () => string
  stop: (signal?: NodeJS.Signals) => Promise<void>
  call: (path: string, init?: RequestInit) => Promise<Response>
  json: <T = never>(path: string, init?: RequestInit) => Promise<T>
}

/** The database of a data folder, opened while no server has it. */
export const openKept = async (folder: string): Promise<Database> =>
  openPlain({ dataDir: folder, serverDir: '.output/server', url: await databaseOf(folder) })

/** Starts the built server on a folder (a new one without a name) and waits until it answers. */
export async function startServer({
  folder = mkdtempSync(join(tmpdir(), 'rain-barrel-')),
  env = {},
  uid,
}: { folder?: string; env?: Record<string, string>; uid?: number } = {}): Promise<Running> {
  if (!existsSync(BUILT)) throw new Error('Build first: npm run build')
  const port = await freePort()
  const url = await databaseOf(folder)
  const child = spawn(process.execPath, [BUILT], {
    env: {
      ...process.env,
      PORT: String(port),
      HOST: '127.0.0.1',
      RAIN_BARREL_DATA: folder,
      RAIN_BARREL_FOLDERS: tmpdir(),
      ...(url && { DATABASE_URL: url }),
      ...env,
    },
    stdio: ['ignore', 'pipe', 'pipe'],
    ...(uid !== undefined && { uid }),
  })
  let output = ''
  child.stdout!.on('data', (chunk: Buffer) => {
    output += chunk
  })
  child.stderr!.on('data', (chunk: Buffer) => {
    output += chunk
  })
  const ended = new Promise<void>(resolve => child.on('exit', () => resolve()))
  const base = `http://127.0.0.1:${port}`
  const call = async (path: string, init?: RequestInit): Promise<Response> => {
    for (let tries = 1; ; tries++) {
      try {
        return await fetch(`${base}/api/v1/${path}`, init)
      } catch (error) {
        // a connection that was kept for the next request may be closed by the server just as that comes: it was not read; of several
        // that were kept each may be
        const { code = '' } = ((error as Error).cause ?? {}) as NodeJS.ErrnoException
        const isRunning = child.exitCode === null && child.signalCode === null
        if (!isRunning || tries === MOST_KEPT || !['UND_ERR_SOCKET', 'EPIPE', 'ECONNRESET'].includes(code)) throw error
      }
    }
  }
  for (let tries = 0; ; tries++) {
    if (
      await call('health').then(
        r => r.ok,
        () => false,
      )
    )
      break
    if (child.exitCode !== null || tries > 300) throw new Error(`the server did not start:\n${output}`)
    await new Promise(resolve => setTimeout(resolve, 100))
  }
  return {
    base,
    folder,
    process: child,
    log: () => output,
    call,
    json: async <T>(path: string, init?: RequestInit) => (await (await call(path, init)).json()) as T,
    async stop(signal = 'SIGTERM') {
      if (child.exitCode === null && child.signalCode === null) {
        child.kill(signal)
        await ended
      }
    },
  }
}

export const remove = (folder: string) => rmSync(folder, { recursive: true, force: true })

export const post = (body: unknown, headers: Record<string, string> = {}): RequestInit => ({
  method: 'POST',
  body: JSON.stringify(body),
  headers: { 'content-type': 'application/json', ...headers },
})
export const put = (body: unknown, headers: Record<string, string> = {}): RequestInit => ({ ...post(body, headers), method: 'PUT' })
