import type { Answer, AnswerRow } from './question'

/** A column whose values are listed once; `codes` says for each row which it has. */
export type PackedColumn<T> = { values: T[]; codes: ArrayLike<number> }

/**
 * Rows of an answer column by column: a fraction of the size of rows as objects, and quickly handed on from thread to thread and to the
 * page. Amounts are decimal texts with a space between.
 */
export type PackedRows = {
  count: number
  splits: PackedColumn<string | null>[]
  starts: PackedColumn<string> | null
  currencies: PackedColumn<string>
  amounts: string
  /** Of unit prices: what each is the quotient of, in the same way as amounts. */
  costs?: string
  quantities?: string
}
export type PackedAnswer = Omit<Answer, 'rows'> & { splitBy: string[]; rows: PackedRows }

/** Numbers values as they come. */
class Packing<T> {
  readonly values: T[] = []
  readonly codes: Int32Array
  #known = new Map<T, number>()

  constructor(rows: number) {
    this.codes = new Int32Array(rows)
  }

  set(row: number, value: T): void {
    let code = this.#known.get(value)
    if (code === undefined) this.#known.set(value, (code = this.values.push(value) - 1))
    this.codes[row] = code
  }

  get column(): PackedColumn<T> {
    return { values: this.values, codes: this.codes }
  }
}

/** Packs rows that are read one by one; `start` is null for all rows or for none. */
function packRows(
  count: number,
  splits: number,
  read: (row: number) => { value: (split: number) => string | null; start: string | null; currency: string; amount: string },
): PackedRows {
  const values = Array.from({ length: splits }, () => new Packing<string | null>(count))
  const starts = new Packing<string>(count)
  const currencies = new Packing<string>(count)
  const amounts = new Array<string>(count)
  let timed = false
  for (let row = 0; row < count; row++) {
    const { value, start, currency, amount } = read(row)
    for (let split = 0; split < splits; split++) values[split]!.set(row, value(split))
    if (start !== null) {
      timed = true
      starts.set(row, start)
    }
    currencies.set(row, currency)
    amounts[row] = amount
  }
  return {
    count,
    splits: values.map(packing => packing.column),
    starts: timed ? starts.column : null,
    currencies: currencies.column,
    amounts: amounts.join(' '),
  }
}

export function packAnswer<A extends Answer>(
  { rows, ...rest }: A,
  splitBy: string[],
): Omit<A, 'rows'> & { splitBy: string[]; rows: PackedRows } {
  return {
    ...rest,
    splitBy,
    rows: {
      ...packRows(rows.length, splitBy.length, row => {
        const { values, start, currency, amount } = rows[row]!
        return { value: split => values[splitBy[split]!] ?? null, start, currency, amount }
      }),
      ...(rows[0]?.cost !== undefined && {
        costs: rows.map(({ cost }) => cost).join(' '),
        quantities: rows.map(({ quantity }) => quantity).join(' '),
      }),
    },
  }
}

/** The rows as objects again. */
export function unpackAnswer<P extends PackedAnswer>({
  rows: { count, splits, starts, currencies, amounts, costs, quantities },
  splitBy,
  ...rest
}: P): Omit<P, 'rows' | 'splitBy'> & { rows: AnswerRow[] } {
  const texts = amounts.split(' ')
  const costTexts = costs?.split(' ')
  const quantityTexts = quantities?.split(' ')
  return {
    ...rest,
    rows: Array.from({ length: count }, (_, row): AnswerRow => {
      const values: Record<string, string | null> = {}
      for (let split = 0; split < splits.length; split++) values[splitBy[split]!] = splits[split]!.values[splits[split]!.codes[row]!]!
      return {
        values,
        start: starts ? starts.values[starts.codes[row]!]! : null,
        currency: currencies.values[currencies.codes[row]!]!,
        amount: texts[row]!,
        ...(costTexts && quantityTexts && { cost: costTexts[row]!, quantity: quantityTexts[row]! }),
      }
    }),
  }
}
