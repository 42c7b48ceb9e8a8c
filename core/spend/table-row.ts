import { scaled, type Scaled } from '../money/scaled'
import { figureText, type Figure } from './figure'

/** What a cell holds: an amount, or a text as it is; null where there is nothing to say (a share of nothing, a price of nothing used). */
export type Cell = Figure | string | null

/** A row of a table. Its cells are made when they are looked at: of thousands of rows a screen shows some dozens. */
export class TableRow {
  readonly #cells: (Cell | undefined)[] = []

  /**
   * @param figure what it comes to.
   * @param wasThere whether the period compared has it.
   * @param width how many cells it has.
   * @param make a cell by its place.
   */
  constructor(
    readonly values: (string | null)[],
    readonly figure: Figure,
    readonly wasThere: boolean,
    private readonly width: number,
    private readonly make: (place: number) => Cell,
  ) {}

  /** With every digit; null for a price of nothing used. */
  get amount(): string | null {
    return figureText(this.figure)
  }

  #cell(place: number): Cell {
    const known = this.#cells[place]
    return known === undefined ? (this.#cells[place] = this.make(place)) : known
  }

  cell(place: number): string | null {
    const cell = place < this.width ? this.#cell(place) : null
    return cell === null || typeof cell === 'string' ? cell : figureText(cell)
  }

  /** A cell to calculate with; null where it says nothing. */
  amountAt(place: number): Scaled | null {
    const cell = this.#cell(place)
    if (cell === null) return null
    if (typeof cell === 'string') return scaled(cell)
    if (cell.by === null) return cell.sum
    const price = figureText(cell)
    return price === null ? null : scaled(price)
  }

  get cells(): (string | null)[] {
    return Array.from({ length: this.width }, (_, place) => this.cell(place))
  }
}

/** A sum as a cell. */
export const sumCell = (sum: Scaled): Figure => ({ sum, by: null })
