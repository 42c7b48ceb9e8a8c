import { minorDecimals } from '../money/currency'
import { roundScaled, scaled, scaledText, type Scaled } from '../money/scaled'

/** An invoice as its issuer sent it; the total contains the tax. */
export type InvoiceFigures = { currency: string; total: string; tax: string | null }
/** The charges that belong to it, line by line as an issuer rounds them: a line is an account, a service, a SKU, a category. */
export type InvoiceLine = { currency: string; isTax: boolean; amount: Scaled }

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
 * Holds an invoice's total against the charges loaded for it. Rounding is what appears when each line, or the whole, is rounded to the
 * minor
 * unit (half away from zero); tax is what the invoice has more or less of it; what is left is unexplained.
 */
export function reconcile({ currency, total, tax }: InvoiceFigures, lines: readonly InvoiceLine[]): Reconciliation {
  const decimals = minorDecimals(currency)
  const own = lines.filter(line => line.currency === currency)
  const sum = (list: readonly InvoiceLine[]) => list.reduce((n, line) => n + line.amount, 0n)
  const loaded = sum(own)
  const loadedTax = sum(own.filter(line => line.isTax))
  const difference = scaled(total) - loaded
  const taxPart = tax === null ? 0n : taxDifference(scaled(tax), loadedTax, decimals)
  const left = difference - taxPart
  const byLine = own.reduce((n, line) => n + roundScaled(line.amount, decimals), 0n) - loaded
  const atOnce = roundScaled(loaded, decimals) - loaded
  const explained = left === byLine || left === atOnce
  // an issuer that rounds other lines than ours still stays within half a unit a line
  const within = size(left) * 2n <= BigInt(Math.max(1, own.length)) * 10n ** BigInt(15 - decimals)
  const rounding = explained || within ? left : atOnce
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
    otherCurrencies: [...new Set(lines.map(line => line.currency).filter(c => c !== currency))].sort(),
  }
}

const size = (n: Scaled) => (n < 0n ? -n : n)

/** Tax that is more than rounding apart. */
function taxDifference(invoiced: Scaled, loaded: Scaled, decimals: number): Scaled {
  const apart = invoiced - loaded
  return size(apart) * 2n <= 10n ** BigInt(15 - decimals) ? 0n : apart
}
