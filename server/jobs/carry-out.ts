import { isExpected, saidOf } from '../problems/fault'
import { JobLost, NotKnown } from '../problems/job-ends'
import { Problem } from '../problems/problem'
import type { Ended } from '../stores/jobs'
import type { AnyJobKind, Run } from './kinds/kind'

/**
 * Does what a job is about, and notes how it has ended. What ends with the process is not noted: the next process takes it up.
 * @throws what made it fail, in words a person can be told.
 */
export async function carryOut(
  kind: AnyJobKind,
  argument: unknown,
  run: Run,
  end: (ended: Ended) => Promise<boolean>,
  isEnding: () => boolean,
): Promise<{ said: string; result: unknown }> {
  try {
    const done = await kind.run(argument, run)
    await end({ state: done.needsPerson ? 'failed' : 'done', outcome: done.said })
    return done
  } catch (error) {
    const outcome = saidOf(error, `job ${kind.kind}`)
    const isLost = error instanceof JobLost
    if (!isLost || !isEnding()) await end({ state: error instanceof NotKnown ? 'not known' : isLost ? 'stopped' : 'failed', outcome })
    throw isExpected(error) ? error : new Problem('fault', 'fault', 'Something went wrong in Rain Barrel', `It was not done: ${outcome}.`)
  }
}
