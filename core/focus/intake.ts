import { Decimal } from '../money/decimal'
import { LARGEST_AMOUNT, ONE, parseScaled, scaledText, type Scaled } from '../money/scaled'
import { LARGEST_HIGH, limbsOf } from '../money/limbs'
import { currencyPeriod } from '../money/currency'
import { canonicalJson, checkHeader, meantColumn, readTime, valueCheck } from './check'
import { ColumnValues, TupleIndex, type Decode } from './column-values'
import { focusColumn, focusColumns, type FocusColumn } from './columns'
import { MOST_EXAMPLES, ruleProblem, type Conformance, type RuleReport } from './conformance'
import { shownValue, type FileProblem, type Wrong } from './problem'
import { whyNotKept } from './keepable'
import { enumerated, kindColumns, type Rule, type RuleCharge } from './rule'
import { rules } from './rules'
import { amountColumns, dictionaries, dictionaryFor, dictionaryNames, ownColumns, quantityColumns, type DictionaryName } from './star'

/** Amounts and quantities of a charge, in this order. */
export const numberColumns = [...amountColumns, ...quantityColumns] as const
const timeColumns = ['BillingPeriodStart', 'BillingPeriodEnd', 'ChargePeriodStart', 'ChargePeriodEnd'] as const
type TimeColumn = (typeof timeColumns)[number]

/** A checked charge. The arrays are the intake's own and hold until its next row. */
export type TakenCharge = {
  /** Seconds since 1970. */
  times: Record<TimeColumn, number>
  currency: string
  /** Dictionary ids in the order of `dictionaryNames`. */
  keys: Int32Array
  /** Limbs in the order of `numberColumns`; what is not there counts as zero. */
  high: Float64Array
  low: Float64Array
  /** What is beyond two limbs, see `core/spend/limbs.ts`: nearly always zero. */
  beyond: Float64Array
  present: Uint8Array
}

export type IntakeOptions = {
  decode: Decode
  /** The id of a combination of values in a dictionary, new or known; asked once for each combination of a file. */
  entryId: (dictionary: DictionaryName, values: (string | null)[]) => number
  note: (problem: FileProblem) => void
}

type Kind = 'value' | 'number' | 'time'

const MISSING_AMOUNT: Wrong = { reason: 'an amount is missing', mend: 'Fill it in; write 0 where nothing is charged.' }
const NOT_NUMBER: Wrong = {
  reason: 'not a number',
  mend: 'Use digits with a point, such as 12.5 or 1.5E-7; no thousands separator, no currency sign.',
}
const TOO_LARGE: Wrong = { reason: `larger than ${LARGEST_AMOUNT.toFixed(0)}`, mend: 'Check the unit, or give it in a larger one.' }
const powers = Array.from({ length: 16 }, (_, i) => 10 ** i)

/**
 * Takes the rows of a file under its header, from texts or from bytes, checks each against FOCUS 1.0 to 1.2 and hands on exact charges.
 * Cells are set one by one, then `endRow` gives the charge or notes all that is wrong with it. Every check of a single value is made once
 * for each distinct value of a column.
 */
export class Intake {
  rows = 0
  /** Whether a row with all its cells has been seen: only then is there a row before to compare with. */
  #begun = false
  readonly roundings = new Map<string, { count: number; difference: Decimal }>()
  readonly #kinds: Kind[]
  readonly #place: number[]
  readonly #values: ColumnValues[]
  readonly #ids: Int32Array
  readonly #columns: (FocusColumn | null)[]
  readonly #checks: (((text: string) => Wrong | null) | null)[]
  readonly #verdicts: (Wrong | null | undefined)[][]
  readonly #seconds: (number | null)[][]
  readonly #dictionaries: Dictionary[]
  readonly #currency: number
  readonly #rules: { rule: Rule; report: RuleReport; broken: boolean }[]
  readonly #taken: TakenCharge
  readonly #numberWrong: (Wrong | null)[]
  readonly #numberText: string[]
  /** By place of a number: 1 where it could not be read as plain digits. */
  readonly #odd = new Uint8Array(numberColumns.length)
  /** By place of a number: 1 where any charge had one; every charge has the amounts. */
  readonly #everPresent = Uint8Array.from(numberColumns, (_, place) => (place < amountColumns.length ? 1 : 0))
  readonly #view: RuleCharge
  #anyNumberWrong = false
  /** Whether any number so far was larger than two limbs: until then the third need not be cleared. */
  #anyBeyond = false
  /** Which columns hold a wrong value, and how many do. */
  readonly #wrongCells: Uint8Array
  /** Which columns have had a value. */
  readonly #filled: Uint8Array
  #wrongCount = 0
  /** A bit for each dictionary and one for the times: what has changed since the row before. */
  readonly #bits: Int32Array
  #changed = ~0
  /** By column, the rules to be asked again when its value changes, and when it comes or goes: a bit for each rule. */
  readonly #asked: { byValue: Int32Array; byPresence: Int32Array }
  #stale = ~0
  #timesGood = false

