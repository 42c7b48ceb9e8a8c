import type { H3Event } from 'h3'
import { takeIn, TooLong, type TakenIn } from '../imports/take-in'
import { Problem } from './problem'

/**
 * Streams the body of a request into a file beside a path. @param most bytes that may come.
 * @throws Problem when the sender breaks off, too much comes, or the disk is full.
 */
export async function arrive(event: H3Event, name: string, path: string, most?: number): Promise<TakenIn> {
  try {
    return await takeIn(event.node.req, name, path, most)
  } catch (error) {
    if (error instanceof Problem) throw error
    if (error instanceof TooLong) throw otherSize(name, most!, 'more')
    throw new Problem(400, 'broken-off', 'The file did not arrive whole', `«${name}» broke off. Send it again.`)
  }
}

/** A file that is not as long as was announced. */
export const otherSize = (name: string, announced: number, came: number | 'more') =>
  new Problem(
    422,
    'other-size',
    'The file is not what was announced',
    `«${name}» was announced with ${announced} bytes, and ${came} came. Announce the delivery again if the file has changed, else send it again.`,
  )
