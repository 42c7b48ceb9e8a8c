import { amountColumns, quantityColumns } from '../star'
import type { Wrong } from '../problem'

/** Amounts and quantities of a charge, in this order. */
export const numberColumns = [...amountColumns, ...quantityColumns] as const
export const timeColumns = ['BillingPeriodStart', 'BillingPeriodEnd', 'ChargePeriodStart', 'ChargePeriodEnd'] as const
export type TimeColumn = (typeof timeColumns)[number]

/** A checked charge. The arrays are the intake's own and hold until its next row. */
export type TakenCharge = {
  /** Seconds since 1970. */
  times: Record<TimeColumn, number>
  currency: string
  /** Dictionary ids in the order of `dictionaryNames`. */
  keys: Int32Array
  /** Limbs in the order of `numberColumns`; what is not there counts as zero. */
  high: Float64Array
  low: Float64Array
  /** What is beyond two limbs, see `core/spend/limbs.ts`: nearly always zero. */
  beyond: Float64Array
  present: Uint8Array
}

/** What a cell holds: a number, a time, or a value that is looked at once for each distinct text. */
export type CellKind = 'value' | 'number' | 'time'

/** @returns what the cells of a column of this name hold. */
export function cellKind(column: string): CellKind {
  if ((numberColumns as readonly string[]).includes(column)) return 'number'
  return (timeColumns as readonly string[]).includes(column) ? 'time' : 'value'
}

/** Says what is wrong with a cell of the row being taken. `column` is null for the row as a whole. */
export type NoteWrong = (column: string | null, value: string | null, wrong: Wrong) => void
