import { scaled, type Scaled } from './scaled'

const size = (amount: string): Scaled => {
  const own = scaled(amount)
  return own < 0n ? -own : own
}

/**
 * Which of the totals of several currencies is shown first: the one in the currency that the company reports in; where there is none, that
 * of the largest number, since nothing says which is worth more; the first of equal ones. @returns null where there are none.
 */
export function mainTotal<T extends { currency: string; amount: string }>(totals: readonly T[], reportCurrency: string | null): T | null {
  const reported = totals.find(({ currency }) => currency === reportCurrency)
  return reported ?? totals.reduce<T | null>((best, one) => (best && size(best.amount) >= size(one.amount) ? best : one), null)
}
