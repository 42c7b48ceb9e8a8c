import { open } from 'node:fs/promises'
import { parquetMetadataAsync, parquetRead, type FileMetaData } from 'hyparquet'
import { compressors } from 'hyparquet-compressors'
import { decodeUtf8 } from './csv'
import { unpackLz4 } from './lz4'
import { NOT_UTF8, unreadable, UnreadableFile, type FileReader, type RowTarget } from './reader'

const MAGIC = Buffer.from('PAR1')

/** Parquet (snappy, gzip, zstd and the other codecs), a row group at a time, column chunk by column chunk. Decimals keep every digit. */
export const parquetReader: FileReader = {
  format: 'Parquet',
  recognises: head => MAGIC.every((byte, i) => head[i] === byte),
  read: readParquet,
}

/** The library's LZ4 knows two of the ways in which engines frame it. */
const codecs = { ...compressors, LZ4: unpackLz4 }

type ToText = (value: unknown) => string

async function* readParquet(path: string, target: RowTarget): AsyncGenerator<number> {
  const handle = await open(path, 'r')
  try {
    const { size } = await handle.stat()
    const file = {
      byteLength: size,
      async slice(start: number, end = size) {
        const bytes = Buffer.alloc(end - start)
        await handle.read(bytes, 0, bytes.length, start)
        return bytes.buffer as ArrayBuffer
      },
    }
    const metadata = await parquetMetadataAsync(file)
    const columns = topColumns(metadata)
    const texts = columns.map(({ index }) => toText(metadata, index))
    if (!target.begin(columns.map(column => column.name))) return
    let start = 0
    for (const [number, group] of metadata.row_groups.entries()) {
      const rows = rowsOf(group, number)
      const values: ArrayLike<unknown>[] = []
      for (const { name } of columns) values.push(await readColumn(file, metadata, name, start, rows))
      const cells = columns.map(() => '')
      for (let row = 0; row < rows; row++) {
        for (let i = 0; i < cells.length; i++) cells[i] = texts[i]!(values[i]![row])
        target.texts(cells)
        if (row % 20_000 === 19_999) yield share(size, metadata, start + row)
      }
      start += rows
      yield number === metadata.row_groups.length - 1 ? size : share(size, metadata, start)
    }
  } catch (error) {
    if (error instanceof UnreadableFile) throw error
    if (error instanceof Error && !('code' in error))
      throw unreadable(null, 'the file cannot be read as Parquet: it is damaged, cut off or none', 'Export it again, or export it as CSV.')
    throw error
  } finally {
    await handle.close()
  }
}

/** So many rows are held at once at most: engines write a million in a group. */
const MOST_ROWS = 20_000_000

/** The rows of a row group, held against what its columns say they have before anything is made for them. */
function rowsOf({ num_rows, columns }: FileMetaData['row_groups'][number], number: number): number {
  const rows = Number(num_rows)
  const place = `row group ${number + 1}`
  if (rows > MOST_ROWS)
    throw unreadable(
      null,
      `${place} says that it has ${rows} rows, more than are read at once`,
      `Export it again with at most ${MOST_ROWS} rows in a group, or as CSV.`,
    )
  if (!(rows >= 0) || columns.some(({ meta_data }) => !meta_data || Number(meta_data.num_values) < rows))
    throw unreadable(null, `damaged: ${place} says that it has ${rows} rows, and its columns have fewer`, 'Copy or export it again.')
  return rows
}

const share = (size: number, metadata: FileMetaData, rows: number) => Math.floor((size * rows) / Math.max(1, Number(metadata.num_rows)))

async function readColumn(
  file: Parameters<typeof parquetRead>[0]['file'],
  metadata: FileMetaData,
  name: string,
  start: number,
  rows: number,
): Promise<ArrayLike<unknown>> {
  const values: unknown[] = []
  await parquetRead({
    file,
    metadata,
    columns: [name],
    rowStart: start,
    rowEnd: start + rows,
    compressors: codecs,
    utf8: false,
    parsers: {
      jsonFromBytes: bytes => bytes && (decodeUtf8(bytes) ?? bytes),
      stringFromBytes: bytes => bytes && (decodeUtf8(bytes) ?? bytes),
    },
    onChunk({ columnData, rowStart }) {
      for (let i = 0; i < columnData.length; i++) {
        const at = rowStart + i - start
        if (at >= 0 && at < rows) values[at] = columnData[i]
      }
    },
  })
  if (values.length < rows)
    throw unreadable(null, `damaged: the column ${name} ends after ${start + values.length} rows`, 'Copy or export it again.')
  return values
}

/** Columns of the table itself with their place in the schema; a nested one is a single column. */
function topColumns({ schema }: FileMetaData): { name: string; index: number }[] {
  const columns: { name: string; index: number }[] = []
  let index = 1
  const skip = (at: number): number => {
    let next = at + 1
    for (let child = 0; child < (schema[at]!.num_children ?? 0); child++) next = skip(next)
    return next
  }
  while (index < schema.length) {
    columns.push({ name: schema[index]!.name, index })
    index = skip(index)
  }
  return columns
}

/** How a column's values become text. A decimal's annotation is taken off, so that its whole number comes instead of a float. */
function toText({ schema }: FileMetaData, index: number): ToText {
  const element = schema[index]!
  if (element.converted_type === 'DECIMAL' || element.logical_type?.type === 'DECIMAL') {
    const scale = element.scale ?? (element.logical_type?.type === 'DECIMAL' ? element.logical_type.scale : 0)
    delete element.converted_type
    delete element.logical_type
    return value =>
      value === null || value === undefined
        ? ''
        : unscaledText(value instanceof Uint8Array ? wholeNumber(value) : BigInt(value as number | bigint), scale)
  }
  return plainText
}

/** A whole number in two's complement, the largest byte first. */
function wholeNumber(bytes: Uint8Array): bigint {
  let value = 0n
  for (const byte of bytes) value = (value << 8n) | BigInt(byte)
  return BigInt.asIntN(bytes.length * 8, value)
}

function unscaledText(value: bigint, scale: number): string {
  const digits = (value < 0n ? -value : value).toString().padStart(scale + 1, '0')
  return `${value < 0n ? '-' : ''}${digits.slice(0, digits.length - scale)}${scale ? `.${digits.slice(digits.length - scale)}` : ''}`
}

function plainText(value: unknown): string {
  if (typeof value === 'string') return value
  if (value === null || value === undefined) return ''
  if (typeof value === 'number' || typeof value === 'bigint' || typeof value === 'boolean') return String(value)
  if (value instanceof Date) return Number.isNaN(value.getTime()) ? 'not a date' : value.toISOString().replace('.000Z', 'Z')
  if (value instanceof Uint8Array) return decodeUtf8(value) ?? NOT_UTF8
  if (Array.isArray(value) && value.every(pair => pair && typeof pair === 'object' && 'key' in pair))
    return JSON.stringify(Object.fromEntries((value as { key: string; value: unknown }[]).map(pair => [pair.key, pair.value])), bigints)
  return JSON.stringify(value, bigints)
}

const bigints = (_key: string, value: unknown) => (typeof value === 'bigint' ? value.toString() : value)
