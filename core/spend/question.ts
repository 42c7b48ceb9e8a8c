import type { Day } from '../time/day'

export type CostMeasure = 'billedCost' | 'effectiveCost'
export type Grain = 'day' | 'month'

/** Values to narrow to; null stands for "has none". */
export type Narrowing = Record<string, (string | null)[]>

/** What is asked of the charges. The period tests the start of a charge period; `end` is exclusive. */
export type Question = {
  measure: CostMeasure
  splitBy: string[]
  grain: Grain | null
  start: Day
  end: Day
  keep: Narrowing
  leaveOut: Narrowing
  /** The largest rows only; what is left comes as the rest. */
  limit?: number
  /** Only charges of this billing month (`2026-10`): what statements go by. */
  billingMonth?: string
}

/** Amounts are decimal text with every digit. */
export type AnswerRow = { values: Record<string, string | null>, start: Day | null, currency: string, amount: string }
export type CurrencyAmount = { currency: string, amount: string }
export type Answer = {
  totals: CurrencyAmount[]
  rows: AnswerRow[]
  rest: { count: number, amounts: CurrencyAmount[] } | null
}
