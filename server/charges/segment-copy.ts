import type { EncodedSegment } from './segment-builder'

// PostgreSQL's binary COPY: a signature, flags and an extension, both empty; then rows; then a count of −1.
/** What a binary copy begins with. */
const COPY_HEAD = Buffer.from('PGCOPY\n\xFF\r\n\0\0\0\0\0\0\0\0\0', 'latin1')
/** Seconds from 1970 to 2000, where PostgreSQL's time begins. */
const EPOCH_2000 = 946_684_800

/** One row for `COPY charge_segment FROM … (FORMAT binary)`: load, period, number, rows, bytes. */
export function segmentCopy(loadId: number, { periodStart, number, rows, bytes }: EncodedSegment): Uint8Array {
  const b = Buffer.alloc(COPY_HEAD.length + 2 + 8 + 12 + 8 + 8 + 4 + bytes.length + 2)
  let at = COPY_HEAD.copy(b)
  const int = (value: number) => {
    at = b.writeInt32BE(value, b.writeInt32BE(4, at))
  }
  at = b.writeInt16BE(5, at)
  int(loadId)
  at = b.writeBigInt64BE(BigInt(periodStart - EPOCH_2000) * 1_000_000n, b.writeInt32BE(8, at))
  int(number)
  int(rows)
  at = b.writeInt32BE(bytes.length, at)
  b.set(bytes, at)
  b.writeInt16BE(-1, at + bytes.length)
  return b
}
