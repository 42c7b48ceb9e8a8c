import { dictionaryNames } from '../../core/focus/star'
import { finishSegment, measureColumn, measureNames, SEGMENT_ROWS, type Segment } from '../../core/spend/segment'

// PostgreSQL's binary COPY: an 11-byte signature, flags, an extension; then per row a count of fields and for each its length and bytes.
const SIGNATURE_BYTES = 11

/** The columns that `readChargeCopy` expects, in this order. */
export const chargeCopyColumns: readonly string[] = ['start_hour', 'billing_currency', ...dictionaryNames, ...measureNames]

/**
 * Reads charges that `COPY … TO … (FORMAT binary)` wrote into segments.
 * @param rows how many charges the copy holds.
 * @param currencyCode gives a currency its position in the cube.
 */
export function readChargeCopy(bytes: Uint8Array, rows: number, currencyCode: (currency: string) => number): Segment[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const startHour = new Int32Array(rows)
  const currency = new Uint8Array(rows)
  const keys = dictionaryNames.map(() => new Int32Array(rows))
  const measures = measureNames.map(() => ({ high: new Float64Array(rows), low: new Int32Array(rows) }))
  let at = copyStart(view)
  for (let row = 0; ; row++) {
    const fields = view.getInt16(at)
    at += 2
    if (fields === -1) break
    if (row >= rows) throw new RangeError(`the copy holds more than ${rows} charges`)
    startHour[row] = view.getInt32(at + 4)
    at += 8
    const length = view.getInt32(at)
    currency[row] = currencyCode(String.fromCharCode(...bytes.subarray(at + 4, at + 4 + length)))
    at += 4 + length
    for (const column of keys) {
      column[row] = view.getInt32(at + 4)
      at += 8
    }
    for (const measure of measures) at = readNumeric(view, at, measure, row)
  }
  const segments: Segment[] = []
  for (let from = 0; from < rows; from += SEGMENT_ROWS) {
    const to = Math.min(rows, from + SEGMENT_ROWS)
    segments.push(finishSegment({
      rows: to - from, startHour: startHour.subarray(from, to), currency: currency.subarray(from, to),
      keys: Object.fromEntries(dictionaryNames.map((name, i) => [name, keys[i]!.subarray(from, to)])) as Segment['keys'],
      measures: Object.fromEntries(measureNames.map((name, i) => [name, measureColumn(measures[i]!.high.subarray(from, to), measures[i]!.low.subarray(from, to))])) as Segment['measures'],
    }))
  }
  return segments
}

/** Where the first row of a copy begins: behind its signature, flags and extension. */
function copyStart(view: DataView): number {
  const at = SIGNATURE_BYTES + 4
  return at + 4 + view.getInt32(at)
}

/** Reads a copy whose rows are a single `bytea` each. */
export function readBytesCopy(bytes: Uint8Array): Uint8Array[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const found: Uint8Array[] = []
  let at = copyStart(view)
  while (view.getInt16(at) !== -1) {
    const length = view.getInt32(at + 2)
    found.push(bytes.subarray(at + 6, at + 6 + length))
    at += 6 + length
  }
  return found
}

/**
 * A numeric of at most fifteen decimals: groups of four decimal digits, `weight` being the power of 10 000 of the first.
 * Gives whole 10⁻⁶ parts and the 10⁻¹⁵ parts left, each exact in a float. A null counts as zero.
 */
function readNumeric(view: DataView, at: number, into: { high: Float64Array, low: Int32Array }, row: number): number {
  const length = view.getInt32(at)
  if (length < 0) return at + 4
  const groups = view.getUint16(at + 4)
  const weight = view.getInt16(at + 6)
  const negative = view.getUint16(at + 8) === 0x4000
  let whole = 0
  let micro = 0
  let low = 0
  for (let i = 0; i < groups; i++) {
    const digits = view.getUint16(at + 12 + i * 2)
    const power = weight - i
    if (power >= 0) whole += digits * 10_000 ** power
    else if (power === -1) micro += digits * 100
    else if (power === -2) {
      micro += Math.floor(digits / 100)
      low += (digits % 100) * 10_000_000
    }
    else if (power === -3) low += digits * 1000
    else if (power === -4) low += digits / 10
  }
  const high = whole * 1_000_000 + micro
  into.high[row] = negative ? -high : high
  into.low[row] = negative ? -low : low
  return at + 4 + length
}
