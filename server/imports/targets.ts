import { checkHeader, roundingSentence } from '../../core/focus/check'
import type { Conformance } from '../../core/focus/conformance'
import type { TakenCharge } from '../../core/focus/intake/charge'
import { Intake, type IntakeOptions } from '../../core/focus/intake/intake'
import { applyMapping, type MappedFile } from '../../core/focus/mapping/apply-mapping'
import type { Mapping } from '../../core/focus/mapping/mapping'
import type { FileProblem } from '../../core/focus/problem'
import { decodeUtf8 } from './readers/csv'
import { NOT_UTF8, type RowTarget } from './readers/reader'

export type ChargeTargetOptions = Omit<IntakeOptions, 'decode'> & {
  file: string
  source: string
  mapping: Mapping | null
  take: (charge: TakenCharge) => void
}

/** Takes the rows of a file, FOCUS or mapped, and hands on checked charges. */
export class ChargeTarget implements RowTarget {
  rows = 0
  /** Whether the header could be read at all. */
  begun = false
  #intake: Intake | null = null
  #mapped: MappedFile | null = null

  constructor(private readonly options: ChargeTargetOptions) {}

  begin(header: string[]): boolean {
    let columns = header
    if (this.options.mapping) {
      const mapped = applyMapping(this.options.mapping, header, this.options.source)
      if ('problems' in mapped) return this.#refuse(mapped.problems)
      this.#mapped = mapped
      columns = mapped.header
    }
    const problems = checkHeader(columns)
    if (problems.length) return this.#refuse(problems)
    this.#intake = new Intake(columns, { ...this.options, decode: decodeUtf8 })
    this.begun = true
    return true
  }

  #refuse(problems: FileProblem[]): false {
    problems.forEach(problem => this.options.note(problem))
    this.begun = true
    return false
  }

  get compares(): boolean {
    return this.options.mapping === null
  }

  bytes(bytes: Uint8Array, cells: number, starts: Int32Array, ends: Int32Array, same: Uint8Array): void {
    this.rows++
    if (this.#mapped) {
      this.#takeMapped(Array.from({ length: cells }, (_, i) => decodeUtf8(bytes.subarray(starts[i]!, ends[i]!)) ?? NOT_UTF8))
      return
    }
    const intake = this.#intake!
    if (cells === intake.header.length) intake.setRow(bytes, starts, ends, same)
    this.#end(intake, cells)
  }

  texts(cells: string[]): void {
    this.rows++
    if (this.#mapped) {
      this.#takeMapped(cells)
      return
    }
    const intake = this.#intake!
    cells.forEach((text, i) => intake.setText(i, text))
    this.#end(intake, cells.length)
  }

  #takeMapped(cells: string[]): void {
    const row = this.#mapped!.row(cells, this.rows)
    if (row === 'left out') return
    if ('problems' in row) {
      row.problems.forEach(problem => this.options.note(problem))
      return
    }
    const intake = this.#intake!
    row.texts.forEach((text, i) => intake.setText(i, text))
    this.#end(intake, row.texts.length)
  }

  #end(intake: Intake, cells: number): void {
    const charge = intake.endRow(this.options.file, cells)
    if (charge) this.options.take(charge)
  }

  get conformance(): Conformance | null {
    return this.#intake?.conformance() ?? null
  }

  /** What rounding did, and columns that are most likely meant for others, in words. */
  get warnings(): { column: string; sentence: string }[] {
    return [
      ...[...(this.#intake?.roundings ?? [])].map(([column, { count, difference }]) => ({
        column,
        sentence: roundingSentence(column, count, difference),
      })),
      ...(this.conformance?.columns.meant ?? []).map(({ name, column }) => ({
        column: name,
        sentence: `«${name}» is not a FOCUS column: if ${column} is meant, rename it; its values are kept under the name they have`,
      })),
    ]
  }
}
