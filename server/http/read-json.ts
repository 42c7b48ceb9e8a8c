import { getRequestHeader, type H3Event } from 'h3'
import { Problem } from './problem'

/** The most that a body may have: bytes, levels of lists and objects in each other, and values. */
export type BodyLimits = { bytes: number; depth: number; values: number }
export const usualBody: BodyLimits = { bytes: 2 * 1024 * 1024, depth: 40, values: 200_000 }
/** Where a file comes as JSON. */
export const fileBody: BodyLimits = { bytes: 64 * 1024 * 1024, depth: 40, values: 5_000_000 }

/** What a JSON text in UTF-8 says. @throws Problem when it is none, or a text in it can be kept nowhere. */
export function valueOf(bytes: Uint8Array, limits: BodyLimits): unknown {
  let value: unknown
  try {
    value = JSON.parse(textOf(bytes))
  } catch (error) {
    if (error instanceof Problem) throw error
    throw new Problem(400, 'not-json', 'The body is not JSON', 'Send a JSON document as the body.')
  }
  checkValues(value, limits)
  return value
}

function textOf(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    throw new Problem(400, 'not-utf-8', 'The body is not UTF-8', 'Send the body in UTF-8: some of its bytes are no character of it.')
  }
}

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
    413,
    'too-large',
    'The request is too large',
    `At most ${most / 1024 / 1024} MB are taken here. Send less at once, or send bills as files under /api/v1/imports.`,
  )

/** A text that no database keeps: with a NUL, or half of a pair of surrogates. */
export const isKeepable = (text: string): boolean => !text.includes('\u0000') && text.isWellFormed()

/** Holds what was read against its limits, level by level. @throws Problem */
function checkValues(root: unknown, { depth, values }: BodyLimits): void {
  let count = 0
  let level: { value: unknown; path: string }[] = [{ value: root, path: '' }]
  for (let deep = 0; level.length; deep++) {
    if (deep > depth)
      throw new Problem(422, 'too-deep', 'The request is too deep', `Lists and objects may stand ${depth} levels in each other.`)
    const next: typeof level = []
    for (const { value, path } of level) {
      if (++count > values)
        throw new Problem(422, 'too-many', 'The request has too much in it', `At most ${values} values are taken at once.`)
      if (typeof value === 'string' && !isKeepable(value)) throw notKeepable(path)
      if (typeof value !== 'object' || value === null) continue
      for (const [name, own] of Object.entries(value)) {
        if (!isKeepable(name)) throw notKeepable(path)
        next.push({ value: own, path: path ? `${path}.${name}` : name })
      }
    }
    level = next
  }
}

const notKeepable = (field: string) => {
  const reason = 'a text may not have the character NUL in it, nor half of a pair of surrogates'
  return new Problem(422, 'invalid', 'The request does not fit', `${field || 'the body'}: ${reason}`, [{ field, reason }])
}
