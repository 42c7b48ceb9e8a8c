import { decodeUtf8 } from '../../server/imports/readers/csv'
import { readerFor } from '../../server/imports/readers'
import type { ReadOptions } from '../../server/imports/readers/reader'

/** Reads the header and the first rows of a file of any format, as texts. */
export async function readRecords(path: string, most = Infinity, options: ReadOptions = {}): Promise<string[][]> {
  const records: string[][] = []
  const target = {
    compares: false,
    begin: (header: string[]) => records.push(header) > 0,
    bytes: (bytes: Uint8Array, cells: number, starts: Int32Array, ends: Int32Array) => {
      if (records.length <= most)
        records.push(Array.from({ length: cells }, (_, i) => decodeUtf8(bytes.subarray(starts[i]!, ends[i]!)) ?? '\uFFFD'))
    },
    texts: (cells: string[]) => {
      if (records.length <= most) records.push([...cells])
    },
  }
  for await (const _ of readerFor(path).read(path, target, options)) if (records.length > most) break
  return records
}
