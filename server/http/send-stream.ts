import type { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { H3Event } from 'h3'

/**
 * Sends what is made piece by piece, no faster than it is taken. Whoever leaves ends the making: the stream is destroyed with the
 * connection. A stream that fails ends the connection without an end of the reply, so that nobody takes a part for the whole.
 */
export async function sendPieces(event: H3Event, stream: Readable): Promise<void> {
  try {
    await pipeline(stream, event.node.res)
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ERR_STREAM_PREMATURE_CLOSE') console.error('a reply was cut off', error)
  }
}
