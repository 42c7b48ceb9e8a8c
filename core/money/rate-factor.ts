import { decimalText, type Decimal } from './decimal'
import { timesDecimal, type Scaled } from './scaled'

/** A rate as a whole number with so many digits after its point. */
export type RateFactor = { units: bigint; digits: number }

/** A rate as what exact amounts are multiplied by. */
export function asFactor(rate: Decimal): RateFactor {
  const [whole, fraction = ''] = decimalText(rate).split('.') as [string, string?]
  return { units: BigInt(whole + fraction), digits: fraction.length }
}

/** An amount at a rate, rounded half to even to fifteen decimals. */
export const timesRate = (amount: Scaled, { units, digits }: RateFactor): Scaled => timesDecimal(amount, units, digits)
