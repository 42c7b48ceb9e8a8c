import { Decimal, decimalText, sum } from '../../core/money/decimal'
import { SCALE } from '../../core/money/scaled'

/** Exact sum of decimal texts. */
export const sumDecimals = (texts: string[]) => decimalText(sum(texts.map(text => new Decimal(text))))

/** For showing: a quotient may have more decimals than an amount keeps. */
export const to15 = (text: string) => decimalText(new Decimal(text).round(SCALE))
