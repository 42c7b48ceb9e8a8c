import type { TakenCharge } from '../../core/focus/intake'
import { COPY_HEAD, EPOCH_2000 } from './binary-copy'

const FIELDS = 20
/** A row at its longest: a count, four times and numbers of fixed width, nine keys, six numerics of at most eight groups. */
const ROW_BYTES = 2 + 8 + 3 * 12 + 7 + 9 * 8 + 6 * (4 + 8 + 16)

/** Writes charges for `COPY charge FROM … (FORMAT binary)`, in the order of the table's columns. */
export class ChargeCopy {
  rows = 0
  #bytes = new Uint8Array(1 << 20)
  #view = new DataView(this.#bytes.buffer)
  #at = 0

  constructor(private readonly loadId: number) {
    this.#begin()
  }

  #begin(): void {
    this.#bytes.set(COPY_HEAD)
    this.#at = COPY_HEAD.length
    this.rows = 0
  }

  add(charge: TakenCharge): void {
    if (this.#at + ROW_BYTES + 2 > this.#bytes.length) this.#widen()
    const view = this.#view
    let at = this.#at
    view.setInt16(at, FIELDS)
    at = int(view, this.loadId, at + 2)
    at = time(view, charge.times.BillingPeriodStart, at)
    at = time(view, charge.times.ChargePeriodStart, at)
    at = time(view, charge.times.ChargePeriodEnd, at)
    view.setInt32(at, 3)
    for (let i = 0; i < 3; i++) view.setUint8(at + 4 + i, charge.currency.charCodeAt(i))
    at += 7
    const { keys, high, low, present } = charge
    for (let i = 0; i < keys.length; i++) at = int(view, keys[i]!, at)
    for (let i = 0; i < high.length; i++) {
      if (present[i]) at = numeric(view, high[i]!, low[i]!, at)
      else {
        view.setInt32(at, -1)
        at += 4
      }
    }
    this.#at = at
    this.rows++
  }

  #widen(): void {
    const bytes = new Uint8Array(this.#bytes.length * 2)
    bytes.set(this.#bytes)
    this.#bytes = bytes
    this.#view = new DataView(bytes.buffer)
  }

  /** The rows so far as one copy; begins anew. */
  take(): Uint8Array {
    this.#view.setInt16(this.#at, -1)
    const taken = this.#bytes.slice(0, this.#at + 2)
    this.#begin()
    return taken
  }
}

function int(view: DataView, value: number, at: number): number {
  view.setInt32(at, 4)
  view.setInt32(at + 4, value)
  return at + 8
}

function time(view: DataView, seconds: number, at: number): number {
  const micros = (seconds - EPOCH_2000) * 1e6
  const high = Math.floor(micros / 4_294_967_296)
  view.setInt32(at, 8)
  view.setInt32(at + 4, high)
  view.setUint32(at + 8, micros - high * 4_294_967_296)
  return at + 12
}

const groups = new Uint16Array(8)

/** A numeric of fifteen decimals: groups of four decimal digits, the weight being the power of 10 000 of the first. */
function numeric(view: DataView, high: number, low: number, at: number): number {
  const negative = high < 0 || low < 0
  const h = Math.abs(high)
  const l = Math.abs(low)
  const whole = Math.floor(h / 1e6)
  const micro = h - whole * 1e6
  groups[0] = Math.floor(whole / 1e8)
  groups[1] = Math.floor(whole / 1e4) % 1e4
  groups[2] = whole % 1e4
  groups[3] = Math.floor(micro / 100)
  groups[4] = (micro % 100) * 100 + Math.floor(l / 1e7)
  groups[5] = Math.floor(l / 1e3) % 1e4
  groups[6] = (l % 1e3) * 10
  let first = 0
  while (first < 7 && groups[first] === 0) first++
  let last = 7
  while (last > first && groups[last - 1] === 0) last--
  const count = last - first
  view.setInt32(at, 8 + count * 2)
  view.setInt16(at + 4, count)
  view.setInt16(at + 6, count ? 2 - first : 0)
  view.setUint16(at + 8, negative && count ? 0x4000 : 0)
  view.setUint16(at + 10, 15)
  at += 12
  for (let i = first; i < last; i++, at += 2) view.setUint16(at, groups[i]!)
  return at
}
