import type { Decimal } from '../money/decimal'
import { decimalText, zero } from '../money/decimal'
import type { Brake } from './definition'
import type { FoundResource } from './found'

/**
 * Why an order that would touch so much does nothing; null where it may. Amounts of several currencies are not added: each alone may not
 * go beyond.
 */
export function whyBraked(touched: readonly Pick<FoundResource, 'costOfMonth'>[], { resources, monthlyCost }: Brake): string | null {
  if (touched.length > resources) return `it would touch ${touched.length} resources; its brake is at ${resources}`
  if (monthlyCost === null) return null
  const sums = new Map<string, Decimal>()
  for (const { costOfMonth } of touched)
    for (const { currency, amount } of costOfMonth) sums.set(currency, (sums.get(currency) ?? zero).plus(amount))
  for (const [currency, sum] of sums)
    if (sum.gt(monthlyCost)) return `it would touch what costs ${decimalText(sum)} ${currency} a month; its brake is at ${monthlyCost}`
  return null
}
