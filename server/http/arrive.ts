import { createHash } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { H3Event } from 'h3'
import type { ArrivedFile } from '../imports/importer'
import { Problem } from './problem'

/** Streams the body of a request into a file, hashing it on the way. @throws Problem when the sender breaks off. */
export async function arrive(event: H3Event, name: string, path: string): Promise<ArrivedFile> {
  const hash = createHash('sha256')
  let bytes = 0
  const counted = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      hash.update(chunk)
      bytes += chunk.length
      done(null, chunk)
    },
  })
  try {
    await pipeline(event.node.req, counted, createWriteStream(path))
  } catch {
    throw new Problem(400, 'broken-off', 'The file did not arrive whole', `Only ${bytes} bytes of «${name}» came. Send it again.`)
  }
  return { name, bytes, sha256: hash.digest('hex') }
}