  constructor(
    readonly header: readonly string[],
    private readonly options: IntakeOptions,
  ) {
    const problems = checkHeader(header)
    if (problems.length) throw new RangeError('the header has to be checked first')
    const at = (name: string) => header.indexOf(name)
    this.#kinds = header.map(name =>
      (numberColumns as readonly string[]).includes(name) ? 'number' : (timeColumns as readonly string[]).includes(name) ? 'time' : 'value',
    )
    this.#place = header.map(name => (numberColumns as readonly string[]).indexOf(name))
    this.#values = header.map(() => new ColumnValues(options.decode))
    this.#ids = new Int32Array(header.length)
    this.#columns = header.map(name => focusColumn(name) ?? null)
    this.#checks = this.#columns.map((column, i) => (column && this.#kinds[i] === 'value' ? valueCheck(column) : whyNotKept))
    this.#verdicts = header.map(() => [])
    this.#seconds = header.map(() => [])
    this.#currency = at('BillingCurrency')
    const others = header.flatMap((name, i) => (dictionaryFor(name) || ownColumns.includes(name) ? [] : [i]))
    this.#dictionaries = dictionaryNames.map(name => {
      const columns = name === 'others' ? others : dictionaries[name].map(at).filter(i => i >= 0)
      return { name, columns, tuple: new Int32Array(columns.length), index: new TupleIndex(columns.length), ids: [] }
    })
    this.#rules = rules
      .filter(rule => rule.needs.every(column => at(column) >= 0))
      .map(rule => ({
        rule,
        report: { id: rule.id, says: rule.says, severity: rule.severity, since: rule.since, rows: 0, examples: [] },
        broken: false,
      }))
    this.#asked = rulesAsked(
      header,
      this.#rules.map(({ rule }) => rule),
    )
    this.#wrongCells = new Uint8Array(header.length)
    this.#filled = new Uint8Array(header.length)
    this.#bits = Int32Array.from(header, (name, i) =>
      this.#kinds[i] === 'time' ? TIMES : bitOf(dictionaryFor(name) ?? (ownColumns.includes(name) ? null : 'others')),
    )
    this.#numberWrong = numberColumns.map(() => null)
    this.#numberText = numberColumns.map(() => '')
    this.#taken = {
      times: { BillingPeriodStart: 0, BillingPeriodEnd: 0, ChargePeriodStart: 0, ChargePeriodEnd: 0 },
      currency: '',
      keys: new Int32Array(dictionaryNames.length),
      high: new Float64Array(numberColumns.length),
      low: new Float64Array(numberColumns.length),
      beyond: new Float64Array(numberColumns.length),
      present: new Uint8Array(numberColumns.length),
    }
    this.#view = this.#ruleView()
  }

  /**
   * Sets all cells of a row from bytes of UTF-8.
   * @param same 1 where a cell equals that of the row set before, most of a file: it is passed over.
   */
  setRow(bytes: Uint8Array, starts: Int32Array, ends: Int32Array, same: Uint8Array): void {
    for (let i = 0; i < this.#ids.length; i++) {
      if (same[i] !== 1) this.setBytes(i, bytes, starts[i]!, ends[i]!)
      else if (this.#kinds[i] === 'number' && this.#odd[this.#place[i]!] === 1) this.#setNumber(i, this.#numberText[this.#place[i]!]!)
    }
  }

  /** Sets a cell from bytes of UTF-8. */
  setBytes(column: number, bytes: Uint8Array, from: number, to: number): void {
    if (this.#kinds[column] === 'number') {
      const place = this.#place[column]!
      const was = this.#taken.present[place]!
      if (this.#plainNumber(place, bytes, from, to)) this.#numberSet(column, place, was)
      else this.#setNumber(column, this.options.decode(bytes.subarray(from, to)) ?? '?')
    } else this.#set(column, this.#values[column]!.ofBytes(bytes, from, to))
  }

  /** A cell that differs from the row before: what depends on its column is looked at again. */
  #set(column: number, id: number): void {
    const before = this.#ids[column]!
    if (before === id && this.#begun) return
    this.#ids[column] = id
    if (id !== 0) this.#filled[column] = 1
    this.#changed |= this.#bits[column]!
    this.#stale |= this.#asked.byValue[column]!
    if ((before === 0) !== (id === 0)) this.#stale |= this.#asked.byPresence[column]!
    if (this.#kinds[column] === 'time') return
    const wrong = this.#verdict(column, id) !== null
    if (wrong !== (this.#wrongCells[column] === 1)) {
      this.#wrongCells[column] = wrong ? 1 : 0
      this.#wrongCount += wrong ? 1 : -1
    }
  }

  /** Sets a cell from a text. */
  setText(column: number, text: string): void {
    if (this.#kinds[column] === 'number') this.#setNumber(column, text)
    else this.#set(column, this.#values[column]!.ofText(text))
  }

  /** A number that is not plain: what there is to say of it is said again for each row. */
  #setNumber(column: number, text: string): void {
    const place = this.#place[column]!
    const was = this.#taken.present[place]!
    this.#number(place, text)
    this.#odd[place] = 1
    this.#numberSet(column, place, was)
  }

  #numberSet(column: number, place: number, was: number): void {
    this.#stale |= this.#asked.byValue[column]!
    if (this.#taken.present[place] !== was) this.#stale |= this.#asked.byPresence[column]!
  }

  /** Digits with at most fifteen decimals, read without a text: nearly every amount. False when it is anything else. */
  #plainNumber(place: number, bytes: Uint8Array, from: number, to: number): boolean {
    const { high, low, present } = this.#taken
    this.#numberWrong[place] = null
    this.#odd[place] = 0
    if (this.#anyBeyond) this.#taken.beyond[place] = 0
    if (from === to) {
      high[place] = low[place] = present[place] = 0
      return true
    }
    let i = from
    const negative = bytes[i] === 0x2d
    if (negative) i++
    let whole = 0
    const firstDigit = i
    for (; i < to; i++) {
      const digit = bytes[i]! - 48
      if (digit < 0 || digit > 9) break
      whole = whole * 10 + digit
    }
    if (i === firstDigit || i - firstDigit > 10) return false
    let micro = 0
    let rest = 0
    if (i < to) {
      if (bytes[i] !== 0x2e) return false
      const first = ++i
      if (to - first > 15 || first === to) return false
      for (; i < to; i++) {
        const digit = bytes[i]! - 48
        if (digit < 0 || digit > 9) return false
        if (i - first < 6) micro = micro * 10 + digit
        else rest = rest * 10 + digit
      }
      const digits = to - first
      if (digits < 6) micro *= powers[6 - digits]!
      else rest *= powers[15 - digits]!
    }
    const h = whole * 1e6 + micro
    if (h > LARGEST_HIGH || (h === LARGEST_HIGH && rest > 0)) return false
    high[place] = negative ? -h : h
    low[place] = negative ? -rest : rest
    present[place] = 1
    return true
  }

  #number(place: number, text: string): void {
    const { high, low, beyond, present } = this.#taken
    this.#numberWrong[place] = null
    this.#numberText[place] = text
    high[place] = low[place] = beyond[place] = present[place] = 0
    if (text === '') return
    const parsed = parseScaled(text)
    if (!parsed) return this.#wrongNumber(place, NOT_NUMBER)
    if (parsed.value > largest || parsed.value < -largest) return this.#wrongNumber(place, TOO_LARGE)
    if (parsed.rounded) this.#rounded(numberColumns[place]!, text, parsed.value)
    const limbs = limbsOf(parsed.value)
    high[place] = limbs.high
    low[place] = limbs.low
    beyond[place] = limbs.beyond
    if (limbs.beyond !== 0) this.#anyBeyond = true
    present[place] = 1
  }

  #wrongNumber(place: number, wrong: Wrong): void {
    this.#numberWrong[place] = wrong
    this.#anyNumberWrong = true
  }

  #rounded(column: string, text: string, value: Scaled): void {
    const known = this.roundings.get(column)
    const difference = new Decimal(scaledText(value)).minus(new Decimal(text))
    this.roundings.set(column, { count: (known?.count ?? 0) + 1, difference: (known?.difference ?? new Decimal(0)).plus(difference) })
  }

  /** The charge of the cells set, or null when something is wrong with it, which has been noted. `cells` is how many the row had. */
  endRow(file: string, cells: number = this.header.length): TakenCharge | null {
    const row = ++this.rows
    if (cells !== this.header.length) {
      this.#note(row, null, null, {
        reason: `the row has ${cells} cells where the header names ${this.header.length}`,
        mend: 'Look for a missing or extra comma, or a text with a comma or line break that is not in quotes.',
      })
      this.#anyNumberWrong = false
      return null
    }
    let good = this.#checkValues(row)
    good = this.#checkNumbers(row) && good
    if (this.#changed & TIMES || !this.#timesGood) {
      this.#timesGood = this.#checkTimes(row)
      good = this.#timesGood && good
    }
    good = good && this.#checkCurrency(row)
    // what has changed stays so until a row is good: nothing is taken from a bad one
    if (!good) return null
    if (!this.#checkRules(file, row)) return null
    this.#taken.currency = this.#values[this.#currency]!.texts[this.#ids[this.#currency]!]!
    const { keys } = this.#taken
    for (let i = 0; i < this.#dictionaries.length; i++) if (this.#changed & (1 << i)) keys[i] = this.#key(this.#dictionaries[i]!)
    this.#changed = this.#stale = 0
    const { present } = this.#taken
    for (let place = amountColumns.length; place < present.length; place++) this.#everPresent[place]! |= present[place]!
    return this.#taken
  }

  #note(row: number, column: string | null, value: string | null, { reason, mend }: Wrong): void {
    this.options.note({ row, column, value: value === null ? null : shownValue(value), reason, mend })
  }

  #verdict(column: number, id: number): Wrong | null {
    let wrong = this.#verdicts[column]![id]
    if (wrong === undefined) {
      const text = this.#values[column]!.texts[id]!
      wrong = text === null ? NOT_UTF8 : this.#checks[column]!(text)
      this.#verdicts[column]![id] = wrong
    }
    return wrong
  }

  #checkValues(row: number): boolean {
    if (!this.#begun) this.#firstRow()
    if (this.#wrongCount === 0) return true
    for (let i = 0; i < this.#kinds.length; i++) {
      if (!this.#wrongCells[i]) continue
      const id = this.#ids[i]!
      this.#note(row, this.header[i]!, this.#values[i]!.texts[id] ?? '', this.#verdict(i, id)!)
    }
    return false
  }

  /** A cell that the first row left as it was, empty, has not been looked at yet. */
  #firstRow(): void {
    this.#begun = true
    this.#changed = this.#stale = ~0
    for (let i = 0; i < this.#kinds.length; i++) {
      if (this.#kinds[i] !== 'value' || this.#wrongCells[i]) continue
      if (this.#verdict(i, this.#ids[i]!)) {
        this.#wrongCells[i] = 1
        this.#wrongCount++
      }
    }
  }

  #checkNumbers(row: number): boolean {
    let good = true
    const { present } = this.#taken
    for (let place = 0; place < amountColumns.length; place++) {
      if (present[place] || this.#numberWrong[place]) continue
      good = false
      this.#note(row, numberColumns[place]!, '', MISSING_AMOUNT)
    }
    if (this.#anyNumberWrong) {
      this.#numberWrong.forEach((wrong, place) => {
        if (!wrong) return
        good = false
        this.#note(row, numberColumns[place]!, this.#numberText[place]!, wrong)
      })
      this.#anyNumberWrong = false
    }
    return good
  }

  #checkTimes(row: number): boolean {
    let good = true
    const { times } = this.#taken
    const known = { BillingPeriodStart: true, BillingPeriodEnd: true, ChargePeriodStart: true, ChargePeriodEnd: true }
    for (const name of timeColumns) {
      const column = this.#timePlace(name)
      const id = this.#ids[column]!
      let seconds = this.#seconds[column]![id]
      const text = this.#values[column]!.texts[id] ?? '?'
      if (seconds === undefined) {
        seconds = readTime(text)
        this.#seconds[column]![id] = seconds
      }
      if (seconds !== null) {
        times[name] = seconds
        if (seconds >= FIRST_SECOND && seconds <= LAST_SECOND) continue
        good = known[name] = false
        this.#note(row, name, text, OUTSIDE)
        continue
      }
      good = known[name] = false
      this.#note(
        row,
        name,
        text,
        text === ''
          ? { reason: 'a value is missing', mend: 'Fill in the date and time, such as 2026-11-01T00:00:00Z.' }
          : { reason: 'not a date and time in UTC', mend: 'Write it like 2026-11-01T00:00:00Z.' },
      )
    }
    for (const [start, end] of [
      ['BillingPeriodStart', 'BillingPeriodEnd'],
      ['ChargePeriodStart', 'ChargePeriodEnd'],
    ] as const) {
      if (!known[start] || !known[end] || times[start] < times[end]) continue
      good = false
      this.#note(row, end, this.#text(end), {
        reason: `is not after ${start} (${this.#text(start)})`,
        mend: 'The end is exclusive: a day ends at midnight of the next.',
      })
    }
    return good
  }

  /** By value of the currency's column, the seconds between which it is in use; null for always. */
  readonly #currencyBounds: ({ from: number; until: number } | null)[] = []

  /** Holds a currency that is not always in use against the charge's start. */
  #checkCurrency(row: number): boolean {
    const id = this.#ids[this.#currency]!
    let bounds = this.#currencyBounds[id]
    if (bounds === undefined) {
      const { from, until } = currencyPeriod(this.#text('BillingCurrency'))
      const seconds = (day: string | null, none: number) => (day === null ? none : Date.parse(`${day}T00:00:00Z`) / 1000)
      bounds = from === null && until === null ? null : { from: seconds(from, -Infinity), until: seconds(until, Infinity) }
      this.#currencyBounds[id] = bounds
    }
    if (bounds === null) return true
    const { ChargePeriodStart: start } = this.#taken.times
    if (start >= bounds.from && start < bounds.until) return true
    this.#note(row, 'BillingCurrency', this.#text('BillingCurrency'), {
      reason: `was not in use on ${this.#text('ChargePeriodStart').slice(0, 10)}`,
      mend: 'Check the currency and the date of the charge.',
    })
    return false
  }

  #timePlace(name: TimeColumn): number {
    return (this.#times[name] ??= this.header.indexOf(name))
  }

  readonly #times: Partial<Record<TimeColumn, number>> = {}

  #text(column: string): string {
    const i = this.header.indexOf(column)
    return this.#values[i]!.texts[this.#ids[i]!] ?? ''
  }

  #checkRules(file: string, row: number): boolean {
    let good = true
    for (let i = 0; i < this.#rules.length; i++) {
      const entry = this.#rules[i]!
      const { rule, report } = entry
      if (this.#stale & (1 << i)) entry.broken = rule.broken(this.#view)
      if (!entry.broken) continue
      report.rows++
      const value = this.#shown(rule.needs.at(-1)!)
      if (report.examples.length < MOST_EXAMPLES) report.examples.push({ file, row, value })
      if (rule.severity === 'warning') continue
      good = false
      this.options.note(ruleProblem(rule, row, value))
    }
    return good
  }

  #shown(column: string): string | null {
    const place = (numberColumns as readonly string[]).indexOf(column)
    if (place >= 0) return this.#taken.present[place] ? String(this.#view.amount(column)) : null
    return shownValue(this.#text(column)) || null
  }

  /** The charge as rules see it, with places of columns and numbers of texts found once. */
  #ruleView(): RuleCharge {
    const places = new Map(this.header.map((name, i) => [name, i]))
    const numbers = new Map<string, number>(numberColumns.map((name, i) => [name, i]))
    const wanted = this.header.map(() => new Map<string, number>())
    const floats: number[][] = this.header.map(() => [])
    return {
      has: column => {
        const number = numbers.get(column)
        return number === undefined ? this.#ids[places.get(column)!] !== 0 : this.#taken.present[number] === 1
      },
      is: (column, value) => {
        const place = places.get(column)
        if (place === undefined) return false
        let id = wanted[place]!.get(value)
        if (id === undefined) {
          id = this.#values[place]!.ofText(value)
          wanted[place]!.set(value, id)
        }
        return this.#ids[place] === id
      },
      amount: column => {
        const number = numbers.get(column)
        if (number !== undefined) {
          const { high, low, beyond } = this.#taken
          return beyond[number]! * 1e9 + high[number]! / 1e6 + low[number]! / 1e15
        }
        const place = places.get(column)!
        const id = this.#ids[place]!
        return (floats[place]![id] ??= Number(this.#values[place]!.texts[id]))
      },
      seconds: column => this.#taken.times[column],
    }
  }

  #key(dictionary: Dictionary): number {
    const { name, columns, tuple, index, ids } = dictionary
    for (let i = 0; i < columns.length; i++) tuple[i] = this.#ids[columns[i]!]!
    const before = index.size
    const place = index.place(tuple)
    if (place === before) ids[place] = this.options.entryId(name, this.#entry(dictionary))
    return ids[place]!
  }

  #entry({ name, columns }: Dictionary): (string | null)[] {
    if (name === 'others') {
      const filled = columns.flatMap(column => {
        const text = this.#values[column]!.texts[this.#ids[column]!]
        return text ? [[this.header[column]!, text] as const] : []
      })
      return [filled.length ? JSON.stringify(Object.fromEntries(filled)) : null]
    }
    return dictionaries[name].map(column => {
      const i = this.header.indexOf(column)
      const text = i < 0 ? '' : this.#values[i]!.texts[this.#ids[i]!]!
      return text === '' ? null : focusColumn(column)?.type === 'json' ? canonicalJson(text) : text
    })
  }

  /** Mandatory and conditional columns of the header that no row had a value in. */
  #emptyColumns(): string[] {
    return this.header.filter((name, i) => {
      const column = this.#columns[i]
      if (!column || column.presence === 'recommended') return false
      return this.#kinds[i] === 'number' ? !this.#everPresent[this.#place[i]!] : this.#filled[i] === 0
    })
  }

  /** What the file looks like against the specification. */
  conformance(): Conformance {
    const focus = this.header.filter(name => focusColumn(name))
    const others = this.header.filter(name => !focusColumn(name))
    return {
      rows: this.rows,
      rules: this.#rules.map(({ report }) => report),
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

/** Which rules have to be asked again when a column changes: those that speak of it, and all when the kind of the charge changes. */
function rulesAsked(header: readonly string[], asked: readonly Rule[]): { byValue: Int32Array; byPresence: Int32Array } {
  if (asked.length > MOST_RULES) throw new RangeError(`there are more than ${MOST_RULES} rules`)
  const bits = (test: (rule: Rule) => boolean) => asked.reduce((found, rule, i) => (test(rule) ? found | (1 << i) : found), 0)
  const byValue = (column: string, { needs, amounts = [] }: Rule) =>
    kindColumns.includes(column) ||
    amounts.includes(column) ||
    (needs.includes(column) && (enumerated.includes(column) || (timeColumns as readonly string[]).includes(column)))
  return {
    byValue: Int32Array.from(header, column => bits(rule => byValue(column, rule))),
    byPresence: Int32Array.from(header, column => bits(rule => rule.needs.includes(column))),
  }
}

type Dictionary = { name: DictionaryName; columns: number[]; tuple: Int32Array; index: TupleIndex; ids: number[] }

/** The bit of the times among what can change; the dictionaries have the lower ones. */
const TIMES = 1 << dictionaryNames.length
/** A bit of a whole number of 32 for each. */
const MOST_RULES = 32
const bitOf = (name: DictionaryName | null) => (name === null ? 0 : 1 << dictionaryNames.indexOf(name))
const largest = BigInt(LARGEST_AMOUNT) * ONE
/** Charges are of this century: anything else is a slip of the pen, and one in 2062 would be today until then. */
const FIRST_SECOND = Date.parse('2000-01-01T00:00:00Z') / 1000
const LAST_SECOND = Date.parse('2101-01-01T00:00:00Z') / 1000
const OUTSIDE: Wrong = { reason: 'is outside the years 2000 to 2100', mend: 'Look for a mistyped year.' }
const NOT_UTF8: Wrong = { reason: 'the bytes are not UTF-8', mend: 'Save the file in the encoding UTF-8.' }
