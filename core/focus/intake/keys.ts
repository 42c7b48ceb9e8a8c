import { canonicalJson } from '../check'
import { TupleIndex } from '../column-values'
import { focusColumn } from '../columns'
import { dictionaries, dictionaryFor, dictionaryNames, ownColumns, type DictionaryName } from '../star'
import type { Cells } from './cells'

/** The id of a combination of values in a dictionary, new or known; asked once for each combination of a file. */
export type EntryId = (dictionary: DictionaryName, values: (string | null)[]) => number

type Dictionary = { name: DictionaryName; columns: number[]; tuple: Int32Array; index: TupleIndex; ids: number[] }

/** The keys of a row into the dictionaries: one for each combination of the values of a dictionary's columns. */
export class Keys {
  readonly #dictionaries: Dictionary[]

  constructor(
    private readonly cells: Cells,
    private readonly entryId: EntryId,
  ) {
    const { header } = cells
    const others = header.flatMap((name, place) => (dictionaryOf(name) === 'others' ? [place] : []))
    this.#dictionaries = dictionaryNames.map(name => {
      const columns =
        name === 'others' ? others : dictionaries[name].map(column => cells.placeOf(column)).filter(place => place !== undefined)
      return { name, columns, tuple: new Int32Array(columns.length), index: new TupleIndex(columns.length), ids: [] }
    })
  }

  /** Finds the key of a dictionary, by its place in `dictionaryNames`, for the row being taken. */
  find(dictionary: number): number {
    const { name, columns, tuple, index, ids } = this.#dictionaries[dictionary]!
    for (let i = 0; i < columns.length; i++) tuple[i] = this.cells.ids[columns[i]!]!
    const before = index.size
    const place = index.place(tuple)
    if (place === before) ids[place] = this.entryId(name, this.#entry(name, columns))
    return ids[place]!
  }

  #entry(name: DictionaryName, columns: readonly number[]): (string | null)[] {
    if (name === 'others') {
      const filled = columns.flatMap(place => {
        const text = this.cells.textAt(place)
        return text ? [[this.cells.header[place]!, text] as const] : []
      })
      return [filled.length ? JSON.stringify(Object.fromEntries(filled)) : null]
    }
    return dictionaries[name].map(column => {
      const text = this.cells.textOf(column)
      return text === '' ? null : focusColumn(column)?.type === 'json' ? canonicalJson(text) : text
    })
  }
}

/** @returns the dictionary that a column's values go into; null for what stands on the charge itself. */
export function dictionaryOf(column: string): DictionaryName | null {
  return dictionaryFor(column) ?? (ownColumns.includes(column) ? null : 'others')
}
