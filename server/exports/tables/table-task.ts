import type { TableFormat } from '../../../shared/table-formats'
import type { SpendTableTask } from './spend-table'
import type { FileTable } from './table-writer'

/** What the thread that writes tables is given: a table, or what a table of spend is made of. */
export type TableTask = { format: TableFormat; table: FileTable } | { spend: SpendTableTask }
