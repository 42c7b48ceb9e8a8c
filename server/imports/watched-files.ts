import { constants } from 'node:fs'
import { open, opendir, realpath, type FileHandle } from 'node:fs/promises'
import { delimiter, isAbsolute, join, relative, resolve } from 'node:path'
import { WATCH_LIMITS } from '../../shared/contracts/watches'

/** A watched folder that cannot be looked into, in words for a person. */
export class NotWatchable extends Error {
  constructor(
    message: string,
    /** Whether it lies outside the folders that may be watched: looking again is of no use. */
    readonly isOutside = false,
  ) {
    super(message)
  }
}

/** A readable file below a watched folder, by its path from there. */
export type FoundFile = { name: string; bytes: number; mtimeMs: number }
/** What lies in a watched folder, and what was passed over. */
export type Found = { files: FoundFile[]; links: number; deeper: number; unreadable: string[] }

const readable = /\.(csv|csv\.gz|gz|parquet)$/i

/** The folders inside which folders may be watched: RAIN_BARREL_FOLDERS, written like PATH; else `watched` in the data folder. */
export const watchableFolders = (dataDir: string): string[] =>
  (process.env.RAIN_BARREL_FOLDERS || join(dataDir, 'watched'))
    .split(delimiter)
    .filter(Boolean)
    .map(folder => resolve(folder))

/** Where a folder to watch really lies. @throws NotWatchable when it is not there, or outside the folders that may be watched. */
export async function watchable(place: string, dataDir: string): Promise<string> {
  if (!isAbsolute(place)) throw new NotWatchable(`«${place}» is not a full path. Write it from the root, such as /srv/bills.`)
  const folders = watchableFolders(dataDir)
  const really = await realpath(place).catch(() => null)
  const roots = await Promise.all(folders.map(folder => realpath(folder).catch(() => folder)))
  if (!roots.some(root => isInside(root, really ?? resolve(place)))) {
    throw new NotWatchable(
      `${place} is outside the folders that may be watched (${folders.join(', ')}). Watch one inside them, or name another in RAIN_BARREL_FOLDERS and start Rain Barrel again.`,
      true,
    )
  }
  if (!really) throw new NotWatchable(`The folder ${place} is not there. Create it, or name another.`)
  return really
}

const isInside = (root: string, path: string) => {
  const way = relative(root, path)
  return way === '' || (!way.startsWith('..') && !isAbsolute(way))
}

/**
 * Finds the files that may hold deliveries in a folder and those below it. Follows no links, goes no deeper than `WATCH_LIMITS`; an entry
 * that cannot be read keeps none of the others back.
 * @throws NotWatchable when there are more entries than `WATCH_LIMITS`, or the folder itself cannot be read.
 */
export async function findFiles(place: string): Promise<Found> {
  const found: Found = { files: [], links: 0, deeper: 0, unreadable: [] }
  let entries = 0
  const folders: { way: string; depth: number }[] = [{ way: '', depth: 1 }]
  for (let folder = folders.shift(); folder; folder = folders.shift()) {
    const { way, depth } = folder
    try {
      for await (const entry of await opendir(join(place, way))) {
        if (++entries > WATCH_LIMITS.entries) {
          throw new NotWatchable(
            `${place} has more than ${WATCH_LIMITS.entries} entries, too many to look through: nothing of it was taken. Move what is loaded elsewhere, or watch a folder below it.`,
          )
        }
        const name = join(way, entry.name)
        if (entry.isSymbolicLink()) found.links++
        else if (entry.isDirectory() && depth < WATCH_LIMITS.depth) folders.push({ way: name, depth: depth + 1 })
        else if (entry.isDirectory()) found.deeper++
        else if (entry.isFile() && readable.test(name)) await note(found, place, name)
      }
    } catch (error) {
      if (error instanceof NotWatchable) throw error
      if (way === '')
        throw new NotWatchable(`The folder ${place} cannot be read (${codeOf(error)}): let the user that Rain Barrel runs as read it.`)
      found.unreadable.push(way)
    }
  }
  return found
}

async function note(found: Found, place: string, name: string): Promise<void> {
  try {
    const handle = await openPlainFile(join(place, name))
    try {
      const { size, mtimeMs } = await handle.stat()
      found.files.push({ name, bytes: size, mtimeMs })
    } finally {
      await handle.close()
    }
  } catch {
    found.unreadable.push(name)
  }
}

/** Opens a file for reading that is no link, and no pipe or device that could keep one waiting. */
export async function openPlainFile(path: string): Promise<FileHandle> {
  const handle = await open(path, constants.O_RDONLY | constants.O_NOFOLLOW | constants.O_NONBLOCK)
  if ((await handle.stat()).isFile()) return handle
  await handle.close()
  throw new Error(`${path} is not a file`)
}

const codeOf = (error: unknown) => (error as NodeJS.ErrnoException).code ?? 'unknown'
