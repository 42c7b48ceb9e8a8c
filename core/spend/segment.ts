import type { DictionaryName } from '../focus/star'
import { scaledText, type Scaled } from '../money/scaled'
import { beyondScaled, fromLimbs } from '../money/limbs'
import { limbsText } from './sums'

/** A segment holds at most so many charges: a place among them fits 16 bits, and one pass over it stays in the processor's cache. */
export const SEGMENT_ROWS = 65_536

export const measureNames = ['billedCost', 'effectiveCost', 'listCost', 'contractedCost', 'pricingQuantity', 'consumedQuantity'] as const
export type MeasureName = (typeof measureNames)[number]

/** One measure of a segment in two limbs: whole 10⁻⁶ parts and the 10⁻¹⁵ parts left, both with the sign of the amount. */
export type MeasureColumn = {
  high: Float64Array
  low: Int32Array
  /** The largest size of `high`: says how many rows can be added before a float could lose a unit. */
  largest: number
  /** Rows whose amount is more than two limbs hold, and by how much, see `limbsOf`; null for nearly all columns. */
  beyond: Beyond | null
}
/** Rows in order, and for each the third limb of its amount. */
export type Beyond = { rows: number[]; parts: number[] }

/**
 * Dictionary ids of a segment's rows, as places in the list of those that occur: what is asked of an id is worked out once for the segment.
 */
export type KeyColumn = { codes: Uint16Array; ids: Int32Array }

/** Charge periods of a segment's rows, as places in the list of those that occur; seconds since 1970, the end exclusive. */
export type TimeColumn = { codes: Uint16Array; starts: Float64Array; ends: Float64Array }

/** Bits of `absent`: quantities that a charge has none of, which is not the same as zero. */
export const ABSENT: Partial<Record<MeasureName, number>> = { pricingQuantity: 1, consumedQuantity: 2 }

/**
 * Up to SEGMENT_ROWS charges of one source and billing period, a column to an array. Never changed once made; columns may be longer than
 * `rows`.
 */
export type Segment = {
  rows: number
  time: TimeColumn
  /** Hours since 1970 in which the first and the last charge period start. */
  firstHour: number
  lastHour: number
  /** Position in the cube's list of currencies. */
  currency: Uint8Array
  keys: Record<DictionaryName, KeyColumn>
  absent: Uint8Array
  measures: Record<MeasureName, MeasureColumn>
}

export const hourOf = (seconds: number): number => Math.floor(seconds / 3600)

/** What a column without any value but zero is: one array for all of them. */
export const zeros = {
  codes: new Uint16Array(SEGMENT_ROWS),
  bytes: new Uint8Array(SEGMENT_ROWS),
  high: new Float64Array(SEGMENT_ROWS),
  low: new Int32Array(SEGMENT_ROWS),
}

/** Puts a measure's column together. */
export function measureColumn(high: Float64Array, low: Int32Array, beyond: Beyond | null = null): MeasureColumn {
  let largest = 0
  for (let row = 0; row < high.length; row++) {
    const size = Math.abs(high[row]!)
    if (size > largest) largest = size
  }
  return { high, low, largest, beyond }
}

/** The exact amount of a row. */
export function amountOf({ high, low, beyond }: MeasureColumn, row: number): Scaled {
  const two = fromLimbs(high[row]!, low[row]!)
  const place = beyond ? placeOf(beyond.rows, row) : -1
  return place < 0 ? two : two + beyondScaled(beyond!.parts[place]!)
}

/** The place of a number in a list in order; −1 where it is not. */
function placeOf(list: readonly number[], sought: number): number {
  let [from, to] = [0, list.length - 1]
  while (from <= to) {
    const middle = (from + to) >> 1
    if (list[middle] === sought) return middle
    if (list[middle]! < sought) from = middle + 1
    else to = middle - 1
  }
  return -1
}

/** The same as decimal text. */
export const amountTextOf = (column: MeasureColumn, row: number): string =>
  column.beyond ? scaledText(amountOf(column, row)) : limbsText(column.high[row]!, column.low[row]!)

/** Adds what is said about the whole segment. */
export function finishSegment(columns: Omit<Segment, 'firstHour' | 'lastHour'>): Segment {
  let first = Infinity
  let last = -Infinity
  for (const start of columns.time.starts) {
    if (start < first) first = start
    if (start > last) last = start
  }
  return { ...columns, firstHour: hourOf(first), lastHour: hourOf(last) }
}
