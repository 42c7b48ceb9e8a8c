import type { TakenCharge } from '../../core/focus/intake'

// PostgreSQL's binary COPY: a signature, flags, an extension; then per row a count of fields and for each its length and bytes; a trailer of −1.
const HEAD = Buffer.from('PGCOPY\n\xFF\r\n\0\0\0\0\0\0\0\0\0', 'latin1')
/** Seconds from 1970 to 2000, where PostgreSQL's time begins. */
const EPOCH_2000 = 946_684_800
const FIELDS = 20
/** A row at its longest: a count, four times and numbers of fixed width, nine keys, six numerics of at most eight groups. */
const ROW_BYTES = 2 + 8 + 3 * 12 + 7 + 9 * 8 + 6 * (4 + 8 + 16)

/** Writes charges for `COPY charge FROM … (FORMAT binary)`, in the order of the table's columns. */
export class ChargeCopy {
  rows = 0
  #bytes = Buffer.allocUnsafe(1 << 20)
  #at = 0

  constructor(private readonly loadId: number) {
    this.#begin()
  }

  #begin(): void {
    this.#at = HEAD.copy(this.#bytes, 0)
    this.rows = 0
  }

  add(charge: TakenCharge): void {
    if (this.#at + ROW_BYTES + 2 > this.#bytes.length) this.#bytes = Buffer.concat([this.#bytes, Buffer.allocUnsafe(this.#bytes.length)])
    const b = this.#bytes
    let at = b.writeInt16BE(FIELDS, this.#at)
    at = int(b, this.loadId, at)
    at = time(b, charge.times.BillingPeriodStart, at)
    at = time(b, charge.times.ChargePeriodStart, at)
    at = time(b, charge.times.ChargePeriodEnd, at)
    at = b.writeInt32BE(3, at)
    at += b.write(charge.currency, at, 'latin1')
    for (const key of charge.keys) at = int(b, key, at)
    for (let i = 0; i < charge.high.length; i++) at = charge.present[i] ? numeric(b, charge.high[i]!, charge.low[i]!, at) : b.writeInt32BE(-1, at)
    this.#at = at
    this.rows++
  }

  /** The rows so far as one copy; begins anew. */
  take(): Uint8Array {
    const end = this.#bytes.writeInt16BE(-1, this.#at)
    const taken = Uint8Array.from(this.#bytes.subarray(0, end))
    this.#begin()
    return taken
  }
}

function int(b: Buffer, value: number, at: number): number {
  return b.writeInt32BE(value, b.writeInt32BE(4, at))
}

function time(b: Buffer, seconds: number, at: number): number {
  const micros = (seconds - EPOCH_2000) * 1e6
  const high = Math.floor(micros / 4_294_967_296)
  return b.writeUInt32BE(micros - high * 4_294_967_296, b.writeInt32BE(high, b.writeInt32BE(8, at)))
}

const groups = new Uint16Array(8)

/** A numeric of fifteen decimals: groups of four decimal digits, the weight being the power of 10 000 of the first. */
function numeric(b: Buffer, high: number, low: number, at: number): number {
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
  at = b.writeInt32BE(8 + count * 2, at)
  at = b.writeInt16BE(count, at)
  at = b.writeInt16BE(count ? 2 - first : 0, at)
  at = b.writeUInt16BE(negative && count ? 0x4000 : 0, at)
  at = b.writeUInt16BE(15, at)
  for (let i = first; i < last; i++) at = b.writeUInt16BE(groups[i]!, at)
  return at
}
