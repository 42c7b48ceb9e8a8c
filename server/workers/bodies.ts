// The thread that reads large bodies of requests: what they say is checked, and made ready to be kept, where nobody waits.
import { parentPort } from 'node:worker_threads'
import type { ProblemDetails } from '../../shared/contracts/common'
import { bodyOf } from '../http/body-of'
import { allOperations } from '../http/operations'
import { toProblem } from '../http/to-problem'
import { goGently } from './gentle'

goGently()

/** `operation` is its place in the table. */
export type BodyToRead = { id: number; operation: number; bytes: Uint8Array }
export type BodyRead = { id: number; value: unknown } | { id: number; problem: ProblemDetails }

parentPort!.on('message', ({ id, operation, bytes }: BodyToRead) => {
  const asked = allOperations[operation]!
  try {
    parentPort!.postMessage({ id, value: bodyOf(asked, bytes) } satisfies BodyRead)
  } catch (error) {
    parentPort!.postMessage({ id, problem: toProblem(error, `${asked.method} ${asked.path}`).details() } satisfies BodyRead)
  }
})
