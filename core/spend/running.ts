import { scaled, scaledText } from '../money/scaled'

/** What amounts have come to until each of them, itself included, exactly. */
export function runningTotals(amounts: readonly string[]): string[] {
  let sum = 0n
  return amounts.map(amount => scaledText((sum += scaled(amount))))
}
