import { decimalText, parseDecimal, type DecimalText } from '../../money/decimal'
import { isDay, type Day } from '../../time/day'
import type { Estimate } from '../estimate'
import { readQuantity, type Read } from './typed-text'

/** Reads a percentage from 0 to 100, with or without its sign. @param below whether 100 itself is too much. */
export function readPercent(text: string, below?: { whole: string }): Read {
  const number = parseDecimal(text.trim().replace(/\s*%$/, ''))
  if (!number || number.lt(0) || number.gt(100)) return { problem: 'A percentage from 0 to 100.' }
  if (below && number.gte(100)) return { problem: below.whole }
  return { value: decimalText(number) }
}

/** Reads a rate above zero and the day that it is of; null for nothing typed. */
export function readRate(text: string, day: Day): { rate: DecimalText; day: Day } | { problem: string } | null {
  if (text.trim() === '') return null
  const number = readQuantity(text, { label: 'rate' })
  if (typeof number === 'string') return { problem: `${number}.` }
  if (number.isRange || number.likely.lte(0)) return { problem: 'A rate above zero.' }
  return isDay(day) ? { rate: decimalText(number.likely), day } : { problem: 'Say of which day it is.' }
}

/** A credit or funding as someone types it. */
export type TypedFunding = { label: string; amount: string; threshold: string; fromMonth: string; months: string }

/** Reads a credit: what it is, an amount a month, the month's cost from which it counts, its first month and how many there are. */
export function readFunding(typed: TypedFunding): Estimate['funding'][number] | { problem: string } {
  const amountOf = (text: string) => {
    const number = readQuantity(text, { label: 'amount' })
    return typeof number !== 'string' && !number.isRange && number.likely.gte(0) ? decimalText(number.likely) : null
  }
  const label = typed.label.trim()
  if (!label) return { problem: 'Say what the credit is.' }
  const amount = amountOf(typed.amount)
  if (amount === null) return { problem: 'An amount a month.' }
  const threshold = amountOf(typed.threshold)
  if (threshold === null) return { problem: 'The threshold is an amount a month.' }
  const [fromMonth, months] = [Number(typed.fromMonth), Number(typed.months)]
  if (![fromMonth, months].every(n => Number.isInteger(n) && n >= 1 && n <= 120)) return { problem: 'Months are from 1 to 120.' }
  return { label, amount, threshold, fromMonth, months }
}
