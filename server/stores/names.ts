import { getTableColumns, sql, type AnyColumn, type SQL } from 'drizzle-orm'
import type { PgTable } from 'drizzle-orm/pg-core'
import { person } from '../db/schema'

/** The name of the person whose id a column keeps; what is the id of nobody stays as it is. */
export const nameOf = (column: AnyColumn): SQL<string> =>
  sql<string>`coalesce((select p.name from ${person} p where p.id = ${column}), ${column})`

/** The columns of a table that keeps who did it, with the name of whoever that was. */
export const named = <T extends PgTable & { who: AnyColumn }>(table: T) => ({
  ...(getTableColumns(table) as unknown as Omit<T['_']['columns'], 'who'>),
  who: nameOf(table.who),
})
