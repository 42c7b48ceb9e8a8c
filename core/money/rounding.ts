import Big from 'big.js'
import { minorDecimals } from './currency'
import type { Decimal } from './decimal'

/** Rounds half away from zero to the currency's minor unit. For the edge only: what is shown, never what is added up. */
export function roundToMinor(amount: Decimal, currency: string): Decimal {
  return amount.round(minorDecimals(currency), Big.roundHalfUp)
}
