import type { Scope } from '../../core/spend/question'
import type { Day } from '../../core/time/day'
import type { ChargesSeen } from './charges-seen'
import type { CubeFacts } from './cube/cube-facts'

/**
 * The last day that the sources of some charges, whatever they are called, have delivered whole; null where there are no such charges.
 * @param facts of the same charges, where they are known already.
 */
export async function reportedTo(seen: ChargesSeen, scope: Scope, facts?: Pick<CubeFacts, 'sources'>): Promise<Day | null> {
  const [{ result: found }, { sources }] = await Promise.all([
    seen.ask('covered', scope),
    facts ?? seen.ask('facts', undefined).then(({ result }) => result),
  ])
  return sources
    .filter(({ source }) => found.sources.includes(source))
    .reduce<Day | null>((last, { lastDay }) => (last && last > lastDay ? last : lastDay), null)
}
