import { changeShareOf, shareOf } from '../money/share'
import { dividedBy, scaled, sizeOf, type Scaled } from '../money/scaled'
import { START } from './answer-columns'
import { figureText, noFigure, plusFigure, type Figure } from './figure'
import { figureGroups, type FigureGroup } from './figure-groups'
import { adds, type Answer, type Measure } from './question'
import { sumCell, TableRow, type Cell } from './table-row'

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
export type SpendTable = { heads: TableHead[]; rows: TableRow[]; total: TableRow }

/** As many columns as a table has across; what is more stands together in the rest. */
const MOST_ACROSS = 60

/**
 * The table of an answer: a row for each combination of values, largest first, across columns where asked, and the total: the sum of the
 * rows exactly; of unit prices, in every row, column and total, the whole cost by the whole quantity. Where the period compared is looked
 * at, what is gone since has a row too, so that every column adds up to its total.
 * @param now split by the table's dimensions, their companions and what runs across (time as the grain).
 * @param before the same for the period compared, without anything across.
 */
export function spendTable(now: Answer, before: Answer | null, spec: TableSpec): SpendTable {
  const { measure, splitBy, companions, currency } = spec
  const columns = columnsFor(measure, spec.columns)
  const none = noFigure(measure)
  const groups = figureGroups(now, splitBy, currency)
  const old = before && figureGroups(before, splitBy, currency)
  const whole = sumOf(groups, none)
  const across = acrossTable(now, spec, none)
  const perDay = amountsPerDay(spec)
  const texts = splitBy.flatMap((dimension): { head: TableHead; read: (group: FigureGroup) => string | null }[] => {
    const own = { head: { id: dimension, kind: 'text' as const, dimension }, read: (group: FigureGroup) => group.value(dimension) }
    const named = companions[dimension]
    return named ? [own, { head: { id: named, kind: 'text' }, read: group => group.value(named) }] : [own]
  })
  const heads: TableHead[] = [
    ...texts.map(({ head }) => head),
    ...across.heads,
    { id: 'amount', kind: 'amount', column: 'amount' },
    ...columns.map((column): TableHead => ({
      id: column,
      kind: column === 'share' || column === 'changeShare' ? 'share' : 'amount',
      column,
    })),
  ]

  /** @param id of a row; null for the total. */
  const further = (column: TableColumn, id: string | null, figure: Figure, previous: Figure | null): Cell => {
    const own = numberOf(figure)
    const then = previous && numberOf(previous)
    switch (column) {
      case 'share':
        return own === null ? null : shareOf(own, whole.sum)
      case 'perDay': {
        const amount = own === null ? null : perDay(own, id)
        return amount === null ? null : sumCell(amount)
      }
      case 'before':
        return previous
      case 'difference':
        // of what adds, nothing before is nought; a price that was not there before is no price of nought
        return old === null || own === null || (then === null && !adds(measure)) ? null : sumCell(own - (then ?? 0n))
      case 'changeShare':
        return own === null || then === null ? null : changeShareOf(own, then)
    }
  }
  /** The cells of a row, of the group that it is of; of the total for none. */
  const cells = (id: string | null, group: FigureGroup | null, figure: Figure, previous: Figure | null) => (place: number) => {
    if (place < texts.length) return group && texts[place]!.read(group)
    const behind = place - texts.length
    if (behind < across.heads.length) return across.cell(id, behind)
    return behind === across.heads.length ? figure : further(columns[behind - across.heads.length - 1]!, id, figure, previous)
  }
  const rowOf = (id: string, group: FigureGroup, figure: Figure): TableRow | null => {
    const then = old?.get(id)?.figure ?? null
    const previous = then && figureText(then) !== null ? then : null
    if (figureText(figure) === null && !previous) return null
    return new TableRow(group.values, figure, previous !== null, heads.length, cells(id, group, figure, previous))
  }

  const rows: { id: string; size: Scaled | null; row: TableRow }[] = []
  const add = (id: string, group: FigureGroup, figure: Figure) => {
    const row = rowOf(id, group, figure)
    if (row) rows.push({ id, size: numberOf(figure), row })
  }
  for (const [id, group] of groups) add(id, group, group.figure)
  if (old && columns.some(column => LOOKS_BACK.includes(column))) for (const [id, group] of old) if (!groups.has(id)) add(id, group, none)
  rows.sort((a, b) => {
    if (a.size === b.size) return a.id < b.id ? -1 : 1
    return a.size === null ? 1 : b.size === null ? -1 : a.size > b.size ? -1 : 1
  })
  const wholeBefore = old && sumOf(old, none)
  return {
    heads,
    rows: rows.map(({ row }) => row),
    total: new TableRow([], whole, !!old?.size, heads.length, cells(null, null, whole, wholeBefore)),
  }
}

