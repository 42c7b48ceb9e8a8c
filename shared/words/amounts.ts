import { isCurrency, minorDecimals } from '../../core/money/currency'
import { roundScaled, scaled, scaledText } from '../../core/money/scaled'

/** An amount as people read it, where no reader's own format is known: `1,234.50 EUR`; quantities and prices with their digits. */
export function amountSaid({ currency, amount }: { currency: string; amount: string }): string {
  const digits = isCurrency(currency) ? minorDecimals(currency) : 4
  const rounded = scaledText(roundScaled(scaled(amount), digits))
  const format = new Intl.NumberFormat('en-GB', { minimumFractionDigits: isCurrency(currency) ? digits : 0, maximumFractionDigits: digits })
  return `${format.format(rounded as `${number}`)} ${currency}`
}
