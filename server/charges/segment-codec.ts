import { crc32 } from 'node:zlib'
import { dictionaryNames } from '../../core/focus/star'
import { finishSegment, measureColumn, measureNames, zeros, type Beyond, type Segment } from '../../core/spend/segment'

// A segment as bytes: how charges are kept. A checksum, the length of a head in JSON, the head, the columns. The head says how each column
// is written; whole numbers take as few bytes as the largest of the column needs, and a column that equals one before it none.

type Column = Uint8Array | Uint16Array | Int32Array | Float64Array
type Written = { kind: 'u8' | 'u16' | 'i32' | 'f64' | 'zero'; at: number; length: number } | { kind: 'same'; as: number }
/** Version 3 is the second with amounts that two limbs do not hold, by their place in `measureNames`. */
type Head = { version: 2 | 3; rows: number; currencies: string[]; columns: Written[]; beyond?: (Beyond | null)[] }

const kinds = { u8: Uint8Array, u16: Uint16Array, i32: Int32Array, f64: Float64Array } as const
const align = (at: number) => (at + 7) & ~7

function kindFor(values: Column): Exclude<Written['kind'], 'same'> {
  let least = 0
  let most = 0
  for (let i = 0; i < values.length; i++) {
    const value = values[i]!
    if (value < least) least = value
    if (value > most) most = value
  }
  if (least === 0 && most === 0) return 'zero'
  if (least >= 0 && most < 256) return 'u8'
  if (least >= 0 && most < 65_536) return 'u16'
  return least >= -2_147_483_648 && most <= 2_147_483_647 ? 'i32' : 'f64'
}

function equal(a: Column, b: Column): boolean {
  if (a.length !== b.length || a.constructor !== b.constructor) return false
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false
  return true
}

/** @param currencies the list that `segment.currency` counts in. */
export function encodeSegment(segment: Segment, currencies: readonly string[]): Uint8Array {
  const columns = columnsOf(segment)
  const written: Written[] = []
  let at = 0
  columns.forEach((column, i) => {
    const kind = kindFor(column)
    // costs often equal each other row by row
    const as = kind === 'zero' ? -1 : columns.findIndex((before, k) => k < i && column.length === segment.rows && equal(before, column))
    if (as >= 0) {
      written.push({ kind: 'same', as })
      return
    }
    written.push({ kind, at, length: column.length })
    if (kind !== 'zero') at = align(at + column.length * kinds[kind].BYTES_PER_ELEMENT)
  })
  const beyond = measureNames.map(name => segment.measures[name].beyond)
  const isBeyond = beyond.some(list => list !== null)
  const said: Head = { version: isBeyond ? 3 : 2, rows: segment.rows, currencies: [...currencies], columns: written }
  const head = Buffer.from(JSON.stringify(isBeyond ? { ...said, beyond } : said))
  const start = align(8 + head.length)
  const bytes = new Uint8Array(start + at)
  const view = new DataView(bytes.buffer)
  view.setUint32(4, head.length)
  bytes.set(head, 8)
  columns.forEach((column, i) => {
    const how = written[i]!
    if (how.kind !== 'zero' && how.kind !== 'same') new kinds[how.kind](bytes.buffer, start + how.at, how.length).set(column)
  })
  view.setUint32(0, crc32(bytes.subarray(4)))
  return bytes
}

/** Reads a segment; null when the bytes are damaged or of another version. */
export function decodeSegment(bytes: Uint8Array, currencyCode: (currency: string) => number): Segment | null {
  const own = new Uint8Array(bytes) // typed arrays want their bytes aligned
  const view = new DataView(own.buffer)
  if (own.length < 8 || crc32(own.subarray(4)) !== view.getUint32(0)) return null
  const headBytes = view.getUint32(4)
  const head = JSON.parse(Buffer.from(own.buffer, 8, headBytes).toString()) as Head
  if (head.version !== 2 && head.version !== 3) return null
  const start = align(8 + headBytes)
  const { rows } = head
  const done: Column[] = []
  const next = <T extends Column>(make: new (length: number) => T, zero?: T): T => {
    const how = head.columns[done.length]!
    let column: T
    if (how.kind === 'same') column = done[how.as] as T
    else if (how.kind === 'zero' && zero) column = zero
    else {
      column = new make(how.length)
      if (how.kind !== 'zero') column.set(new kinds[how.kind](own.buffer, start + how.at, how.length))
    }
    done.push(column)
    return column
  }
  const time = { codes: next(Uint16Array, zeros.codes), starts: next(Float64Array), ends: next(Float64Array) }
  const currency = next(Uint8Array, zeros.bytes)
  const codes = head.currencies.map(currencyCode)
  const absent = next(Uint8Array, zeros.bytes)
  return finishSegment({
    rows,
    time,
    absent,
    currency: codes.every((code, i) => code === i) ? currency : currency.subarray(0, rows).map(code => codes[code]!),
    keys: Object.fromEntries(
      dictionaryNames.map(name => [name, { codes: next(Uint16Array, zeros.codes), ids: next(Int32Array) }]),
    ) as Segment['keys'],
    measures: Object.fromEntries(
      measureNames.map((name, i) => [
        name,
        measureColumn(next(Float64Array, zeros.high), next(Int32Array, zeros.low), head.beyond?.[i] ?? null),
      ]),
    ) as Segment['measures'],
  })
}

function columnsOf({ time, currency, absent, keys, measures }: Segment): Column[] {
  return [
    time.codes,
    time.starts,
    time.ends,
    currency,
    absent,
    ...dictionaryNames.flatMap(name => [keys[name].codes, keys[name].ids]),
    ...measureNames.flatMap(name => [measures[name].high, measures[name].low]),
  ]
}
