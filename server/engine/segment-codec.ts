import { crc32 } from 'node:zlib'
import { dictionaryNames } from '../../core/focus/star'
import { finishSegment, measureColumn, measureNames, type Segment } from '../../core/spend/segment'

// A segment as bytes: derived data, kept beside the charges so that the columns in memory are there at once after a start.
// A head in JSON says how each column is written; whole numbers take as few bytes as the largest of the column needs.

type Written = { kind: 'u8' | 'u16' | 'i32' | 'f64' | 'zero', at: number }
type Head = { version: 1, rows: number, currencies: string[], columns: Written[] }

const kinds = { u8: Uint8Array, u16: Uint16Array, i32: Int32Array, f64: Float64Array } as const
const align = (at: number) => (at + 7) & ~7

function kindFor(values: ArrayLike<number>, rows: number): Written['kind'] {
  let least = 0
  let most = 0
  for (let i = 0; i < rows; i++) {
    const value = values[i]!
    if (value < least) least = value
    if (value > most) most = value
  }
  if (least === 0 && most === 0) return 'zero'
  if (least >= 0 && most < 256) return 'u8'
  if (least >= 0 && most < 65_536) return 'u16'
  return least >= -2_147_483_648 && most <= 2_147_483_647 ? 'i32' : 'f64'
}

/** @param currencies the cube's, or the load's, list that `segment.currency` counts in. */
export function encodeSegment(segment: Segment, currencies: readonly string[]): Uint8Array {
  const columns = columnsOf(segment)
  const written: Written[] = []
  let at = 0
  for (const column of columns) {
    const kind = kindFor(column, segment.rows)
    written.push({ kind, at })
    if (kind !== 'zero') at = align(at + segment.rows * kinds[kind].BYTES_PER_ELEMENT)
  }
  const head = Buffer.from(JSON.stringify({ version: 1, rows: segment.rows, currencies: [...currencies], columns: written } satisfies Head))
  const start = align(8 + head.length)
  const bytes = new Uint8Array(start + at)
  const view = new DataView(bytes.buffer)
  view.setUint32(4, head.length)
  bytes.set(head, 8)
  columns.forEach((column, i) => {
    const { kind, at } = written[i]!
    if (kind !== 'zero') new kinds[kind](bytes.buffer, start + at, segment.rows).set(column.length === segment.rows ? column : column.subarray(0, segment.rows))
  })
  view.setUint32(0, crc32(bytes.subarray(4)))
  return bytes
}

/** Reads a segment; null when the bytes are damaged or of another version: then the charges themselves have to be read. */
export function decodeSegment(bytes: Uint8Array, currencyCode: (currency: string) => number): Segment | null {
  const own = new Uint8Array(bytes) // typed arrays want their bytes aligned
  const view = new DataView(own.buffer)
  if (own.length < 8 || crc32(own.subarray(4)) !== view.getUint32(0)) return null
  const headBytes = view.getUint32(4)
  const head = JSON.parse(Buffer.from(own.buffer, 8, headBytes).toString()) as Head
  if (head.version !== 1 || head.columns.length !== 2 + dictionaryNames.length + measureNames.length * 2) return null
  const start = align(8 + headBytes)
  const { rows } = head
  const column = <T extends Int32Array | Float64Array | Uint8Array>(i: number, into: T): T => {
    const { kind, at } = head.columns[i]!
    if (kind !== 'zero') into.set(new kinds[kind](own.buffer, start + at, rows))
    return into
  }
  const codes = head.currencies.map(currencyCode)
  let next = 2
  return finishSegment({
    rows,
    startHour: column(0, new Int32Array(rows)),
    currency: column(1, new Uint8Array(rows)).map(code => codes[code]!),
    keys: Object.fromEntries(dictionaryNames.map(name => [name, column(next++, new Int32Array(rows))])) as Segment['keys'],
    measures: Object.fromEntries(measureNames.map(name => [name, measureColumn(column(next++, new Float64Array(rows)), column(next++, new Int32Array(rows)))])) as Segment['measures'],
  })
}

function columnsOf({ startHour, currency, keys, measures }: Segment): (Int32Array | Uint8Array | Float64Array)[] {
  return [startHour, currency, ...dictionaryNames.map(name => keys[name]), ...measureNames.flatMap(name => [measures[name].high, measures[name].low])]
}
