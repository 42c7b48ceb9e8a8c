import type { Scope } from '../../core/spend/question'
import type { Day } from '../../core/time/day'
import type { ChargesSeen } from './charges-seen'

/** The last day that the sources of some charges, whatever they are called, have delivered whole; null where there are no such charges. */
export async function reportedTo(seen: ChargesSeen, scope: Scope): Promise<Day | null> {
  const [{ result: found }, { result: facts }] = await Promise.all([seen.ask('covered', scope), seen.ask('facts', undefined)])
  return facts.sources
    .filter(({ source }) => found.sources.includes(source))
    .reduce<Day | null>((last, { lastDay }) => (last && last > lastDay ? last : lastDay), null)
}
