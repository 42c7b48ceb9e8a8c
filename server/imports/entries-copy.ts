import type { NewEntry } from './entry-ids'

/** New dictionary entries as CSV for `COPY … FROM … (FORMAT csv, NULL '\N')`: id, hash, values in the dictionary's order. */
export function entriesCopy(entries: readonly NewEntry[]): Uint8Array {
  const cell = (value: string | null) => (value === null ? '\\N' : `"${value.replaceAll('"', '""')}"`)
  return Buffer.from(entries.map(({ id, digest, values }) => `${id},${[digest, ...values].map(cell).join()}\n`).join(''))
}
