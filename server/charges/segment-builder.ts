import { numberColumns, type TakenCharge } from '../../core/focus/intake/charge'
import { OpenSegment } from '../../core/spend/open-segment'
import { dictionaryNames, type DictionaryName } from '../../core/focus/star'
import { ABSENT, measureNames, SEGMENT_ROWS, type Segment } from '../../core/spend/segment'
import { encodeSegment } from './segment-codec'

/** A segment's bytes, which billing period it belongs to (seconds since 1970) and its number within it. */
export type EncodedSegment = { periodStart: number; number: number; rows: number; bytes: Uint8Array }
/** The same before its keys are the database's. */
export type FullSegment = { periodStart: number; number: number; segment: Segment }

// the intake's numbers stand in the order of FOCUS columns, a segment's measures in the order of their names: billedCost is BilledCost
const placeOf = measureNames.map(name => numberColumns.findIndex(column => column.toLowerCase() === name.toLowerCase()))
const absentBits = measureNames.map(name => ABSENT[name] ?? 0)

type Open = { number: number; columns: OpenSegment }

/** Fills the columns of each billing period as charges come and gives full segments away. */
export class SegmentBuilder {
  #open = new Map<number, Open>()
  #currencies: string[] = []
  #full: FullSegment[] = []

  add({ times, currency, keys, high, low, beyond, present }: TakenCharge): void {
    const period = times.BillingPeriodStart
    let open = this.#open.get(period)
    if (!open) this.#open.set(period, (open = { number: 0, columns: new OpenSegment() }))
    const { columns } = open
    let code = this.#currencies.indexOf(currency)
    if (code < 0) code = this.#currencies.push(currency) - 1
    let absent = 0
    for (let i = 0; i < placeOf.length; i++) if (!present[placeOf[i]!]) absent |= absentBits[i]!
    const row = columns.add(times.ChargePeriodStart, times.ChargePeriodEnd, code, keys, absent)
    for (let i = 0; i < placeOf.length; i++) {
      columns.setMeasure(i, row, high[placeOf[i]!]!, low[placeOf[i]!]!)
      if (beyond[placeOf[i]!] !== 0) columns.setBeyond(i, row, beyond[placeOf[i]!]!)
    }
    if (columns.rows === SEGMENT_ROWS) {
      this.#close(period, open)
      this.#open.set(period, { number: open.number + 1, columns: new OpenSegment() })
    }
  }

  #close(periodStart: number, { number, columns }: Open): void {
    if (columns.rows) this.#full.push({ periodStart, number, segment: columns.finish() })
  }

  /** Whether segments wait to be taken. */
  get anyFull(): boolean {
    return this.#full.length > 0
  }

  /** Segments that are full. */
  takeFull(): FullSegment[] {
    const taken = this.#full
    this.#full = []
    return taken
  }

  /** Everything that is left, full or not. */
  finish(): FullSegment[] {
    for (const [period, open] of this.#open) this.#close(period, open)
    this.#open.clear()
    return this.takeFull()
  }

  /** The bytes of a full segment. @param id gives a key of the charges the database's id. */
  encode({ periodStart, number, segment }: FullSegment, id: (name: DictionaryName, key: number) => number): EncodedSegment {
    const keys = Object.fromEntries(
      dictionaryNames.map(name => [name, { codes: segment.keys[name].codes, ids: segment.keys[name].ids.map(key => id(name, key)) }]),
    ) as Segment['keys']
    return { periodStart, number, rows: segment.rows, bytes: encodeSegment({ ...segment, keys }, this.#currencies) }
  }
}
