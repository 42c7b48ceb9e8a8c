import type { Decimal } from '../../money/decimal'
import { checkHeader, meantColumn } from '../check'
import type { Decode } from '../column-values'
import { focusColumn, focusColumns } from '../columns'
import { ruleProblem, type Conformance } from '../conformance'
import { shownValue, type FileProblem } from '../problem'
import { dictionaryNames } from '../star'
import { Cells } from './cells'
import { numberColumns, type NoteWrong, type TakenCharge } from './charge'
import { dictionaryOf, Keys, type EntryId } from './keys'
import { KeptRules } from './kept-rules'
import { Numbers } from './numbers'
import { Times } from './times'
import { Values } from './values'

export type IntakeOptions = { decode: Decode; entryId: EntryId; note: (problem: FileProblem) => void }

/** The bit of the times among what can change; the dictionaries have the lower ones. */
const TIMES = 1 << dictionaryNames.length
const bitOf = (column: string) => {
  const dictionary = dictionaryOf(column)
  return dictionary === null ? 0 : 1 << dictionaryNames.indexOf(dictionary)
}

/**
 * Takes the rows of a file under its header, from texts or from bytes, checks each against FOCUS 1.0 to 1.2 and hands on exact charges.
 * Cells are set one by one, then `endRow` gives the charge or notes all that is wrong with it. Every check of a single value is made once
 * for each distinct value of a column.
 */
export class Intake {
  rows = 0
  /** Whether a row with all its cells has been seen: only then is there a row before to compare with. */
  #begun = false
  readonly #cells: Cells
  readonly #numbers = new Numbers()
  readonly #values: Values
  readonly #times: Times
  readonly #rules: KeptRules
  readonly #keys: Keys
  readonly #taken: TakenCharge
  /** By column, its place among the numbers; -1 where it holds none. */
  readonly #place: number[]
  /** Which columns have had a value. */
  readonly #filled: Uint8Array
  /** A bit for each dictionary and one for the times: what has changed since the row before. */
  readonly #bits: Int32Array
  #changed = ~0
  #timesGood = false
  readonly #note: NoteWrong = (column, value, { reason, mend }) =>
    this.options.note({ row: this.rows, column, value: value === null ? null : shownValue(value), reason, mend })

  constructor(
    readonly header: readonly string[],
    private readonly options: IntakeOptions,
  ) {
    const problems = checkHeader(header)
    if (problems.length) throw new RangeError('the header has to be checked first')
    this.#cells = new Cells(header, options.decode)
    this.#values = new Values(this.#cells)
    this.#times = new Times(this.#cells)
    this.#rules = new KeptRules(this.#cells, this.#numbers, this.#times)
    this.#keys = new Keys(this.#cells, options.entryId)
    this.#place = header.map(name => (numberColumns as readonly string[]).indexOf(name))
    this.#filled = new Uint8Array(header.length)
    this.#bits = Int32Array.from(header, (name, place) => (this.#cells.kinds[place] === 'time' ? TIMES : bitOf(name)))
    this.#taken = { times: this.#times.seconds, currency: '', keys: new Int32Array(dictionaryNames.length), ...this.#numbers.limbs }
  }

  /** By column, how many numbers were cut beyond fifteen decimals, and by how much together. */
  get roundings(): ReadonlyMap<string, { count: number; difference: Decimal }> {
    return this.#numbers.roundings
  }

  /**
   * Sets all cells of a row from bytes of UTF-8.
   * @param same 1 where a cell equals that of the row set before, most of a file: it is passed over.
   */
  setRow(bytes: Uint8Array, starts: Int32Array, ends: Int32Array, same: Uint8Array): void {
    const { odd, texts } = this.#numbers
    for (let column = 0; column < this.#place.length; column++) {
      if (same[column] !== 1) {
        this.setBytes(column, bytes, starts[column]!, ends[column]!)
        continue
      }
      const place = this.#place[column]!
      if (place >= 0 && odd[place] === 1) this.#setNumber(column, place, texts[place]!)
    }
  }

