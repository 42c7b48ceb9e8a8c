/** A table as it goes into a file: heads with what they hold, and cells as texts (amounts with every digit, null for nothing). */
export type FileTable = {
  title: string
  facts: string[]
  heads: { name: string; kind: 'text' | 'amount' | 'share' }[]
  rows: (string | null)[][]
  total: (string | null)[] | null
}

export type TableFormat = 'csv' | 'xlsx' | 'parquet' | 'json'

/** What a worksheet holds at most, its heading aside. */
export const MOST_SHEET_ROWS = 1_048_570

export const tableMimes: Record<TableFormat, string> = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  parquet: 'application/vnd.apache.parquet',
  json: 'application/json',
}

/** One file format for tables. */
export type TableWriter = { format: TableFormat; write: (table: FileTable) => Promise<Uint8Array> }
