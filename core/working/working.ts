import { Decimal, decimalText, parseDecimal, zero, type DecimalText } from '../money/decimal'

/**
 * How a figure was made: a tree of named inputs and operations that evaluates to the figure. The tree is the formula:
 * what is shown to a person and what is computed are the same thing.
 */
export type Working =
  | { op: 'input', label: string, value: DecimalText, unit?: string, source?: string }
  | { op: 'sum' | 'product' | 'difference' | 'quotient' | 'smaller' | 'larger' | 'ceiling', label: string, unit?: string, note?: string, parts: Working[] }

/** A named number that comes from outside: what someone typed, or a line of a rate card. */
export function input(label: string, value: Decimal | number | string, unit?: string, source?: string): Working {
  return { op: 'input', label, value: decimalText(new Decimal(value)), ...(unit && { unit }), ...(source && { source }) }
}

type Operation = Exclude<Working['op'], 'input'>
const operation = (op: Operation) => (label: string, parts: Working[], unit?: string, note?: string): Working =>
  ({ op, label, parts, ...(unit && { unit }), ...(note && { note }) })

export const add = operation('sum')
export const multiply = operation('product')
/** The first part less all others. */
export const subtract = operation('difference')
/** The first part divided by the second; cut at 20 decimals. */
export const divide = operation('quotient')
export const smallerOf = operation('smaller')
export const largerOf = operation('larger')
/** The next whole number up. */
export const roundUp = operation('ceiling')

/**
 * Computes the tree.
 * @throws RangeError for a quotient by zero or an unreadable input: the builder must not make such a tree.
 */
export function evaluate(working: Working): Decimal {
  if (working.op === 'input') {
    const value = parseDecimal(working.value)
    if (!value) throw new RangeError(`«${working.label}» is not a number: ${working.value}`)
    return value
  }
  const values = working.parts.map(evaluate)
  const [first = zero, ...others] = values
  switch (working.op) {
    case 'sum': return values.reduce((a, b) => a.plus(b), zero)
    case 'product': return values.reduce((a, b) => a.times(b), new Decimal(1))
    case 'difference': return others.reduce((a, b) => a.minus(b), first)
    case 'quotient':
      if (!others[0] || others[0].eq(0)) throw new RangeError(`«${working.label}» divides by zero`)
      return first.div(others[0])
    case 'smaller': return others.reduce((a, b) => b.lt(a) ? b : a, first)
    case 'larger': return others.reduce((a, b) => b.gt(a) ? b : a, first)
    case 'ceiling': return first.round(0, 3)
  }
}
