import Big from 'big.js'
import { Decimal, decimalText, parseDecimal, zero, type DecimalText } from '../money/decimal'

/** A tier of a price, as far as a formula needs it. */
export type WorkingTier = { from: DecimalText; price: DecimalText }

/**
 * How a figure was made: a tree of named inputs and operations that evaluates to the figure. The tree is the formula:
 * what is shown to a person and what is computed are the same thing. Parts may be shared between figures.
 */
export type Working =
  | WorkingInput
  | {
      op: 'sum' | 'product' | 'difference' | 'quotient' | 'smaller' | 'larger' | 'ceiling'
      label: string
      unit?: string
      note?: string
      parts: Working[]
      own?: true
    }
  | WorkingTiered

export type WorkingInput = {
  op: 'input'
  label: string
  value: DecimalText
  unit?: string
  /** The line of a rate card that it came from. */
  source?: string
  /** The input of an estimate that it came from, written `component.field`: a range varies it, a spreadsheet links to it. */
  ref?: string
  /** The organisation's uplift, not the provider's. */
  own?: true
}

/** A quantity at the tiers of a price. Parts: the quantity, and the units of it that are free. */
export type WorkingTiered = {
  op: 'tiered'
  label: string
  unit: string
  source: string
  tiering: 'graduated' | 'whole'
  tiers: WorkingTier[]
  parts: [Working, Working]
  own?: true
}

// A tree never changes once it is made, so a figure is computed once however many amounts share it. The value is kept on the tree itself,
// where it is neither copied, written nor compared with it; a WeakMap beside it holds thousands of trees that nobody uses any more.
// It is kept inside a function: what watches objects for changes would wrap a number that stands there openly.
const KNOWN = Symbol('value')
const knownOf = (working: Working): Decimal | undefined => (working as { [KNOWN]?: () => Decimal })[KNOWN]?.()
const keepKnown = (working: Working, value: Decimal) =>
  Object.defineProperty(working, KNOWN, { value: () => value, writable: true, configurable: true })

/** A named number that comes from outside: what someone typed, or a line of a rate card. */
export function input(label: string, value: Decimal | number | string, unit?: string, source?: string): WorkingInput {
  const number = value instanceof Decimal ? value : new Decimal(value)
  const made: WorkingInput = { op: 'input', label, value: decimalText(number), ...(unit && { unit }), ...(source && { source }) }
  keepKnown(made, number)
  return made
}

type Operation = Exclude<Working['op'], 'input' | 'tiered'>
const operation =
  (op: Operation) =>
  (label: string, parts: Working[], unit?: string, note?: string): Working => ({
    op,
    label,
    parts,
    ...(unit && { unit }),
    ...(note && { note }),
  })

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

/** Marks a figure as the organisation's uplift. */
export function asUplift<W extends Working>(working: W): W {
  return { ...working, own: true }
}

const least = (a: Decimal, b: Decimal) => (b.lt(a) ? b : a)
const most = (a: Decimal, b: Decimal) => (b.gt(a) ? b : a)

/** One stretch of a tiered price: so many units at a price. */
export type Stretch = { label: string; units: Decimal; price: DecimalText }

/**
 * The stretches that a quantity takes of a tiered price.
 * Graduated tiers: Σᵢ max(0, min(q, upperᵢ) − lowerᵢ) · pᵢ. Whole-volume tiers: q · p(tier that q reaches). Units within the free
 * allowance cost nothing; the tiers count them all the same. (Common practice, no source.)
 */
export function stretchesOf({ tiers, tiering, unit }: WorkingTiered, quantity: Decimal, allowance: Decimal): Stretch[] {
  const free = most(zero, least(quantity, allowance))
  const stretches: Stretch[] = free.gt(0) ? [{ label: 'within the free allowance', units: free, price: '0' }] : []
  if (tiering === 'whole') {
    const reached = tiers.filter(tier => quantity.gte(tier.from)).at(-1)!
    if (quantity.gt(free))
      stretches.push({
        label: tiers.length > 1 ? `all at the tier from ${reached.from} ${unit}` : 'charged',
        units: quantity.minus(free),
        price: reached.price,
      })
    return stretches
  }
  tiers.forEach((tier, i) => {
    const lower = most(free, new Decimal(tier.from))
    const next = tiers[i + 1]
    const upper = next ? least(quantity, new Decimal(next.from)) : quantity
    if (upper.gt(lower))
      stretches.push({
        label: tiers.length > 1 ? `in the tier from ${tier.from} ${unit}` : free.gt(0) ? 'beyond the free allowance' : 'charged',
        units: upper.minus(lower),
        price: tier.price,
      })
  })
  return stretches
}

/**
 * Computes the tree, exactly.
 * @throws RangeError for a quotient by zero or an unreadable input: the builder must not make such a tree.
 */
export function evaluate(working: Working): Decimal {
  const before = knownOf(working)
  if (before) return before
  const value = compute(working)
  keepKnown(working, value)
  return value
}

function compute(working: Working): Decimal {
  if (working.op === 'input') {
    const value = parseDecimal(working.value)
    if (!value) throw new RangeError(`«${working.label}» is not a number: ${working.value}`)
    return value
  }
  if (working.op === 'tiered') {
    const [quantity, allowance] = working.parts.map(evaluate) as [Decimal, Decimal]
    return stretchesOf(working, quantity, allowance).reduce((total, { units, price }) => total.plus(units.times(price)), zero)
  }
  const [first = zero, ...others] = working.parts.map(evaluate)
  switch (working.op) {
    case 'sum':
      return others.reduce((a, b) => a.plus(b), first)
    case 'product':
      return others.reduce((a, b) => a.times(b), working.parts.length ? first : new Decimal(1))
    case 'difference':
      return others.reduce((a, b) => a.minus(b), first)
    case 'quotient':
      if (!others[0] || others[0].eq(0)) throw new RangeError(`«${working.label}» divides by zero`)
      return first.div(others[0])
    case 'smaller':
      return others.reduce(least, first)
    case 'larger':
      return others.reduce(most, first)
    case 'ceiling':
      return first.round(0, Big.roundUp)
  }
}
