import { ColumnValues, type Decode } from '../column-values'
import { cellKind, type CellKind } from './charge'

/** The cells of a row: of each column the number of its text among the distinct ones so far. Cells with numbers are kept elsewhere. */
export class Cells {
  readonly kinds: CellKind[]
  /** By column, its distinct texts. */
  readonly values: ColumnValues[]
  /** By column, the number of the text in the row being taken; 0 where it is empty. */
  readonly ids: Int32Array
  readonly #places: Map<string, number>

  constructor(
    readonly header: readonly string[],
    decode: Decode,
  ) {
    this.kinds = header.map(cellKind)
    this.values = header.map(() => new ColumnValues(decode))
    this.ids = new Int32Array(header.length)
    this.#places = new Map(header.map((name, place) => [name, place]))
  }

  /** @returns where a column stands in the header; undefined when the file has none of this name. */
  placeOf(column: string): number | undefined {
    return this.#places.get(column)
  }

  /** @returns the text in a place of the row; null when its bytes are not UTF-8. */
  textAt(place: number): string | null {
    return this.values[place]!.texts[this.ids[place]!]!
  }

  /** @returns the text of a column of the row, empty when the file has no such column. */
  textOf(column: string): string {
    const place = this.#places.get(column)
    return place === undefined ? '' : (this.textAt(place) ?? '')
  }
}
