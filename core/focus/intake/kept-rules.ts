import { MOST_EXAMPLES, type RuleReport } from '../conformance'
import { shownValue } from '../problem'
import { enumerated, kindColumns, type Rule, type RuleCharge } from '../rule'
import { rules } from '../rules'
import type { Cells } from './cells'
import { numberColumns, timeColumns } from './charge'
import type { Numbers } from './numbers'
import type { Times } from './times'

/** A bit of a whole number of 32 for each. */
const MOST_RULES = 32
const placeOfNumber = (column: string) => (numberColumns as readonly string[]).indexOf(column)

type KeptRule = { rule: Rule; report: RuleReport; broken: boolean }

/** The rules of the specification that a file's columns allow to be asked, each asked again only when what it speaks of has changed. */
export class KeptRules {
  readonly #rules: KeptRule[]
  readonly #charge: RuleCharge
  /** By column, the rules to be asked again when its value changes, and when it comes or goes: a bit for each rule. */
  readonly #byValue: Int32Array
  readonly #byPresence: Int32Array
  #stale = ~0

  constructor(
    private readonly cells: Cells,
    private readonly numbers: Numbers,
    times: Times,
  ) {
    const asked = rules.filter(rule => rule.needs.every(column => cells.placeOf(column) !== undefined))
    if (asked.length > MOST_RULES) throw new RangeError(`there are more than ${MOST_RULES} rules`)
    this.#rules = asked.map(rule => ({
      rule,
      report: { id: rule.id, says: rule.says, severity: rule.severity, since: rule.since, rows: 0, examples: [] },
      broken: false,
    }))
    const bits = (test: (rule: Rule) => boolean) => asked.reduce((found, rule, i) => (test(rule) ? found | (1 << i) : found), 0)
    this.#byValue = Int32Array.from(cells.header, column => bits(rule => asksValue(rule, column)))
    this.#byPresence = Int32Array.from(cells.header, column => bits(rule => rule.needs.includes(column)))
    this.#charge = chargeOf(cells, numbers, times)
  }

  /** A cell has changed, and perhaps come or gone. */
  changed(place: number, hasComeOrGone: boolean): void {
    this.#stale |= this.#byValue[place]!
    if (hasComeOrGone) this.#stale |= this.#byPresence[place]!
  }

  /** All rules are asked again at the next row. */
  allChanged(): void {
    this.#stale = ~0
  }

  /** The row was good: what was asked holds until something changes. */
  settled(): void {
    this.#stale = 0
  }

  /** Asks the rules of a row, counts what breaks them. @returns whether no error was found. */
  check(file: string, row: number, broken: (rule: Rule, value: string | null) => void): boolean {
    let good = true
    for (let i = 0; i < this.#rules.length; i++) {
      const entry = this.#rules[i]!
      const { rule, report } = entry
      if (this.#stale & (1 << i)) entry.broken = rule.broken(this.#charge)
      if (!entry.broken) continue
      report.rows++
      const value = this.#shown(rule.needs.at(-1)!)
      if (report.examples.length < MOST_EXAMPLES) report.examples.push({ file, row, value })
      if (rule.severity === 'warning') continue
      good = false
      broken(rule, value)
    }
    return good
  }

  #shown(column: string): string | null {
    const place = placeOfNumber(column)
    if (place >= 0) return this.numbers.present[place] ? String(this.#charge.amount(column)) : null
    return shownValue(this.cells.textOf(column)) || null
  }

  /** @returns of each rule how often it was broken, and where first. */
  reports(): RuleReport[] {
    return this.#rules.map(({ report }) => report)
  }
}

/** Whether a rule has to be asked again when a column's value changes: when it speaks of it, and when the kind of the charge changes. */
function asksValue({ needs, amounts = [] }: Rule, column: string): boolean {
  if (kindColumns.includes(column) || amounts.includes(column)) return true
  return needs.includes(column) && (enumerated.includes(column) || (timeColumns as readonly string[]).includes(column))
}

/** The charge as rules see it, with places of columns and numbers of texts found once. */
function chargeOf(cells: Cells, numbers: Numbers, times: Times): RuleCharge {
  const numberPlaces = new Map<string, number>(numberColumns.map((name, place) => [name, place]))
  const wanted = cells.header.map(() => new Map<string, number>())
  const floats: number[][] = cells.header.map(() => [])
  return {
    has: column => {
      const number = numberPlaces.get(column)
      return number === undefined ? cells.ids[cells.placeOf(column)!] !== 0 : numbers.present[number] === 1
    },
    is: (column, value) => {
      const place = cells.placeOf(column)
      if (place === undefined) return false
      let id = wanted[place]!.get(value)
      if (id === undefined) {
        id = cells.values[place]!.ofText(value)
        wanted[place]!.set(value, id)
      }
      return cells.ids[place] === id
    },
    amount: column => {
      const number = numberPlaces.get(column)
      if (number !== undefined) return numbers.near(number)
      const place = cells.placeOf(column)!
      const id = cells.ids[place]!
      return (floats[place]![id] ??= Number(cells.values[place]!.texts[id]))
    },
    seconds: column => times.seconds[column],
  }
}
