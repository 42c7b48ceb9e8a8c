import { billChanges, type SeenTwice } from '../../core/opportunity/bill-change'
import { zero, type Decimal } from '../../core/money/decimal'
import type { Comparison, CompareQuestion } from '../../core/spend/compare'
import { dataDaysOf, reachingCompared, reachingPeriod } from '../../core/spend/sentence-period'
import { addDays, daysBetween, type Day } from '../../core/time/day'
import type { Period } from '../../core/time/period'
import type { BillAndSavings } from '../../shared/contracts/savings'
import type { ChargesSeen } from '../charges/charges-seen'
import type { CubeFacts } from '../charges/cube/cube-facts'
import { realisedOf, type Done, type RealisedBetween } from './deed-charges'
import { allDone, billReaches } from './savings-ledger'
import { foundSavings, type SavingsWork } from './savings-found'

const MONTH = { period: 'this-month', against: 'before' } as const

/**
 * This month's bill to date against the same days of the month before, as far as each source has delivered: what was saved by what is
 * done, what the resources acted on did otherwise, and what all others did by use, price, and as new or gone. Null before there is a bill.
 */
export async function billAndSavings(work: SavingsWork): Promise<BillAndSavings | null> {
  const { seen } = work
  const { result: facts } = await seen.ask('facts', undefined)
  const days = dataDaysOf(facts)
  if (!days) return null
  const [now, before] = [reachingPeriod(MONTH, days), reachingCompared(MONTH, days)]
  const done = await allDone(work, await foundSavings(work))
  const realised = realisedOf(seen, done)
  const acted = { ResourceId: [...new Set(done.map(({ body }) => body.resourceId))] }
  const compared = async (scope: Pick<CompareQuestion, 'keep' | 'leaveOut'>): Promise<Comparison['totals']> => {
    const { result } = await seen.ask('compared', { ...scope, measure: 'effectiveCost', splitBy: [], now, before })
    return result
  }
  const [own, others, saved] = await Promise.all([
    acted.ResourceId.length ? compared({ keep: acted, leaveOut: {} }) : [],
    compared({ keep: {}, leaveOut: acted.ResourceId.length ? acted : {} }),
    Promise.all(done.map(deed => seenTwice(seen, { realised, facts }, deed, now, before))),
  ])
  return {
    now: { start: now.start, end: now.end },
    before: { start: before.start, end: before.end },
    behind: Object.keys(now.ends ?? {}).length,
    changes: billChanges(own, others, saved),
  }
}

/** What is seen of a deed in each of two periods, as far as its source has delivered them. */
async function seenTwice(
  charges: ChargesSeen,
  { realised, facts }: { realised: RealisedBetween; facts: CubeFacts },
  deed: Done,
  now: Period,
  before: Period,
): Promise<SeenTwice> {
  const day = deed.doneAt.slice(0, 10)
  const last = await billReaches(charges, deed.body.resourceId, facts)
  const seenIn = async ({ start, end }: Period): Promise<Decimal> => {
    const from = start > day ? start : day
    const to = deed.until ? earlier(end, deed.until.slice(0, 10)) : end
    return from < to ? ((await realised(deed, from, to))?.effective ?? zero) : zero
  }
  const nowEnd = earlier(now.end, last ? addDays(last, 1) : now.start)
  const beforeEnd = earlier(before.end, addDays(before.start, daysBetween(now.start, nowEnd)))
  const [seenNow, seenBefore] = await Promise.all([seenIn({ ...now, end: nowEnd }), seenIn({ ...before, end: beforeEnd })])
  return { currency: deed.currency, now: seenNow, before: seenBefore }
}

const earlier = (a: Day, b: Day): Day => (a < b ? a : b)
