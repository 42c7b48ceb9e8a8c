import type { Decimal } from '../money/decimal'
import { zero } from '../money/decimal'

/** What the bill has of a resource: before it was acted on, and since. */
export type BillFacts = {
  /** Billed cost and hours of full days before the action. */
  costBefore: Decimal
  hoursBefore: Decimal
  /** Billed cost from the day of the action on. */
  costSince: Decimal
  /** Full hours of the days since, the day of the action included, as far as the bill reaches. */
  hoursSince: number
}

/**
 * Realised saving = counterfactual − actual since: unit price before × use since, less what is billed since; from the bill alone.
 * @returns null while the bill reaches no day since, or had nothing before.
 */
export function realisedSaving({ costBefore, hoursBefore, costSince, hoursSince }: BillFacts): Decimal | null {
  if (hoursSince <= 0 || hoursBefore.lte(0)) return null
  return costBefore.times(hoursSince).div(hoursBefore).minus(costSince)
}

/** What was promised for the hours since the deed: monthly saving / 730 × hours. */
export function promisedSince(monthlySaving: Decimal, hours: number): Decimal {
  return hours <= 0 ? zero : monthlySaving.times(hours).div(730)
}
