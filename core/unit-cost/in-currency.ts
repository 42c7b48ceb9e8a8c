import { asFactor, timesRate } from '../money/rate-factor'
import { rateFinder, type Rate } from '../money/rates'
import { scaled, scaledText, type Scaled } from '../money/scaled'
import type { Day } from '../time/day'

/**
 * Amounts of several currencies in one, at the rates of a day; null where one of them has no rate, which is named: a sum that lacks
 * something is no cost of anything.
 */
export function inCurrency(
  amounts: readonly { currency: string; amount: string }[],
  to: string,
  rates: readonly Rate[],
  day: Day,
): { amount: string | null; noRate: string[] } {
  const rateOn = rateFinder(rates)
  const noRate = new Set<string>()
  let sum: Scaled = 0n
  for (const { currency, amount } of amounts) {
    const own = scaled(amount)
    const found = rateOn(currency, to, day)
    if (found) sum += timesRate(own, asFactor(found.rate))
    else if (own !== 0n) noRate.add(currency)
  }
  return { amount: noRate.size ? null : scaledText(sum), noRate: [...noRate].sort() }
}
