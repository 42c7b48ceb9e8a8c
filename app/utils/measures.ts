import { roundText } from '../../core/money/amount-text'
import { costMeasures, type CostMeasure, type Measure } from '../../core/spend/question'
import { currencySign, fullPrice, money, quantity } from './format'

/** One of the four costs. */
export const isCost = (measure: Measure): measure is CostMeasure => (costMeasures as readonly string[]).includes(measure)
/** Whether sums of it stand in a currency and add up. */
export const isMoneyMeasure = (measure: Measure): boolean => isCost(measure) || measure === 'savedAgainstList'

/** An amount of a measure: money to its minor unit, a quantity as it is, a unit price with its digits. */
export function measured(amount: string, unit: string, measure: Measure): string {
  if (isMoneyMeasure(measure)) return money(amount, unit)
  return measure === 'unitPrice' ? fullPrice(roundText(amount, 8)) : quantity(amount)
}

/** What stands behind a figure: a currency's sign, or a unit. */
export const unitSign = (unit: string, measure: Measure): string => (isMoneyMeasure(measure) ? currencySign(unit) : unit)
