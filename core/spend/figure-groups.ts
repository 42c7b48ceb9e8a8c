import { columnsOf, START, type AnswerColumns } from './answer-columns'
import { plusFigure, type Figure } from './figure'
import type { Answer } from './question'

/** More values than a dimension ever has: two numbers below it make one that is exact. */
const MOST_VALUES = 2 ** 26

/** Numbers combinations of values as they come, over columns whose codes differ. */
class Combinations {
  readonly #values: Map<string | null, number>[]
  readonly #pairs: Map<number, number>[]

  constructor(readonly dimensions: readonly string[]) {
    this.#values = dimensions.map(() => new Map())
    this.#pairs = dimensions.map(() => new Map())
  }

  /** Which number a row's combination has. */
  reading(columns: AnswerColumns): (row: number) => number {
    const parts = this.dimensions.map((name, at) => {
      const { values, codes } = columns.column(name)
      return { codes, numbers: values.map(value => numberOf(this.#values[at]!, value)) }
    })
    const [first, ...others] = parts
    if (!first) return () => 0
    if (!others.length) return row => first.numbers[first.codes[row]!]!
    return row => {
      let number = first.numbers[first.codes[row]!]!
      for (let i = 0; i < others.length; i++) {
        const { numbers, codes } = others[i]!
        number = numberOf(this.#pairs[i]!, number * MOST_VALUES + numbers[codes[row]!]!)
      }
      return number
    }
  }
}

function numberOf<K>(known: Map<K, number>, key: K): number {
  let number = known.get(key)
  if (number === undefined) known.set(key, (number = known.size))
  return number
}

/** Rows of an answer that have the same values, with what they come to. */
export class FigureGroup {
  /** The values as JSON: the same for the same values in any answer. */
  readonly id: string

  constructor(
    readonly values: (string | null)[],
    public figure: Figure,
    private readonly of: AnswerColumns,
    private readonly row: number,
  ) {
    this.id = JSON.stringify(values)
  }

  /** What the first of its rows has in another column. */
  value(name: string): string | null {
    const { values, codes } = this.of.column(name)
    return values[codes[this.row]!]!
  }
}

/** What was made of an answer, as long as that is kept: the list, the table and the chart of a page ask for the same. */
const made = new WeakMap<object, Map<string, ReadonlyMap<string, FigureGroup>>>()

/** What an answer comes to in a currency by the values of some dimensions, by their ids, in the order in which they first occur. */
export function figureGroups(
  answer: Pick<Answer, 'rows' | 'unpriced'>,
  dimensions: readonly string[],
  currency: string,
): ReadonlyMap<string, FigureGroup> {
  const key = JSON.stringify([currency, ...dimensions])
  const known = made.get(answer) ?? new Map<string, ReadonlyMap<string, FigureGroup>>()
  made.set(answer, known)
  const groups = known.get(key) ?? groupsOf(answer, dimensions, currency)
  known.set(key, groups)
  return groups
}

function groupsOf(
  answer: Pick<Answer, 'rows' | 'unpriced'>,
  dimensions: readonly string[],
  currency: string,
): ReadonlyMap<string, FigureGroup> {
  const combinations = new Combinations(dimensions)
  const byNumber: (FigureGroup | undefined)[] = []
  const found = new Map<string, FigureGroup>()
  for (const columns of columnsOf(answer)) {
    const numberOfRow = combinations.reading(columns)
    for (const row of rowsIn(columns, currency)) {
      const number = numberOfRow(row)
      const known = byNumber[number]
      if (known) {
        known.figure = plusFigure(known.figure, columns.figure(row))
        continue
      }
      const group = new FigureGroup(valuesOf(columns, dimensions, row), columns.figure(row), columns, row)
      byNumber[number] = group
      found.set(group.id, group)
    }
  }
  return found
}

function rowsIn({ count, currencies: { values, codes } }: AnswerColumns, currency: string): number[] {
  const own = values.indexOf(currency)
  const rows: number[] = []
  if (own >= 0) for (let row = 0; row < count; row++) if (codes[row] === own) rows.push(row)
  return rows
}

/**
 * Amounts at each start by the values of some dimensions, by their ids.
 * @param empty what stands where a start has no charges: nought of what adds, null for a price of nothing used.
 */
export function amountsByStart(
  answers: readonly Pick<Answer, 'rows'>[],
  dimensions: readonly string[],
  starts: readonly string[],
  currency: string,
  empty: string | null,
): Map<string, (string | null)[]> {
  const found = new Map<string, (string | null)[]>()
  if (!dimensions.length) return found
  const places = new Map<string | null, number>(starts.map((start, place) => [start, place]))
  const combinations = new Combinations(dimensions)
  const byNumber: ((string | null)[] | undefined)[] = []
  for (const answer of answers) {
    const [columns] = columnsOf(answer)
    const numberOfRow = combinations.reading(columns!)
    const { values, codes } = columns!.column(START)
    const placeOf = values.map(start => places.get(start))
    for (const row of rowsIn(columns!, currency)) {
      const number = numberOfRow(row)
      let amounts = byNumber[number]
      if (!amounts) {
        amounts = starts.map(() => empty)
        byNumber[number] = amounts
        found.set(idOf(columns!, dimensions, row), amounts)
      }
      const place = placeOf[codes[row]!]
      if (place !== undefined) amounts[place] = columns!.amount(row)
    }
  }
  return found
}

const idOf = (columns: AnswerColumns, dimensions: readonly string[], row: number) => JSON.stringify(valuesOf(columns, dimensions, row))
const valuesOf = (columns: AnswerColumns, dimensions: readonly string[], row: number) =>
  dimensions.map(name => {
    const { values, codes } = columns.column(name)
    return values[codes[row]!]!
  })
