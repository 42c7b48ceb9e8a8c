import { changeShareOf, shareOf } from '../money/share'
import { ONE, quotientText, SCALE, scaled, scaledText, type Scaled } from '../money/scaled'
import { figuresBy, figureRows, figureText, noFigure, plusFigure, type Figure } from './figure'
import { adds, type Answer, type AnswerRow, type Measure } from './question'

/** Columns beside the amount that a table can show. */
export const tableColumns = ['share', 'perDay', 'before', 'difference', 'changeShare'] as const
export type TableColumn = (typeof tableColumns)[number]

/** The columns that say something of a measure: a price has no share of anything, and is not so much a day. */
export const columnsFor = (measure: Measure, columns: readonly TableColumn[], compared: Compared = 'whole'): TableColumn[] =>
  columns.filter(
    column =>
      (adds(measure) || (column !== 'share' && column !== 'perDay')) &&
      (compared === 'whole' || !LOOKS_BACK.includes(column) || (compared === 'part' && column === 'before')),
  )
/** How much of the period compared is loaded: with a part of it there is something to see beside it, and nothing to subtract. */
export type Compared = 'none' | 'part' | 'whole'

/** Columns that look at the period compared. */
const LOOKS_BACK: readonly TableColumn[] = ['before', 'difference', 'changeShare']

export type TableSpec = {
  measure: Measure
  /** Dimensions down the side, the outermost first; ids with their names as further columns stand in `companions`. */
  splitBy: readonly string[]
  companions: Readonly<Record<string, string>>
  /** What runs across: `start` for time, a dimension, or nothing. */
  across: string | null
  currency: string
  columns: readonly TableColumn[]
  /** Over how many days amounts a day are. */
  days: number
  /** Where sources reach unequally far: the parts of `now` that go over equal days. An amount a day is then the sum of theirs. */
  byDays?: readonly { days: number; answer: Answer }[]
}

export type TableHead = {
  id: string
  kind: 'text' | 'amount' | 'share'
  dimension?: string
  /** Value of what runs across; null for "has none". */ value?: string | null
  column?: TableColumn | 'amount' | 'rest'
}
/** Texts as they are; amounts with every digit; null where there is nothing to say (a share of nothing, a price of nothing used). */
export type TableRow = {
  values: (string | null)[]
  cells: (string | null)[]
  amount: string | null
  /** Whether the period compared has it. */
  wasThere: boolean
}
export type SpendTable = { heads: TableHead[]; rows: TableRow[]; total: TableRow }

/** As many columns as a table has across; what is more stands together in the rest. */
const MOST_ACROSS = 60

type Entry = { values: (string | null)[]; names: (string | null)[]; figure: Figure; cells: Map<string | null, Figure> }

/**
 * The table of an answer: a row for each combination of values, largest first, across columns where asked, and the total: the sum of the
 * rows exactly; of unit prices, in every row, column and total, the whole cost by the whole quantity. Where the period compared is looked
 * at, what is gone since has a row too, so that every column adds up to its total.
 * @param now split by the table's dimensions, their companions and what runs across (time as the grain).
 * @param before the same for the period compared, without anything across.
 */
