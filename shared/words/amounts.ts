import { isCurrency, minorDecimals } from '../../core/money/currency'
import { roundScaled, scaled, scaledText } from '../../core/money/scaled'
import { LOCALE } from '../../core/text/locale'

const formats = new Map<string, Intl.NumberFormat>()

/** A format for numbers, made once for each key. */
export function numberFormat(key: string, options: Intl.NumberFormatOptions): Intl.NumberFormat {
  const known = formats.get(key)
  if (known) return known
  const made = new Intl.NumberFormat(LOCALE, options)
  formats.set(key, made)
  return made
}

/** A minus sign in place of the hyphen that formats write. */
export const trueMinus = (text: string) => text.replace('-', '−')

/** Exact decimal text, rounded half away from zero to so many decimals: `1,234.50`. */
export function decimals(text: string, digits: number): string {
  const rounded = scaledText(roundScaled(scaled(text), digits))
  const format = numberFormat(`d${digits}`, { minimumFractionDigits: digits, maximumFractionDigits: digits })
  return trueMinus(format.format(rounded as `${number}`))
}

/** An amount to the minor unit of its currency, without the currency. */
export function money(amount: string, currency: string): string {
  return decimals(amount, minorDecimals(currency))
}

/** A number with as many decimals as it needs, four at most. */
export function quantity(text: string): string {
  return trueMinus(numberFormat('q', { maximumFractionDigits: 4 }).format(text as `${number}`))
}

/** An amount with its currency: `1,234.50 EUR`; quantities and prices with their digits. */
export function amountSaid({ currency, amount }: { currency: string; amount: string }): string {
  return `${isCurrency(currency) ? money(amount, currency) : quantity(scaledText(roundScaled(scaled(amount), 4)))} ${currency}`
}
