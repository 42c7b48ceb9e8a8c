import { dictionaryNames, type DictionaryName } from '../focus/star'
import type { Scaled } from '../money/scaled'
import { highLimb, lowLimb } from './limbs'

/** A segment holds at most so many charges: one pass over it stays in the processor's cache, and a long load is kept as it comes. */
export const SEGMENT_ROWS = 65_536

export const measureNames = ['billedCost', 'effectiveCost', 'listCost', 'contractedCost', 'pricingQuantity', 'consumedQuantity'] as const
export type MeasureName = typeof measureNames[number]

/** One measure of a segment in two limbs: whole 10⁻⁶ parts and the 10⁻¹⁵ parts left, both with the sign of the amount. */
export type MeasureColumn = {
  high: Float64Array
  low: Int32Array
  /** The largest size of `high`: says how many rows can be added before a float could lose a unit. */
  largest: number
}

/** Up to SEGMENT_ROWS charges of one source and billing period, a column to an array. Never changed once made. */
export type Segment = {
  rows: number
  /** Hours since 1 January 1970 at which the charge period starts. */
  startHour: Int32Array
  firstHour: number
  lastHour: number
  /** Position in the cube's list of currencies. */
  currency: Uint8Array
  keys: Record<DictionaryName, Int32Array>
  measures: Record<MeasureName, MeasureColumn>
}

const noLow = new Int32Array(SEGMENT_ROWS)

/** Puts a measure's column together; where no row needs the low limb all share one array of zeros. */
export function measureColumn(high: Float64Array, low: Int32Array): MeasureColumn {
  let largest = 0
  let any = false
  for (let row = 0; row < high.length; row++) {
    const size = Math.abs(high[row]!)
    if (size > largest) largest = size
    if (low[row] !== 0) any = true
  }
  return { high, low: any || low.length > SEGMENT_ROWS ? low : noLow, largest }
}

/** A charge as plain values, for whatever makes segments row by row. */
export type SegmentRow = { startHour: number, currency: number, keys: Record<DictionaryName, number>, measures: Record<MeasureName, Scaled> }

/** Makes segments of plain rows; for tests and small things, a load fills its columns by itself. */
export function segmentsOf(rows: readonly SegmentRow[]): Segment[] {
  const segments: Segment[] = []
  for (let from = 0; from < rows.length; from += SEGMENT_ROWS) {
    const part = rows.slice(from, from + SEGMENT_ROWS)
    segments.push(finishSegment({
      rows: part.length,
      startHour: Int32Array.from(part, row => row.startHour),
      currency: Uint8Array.from(part, row => row.currency),
      keys: Object.fromEntries(dictionaryNames.map(name => [name, Int32Array.from(part, row => row.keys[name])])) as Segment['keys'],
      measures: Object.fromEntries(measureNames.map(name => [name, measureColumn(Float64Array.from(part, row => highLimb(row.measures[name])), Int32Array.from(part, row => lowLimb(row.measures[name])))])) as Segment['measures'],
    }))
  }
  return segments
}

/** Adds what is said about the whole segment. */
export function finishSegment(columns: Omit<Segment, 'firstHour' | 'lastHour'>): Segment {
  let firstHour = Infinity
  let lastHour = -Infinity
  for (let row = 0; row < columns.rows; row++) {
    const hour = columns.startHour[row]!
    if (hour < firstHour) firstHour = hour
    if (hour > lastHour) lastHour = hour
  }
  return { ...columns, firstHour, lastHour }
}
