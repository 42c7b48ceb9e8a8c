import { setTimeout as wait } from 'node:timers/promises'
import { ConnectorFailed } from '../connectors/connector'

/** How often a service that is asked too much is asked again, and how long it is waited for at most. */
const MOST_WAITS = 20
const LONGEST_WAIT_SECONDS = 60

/** Does something at a service, and again each time the service wants to be left alone for a while. @throws what else it throws. */
export async function patiently<T>(work: () => Promise<T>, signal: AbortSignal): Promise<T> {
  for (let waits = 0; ; waits++)
    try {
      return await work()
    } catch (error) {
      const seconds = error instanceof ConnectorFailed ? error.waitSeconds : null
      if (seconds === null || waits === MOST_WAITS || signal.aborted) throw error
      await wait(Math.min(seconds, LONGEST_WAIT_SECONDS) * 1000, undefined, { signal }).catch(() => {})
    }
}
