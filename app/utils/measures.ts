import { roundText } from '../../core/money/amount-text'
import { isMoneyMeasure, type Measure } from '../../core/spend/question'
import { money, quantity } from '../../shared/words/amounts'
import { currencySign, fullPrice } from './format'

export { isCost, isMoneyMeasure } from '../../core/spend/question'

/** An amount of a measure: money to its minor unit, a quantity as it is, a unit price with its digits. */
export function measured(amount: string, unit: string, measure: Measure): string {
  if (isMoneyMeasure(measure)) return money(amount, unit)
  return measure === 'unitPrice' ? fullPrice(roundText(amount, 8)) : quantity(amount)
}

/** What stands behind a figure: a currency's sign, or a unit. */
export const unitSign = (unit: string, measure: Measure): string => (isMoneyMeasure(measure) ? currencySign(unit) : unit)
