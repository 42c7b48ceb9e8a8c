import { ONE, quotientText, SCALE, scaled, scaledText, type Scaled } from '../money/scaled'
import type { Answer } from './question'

/** Columns beside the amount that a table can show. */
export const tableColumns = ['share', 'perDay', 'before', 'difference', 'changeShare'] as const
export type TableColumn = (typeof tableColumns)[number]

export type TableSpec = {
  /** Dimensions down the side, the outermost first; ids with their names as further columns stand in `companions`. */
  splitBy: readonly string[]
  companions: Readonly<Record<string, string>>
  /** What runs across: `start` for time, a dimension, or nothing. */
  across: string | null
  currency: string
  columns: readonly TableColumn[]
  days: number
}

export type TableHead = {
  id: string
  kind: 'text' | 'amount' | 'share'
  dimension?: string
  /** Value of what runs across; null for "has none". */ value?: string | null
  column?: TableColumn | 'amount' | 'rest'
}
/** Texts as they are; amounts with every digit; null where there is nothing to say (a share of nothing, no period before). */
export type TableRow = { values: (string | null)[]; cells: (string | null)[]; amount: string }
export type SpendTable = { heads: TableHead[]; rows: TableRow[]; total: TableRow }

/** As many columns as a table has across; what is more stands together in the rest. */
const MOST_ACROSS = 60
const SHARE_DIGITS = 6

/**
 * The table of an answer: a row for each combination of values, largest first, across columns where asked, and the total, which is the sum
 * of
 * the rows exactly.
 * @param now split by the table's dimensions, their companions and what runs across (time as the grain).
 * @param before the same for the period compared, without anything across.
 */
export function spendTable(now: Answer, before: Answer | null, spec: TableSpec): SpendTable {
  const { splitBy, companions, across, currency, days } = spec
  const own = now.rows.filter(row => row.currency === currency)
  const key = (values: Record<string, string | null>) => JSON.stringify(splitBy.map(dimension => values[dimension] ?? null))
  const acrossOf = (row: Answer['rows'][number]) => (across === null ? null : across === 'start' ? row.start : (row.values[across] ?? null))
  const sums = new Map<string, { values: (string | null)[]; names: (string | null)[]; amount: Scaled; cells: Map<string | null, Scaled> }>()
  const acrossTotals = new Map<string | null, Scaled>()
  const named = splitBy.filter(dimension => companions[dimension])
  for (const row of own) {
    const amount = scaled(row.amount)
    const id = key(row.values)
    const entry = sums.get(id) ?? {
      values: splitBy.map(dimension => row.values[dimension] ?? null),
      names: named.map(dimension => row.values[companions[dimension]!] ?? null),
      amount: 0n,
      cells: new Map(),
    }
    sums.set(id, entry)
    entry.amount += amount
    if (across === null) continue
    const value = acrossOf(row)
    entry.cells.set(value, (entry.cells.get(value) ?? 0n) + amount)
    acrossTotals.set(value, (acrossTotals.get(value) ?? 0n) + amount)
  }
  const old = new Map<string, Scaled>()
  for (const row of before?.rows.filter(r => r.currency === currency) ?? [])
    old.set(key(row.values), (old.get(key(row.values)) ?? 0n) + scaled(row.amount))
  const total = [...sums.values()].reduce((n, { amount }) => n + amount, 0n)
  const totalBefore = before && [...old.values()].reduce((n, amount) => n + amount, 0n)

  const size = (n: Scaled) => (n < 0n ? -n : n)
  const ordered = [...acrossTotals]
    .sort(([a, x], [b, y]) =>
      across === 'start'
        ? (a ?? '') < (b ?? '')
          ? -1
          : 1
        : size(y) === size(x)
          ? (a ?? '') < (b ?? '')
            ? -1
            : 1
          : size(y) > size(x)
            ? 1
            : -1,
    )
    .map(([value]) => value)
  const shown = ordered.slice(0, ordered.length > MOST_ACROSS ? MOST_ACROSS - 1 : MOST_ACROSS)
  const left = ordered.slice(shown.length)
  const heads: TableHead[] = [
    ...splitBy.flatMap((dimension): TableHead[] => [
      { id: dimension, kind: 'text', dimension },
      ...(companions[dimension] ? [{ id: companions[dimension], kind: 'text' as const }] : []),
    ]),
    ...shown.map((value): TableHead => ({ id: `across ${value}`, kind: 'amount', value })),
    ...(left.length ? [{ id: `the other ${left.length}`, kind: 'amount' as const, column: 'rest' as const }] : []),
    { id: 'amount', kind: 'amount', column: 'amount' },
    ...spec.columns.map((column): TableHead => ({
      id: column,
      kind: column === 'share' || column === 'changeShare' ? 'share' : 'amount',
      column,
    })),
  ]
  const figures = (amount: Scaled, previous: Scaled | null) =>
    spec.columns.map(column => {
      switch (column) {
        case 'share':
          return ratio(amount, total)
        case 'perDay':
          return days > 0 ? quotientText(amount, BigInt(days) * ONE, SCALE) : null
        case 'before':
          return previous === null ? null : scaledText(previous)
        case 'difference':
          return before === null ? null : scaledText(amount - (previous ?? 0n))
        case 'changeShare':
          return previous === null ? null : ratio(amount - previous, size(previous))
      }
    })
  const texts = (values: (string | null)[], names: (string | null)[]) =>
    splitBy.flatMap((dimension, i) => (companions[dimension] ? [values[i]!, names[named.indexOf(dimension)]!] : [values[i]!]))
  const cellsOf = (cells: Map<string | null, Scaled>) => [
    ...shown.map(value => scaledText(cells.get(value) ?? 0n)),
    ...(left.length ? [scaledText(left.reduce((n, value) => n + (cells.get(value) ?? 0n), 0n))] : []),
  ]
  const rows = [...sums]
    .sort(([a, x], [b, y]) => (x.amount === y.amount ? (a < b ? -1 : 1) : x.amount > y.amount ? -1 : 1))
    .map(([id, { values, names, amount, cells }]): TableRow => ({
      values,
      amount: scaledText(amount),
      cells: [...texts(values, names), ...cellsOf(cells), scaledText(amount), ...figures(amount, before && (old.get(id) ?? null))],
    }))
  const blank = splitBy.flatMap(dimension => (companions[dimension] ? [null, null] : [null]))
  return {
    heads,
    rows,
    total: {
      values: [],
      amount: scaledText(total),
      cells: [...blank, ...cellsOf(acrossTotals), scaledText(total), ...figures(total, totalBefore)],
    },
  }
}

function ratio(part: Scaled, whole: Scaled): string | null {
  return whole === 0n ? null : quotientText(part, whole, SHARE_DIGITS)
}
