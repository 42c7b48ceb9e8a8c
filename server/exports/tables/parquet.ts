import { parquetWriteBuffer } from 'hyparquet-writer'
import type { ColumnSource, ParquetWriteOptions } from 'hyparquet-writer'
import { uniqueNames, type FileHead, type TableWriter } from './table-writer'

type Schema = NonNullable<ParquetWriteOptions['schema']>[number]

/** Digits of a decimal in all, and after the point at least: what amounts are kept with. */
const PRECISION = 38
const LEAST_DIGITS = 15

/**
 * Parquet: amounts and shares as decimals of 38 digits, as many after the point as the finest of the column has, times as timestamps in
 * UTC, texts as UTF-8. The total is not a row; what there is to know beside the figures is the file's metadata.
 */
export const parquetTable: TableWriter = {
  async write({ title, facts, heads, rows }) {
    const names = uniqueNames(heads.map(head => head.name))
    const columns = heads.map((head, i) => column(head, names[i]!, rows, i))
    return new Uint8Array(
      parquetWriteBuffer({
        schema: [{ name: 'root', num_children: heads.length }, ...columns.map(({ schema }) => schema)],
        columnData: columns.map(({ source }) => source),
        kvMetadata: [{ key: 'title', value: title }, ...facts.map(({ name, text }) => ({ key: name, value: text }))],
        statistics: false,
      }),
    )
  },
}

function column({ kind }: FileHead, name: string, rows: (string | null)[][], i: number): { schema: Schema; source: ColumnSource } {
  const cells = rows.map(row => row[i] ?? null)
  const optional = { name, repetition_type: 'OPTIONAL' as const }
  if (kind === 'text') return { schema: { ...optional, type: 'BYTE_ARRAY', converted_type: 'UTF8' }, source: { name, data: cells } }
  if (kind === 'time')
    return {
      schema: { ...optional, type: 'INT64', logical_type: { type: 'TIMESTAMP', isAdjustedToUTC: true, unit: 'MILLIS' } },
      source: { name, data: cells.map(cell => (cell === null ? null : new Date(cell))) },
    }
  const scale = cells.reduce((most, cell) => Math.max(most, digitsAfterPoint(cell)), LEAST_DIGITS)
  return {
    schema: { ...optional, type: 'FIXED_LEN_BYTE_ARRAY', type_length: 16, converted_type: 'DECIMAL', scale, precision: PRECISION },
    source: { name, data: cells.map(cell => (cell === null ? null : wholeUnits(cell, scale))) },
  }
}

const digitsAfterPoint = (cell: string | null) => {
  const point = cell?.indexOf('.') ?? -1
  return point < 0 ? 0 : cell!.length - point - 1
}

/** A plain decimal text in units of its last digit. */
function wholeUnits(text: string, scale: number): bigint {
  const [whole, fraction = ''] = text.split('.') as [string, string?]
  return BigInt(whole + fraction.padEnd(scale, '0'))
}
