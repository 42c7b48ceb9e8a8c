import type { ItemState } from '../../../shared/contracts/standing-orders'
import { ConnectorFailed } from '../../connectors/connector'
import { JobLost, JobStopped } from '../../problems/job-ends'
import { saidOf } from '../../problems/fault'
import { Problem } from '../../problems/problem'

/** What came of one thing that was tried. */
export type Outcome = {
  state: Extract<ItemState, 'done' | 'done before' | 'left alone' | 'asked' | 'failed' | 'not known'>
  said: string | null
}

/**
 * Tries something, so that what fails with one thing ends nothing else. @param work tells in words why it was left alone; nothing where it
 * was done. @throws what ends the whole run: that it is not this process's any more, or is to stop.
 */
export async function outcomeOf(work: () => Promise<string | undefined>): Promise<Outcome> {
  try {
    const why = await work()
    return why === undefined ? { state: 'done', said: null } : { state: 'left alone', said: why }
  } catch (error) {
    if (error instanceof JobLost || error instanceof JobStopped) throw error
    const said = saidOf(error, 'a standing order')
    if (error instanceof Problem && error.code === 'lapsed') return { state: 'left alone', said }
    if (error instanceof Problem && error.code === 'not-known') return { state: 'not known', said }
    return { state: error instanceof ConnectorFailed && !error.sure ? 'not known' : 'failed', said }
  }
}
