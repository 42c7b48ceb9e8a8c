import type { Scaled } from '../money/scaled'
import { changeShareOf, shareOf } from '../money/share'
import type { SpendTable, TableHead } from './table'
import { sumCell, TableRow } from './table-row'

/** As `localeCompare`, made once. */
const byAlphabet = new Intl.Collator().compare

/** Which column the lines are in the order of: one of figures by size, or one of names by the alphabet. */
export type TableOrder = { column: string; down: boolean }
/** A line of the table: a row, or the sum of all rows that begin with the same values, which can be opened and closed. */
export type TableLine = { key: string; level: number; row: TableRow; open: boolean | null; count: number }

/** How the lines of a table are to stand. */
export type TableLook = {
  splitBy: readonly string[]
  order: TableOrder
  /** Sums that are closed, as JSON texts of their values. */
  closed: ReadonlySet<string>
  /** Whether rows add up to sums: prices do not. */
  adds: boolean
  /** How the value of a dimension in a row is called. */
  nameOf: (row: TableRow, dimension: number) => string
}

/** The rows of a table in order, nested by their dimensions below the sums of what begins with the same values. */
export function tableLines(table: SpendTable, look: TableLook): TableLine[] {
  return nest(table, orderedRows(table, look), look, 0, '[]')
}

function orderedRows({ heads, rows }: SpendTable, { splitBy, order, nameOf }: TableLook): TableRow[] {
  const place = splitBy.indexOf(order.column)
  const turn = order.down ? -1 : 1
  if (place < 0) return byNumber([...rows], row => row, heads, order)
  const names = new Map(rows.map(row => [row, nameOf(row, place)]))
  return [...rows].sort((a, b) => turn * byAlphabet(names.get(a)!, names.get(b)!))
}

/** Sorts by a column of figures, which are turned into numbers once. */
function byNumber<T>(list: T[], rowOf: (one: T) => TableRow, heads: readonly TableHead[], { column, down }: TableOrder): T[] {
  const place = heads.findIndex(head => head.id === column)
  const numbers = new Map(list.map(one => [one, Number(rowOf(one).cell(place) ?? '0')]))
  return list.sort((a, b) => (down ? -1 : 1) * (numbers.get(a)! - numbers.get(b)!))
}

function nest(table: SpendTable, rows: readonly TableRow[], look: TableLook, level: number, parent: string): TableLine[] {
  const { splitBy, adds, order, closed } = look
  if (!adds || level >= splitBy.length - 1)
    return rows.map(row => ({ key: JSON.stringify(row.values), level: adds ? level : 0, row, open: null, count: 1 }))
  const groups = new Map<string, TableRow[]>()
  for (const row of rows) {
    const key = JSON.stringify(row.values.slice(0, level + 1))
    const known = groups.get(key)
    if (known) known.push(row)
    else groups.set(key, [row])
  }
  const summed = [...groups].map(([key, members]) => ({ key, members, sum: sumOfRows(members, table, level + 1) }))
  if (!splitBy.includes(order.column)) byNumber(summed, ({ sum }) => sum, table.heads, order)
  return summed.flatMap(({ key, members, sum }): TableLine[] => {
    const open = !closed.has(key)
    const line = { key: `${parent}${key}`, level, row: sum, open, count: members.length }
    return [line, ...(open ? nest(table, members, look, level + 1, key) : [])]
  })
}

/**
 * The sum of rows that have their first so many values in common: amounts add; a share and a change are worked out anew from the sums, as
 * those of the rows are rounded. Null where no row has anything to say.
 */
export function sumOfRows(rows: readonly TableRow[], { heads, total }: SpendTable, values: number): TableRow {
  const [first] = rows as [TableRow, ...TableRow[]]
  let amount = 0n
  for (const { figure } of rows) amount += figure.sum
  const before = heads.findIndex(head => head.column === 'before')
  /** Null where no row says anything. */
  const sumAt = (place: number) => {
    let sum: Scaled | null = null
    for (const row of rows) {
      const own = row.amountAt(place)
      if (own !== null) sum = (sum ?? 0n) + own
    }
    return sum
  }
  const cell = (place: number) => {
    const { kind, column } = heads[place]!
    if (kind === 'text') return place < values ? first.cell(place) : null
    if (column === 'share') return shareOf(amount, total.figure.sum)
    const sum = column === 'changeShare' ? (before < 0 ? null : sumAt(before)) : sumAt(place)
    if (sum === null) return null
    return column === 'changeShare' ? changeShareOf(amount, sum) : sumCell(sum)
  }
  const wasThere = rows.some(row => row.wasThere)
  return new TableRow(first.values.slice(0, values), sumCell(amount), wasThere, heads.length, cell)
}
