import { scaled } from '../money/scaled'
import type { Figure } from './figure'
import { unpackAnswer, type PackedAnswer, type PackedColumn } from './packed'
import type { Answer, AnswerRow } from './question'

/** The start of a row's step of time, as a column beside those of dimensions. */
export const START = 'start'

/** An answer that came column by column: figures are drawn from its codes; rows as objects are made when someone asks for them. */
export type CodedAnswer = Answer & { readonly coded: Pick<PackedAnswer, 'splitBy' | 'rows'> }

export function codedAnswer<P extends PackedAnswer>(packed: P): Omit<P, 'rows' | 'splitBy'> & CodedAnswer {
  const { rows, splitBy, ...rest } = packed
  let made: AnswerRow[] | null = null
  return {
    ...rest,
    coded: { splitBy, rows },
    get rows() {
      return (made ??= unpackAnswer(packed).rows)
    },
  }
}

/** The values that a column has, of the rows in every currency, each once. */
export function valuesIn({ coded }: Pick<CodedAnswer, 'coded'>, name: string): readonly (string | null)[] {
  return coded.rows.splits[coded.splitBy.indexOf(name)]?.values ?? []
}

/** What the values of a column are called by another one, where that says something. */
export function namesBy({ coded }: Pick<CodedAnswer, 'coded'>, name: string, companion: string): Map<string | null, string> {
  const { column, count } = codedColumns(coded)
  const [ids, names] = [column(name), column(companion)]
  const found = new Map<string | null, string>()
  for (let row = 0; row < count; row++) {
    const called = names.values[names.codes[row]!]
    if (called) found.set(ids.values[ids.codes[row]!]!, called)
  }
  return found
}

type Column = PackedColumn<string | null>

/** The rows of an answer, column by column. */
export type AnswerColumns = {
  count: number
  currencies: Column
  /** A dimension's column, or that of `START`; of one that was not asked for no row has a value. */
  column: (name: string) => Column
  /** What a row comes to: as it was written, and to calculate with. */
  amount: (row: number) => string
  figure: (row: number) => Figure
}

/** The columns of an answer; of unit prices also those of what has no quantity, since its cost belongs to the price of what holds it. */
export function columnsOf(answer: Pick<Answer, 'rows' | 'unpriced'> | CodedAnswer): AnswerColumns[] {
  const priced = 'coded' in answer ? codedColumns(answer.coded) : plainColumns(answer.rows, figureOf)
  return answer.unpriced?.length ? [priced, plainColumns(answer.unpriced, ({ amount }) => ({ sum: scaled(amount), by: 0n }))] : [priced]
}

const figureOf = ({ amount, cost, quantity }: AnswerRow): Figure =>
  cost === undefined || quantity === undefined
    ? { sum: scaled(amount), by: null, text: amount }
    : { sum: scaled(cost), by: scaled(quantity) }

/** Columns are found when they are first asked for. */
function remembered(count: number, made: (name: string) => Column | null): (name: string) => Column {
  const known = new Map<string, Column>()
  return name => {
    const column = known.get(name) ?? made(name) ?? { values: [null], codes: new Uint8Array(count) }
    known.set(name, column)
    return column
  }
}

function codedColumns({ splitBy, rows }: CodedAnswer['coded']): AnswerColumns {
  const { count, splits, starts, currencies, amounts, costs, quantities } = rows
  const texts = amounts.split(' ')
  const costTexts = costs?.split(' ')
  const quantityTexts = quantities?.split(' ')
  return {
    count,
    currencies,
    column: remembered(count, name => (name === START ? starts : (splits[splitBy.indexOf(name)] ?? null))),
    amount: row => texts[row]!,
    figure: row =>
      costTexts && quantityTexts
        ? { sum: scaled(costTexts[row]!), by: scaled(quantityTexts[row]!) }
        : { sum: scaled(texts[row]!), by: null, text: texts[row]! },
  }
}

function plainColumns(rows: readonly AnswerRow[], figure: (row: AnswerRow) => Figure): AnswerColumns {
  const column = (read: (row: AnswerRow) => string | null): Column => {
    const places = new Map<string | null, number>()
    const codes = Int32Array.from(rows, row => {
      const value = read(row)
      if (!places.has(value)) places.set(value, places.size)
      return places.get(value)!
    })
    return { values: [...places.keys()], codes }
  }
  return {
    count: rows.length,
    currencies: column(row => row.currency),
    column: remembered(rows.length, name => column(row => (name === START ? row.start : (row.values[name] ?? null)))),
    amount: row => rows[row]!.amount,
    figure: row => figure(rows[row]!),
  }
}
