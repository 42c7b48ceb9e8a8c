import { measureNames, type Chunk } from '../../core/spend/cube'
import { dictionaryNames } from '../../core/focus/star'

// PostgreSQL's binary COPY: an 11-byte signature, flags, an extension; then per row a count of fields and for each its length and bytes.
const SIGNATURE_BYTES = 11

/** The columns that `readChargeCopy` expects, in this order. */
export const chargeCopyColumns: readonly string[] = ['start_hour', 'billing_currency', ...dictionaryNames, ...measureNames]

/** The measures of a chunk while its rows are read, grown on demand. */
const emptyChunk = (capacity: number): Omit<Chunk, 'source' | 'billingPeriodStart'> => ({
  rows: 0,
  startHour: new Int32Array(capacity),
  currency: new Uint8Array(capacity),
  keys: Object.fromEntries(dictionaryNames.map(name => [name, new Int32Array(capacity)])) as Chunk['keys'],
  measures: Object.fromEntries(measureNames.map(name => [name, { high: new Float64Array(capacity), low: new Float64Array(capacity) }])) as Chunk['measures'],
})

/**
 * Reads charges that `COPY … TO … (FORMAT binary)` wrote into the columns of a chunk.
 * @param rows how many charges the copy holds.
 * @param currencyCode gives a currency its position in the cube.
 */
export function readChargeCopy(bytes: Uint8Array, rows: number, currencyCode: (currency: string) => number): Omit<Chunk, 'source' | 'billingPeriodStart'> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const chunk = emptyChunk(rows)
  let at = SIGNATURE_BYTES + 4
  at += 4 + view.getInt32(at)
  for (;;) {
    const fields = view.getInt16(at)
    at += 2
    if (fields === -1) break
    if (chunk.rows >= rows) throw new RangeError(`the copy holds more than ${rows} charges`)
    const row = chunk.rows++
    chunk.startHour[row] = view.getInt32(at + 4)
    at += 8
    const length = view.getInt32(at)
    chunk.currency[row] = currencyCode(String.fromCharCode(...bytes.subarray(at + 4, at + 4 + length)))
    at += 4 + length
    for (const name of dictionaryNames) {
      chunk.keys[name][row] = view.getInt32(at + 4)
      at += 8
    }
    for (const name of measureNames) at = readNumeric(view, at, chunk.measures[name], row)
  }
  return chunk
}

/**
 * A numeric of at most fifteen decimals: groups of four decimal digits, `weight` being the power of 10 000 of the first.
 * Gives whole 10⁻⁶ parts and the 10⁻¹⁵ parts left, each exact in a float. A null counts as zero.
 */
function readNumeric(view: DataView, at: number, into: { high: Float64Array, low: Float64Array }, row: number): number {
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
