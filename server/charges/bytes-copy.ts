// PostgreSQL's binary COPY: an 11-byte signature, flags, an extension; then per row a count of fields and for each its length and bytes.
const SIGNATURE_BYTES = 11

/** Reads a copy whose rows are a single `bytea` each. */
export function readBytesCopy(bytes: Uint8Array): Uint8Array[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const found: Uint8Array[] = []
  let at = SIGNATURE_BYTES + 4
  at += 4 + view.getInt32(at)
  while (view.getInt16(at) !== -1) {
    const length = view.getInt32(at + 2)
    found.push(bytes.subarray(at + 6, at + 6 + length))
    at += 6 + length
  }
  return found
}
