import { getRequestHeader, type H3Event } from 'h3'
import { Problem } from '../problems/problem'

/** Whether a request has a body at all. */
export const hasBody = (event: H3Event): boolean =>
  getRequestHeader(event, 'transfer-encoding') !== undefined || Number(getRequestHeader(event, 'content-length') ?? 0) > 0

/** The bytes of a body, in memory of their own, filled as they come. @throws Problem when there are too many. */
export async function readBytes(event: H3Event, most: number): Promise<Uint8Array<ArrayBuffer>> {
  const announced = Number(getRequestHeader(event, 'content-length') ?? 0)
  if (announced > most) throw tooLarge(most)
  let bytes = new Uint8Array(announced)
  let length = 0
  for await (const chunk of event.node.req) {
    const { length: more } = chunk as Buffer
    if (length + more > most) throw tooLarge(most)
    if (length + more > bytes.length) {
      const larger = new Uint8Array(Math.max(bytes.length * 2, length + more))
      larger.set(bytes.subarray(0, length))
      bytes = larger
    }
    bytes.set(chunk as Buffer, length)
    length += more
  }
  return bytes.subarray(0, length)
}

const tooLarge = (most: number) =>
  new Problem(
    'too large',
    'too-large',
    'The request is too large',
    `At most ${most / 1024 / 1024} MB are taken here. Send less at once, or send bills as files under /api/v1/imports.`,
  )
