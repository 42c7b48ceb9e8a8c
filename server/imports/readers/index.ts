import { openSync, readSync, closeSync } from 'node:fs'
import { csvReader } from './csv'
import { parquetReader } from './parquet'
import type { FileReader } from './reader'

/** All formats; the first that recognises a file reads it. */
export const readers: readonly FileReader[] = [parquetReader, csvReader]

/** The reader of a file, by its first bytes. */
export function readerFor(path: string): FileReader {
  const head = Buffer.alloc(8)
  const file = openSync(path, 'r')
  try {
    readSync(file, head, 0, head.length, 0)
  } finally {
    closeSync(file)
  }
  return readers.find(reader => reader.recognises(head))!
}
