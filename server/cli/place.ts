import { dirname, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { holderOf, type Holder } from '../db/folder-lock'
import { MaintenanceFailed } from '../maintenance/manifest'
import { MAINTAINER } from '../http/maintainer'

/** The built server, which these commands are built into. */
const built = dirname(dirname(fileURLToPath(import.meta.url)))

/** Where everything is kept, as the server finds it: RAIN_BARREL_DATA, DATABASE_URL. */
export function maintainedPlace() {
  const serverDir = process.env.RAIN_BARREL_SERVER || built
  return { dataDir: resolve(process.env.RAIN_BARREL_DATA || '.data'), serverDir, url: process.env.DATABASE_URL || undefined }
}

/** The server that has a data folder; null where none has. */
export function runningServer(dataDir: string): Required<Pick<Holder, 'address' | 'token'>> | null {
  const holder = holderOf(dataDir)
  if (!holder) return null
  if (!holder.address || !holder.token)
    throw new MaintenanceFailed(`The data folder ${dataDir} is in use by process ${holder.pid}. Wait until that has ended.`)
  return { address: holder.address, token: holder.token }
}

/** Asks a running server. @throws MaintenanceFailed when it does not answer well. */
export async function askServer({ address, token }: { address: string; token: string }, path: string): Promise<Response> {
  const reply = await fetch(`${address}/api/v1/maintenance/${path}`, { headers: { [MAINTAINER]: token } }).catch((error: Error) => {
    throw new MaintenanceFailed(
      `Rain Barrel runs but does not answer at ${address} (${error.message}). Wait until it has started, or stop it.`,
    )
  })
  if (!reply.ok) throw new MaintenanceFailed(`Rain Barrel at ${address} refused: ${(await reply.text()).slice(0, 300)}`)
  return reply
}

/** Runs a command: what keeps it from its end is said in a line, and it ends with 1. */
export async function command(work: () => Promise<number>): Promise<void> {
  try {
    process.exitCode = await work()
  } catch (error) {
    const isExpected = error instanceof MaintenanceFailed || /is in use by another|DATABASE_URL/.test((error as Error).message)
    console.error(isExpected ? (error as Error).message : error)
    process.exitCode = 1
  }
}
