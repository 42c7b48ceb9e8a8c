import { valueCheck } from '../check'
import { focusColumn } from '../columns'
import { whyNotKept } from '../keepable'
import type { Wrong } from '../problem'
import type { Cells } from './cells'
import type { NoteWrong } from './charge'

const NOT_UTF8: Wrong = { reason: 'the bytes are not UTF-8', mend: 'Save the file in the encoding UTF-8.' }

/** What is wrong with the values of a row: each distinct text of a column is checked once. */
export class Values {
  readonly #checks: (((text: string) => Wrong | null) | null)[]
  readonly #verdicts: (Wrong | null | undefined)[][]
  /** Which columns hold a wrong value in the row being taken, and how many do. */
  readonly #wrong: Uint8Array
  #wrongCount = 0

  constructor(private readonly cells: Cells) {
    this.#checks = cells.header.map((name, place) => {
      const column = focusColumn(name)
      return column && cells.kinds[place] === 'value' ? valueCheck(column) : whyNotKept
    })
    this.#verdicts = cells.header.map(() => [])
    this.#wrong = new Uint8Array(cells.header.length)
  }

  /** Looks at a cell that has changed. */
  look(place: number): void {
    const wrong = this.#verdict(place, this.cells.ids[place]!) !== null
    if (wrong === (this.#wrong[place] === 1)) return
    this.#wrong[place] = wrong ? 1 : 0
    this.#wrongCount += wrong ? 1 : -1
  }

  /** Looks at every cell: one that the first row left as it was, empty, has not been looked at yet. */
  lookAtAll(): void {
    this.cells.kinds.forEach((kind, place) => {
      if (kind === 'value') this.look(place)
    })
  }

  /** Notes what is wrong. @returns whether nothing is. */
  check(note: NoteWrong): boolean {
    if (this.#wrongCount === 0) return true
    for (let place = 0; place < this.#wrong.length; place++) {
      if (!this.#wrong[place]) continue
      note(this.cells.header[place]!, this.cells.textAt(place) ?? '', this.#verdict(place, this.cells.ids[place]!)!)
    }
    return false
  }

  #verdict(place: number, id: number): Wrong | null {
    let wrong = this.#verdicts[place]![id]
    if (wrong === undefined) {
      const text = this.cells.values[place]!.texts[id]!
      wrong = text === null ? NOT_UTF8 : this.#checks[place]!(text)
      this.#verdicts[place]![id] = wrong
    }
    return wrong
  }
}
