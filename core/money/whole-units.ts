import { sizeOf, type Scaled } from './scaled'

/**
 * Cuts amounts to whole units by largest remainders, of whatever sign they are: the parts add up to the whole units of their sum.
 * @returns the parts, and what the sum has beyond whole units. Ties go to the earlier position.
 */
export function inWholeUnits(amounts: readonly Scaled[], unit: Scaled): { parts: Scaled[]; rest: Scaled } {
  const all = amounts.reduce((sum, amount) => sum + amount, 0n)
  const parts = amounts.map(amount => amount - (amount % unit))
  const left = all - parts.reduce((sum, part) => sum + part, 0n)
  const units = left / unit
  const byRemainder = amounts
    .map((amount, at) => ({ at, remainder: amount % unit }))
    .sort((a, b) => (a.remainder === b.remainder ? a.at - b.at : a.remainder > b.remainder === units > 0n ? -1 : 1))
  // less than a unit for each: up from the largest remainders, down from the smallest
  for (const { at } of byRemainder.slice(0, Number(sizeOf(units)))) parts[at]! += units < 0n ? -unit : unit
  return { parts, rest: left % unit }
}

/** The position of the amount that is largest, whatever its sign; the first of equal ones. */
export const largestOf = (amounts: readonly Scaled[]): number =>
  amounts.reduce((best, amount, at) => (sizeOf(amount) > sizeOf(amounts[best]!) ? at : best), 0)

/**
 * Cuts amounts to whole units that add up to a number of whole units close to their sum: the largest amount takes what lies between before
 * they are cut.
 */
export function cutToAdd(amounts: readonly Scaled[], target: Scaled, unit: Scaled): Scaled[] {
  if (!amounts.length) return []
  const fitted = [...amounts]
  fitted[largestOf(amounts)]! += target - amounts.reduce((sum, amount) => sum + amount, 0n)
  return inWholeUnits(fitted, unit).parts
}
