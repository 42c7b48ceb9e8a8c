/** The files that a table of Spend and charge lines leave as: contracts, menus and replies are made of it; the key ends the file's name. */
export const tableFormats = {
  csv: { label: 'CSV', mime: 'text/csv; charset=utf-8' },
  xlsx: { label: 'XLSX', mime: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet' },
  parquet: { label: 'Parquet', mime: 'application/vnd.apache.parquet' },
  json: { label: 'JSON', mime: 'application/json' },
} as const

/** One of these formats. */
export type TableFormat = keyof typeof tableFormats
export const tableFormatNames = Object.keys(tableFormats) as [TableFormat, ...TableFormat[]]
