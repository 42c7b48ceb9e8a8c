import type { TableFormat } from '../../../shared/table-formats'
import { csvTable } from './csv'
import { jsonTable } from './json'
import { parquetTable } from './parquet'
import type { TableWriter } from './table-writer'
import { xlsxTable } from './xlsx'

/** What writes each of the formats for tables. */
export const tableWriters: Record<TableFormat, TableWriter> = { csv: csvTable, xlsx: xlsxTable, parquet: parquetTable, json: jsonTable }
