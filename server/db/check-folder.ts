import { closeSync, existsSync, mkdirSync, openSync, readdirSync, readFileSync, readSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

/** The major version of the embedded database: its files are read by no other. */
export const DATABASE_MAJOR = '18'
const CONTROL_BYTES = 8192

const TO_DO = 'Restore a backup into an empty folder (npm run restore), or see what is damaged with npm run check.'
/** Stands beside a database while it is begun: one that was killed before it had begun holds nothing. */
const beginning = (folder: string) => `${folder}.beginning`

/**
 * Looks at what lies in the data folder before anything is opened: a database is never begun over something.
 * @throws Error that says what was found and what to do.
 */
export function checkDataFolder(dataDir: string): void {
  checkWritable(dataDir)
  checkDatabase(join(dataDir, 'database'))
}

function checkWritable(dataDir: string): void {
  const probe = join(dataDir, 'probe')
  try {
    mkdirSync(dataDir, { recursive: true })
    writeFileSync(probe, '')
    rmSync(probe)
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException
    throw new Error(
      `The data folder ${dataDir} cannot be written (${code}). Let the user that Rain Barrel runs as write there, make room, or set RAIN_BARREL_DATA to another folder.`,
    )
  }
}

/** @returns whether the database is to be begun; else it is there. @throws Error when it is neither. */
export function checkDatabase(folder: string): boolean {
  if (existsSync(beginning(folder))) rmSync(folder, { recursive: true, force: true })
  if (!existsSync(folder) || readdirSync(folder).length === 0) return true
  const version = join(folder, 'PG_VERSION')
  if (!existsSync(version)) throw new Error(`The folder ${folder} has files of a database, but no PG_VERSION: it is not whole. ${TO_DO}`)
  const major = readFileSync(version, 'utf8').trim()
  if (major !== DATABASE_MAJOR)
    throw new Error(
      `The database in ${folder} is of version «${major.slice(0, 20)}», and this Rain Barrel reads ${DATABASE_MAJOR}. Make a backup with the Rain Barrel that wrote it, and restore that here.`,
    )
  for (const [name, bytes] of [
    ['global/pg_control', CONTROL_BYTES],
    ['global/pg_filenode.map', 1],
    ['base', 0],
    ['pg_wal', 0],
  ] as const) {
    if (!isThere(join(folder, name), bytes))
      throw new Error(`The database in ${folder} is not whole: ${name} is missing, cut off or empty. ${TO_DO}`)
  }
  return false
}

/** Whether a file has so many bytes and something in them, or a folder something in it. */
function isThere(path: string, bytes: number): boolean {
  if (!existsSync(path)) return false
  if (bytes === 0) return statSync(path).isDirectory() && readdirSync(path).length > 0
  if (statSync(path).size < bytes) return false
  const head = Buffer.alloc(Math.min(bytes, 16))
  const file = openSync(path, 'r')
  readSync(file, head, 0, head.length, 0)
  closeSync(file)
  return head.some(byte => byte !== 0)
}

/** Begins a database, and says so beside it until it has begun. */
export async function beginDatabase<T>(folder: string, begin: () => Promise<T>): Promise<T> {
  mkdirSync(folder, { recursive: true })
  writeFileSync(beginning(folder), '')
  const begun = await begin()
  rmSync(beginning(folder))
  return begun
}

/** What is said of a database that its engine does not open. */
export const notOpened = (folder: string) =>
  `The database in ${folder} cannot be opened: its catalogue or another of its files is damaged. ${TO_DO}`
