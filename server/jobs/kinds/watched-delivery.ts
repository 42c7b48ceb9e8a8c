import { retryAt } from '../../../core/time/retry'
import type { DeliveredLoad } from '../../imports/load-list'

/** A delivery that lies in a watched folder: which contents, and when its files were written. */
export type FoundDelivery = { key: string; at: string }
/** What is to be done with it: taken; nothing, since it is loaded; waited with until a time after it failed; or a person's turn. */
export type Verdict =
  { what: 'take' | 'loaded' } | { what: 'wait'; load: DeliveredLoad; until: string } | { what: 'tell'; load: DeliveredLoad }

const failed = (load: DeliveredLoad) => load.state === 'refused' || load.state === 'stopped'

/**
 * Goes by content and outcome. The same files are taken once, unless what came of them failed; the same contents that are written anew
 * are another delivery, unless they are what counts.
 * @param loads what the source has delivered, the newest first.
 * @param isFirst whether nothing else was taken at this look.
 * @param isAsked whether a person asks to look now, who waits for no pause.
 */
export function watchedVerdict(
  { key, at }: FoundDelivery,
  loads: readonly DeliveredLoad[],
  { now, isFirst, isAsked }: { now: string; isFirst: boolean; isAsked: boolean },
): Verdict {
  const own = loads.filter(load => load.key === key)
  // before times were kept, or by another way than this folder, contents alone tell
  const same = own.filter(
    load => load.deliveredBy !== 'file' || load.deliveredAt === null || Date.parse(load.deliveredAt) === Date.parse(at),
  )
  const [newest] = same
  if (newest && !failed(newest)) return { what: 'loaded' }
  if (newest) {
    const failures = same.findIndex(load => !failed(load))
    const until = retryAt(failures < 0 ? same.length : failures, newest.finishedAt ?? now)
    if (isAsked || (until !== null && until <= now)) return { what: 'take' }
    return until === null ? { what: 'tell', load: newest } : { what: 'wait', load: newest, until }
  }
  return { what: isFirst && own.some(load => load.counts) ? 'loaded' : 'take' }
}

/** Deliveries in the order of their time; at equal times by name, numbers in names as numbers. */
export const inOrder = <T extends { at: string; name: string }>(list: readonly T[]): T[] =>
  [...list].sort((a, b) => (a.at === b.at ? byName.compare(a.name, b.name) : a.at < b.at ? -1 : 1))
const byName = new Intl.Collator('en', { numeric: true })
