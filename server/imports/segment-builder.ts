import { numberColumns, type TakenCharge } from '../../core/focus/intake'
import { dictionaryNames } from '../../core/focus/star'
import { finishSegment, measureColumn, measureNames, SEGMENT_ROWS, type Segment } from '../../core/spend/segment'
import { encodeSegment } from '../engine/segment-codec'

/** A segment's bytes, which billing period it belongs to (seconds since 1970) and its number within it. */
export type EncodedSegment = { periodStart: number, number: number, rows: number, bytes: Uint8Array }

// the intake's numbers stand in the order of FOCUS columns, a segment's measures in the order of their names: billedCost is BilledCost
const placeOf = measureNames.map(name => numberColumns.findIndex(column => column.toLowerCase() === name.toLowerCase()))

type Open = { rows: number, number: number, startHour: Int32Array, currency: Uint8Array, keys: Int32Array[], high: Float64Array[], low: Int32Array[] }

const open = (number: number): Open => ({
  rows: 0, number, startHour: new Int32Array(SEGMENT_ROWS), currency: new Uint8Array(SEGMENT_ROWS),
  keys: dictionaryNames.map(() => new Int32Array(SEGMENT_ROWS)), high: measureNames.map(() => new Float64Array(SEGMENT_ROWS)), low: measureNames.map(() => new Int32Array(SEGMENT_ROWS)),
})

/** Fills the columns of each billing period as charges come and gives full segments away as bytes. */
export class SegmentBuilder {
  #open = new Map<number, Open>()
  #currencies: string[] = []
  #full: EncodedSegment[] = []

  add(charge: TakenCharge): void {
    const period = charge.times.BillingPeriodStart
    let segment = this.#open.get(period)
    if (!segment) {
      segment = open(0)
      this.#open.set(period, segment)
    }
    const row = segment.rows++
    segment.startHour[row] = Math.floor(charge.times.ChargePeriodStart / 3600)
    let currency = this.#currencies.indexOf(charge.currency)
    if (currency < 0) currency = this.#currencies.push(charge.currency) - 1
    segment.currency[row] = currency
    for (let i = 0; i < segment.keys.length; i++) segment.keys[i]![row] = charge.keys[i]!
    for (let i = 0; i < measureNames.length; i++) {
      segment.high[i]![row] = charge.high[placeOf[i]!]!
      segment.low[i]![row] = charge.low[placeOf[i]!]!
    }
    if (segment.rows === SEGMENT_ROWS) {
      this.#close(period, segment)
      this.#open.set(period, open(segment.number + 1))
    }
  }

  #close(periodStart: number, { rows, number, startHour, currency, keys, high, low }: Open): void {
    if (!rows) return
    const cut = <T extends Int32Array | Float64Array | Uint8Array>(column: T) => column.subarray(0, rows) as T
    const segment: Segment = finishSegment({
      rows, startHour: cut(startHour), currency: cut(currency),
      keys: Object.fromEntries(dictionaryNames.map((name, i) => [name, cut(keys[i]!)])) as Segment['keys'],
      measures: Object.fromEntries(measureNames.map((name, i) => [name, measureColumn(cut(high[i]!), cut(low[i]!))])) as Segment['measures'],
    })
    this.#full.push({ periodStart, number, rows, bytes: encodeSegment(segment, this.#currencies) })
  }

  /** Segments that are full. */
  takeFull(): EncodedSegment[] {
    const taken = this.#full
    this.#full = []
    return taken
  }

  /** Everything that is left, full or not. */
  finish(): EncodedSegment[] {
    for (const [period, segment] of this.#open) this.#close(period, segment)
    this.#open.clear()
    return this.takeFull()
  }
}