export function spendTable(now: Answer, before: Answer | null, spec: TableSpec): SpendTable {
  const { measure, splitBy, companions, across, currency, days } = spec
  const columns = columnsFor(measure, spec.columns)
  const none = noFigure(measure)
  const key = ({ values }: AnswerRow) => JSON.stringify(splitBy.map(dimension => values[dimension] ?? null))
  const acrossOf = (row: AnswerRow) => (across === null ? null : across === 'start' ? row.start : (row.values[across] ?? null))
  const named = splitBy.filter(dimension => companions[dimension])
  const entryOf = (row: AnswerRow): Entry => ({
    values: splitBy.map(dimension => row.values[dimension] ?? null),
    names: named.map(dimension => row.values[companions[dimension]!] ?? null),
    figure: none,
    cells: new Map(),
  })
  const entries = new Map<string, Entry>()
  const acrossTotals = new Map<string | null, Figure>()
  const addTo = <K>(sums: Map<K, Figure>, own: K, figure: Figure) => sums.set(own, plusFigure(sums.get(own) ?? none, figure))
  for (const { row, figure } of figureRows(now, currency)) {
    const id = key(row)
    let entry = entries.get(id)
    if (!entry) entries.set(id, (entry = entryOf(row)))
    entry.figure = plusFigure(entry.figure, figure)
    if (across === null) continue
    addTo(entry.cells, acrossOf(row), figure)
    addTo(acrossTotals, acrossOf(row), figure)
  }
  const old = before && figuresBy(before, currency, key)
  if (old && columns.some(column => LOOKS_BACK.includes(column)))
    for (const [id, { row }] of old) if (!entries.has(id)) entries.set(id, entryOf(row))
  const parts = spec.byDays?.map(({ days, answer }) => ({ days, figures: figuresBy(answer, currency, key) }))
  const perDay = (amount: Scaled, id: string | null): Scaled | null => {
    if (!parts) return days > 0 ? scaled(quotientText(amount, BigInt(days) * ONE, SCALE)) : null
    return parts.reduce((sum, { days, figures }) => {
      const own = id === null ? [...figures.values()] : [figures.get(id) ?? { figure: none }]
      const part = own.reduce((n, { figure }) => n + figure.sum, 0n)
      return sum + scaled(quotientText(part, BigInt(days) * ONE, SCALE))
    }, 0n)
  }
  const whole = [...entries.values()].reduce((n, { figure }) => plusFigure(n, figure), none)
  const wholeBefore = old && [...old.values()].reduce((n, { figure }) => plusFigure(n, figure), none)

  const ordered = [...acrossTotals]
    .sort(([a, { sum: x }], [b, { sum: y }]) => {
      const byName = (a ?? '') < (b ?? '') ? -1 : 1
      return across === 'start' || size(x) === size(y) ? byName : size(y) > size(x) ? 1 : -1
    })
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
    ...columns.map((column): TableHead => ({
      id: column,
      kind: column === 'share' || column === 'changeShare' ? 'share' : 'amount',
      column,
    })),
  ]
  const further = (id: string | null, amount: string | null, previous: string | null | undefined) => {
    const own = amount === null ? null : scaled(amount)
    const then = typeof previous === 'string' ? scaled(previous) : null
    return columns.map(column => {
      switch (column) {
        case 'share':
          return own === null ? null : shareOf(own, whole.sum)
        case 'perDay':
          return own === null ? null : textOrNull(perDay(own, id))
        case 'before':
          return previous ?? null
        case 'difference':
          // of what adds, nothing before is nought; a price that was not there before is no price of nought
          return before === null || own === null || (then === null && !adds(measure)) ? null : scaledText(own - (then ?? 0n))
        case 'changeShare':
          return own === null || then === null ? null : changeShareOf(own, then)
      }
    })
  }
  const texts = (values: (string | null)[], names: (string | null)[]) =>
    splitBy.flatMap((dimension, i) => (companions[dimension] ? [values[i]!, names[named.indexOf(dimension)]!] : [values[i]!]))
  const cellsOf = (cells: Map<string | null, Figure>) => [
    ...shown.map(value => figureText(cells.get(value) ?? none)),
    ...(left.length ? [figureText(left.reduce((n, value) => plusFigure(n, cells.get(value) ?? none), none))] : []),
  ]
  const textOf = (entry: { figure: Figure } | undefined) => entry && figureText(entry.figure)
  const rows = [...entries].flatMap(([id, { values, names, figure, cells }]): TableRow[] => {
    const amount = figureText(figure)
    const previous = textOf(old?.get(id))
    if (amount === null && typeof previous !== 'string') return []
    return [
      {
        values,
        amount,
        cells: [...texts(values, names), ...cellsOf(cells), amount, ...further(id, amount, previous)],
        wasThere: typeof previous === 'string',
      },
    ]
  })
  const sizes = new Map(rows.map(row => [row, row.amount === null ? null : scaled(row.amount)]))
  rows.sort((a, b) => {
    const [x, y] = [sizes.get(a)!, sizes.get(b)!]
    if (x === y) return JSON.stringify(a.values) < JSON.stringify(b.values) ? -1 : 1
    return x === null ? 1 : y === null ? -1 : x > y ? -1 : 1
  })
  const blank = splitBy.flatMap(dimension => (companions[dimension] ? [null, null] : [null]))
  const total = figureText(whole)
  return {
    heads,
    rows,
    total: {
      values: [],
      amount: total,
      cells: [...blank, ...cellsOf(acrossTotals), total, ...further(null, total, wholeBefore && figureText(wholeBefore))],
      wasThere: !!old?.size,
    },
  }
}

const size = (n: Scaled) => (n < 0n ? -n : n)
const textOrNull = (n: Scaled | null) => (n === null ? null : scaledText(n))
