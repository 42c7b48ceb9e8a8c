import type { Day } from '../time/day'
import type { Grain } from '../time/grain'
import type { MeasureName } from './segment'

export const costMeasures = ['billedCost', 'effectiveCost', 'listCost', 'contractedCost'] as const
export type CostMeasure = (typeof costMeasures)[number]
/**
 * What is summed. Costs stand per billing currency; a quantity per unit, since mixed units never add; what was saved against list prices is
 * list cost less effective cost; the unit price is effective cost divided by pricing quantity, per currency and unit.
 */
export const measures = [...costMeasures, 'pricingQuantity', 'consumedQuantity', 'savedAgainstList', 'unitPrice'] as const
export type Measure = (typeof measures)[number]
/** Whether amounts of a measure add up: a price of two things is not the sum of their prices. */
export const adds = (measure: Measure): boolean => measure !== 'unitPrice'
/** One of the four costs. */
export const isCost = (measure: Measure): measure is CostMeasure => (costMeasures as readonly string[]).includes(measure)
/** Whether sums of it stand in a currency and add up. */
export const isMoneyMeasure = (measure: Measure): boolean => isCost(measure) || measure === 'savedAgainstList'
export type { Grain }

/** Values to narrow to; null stands for "has none". */
export type Narrowing = Record<string, (string | null)[]>

/** A further condition on a dimension: values whose text contains something, or whose sum in the period is above an amount. */
export type Condition = { dimension: string; keep: boolean; contains: string } | { dimension: string; keep: boolean; above: string }

/** Which charges are looked at. The period tests the start of a charge period; `end` is exclusive. */
export type Scope = {
  start: Day
  end: Day
  keep: Narrowing
  leaveOut: Narrowing
  conditions?: Condition[]
  /** Only charges of this billing month (`2026-10`): what statements go by. */
  billingMonth?: string | undefined
  /** By source the day before which its charges have to start: a rolling period ends where each source's deliveries end. */
  ends?: Readonly<Record<string, Day>> | undefined
  /** By source the day from which on its charges have to start. */
  begins?: Readonly<Record<string, Day>> | undefined
  /** Whether charges stand in time by their charge periods, as without it, or by their billing periods, as statements and invoices do. */
  basis?: 'charge' | 'billing' | undefined
  /** Only charges whose charge period starts outside their billing period: corrections of months before, purchases for later ones. */
  elsewhere?: boolean | undefined
}

/** Which charges are looked at, whenever they are of. */
export type TimelessScope = Pick<Scope, 'keep' | 'leaveOut' | 'conditions'>

/** What is asked of the charges. */
export type Question = Scope & {
  measure: Measure
  splitBy: string[]
  grain: Grain | null
  /** Only so many of the largest of each currency or unit; what is left comes as the rest. */
  limit?: number
}

/**
 * Several sums at once, for whoever needs the groups themselves. `by` says what keeps sums apart that must not be added; at each of the
 * days of `cuts`, the first being the period's start, a new step of time begins besides those of the grain.
 */
export type Grouping = Scope & {
  splitBy: string[]
  grain: Grain | null
  measures: readonly MeasureName[]
  by?: Denomination
  cuts?: readonly Day[]
}

/** What keeps sums apart: the billing currency, a quantity's unit, or both. */
export type Denomination = 'currency' | 'pricing unit' | 'consumed unit' | 'currency per pricing unit'

/** Amounts are decimal text with every digit. `currency` is the unit for quantities, and `EUR per GB` for unit prices. */
export type AnswerRow = {
  values: Record<string, string | null>
  start: string | null
  currency: string
  amount: string
  /** Of a unit price: what it is the quotient of. */
  cost?: string
  quantity?: string
}
export type CurrencyAmount = { currency: string; amount: string }
export type Answer = {
  totals: CurrencyAmount[]
  rows: AnswerRow[]
  rest: { count: number; amounts: CurrencyAmount[] } | null
  /** Of unit prices: what has a unit but no quantity, its cost as the amount: it has no price, and belongs to that of the whole. */
  unpriced?: AnswerRow[]
}
