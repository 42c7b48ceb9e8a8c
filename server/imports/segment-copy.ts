import type { EncodedSegment } from './segment-builder'
import { COPY_HEAD, EPOCH_2000 } from './binary-copy'

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
