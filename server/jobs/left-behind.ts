import { saidOf } from '../problems/fault'
import { MOST_TAKEN_UP, type Claimed, type Ended } from '../stores/jobs'
import { SCHEDULE, type AnyJobKind, type Run } from './kinds/kind'

/**
 * Ends a job that a process has left behind, where doing it again would be wrong: what it was about to do outside may have been done, and
 * what ends one process after the other is left alone.
 * @returns why it has ended; null when it is to be done.
 */
export async function endLeftBehind(
  { step, stopWanted, leftBehind }: Claimed,
  kind: AnyJobKind,
  argument: unknown,
  run: Run,
  end: (ended: Ended) => Promise<boolean>,
): Promise<string | null> {
  const ended = async (state: Ended['state'], outcome: string) => {
    await end({ state, outcome })
    return outcome
  }
  if (kind.findOut) {
    if (run.who !== SCHEDULE) return null // a person asks for it anew
    return ended('done', await kind.findOut(argument, run).catch((error: unknown) => saidOf(error, `job ${kind.kind}`)))
  }
  if (step)
    return ended(
      'not known',
      `It is not known whether ${step.what}: Rain Barrel ended at that moment. It is not done again automatically; see there, then run it now if it is wanted.`,
    )
  if (!stopWanted && leftBehind < MOST_TAKEN_UP) return null
  const outcome = stopWanted ? 'Stopped.' : `Rain Barrel ended ${leftBehind} times while doing this. It is not tried again automatically.`
  await kind.givenUp?.(argument, run.services, outcome)
  return ended(stopWanted ? 'stopped' : 'failed', outcome)
}
