import { minorDecimals } from '../money/currency'
import { minorUnit, roundScaled, scaled, scaledText, sizeOf, type Scaled } from '../money/scaled'

/** What an issuer rounds to the minor unit: each line of its invoice, or each charge. */
export const rounded = ['lines', 'charges'] as const
/**
 * An invoice as its issuer sent it; the total contains the tax. `lines` says how many it has, the tax among them; where nobody has said,
 * one, and another for the tax it names.
 */
export type InvoiceFigures = { currency: string; total: string; tax: string | null; lines: number | null; rounds: (typeof rounded)[number] }
/** The charges that belong to it, added up by currency and whether they are tax. */
export type InvoiceCharges = { currency: string; isTax: boolean; amount: Scaled; charges: number }

export type Reconciliation = {
  state: 'equal' | 'rounding' | 'differs' | 'nothing loaded'
  loaded: string
  loadedTax: string
  /** The invoice's total less what is loaded. */
  difference: string
  /** What the difference is made of; adds up to it. */
  parts: { what: 'rounding' | 'tax' | 'unexplained'; amount: string }[]
  otherCurrencies: string[]
}

/**
 * Holds an invoice's total against the charges loaded for it. Tax is what the invoice has more or less of it. Rounding is at most half a
 * minor unit for each line of the invoice, or for each charge where its issuer rounds these; what is larger is unexplained, but for what
 * rounding the whole gives.
 */
export function reconcile({ currency, total, tax, lines, rounds }: InvoiceFigures, charges: readonly InvoiceCharges[]): Reconciliation {
  const decimals = minorDecimals(currency)
  const own = charges.filter(line => line.currency === currency)
  const sum = (list: readonly InvoiceCharges[]) => list.reduce((n, line) => n + line.amount, 0n)
  const loaded = sum(own)
  const loadedTax = sum(own.filter(line => line.isTax))
  const difference = scaled(total) - loaded
  const taxPart = tax === null ? 0n : taxDifference(scaled(tax), loadedTax, decimals)
  const left = difference - taxPart
  const atOnce = roundScaled(loaded, decimals) - loaded
  const roundings = rounds === 'charges' ? own.reduce((n, line) => n + line.charges, 0) : (lines ?? (tax === null ? 1 : 2))
  const isWithin = sizeOf(left) * 2n <= BigInt(roundings) * minorUnit(decimals)
  const rounding = isWithin ? left : atOnce
  const unexplained = left - rounding
  const parts: Reconciliation['parts'] = [
    { what: 'tax' as const, amount: taxPart },
    { what: 'rounding' as const, amount: rounding },
    { what: 'unexplained' as const, amount: unexplained },
  ]
    .filter(part => part.amount !== 0n)
    .map(part => ({ ...part, amount: scaledText(part.amount) }))
  return {
    state: !own.length ? 'nothing loaded' : difference === 0n ? 'equal' : taxPart === 0n && unexplained === 0n ? 'rounding' : 'differs',
    loaded: scaledText(loaded),
    loadedTax: scaledText(loadedTax),
    difference: scaledText(difference),
    parts,
    otherCurrencies: [...new Set(charges.map(line => line.currency).filter(c => c !== currency))].sort(),
  }
}

/** Tax that is more than rounding apart. */
function taxDifference(invoiced: Scaled, loaded: Scaled, decimals: number): Scaled {
  const apart = invoiced - loaded
  return sizeOf(apart) * 2n <= minorUnit(decimals) ? 0n : apart
}
