import { z } from 'zod'
import { tableFormatNames } from '../table-formats'
import { namedRecord } from '../../core/text/named-record'
import { tableColumns } from '../../core/spend/table'
import { spendQuestion } from './spend'
import { day } from './common'

export const tableFormat = z.enum(tableFormatNames)

/** The table as it is shown: dimensions down the side, what runs across, further columns, and names for the heads. */
export const tableExport = z.object({
  question: spendQuestion,
  format: tableFormat,
  currency: z.string(),
  across: z.string().nullable().default(null),
  columns: z.array(z.enum(tableColumns)).default([]),
  before: z
    .object({ start: day, end: day, ends: namedRecord(day).optional() })
    .nullable()
    .default(null),
  title: z.string().max(500).default('Spend'),
  /** The table, or what there is to know beside it as a text: for formats that cannot hold it. */
  part: z.enum(['table', 'notes']).default('table'),
})

/** The charge lines behind what is shown, with chosen FOCUS columns. */
export const linesExport = z.object({ question: spendQuestion, columns: z.array(z.string()).min(1).max(80), format: tableFormat })
/** About how many bytes a cell takes in CSV, by what the demo's charges take. */
export const CSV_CELL_BYTES = 14
/** How many lines an export would have, and about how many bytes as CSV. */
export const linesSize = z.object({ rows: z.number(), bytes: z.number(), columns: z.array(z.string()) })
