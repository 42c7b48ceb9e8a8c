import type { Scaled } from '../money/scaled'
import { beyondScaled } from '../money/limbs'
import type { Segment } from './segment'
import { Sums } from './sums'

/** Rows, billed and effective cost of one currency, every digit. */
export type CurrencySum = { currency: string; rows: number; billed: Scaled; effective: Scaled }

/** Exact sums of some segments by currency, in the order of the currencies; only of those that occur. */
export function segmentSums(segments: readonly Segment[], currencies: readonly string[]): CurrencySum[] {
  const rows = currencies.map(() => 0)
  const sums = (['billedCost', 'effectiveCost'] as const).map(name => {
    const sum = new Sums(currencies.length)
    for (const {
      rows: count,
      currency,
      measures: {
        [name]: { high, low, largest, beyond },
      },
    } of segments) {
      const run = Sums.run(largest)
      for (let from = 0; from < count; from += run) {
        const to = Math.min(count, from + run)
        sum.reserve(to - from, largest)
        for (let row = from; row < to; row++) {
          const code = currency[row]!
          sum.high[code]! += high[row]!
          sum.low[code]! += low[row]!
        }
      }
      beyond?.rows.forEach((row, i) => sum.addScaled(currency[row]!, beyondScaled(beyond.parts[i]!)))
    }
    return sum
  })
  for (const { rows: count, currency } of segments) for (let row = 0; row < count; row++) rows[currency[row]!]!++
  return currencies
    .map((currency, code) => ({ currency, rows: rows[code]!, billed: sums[0]!.total(code), effective: sums[1]!.total(code) }))
    .filter(sum => sum.rows > 0)
}
