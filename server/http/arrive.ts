import type { H3Event } from 'h3'
import { takeIn, TooLong, type TakenIn } from '../imports/take-in'
import { otherSize } from '../imports/other-size'
import { Problem } from '../problems/problem'

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
    throw new Problem('broken', 'broken-off', 'The file did not arrive whole', `«${name}» broke off. Send it again.`)
  }
}
