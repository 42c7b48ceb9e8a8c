import type { BodyLimits } from '../operations/body-limits'
import { Problem } from '../problems/problem'

/** What a JSON text in UTF-8 says. @throws Problem when it is none, or a text in it can be kept nowhere. */
export function valueOf(bytes: Uint8Array, limits: BodyLimits): unknown {
  let value: unknown
  try {
    value = JSON.parse(textOf(bytes))
  } catch (error) {
    if (error instanceof Problem) throw error
    throw new Problem('broken', 'not-json', 'The body is not JSON', 'Send a JSON document as the body.')
  }
  checkValues(value, limits)
  return value
}

function textOf(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    throw new Problem('broken', 'not-utf-8', 'The body is not UTF-8', 'Send the body in UTF-8: some of its bytes are no character of it.')
  }
}

/** A text that no database keeps: with a NUL, or half of a pair of surrogates. */
export const isKeepable = (text: string): boolean => !text.includes('\u0000') && text.isWellFormed()

/** Holds what was read against its limits, level by level. @throws Problem */
function checkValues(root: unknown, { depth, values }: BodyLimits): void {
  let count = 0
  let level: { value: unknown; path: string }[] = [{ value: root, path: '' }]
  for (let deep = 0; level.length; deep++) {
    if (deep > depth)
      throw new Problem('invalid', 'too-deep', 'The request is too deep', `Lists and objects may stand ${depth} levels in each other.`)
    const next: typeof level = []
    for (const { value, path } of level) {
      if (++count > values)
        throw new Problem('invalid', 'too-many', 'The request has too much in it', `At most ${values} values are taken at once.`)
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
  return new Problem('invalid', 'invalid', 'The request does not fit', `${field || 'the body'}: ${reason}`, [{ field, reason }])
}
