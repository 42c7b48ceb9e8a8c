import { csvTable } from './csv'
import { jsonTable } from './json'
import { parquetTable } from './parquet'
import type { TableWriter } from './table-writer'
import { xlsxTable } from './xlsx'

/** All file formats for tables. */
export const tableWriters: readonly TableWriter[] = [csvTable, xlsxTable, parquetTable, jsonTable]