const sumOf = (groups: ReadonlyMap<string, FigureGroup>, none: Figure): Figure => {
  let sum = none
  for (const { figure } of groups.values()) sum = plusFigure(sum, figure)
  return sum
}

/** A figure to compare and to calculate with; null for a price of nothing used. */
const numberOf = (figure: Figure): Scaled | null => {
  if (figure.by === null) return figure.sum
  const price = figureText(figure)
  return price === null ? null : scaled(price)
}

/** What an amount is a day: of each source over the days that it has. @returns null where there are no days. */
function amountsPerDay({ splitBy, currency, days, byDays }: TableSpec): (amount: Scaled, id: string | null) => Scaled | null {
  if (!byDays) return amount => (days > 0 ? dividedBy(amount, days) : null)
  const parts = byDays.map(({ days, answer }) => {
    const groups = figureGroups(answer, splitBy, currency)
    return { days, groups, whole: sumOf(groups, { sum: 0n, by: null }).sum }
  })
  return (_, id) =>
    parts.reduce((sum, { days, groups, whole }) => {
      return sum + dividedBy(id === null ? whole : (groups.get(id)?.figure.sum ?? 0n), days)
    }, 0n)
}

/** What runs across a table: its columns, largest first or by time, and what stands in them. */
type Across = {
  heads: TableHead[]
  /** @param id of a row; null for the total. */
  cell: (id: string | null, place: number) => Figure
}

function acrossTable(now: Answer, { splitBy, across, currency }: TableSpec, none: Figure): Across {
  if (across === null) return { heads: [], cell: () => none }
  const totals = new Map<string | null, Figure>()
  const byRow = new Map<string, Map<string | null, Figure>>()
  for (const { values, figure } of figureGroups(now, [...splitBy, across], currency).values()) {
    const value = values.at(-1)!
    totals.set(value, plusFigure(totals.get(value) ?? none, figure))
    const id = JSON.stringify(values.slice(0, -1))
    const own = byRow.get(id)
    if (own) own.set(value, figure)
    else byRow.set(id, new Map([[value, figure]]))
  }
  const size = ({ sum }: Figure) => sizeOf(sum)
  const ordered = [...totals]
    .sort(([a, x], [b, y]) => {
      const byName = (a ?? '') < (b ?? '') ? -1 : 1
      return across === START || size(x) === size(y) ? byName : size(y) > size(x) ? 1 : -1
    })
    .map(([value]) => value)
  const shown = ordered.slice(0, ordered.length > MOST_ACROSS ? MOST_ACROSS - 1 : MOST_ACROSS)
  const left = ordered.slice(shown.length)
  return {
    heads: [
      ...shown.map((value): TableHead => ({ id: `across ${value}`, kind: 'amount', value })),
      ...(left.length ? [{ id: `the other ${left.length}`, kind: 'amount' as const, column: 'rest' as const }] : []),
    ],
    cell(id, place) {
      const own = id === null ? totals : byRow.get(id)
      const at = (value: string | null) => own?.get(value) ?? none
      return place < shown.length ? at(shown[place]!) : left.reduce((sum, value) => plusFigure(sum, at(value)), none)
    },
  }
}
