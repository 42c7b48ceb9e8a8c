import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

/** Who has a data folder; a server says where it answers, and the token by which it knows whoever can read the folder. */
export type Holder = { pid: number; startedAt: string; address?: string; token?: string }

/**
 * Takes a data folder for this process: two processes on one embedded database would ruin it.
 * A lock left by a process that is gone is taken over. Returns a function that gives the folder back.
 * @throws Error that says who has it and what to do.
 */
export function lockFolder(dataDir: string, at: Pick<Holder, 'address' | 'token'> = {}): () => void {
  mkdirSync(dataDir, { recursive: true })
  const file = join(dataDir, 'lock.json')
  const mine: Holder = { pid: process.pid, startedAt: processStart(process.pid) ?? '', ...at }
  for (;;) {
    try {
      writeFileSync(file, JSON.stringify(mine), { flag: 'wx', mode: 0o600 })
      break
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error
      const holder = readHolder(file)
      if (holder && isRunning(holder)) {
        throw new Error(
          `The data folder ${dataDir} is in use by another Rain Barrel (process ${holder.pid}). Stop that one first, or set RAIN_BARREL_DATA to another folder.`,
        )
      }
      rmSync(file, { force: true })
    }
  }
  return () => {
    if (readHolder(file)?.pid === process.pid) rmSync(file, { force: true })
  }
}

/** Who has a data folder now; null when nobody has, or whoever had it is gone. */
export function holderOf(dataDir: string): Holder | null {
  const holder = readHolder(join(dataDir, 'lock.json'))
  return holder && isRunning(holder) ? holder : null
}

function readHolder(file: string): Holder | null {
  try {
    return JSON.parse(readFileSync(file, 'utf8')) as Holder
  } catch {
    return null // half-written by a process that was killed
  }
}

function isRunning(holder: Holder): boolean {
  if (holder.pid === process.pid) return false // a process id used again after a restart of the machine
  try {
    process.kill(holder.pid, 0)
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EPERM') return false
  }
  const start = processStart(holder.pid)
  return start === null || holder.startedAt === '' || start === holder.startedAt
}

/** When a process began, in the kernel's ticks; null where the system does not tell. A process id alone may have been given again. */
function processStart(pid: number): string | null {
  try {
    return readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ').at(-1)!.split(' ')[19] ?? null
  } catch {
    return null
  }
}