  /** Sets a cell from bytes of UTF-8. */
  setBytes(column: number, bytes: Uint8Array, from: number, to: number): void {
    const place = this.#place[column]!
    if (place < 0) return this.#set(column, this.#cells.values[column]!.ofBytes(bytes, from, to))
    const was = this.#numbers.present[place]!
    if (this.#numbers.setPlain(place, bytes, from, to)) this.#rules.changed(column, this.#numbers.present[place] !== was)
    else this.#setNumber(column, place, this.options.decode(bytes.subarray(from, to)) ?? '?')
  }

  /** Sets a cell from a text. */
  setText(column: number, text: string): void {
    const place = this.#place[column]!
    if (place < 0) this.#set(column, this.#cells.values[column]!.ofText(text))
    else this.#setNumber(column, place, text)
  }

  #setNumber(column: number, place: number, text: string): void {
    const was = this.#numbers.present[place]!
    this.#numbers.setText(place, text)
    this.#rules.changed(column, this.#numbers.present[place] !== was)
  }

  /** A cell that differs from the row before: what depends on its column is looked at again. */
  #set(column: number, id: number): void {
    const { ids, kinds } = this.#cells
    const before = ids[column]!
    if (before === id && this.#begun) return
    ids[column] = id
    if (id !== 0) this.#filled[column] = 1
    this.#changed |= this.#bits[column]!
    this.#rules.changed(column, (before === 0) !== (id === 0))
    if (kinds[column] === 'value') this.#values.look(column)
  }

  /** The charge of the cells set, or null when something is wrong with it, which has been noted. `cells` is how many the row had. */
  endRow(file: string, cells: number = this.header.length): TakenCharge | null {
    const row = ++this.rows
    if (cells !== this.header.length) {
      this.#note(null, null, {
        reason: `the row has ${cells} cells where the header names ${this.header.length}`,
        mend: 'Look for a missing or extra comma, or a text with a comma or line break that is not in quotes.',
      })
      this.#numbers.passOver()
      return null
    }
    if (!this.#begun) this.#firstRow()
    // what has changed stays so until a row is good: nothing is taken from a bad one
    if (!this.#isGood()) return null
    if (!this.#rules.check(file, row, (rule, value) => this.options.note(ruleProblem(rule, row, value)))) return null
    this.#taken.currency = this.#cells.textOf('BillingCurrency')
    const { keys } = this.#taken
    for (let i = 0; i < keys.length; i++) if (this.#changed & (1 << i)) keys[i] = this.#keys.find(i)
    this.#changed = 0
    this.#rules.settled()
    this.#numbers.count()
    return this.#taken
  }

  /** Looks at the values of a row one by one, all of them, so that all that is wrong is said at once. */
  #isGood(): boolean {
    let good = this.#values.check(this.#note)
    good = this.#numbers.check(this.#note) && good
    if (this.#changed & TIMES || !this.#timesGood) this.#timesGood = this.#times.check(this.#note)
    good = this.#timesGood && good
    return good && this.#times.checkCurrency(this.#note)
  }

  #firstRow(): void {
    this.#begun = true
    this.#changed = ~0
    this.#rules.allChanged()
    this.#values.lookAtAll()
  }

  /** Mandatory and conditional columns of the header that no row had a value in. */
  #emptyColumns(): string[] {
    return this.header.filter((name, column) => {
      const known = focusColumn(name)
      if (!known || known.presence === 'recommended') return false
      const place = this.#place[column]!
      return place >= 0 ? !this.#numbers.everPresent[place] : this.#filled[column] === 0
    })
  }

  /** What the file looks like against the specification. */
  conformance(): Conformance {
    const focus = this.header.filter(name => focusColumn(name))
    const others = this.header.filter(name => !focusColumn(name))
    return {
      rows: this.rows,
      rules: this.#rules.reports(),
      columns: {
        focus,
        own: others.filter(name => name.startsWith('x_')),
        unknown: others.filter(name => !name.startsWith('x_')),
        missing: focusColumns.filter(c => !this.header.includes(c.name)).map(c => c.name),
        empty: this.rows ? this.#emptyColumns() : [],
        meant: others.flatMap(name => {
          const column = meantColumn(name, this.header)
          return column === null ? [] : [{ name, column }]
        }),
      },
    }
  }
}
