// The thread that reads large bodies of requests: what they say is checked, and made ready to be kept, where nobody waits.
import { parentPort } from 'node:worker_threads'
import { bodyOf } from '../bodies/body-of'
import type { BodyRead, BodyToRead } from '../bodies/body-messages'
import { allOperations } from '../operations'
import { toProblem } from '../problems/to-problem'
import { goGently } from './gentle'

goGently()

parentPort!.on('message', ({ id, operation, bytes }: BodyToRead) => {
  const asked = allOperations[operation]!
  try {
    parentPort!.postMessage({ id, value: bodyOf(asked, bytes) } satisfies BodyRead)
  } catch (error) {
    parentPort!.postMessage({ id, problem: toProblem(error, `${asked.method} ${asked.path}`).said() } satisfies BodyRead)
  }
})
