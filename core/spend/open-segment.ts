import { dictionaryNames, type DictionaryName } from '../focus/star'
import type { Scaled } from '../money/scaled'
import { limbsOf } from '../money/limbs'
import {
  ABSENT,
  finishSegment,
  measureColumn,
  measureNames,
  SEGMENT_ROWS,
  type Beyond,
  type KeyColumn,
  type MeasureName,
  type Segment,
} from './segment'

const FIRST_ROOM = 2048
/** Ids up to here are looked up in an array; beyond it, which no database of ours reaches, in a map. */
const MOST_IN_ARRAY = 1 << 22

/** The columns of a segment while they are filled, charge by charge. */
export class OpenSegment {
  rows = 0
  #room = FIRST_ROOM
  #time = new Uint16Array(FIRST_ROOM)
  #starts: number[] = []
  #ends: number[] = []
  #places = new Map<number, Map<number, number>>()
  #currency = new Uint8Array(FIRST_ROOM)
  #absent = new Uint8Array(FIRST_ROOM)
  #keys = dictionaryNames.map(() => new Int32Array(FIRST_ROOM))
  #high = measureNames.map(() => new Float64Array(FIRST_ROOM))
  #low = measureNames.map(() => new Int32Array(FIRST_ROOM))
  #beyond: (Beyond | null)[] = measureNames.map(() => null)

  /**
   * Adds a charge. The caller sees to it that there are at most SEGMENT_ROWS.
   * @param start and `end` of the charge period in seconds since 1970.
   * @param currency a code of the caller's.
   * @param keys dictionary ids in the order of `dictionaryNames`.
   * @param absent bits of `ABSENT`.
   */
  add(start: number, end: number, currency: number, keys: ArrayLike<number>, absent: number): number {
    if (this.rows === this.#room) this.#widen()
    const row = this.rows++
    this.#time[row] = this.#place(start, end)
    this.#currency[row] = currency
    this.#absent[row] = absent
    for (let i = 0; i < this.#keys.length; i++) this.#keys[i]![row] = keys[i]!
    return row
  }

  /** Sets a measure of a row, by its place in `measureNames`. */
  setMeasure(measure: number, row: number, high: number, low: number): void {
    this.#high[measure]![row] = high
    this.#low[measure]![row] = low
  }

  /** Sets what of an amount is beyond two limbs; rows come in order. */
  setBeyond(measure: number, row: number, parts: number): void {
    const beyond = (this.#beyond[measure] ??= { rows: [], parts: [] })
    beyond.rows.push(row)
    beyond.parts.push(parts)
  }

  #lastStart = NaN
  #lastEnd = NaN
  #lastPlace = 0

  #place(start: number, end: number): number {
    if (start === this.#lastStart && end === this.#lastEnd) return this.#lastPlace
    let ends = this.#places.get(start)
    if (!ends) this.#places.set(start, (ends = new Map()))
    let place = ends.get(end)
    if (place === undefined) {
      place = this.#starts.push(start) - 1
      this.#ends.push(end)
      ends.set(end, place)
    }
    this.#lastStart = start
    this.#lastEnd = end
    this.#lastPlace = place
    return place
  }

  #widen(): void {
    this.#room = Math.min(SEGMENT_ROWS, this.#room * 4)
    const wider = <T extends Uint8Array | Uint16Array | Int32Array | Float64Array>(from: T): T => {
      const to = new (from.constructor as new (length: number) => T)(this.#room)
      to.set(from)
      return to
    }
    this.#time = wider(this.#time)
    this.#currency = wider(this.#currency)
    this.#absent = wider(this.#absent)
    this.#keys = this.#keys.map(wider)
    this.#high = this.#high.map(wider)
    this.#low = this.#low.map(wider)
  }

  /** The segment of what was added. Nothing may be added afterwards. */
  finish(): Segment {
    const { rows } = this
    return finishSegment({
      rows,
      time: { codes: this.#time.subarray(0, rows), starts: Float64Array.from(this.#starts), ends: Float64Array.from(this.#ends) },
      currency: this.#currency.subarray(0, rows),
      absent: this.#absent.subarray(0, rows),
      keys: Object.fromEntries(dictionaryNames.map((name, i) => [name, keyColumn(this.#keys[i]!.subarray(0, rows))])) as Segment['keys'],
      measures: Object.fromEntries(
        measureNames.map((name, i) => [
          name,
          measureColumn(this.#high[i]!.subarray(0, rows), this.#low[i]!.subarray(0, rows), this.#beyond[i]),
        ]),
      ) as Segment['measures'],
    })
  }
}

/** Where each id stands in the list being made, plus one; all zero between two columns. */
let placeOf = new Int32Array(1 << 12)

function keyColumn(values: Int32Array): KeyColumn {
  const codes = new Uint16Array(values.length)
  const ids: number[] = []
  let most = 0
  for (let row = 0; row < values.length; row++) if (values[row]! > most) most = values[row]!
  if (most >= MOST_IN_ARRAY) {
    const places = new Map<number, number>()
    values.forEach((id, row) => {
      if (!places.has(id)) places.set(id, ids.push(id) - 1)
      codes[row] = places.get(id)!
    })
    return { codes, ids: Int32Array.from(ids) }
  }
  if (most >= placeOf.length) placeOf = new Int32Array(Math.max(most + 1, placeOf.length * 2))
  for (let row = 0; row < values.length; row++) {
    const id = values[row]!
    let place = placeOf[id]!
    if (place === 0) placeOf[id] = place = ids.push(id)
    codes[row] = place - 1
  }
  for (const id of ids) placeOf[id] = 0
  return { codes, ids: Int32Array.from(ids) }
}

/** A charge as plain values. A measure that is left out is absent where it may be, else zero. */
export type SegmentRow = {
  start: number
  end: number
  currency: number
  keys: Record<DictionaryName, number>
  measures: Partial<Record<MeasureName, Scaled>>
}

/** Makes segments of plain rows; for small things, a load fills its columns by itself. */
export function segmentsOf(rows: readonly SegmentRow[]): Segment[] {
  const segments: Segment[] = []
  for (let from = 0; from < rows.length; from += SEGMENT_ROWS) {
    const open = new OpenSegment()
    for (const { start, end, currency, keys, measures } of rows.slice(from, from + SEGMENT_ROWS)) {
      const absent = measureNames.reduce((bits, name) => bits | (measures[name] === undefined ? (ABSENT[name] ?? 0) : 0), 0)
      const row = open.add(
        start,
        end,
        currency,
        dictionaryNames.map(name => keys[name]),
        absent,
      )
      measureNames.forEach((name, i) => {
        const { high, low, beyond } = limbsOf(measures[name] ?? 0n)
        open.setMeasure(i, row, high, low)
        if (beyond !== 0) open.setBeyond(i, row, beyond)
      })
    }
    segments.push(open.finish())
  }
  return segments
}
