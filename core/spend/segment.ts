import type { DictionaryName } from '../focus/star'

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
}

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
export function measureColumn(high: Float64Array, low: Int32Array): MeasureColumn {
  let largest = 0
  for (let row = 0; row < high.length; row++) {
    const size = Math.abs(high[row]!)
    if (size > largest) largest = size
  }
  return { high, low, largest }
}

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
