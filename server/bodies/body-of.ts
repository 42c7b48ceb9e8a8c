import type { Operation } from '../operations/operation'
import { usualBody } from '../operations/body-limits'
import { valueOf } from './read-json'

/** What the bytes of a body say, as its operation takes it. @throws Problem, ZodError when it does not. */
export function bodyOf({ body, limits = usualBody }: Operation, bytes: Uint8Array): unknown {
  return body === 'bytes' ? undefined : body?.parse(valueOf(bytes, limits))
}
