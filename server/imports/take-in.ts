import { createHash, randomUUID } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { rename, rm } from 'node:fs/promises'
import { Transform, type Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { Problem } from '../problems/problem'
import type { ArrivedFile } from './load-row'

/** More came than was announced. */
export class TooLong extends Error {}

/** A file that has come whole and lies beside its place: it is put there, or taken away. */
export type TakenIn = { file: ArrivedFile; keep: () => Promise<void>; drop: () => Promise<void> }

/**
 * Writes a stream into a file of its own beside a path, hashing on the way. What does not come whole leaves nothing.
 * @param most bytes that may come. @throws TooLong; Problem when the disk is full; what the stream throws.
 */
export async function takeIn(stream: Readable, name: string, path: string, most = Infinity): Promise<TakenIn> {
  const own = `${path}.${randomUUID()}`
  const hash = createHash('sha256')
  let bytes = 0
  const counted = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      hash.update(chunk)
      bytes += chunk.length
      if (bytes > most) done(new TooLong(name))
      else done(null, chunk)
    },
  })
  const drop = () => rm(own, { force: true })
  try {
    await pipeline(stream, counted, createWriteStream(own))
  } catch (error) {
    await drop()
    throw (error as NodeJS.ErrnoException).code === 'ENOSPC' ? diskFull(name) : error
  }
  return { file: { name, bytes, sha256: hash.digest('hex') }, keep: () => rename(own, path), drop }
}

const diskFull = (name: string) =>
  new Problem(
    'no room',
    'disk-full',
    'The disk is full',
    `«${name}» has no room where Rain Barrel keeps its data, and nothing of it was kept. Make room there, then send it again.`,
  )
