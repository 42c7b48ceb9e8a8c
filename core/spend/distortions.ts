import { scaled, scaledText, type Scaled } from '../money/scaled'
import type { AnswerRow } from './question'

/** What makes a total look like less or more than was used: decimal text without a sign, in one currency. */
export type Distortion = { what: 'credits' | 'purchases' | 'tax'; amount: string; usage: string }

/** What is larger than this part of the usage is pointed out. */
const TENTHS = 10n

/**
 * Credits with adjustments, purchases and tax that make up more than a tenth of the usage; credits only where they take something off.
 * @param rows by ChargeCategory.
 */
export function distortionsOf(rows: readonly AnswerRow[], currency: string): Distortion[] {
  const of = (...categories: string[]) =>
    rows.reduce(
      (sum, row) => (row.currency === currency && categories.includes(row.values.ChargeCategory ?? '') ? sum + scaled(row.amount) : sum),
      0n,
    )
  const size = (amount: Scaled) => (amount < 0n ? -amount : amount)
  const usage = size(of('Usage'))
  const credits = of('Credit', 'Adjustment')
  const found = [
    ...(credits < 0n ? [{ what: 'credits' as const, amount: -credits }] : []),
    { what: 'purchases' as const, amount: size(of('Purchase')) },
    { what: 'tax' as const, amount: size(of('Tax')) },
  ]
  return found
    .filter(({ amount }) => amount > 0n && amount * TENTHS > usage)
    .map(({ what, amount }) => ({ what, amount: scaledText(amount), usage: scaledText(usage) }))
}
