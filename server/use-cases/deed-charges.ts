import { Decimal, sum, zero } from '../../core/money/decimal'
import { scaledText } from '../../core/money/scaled'
import type { Opportunity } from '../../core/opportunity/opportunity'
import { COMMITTED, isCommitted, realisedSaving, type Charged, type FreedCommitment, type Realised } from '../../core/opportunity/realised'
import { addDays, daysBetween, type Day } from '../../core/time/day'
import type { ChargesSeen } from '../charges/charges-seen'

/** Whole days before a deed that are looked at. */
export const DAYS_BEFORE = 7

/** Something that was done. */
export type Done = {
  doneAt: string
  /** When it was undone again. */
  until: string | null
  by: string
  promisedMonthly: string
  currency: string
  body: Opportunity
}

/** Some days, the end exclusive. */
type Days = { start: Day; end: Day }
const dayOf = ({ doneAt }: Done): Day => doneAt.slice(0, 10)
const beforeOf = (deed: Done): Days => ({ start: addDays(dayOf(deed), -DAYS_BEFORE), end: dayOf(deed) })

/** What a deed has saved between two days since, the end exclusive, against the days before it; null where nothing can be said. */
export type RealisedBetween = (deed: Done, start: Day, end: Day) => Promise<Realised | null>

/**
 * Gets ready to tell what deeds have saved, from the charges that are loaded: what several of them left free of one commitment is shared.
 * @param done all that was done, as far as whoever asks may see it.
 */
export function realisedOf(charges: ChargesSeen, done: readonly Done[]): RealisedBetween {
  let covered: Promise<Covered> | undefined
  return async (deed, start, end) => {
    const { resourceId, effects } = deed.body
    const [before, since] = await Promise.all([
      charged(charges, resourceId, deed.currency, beforeOf(deed)),
      charged(charges, resourceId, deed.currency, { start, end }),
    ])
    const facts = { before, daysBefore: DAYS_BEFORE, since, daysSince: daysBetween(start, end) }
    if (!before.some(isCommitted)) return realisedSaving(effects, facts)
    covered ??= coveredBefore(charges, done)
    return realisedSaving(effects, { ...facts, commitments: await leftFree(charges, await covered, deed, { start, end }) })
  }
}

/** What each commitment paid for the resource of each deed in the days before it, in effective cost. */
type Covered = ReadonlyMap<Done, ReadonlyMap<string, Decimal>>

const coveredBefore = async (charges: ChargesSeen, done: readonly Done[]): Promise<Covered> =>
  new Map(
    await Promise.all(
      done.map(async deed => [deed, await byCommitment(charges, ofResource(deed), deed.currency, beforeOf(deed))] as const),
    ),
  )

const ofResource = ({ body }: Done) => ({ ResourceId: [body.resourceId], PricingCategory: [COMMITTED] })

/** What a deed left free of each commitment that had covered its resource, and what nobody uses of it. */
async function leftFree(charges: ChargesSeen, covered: Covered, deed: Done, since: Days): Promise<FreedCommitment[]> {
  const days = daysBetween(since.start, since.end)
  const still = await byCommitment(charges, ofResource(deed), deed.currency, since)
  const beside = [...covered].filter(
    ([other]) => other !== deed && other.currency === deed.currency && dayOf(other) >= beforeOf(deed).start,
  )
  return Promise.all(
    [...(covered.get(deed) ?? [])].map(async ([id, before]) => {
      const freed = larger(
        before
          .times(days)
          .div(DAYS_BEFORE)
          .minus(still.get(id) ?? zero),
        zero,
      )
      const unused = { CommitmentDiscountId: [id], CommitmentDiscountStatus: ['Unused'] }
      const [then, now] = await Promise.all(
        [beforeOf(deed), since].map(async days => (await byCommitment(charges, unused, deed.currency, days)).get(id) ?? zero),
      )
      const byOthers = beside.map(([other, own]) => (own.get(id) ?? zero).times(daysOf(other, since)).div(DAYS_BEFORE))
      const unusedMore = larger(now!.minus(then!.times(days).div(DAYS_BEFORE)), zero)
      return { id, freed, freedInAll: sum([freed, ...byOthers]), unusedMore }
    }),
  )
}

/** On so many of some days a deed was done and not undone. */
function daysOf(deed: Done, { start, end }: Days): number {
  const from = dayOf(deed) > start ? dayOf(deed) : start
  const until = deed.until?.slice(0, 10) ?? end
  return Math.max(0, daysBetween(from, until < end ? until : end))
}

/** Effective cost of usage, by the commitment that covers it. */
async function byCommitment(charges: ChargesSeen, keep: Record<string, string[]>, currency: string, days: Days) {
  const { result } = await charges.ask('group', {
    ...{ splitBy: ['CommitmentDiscountId'], grain: null, ...days, measures: ['effectiveCost'] },
    keep: { ...keep, ChargeCategory: ['Usage'], ChargeClass: [null] },
    leaveOut: { CommitmentDiscountId: [null] },
  })
  return new Map(
    result
      .filter(group => group.currency === currency)
      .map(({ values, amounts }) => [values.CommitmentDiscountId!, new Decimal(scaledText(amounts[0]!))] as const),
  )
}

/** What a resource was charged for its use, SKU by SKU and by who pays it. */
async function charged(charges: ChargesSeen, id: string, currency: string, days: Days): Promise<Charged[]> {
  const { result } = await charges.ask('group', {
    ...{ splitBy: ['SkuId', 'PricingUnit', 'PricingCategory'], grain: null, ...days },
    keep: { ResourceId: [id], ChargeCategory: ['Usage'], ChargeClass: [null] },
    leaveOut: { SkuId: [null] },
    measures: ['pricingQuantity', 'effectiveCost', 'billedCost'],
  })
  return result
    .filter(group => group.currency === currency)
    .map(({ values, amounts }) => {
      const [units, effective, billed] = amounts.map(one => new Decimal(scaledText(one))) as [Decimal, Decimal, Decimal]
      const { SkuId, PricingUnit: unit = null, PricingCategory: category = null } = values
      return { sku: SkuId!, unit, category, units, effective, billed }
    })
}

const larger = (a: Decimal, b: Decimal): Decimal => (a.gt(b) ? a : b)
