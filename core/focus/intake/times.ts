import { currencyPeriod } from '../../money/currency'
import { readTime } from '../check'
import type { Wrong } from '../problem'
import type { Cells } from './cells'
import { timeColumns, type NoteWrong, type TimeColumn } from './charge'

/** Charges are of this century: anything else is a slip of the pen, and one in 2062 would be today until then. */
const FIRST_SECOND = Date.parse('2000-01-01T00:00:00Z') / 1000
const LAST_SECOND = Date.parse('2101-01-01T00:00:00Z') / 1000
const OUTSIDE: Wrong = { reason: 'is outside the years 2000 to 2100', mend: 'Look for a mistyped year.' }
const MISSING: Wrong = { reason: 'a value is missing', mend: 'Fill in the date and time, such as 2026-11-01T00:00:00Z.' }
const NOT_TIME: Wrong = { reason: 'not a date and time in UTC', mend: 'Write it like 2026-11-01T00:00:00Z.' }
const PERIODS = [
  ['BillingPeriodStart', 'BillingPeriodEnd'],
  ['ChargePeriodStart', 'ChargePeriodEnd'],
] as const
const secondOf = (day: string) => Date.parse(`${day}T00:00:00Z`) / 1000

/** The times of a row, each distinct text read once, and whether its currency was in use then. */
export class Times {
  /** Of the row that was checked last, in seconds since 1970. */
  readonly seconds: Record<TimeColumn, number> = { BillingPeriodStart: 0, BillingPeriodEnd: 0, ChargePeriodStart: 0, ChargePeriodEnd: 0 }
  readonly #columns: { name: TimeColumn; place: number; read: (number | null)[] }[]
  readonly #currency: number
  /** By value of the currency's column, the seconds between which it is in use; null for always. */
  readonly #currencyBounds: ({ from: number; until: number } | null)[] = []

  constructor(private readonly cells: Cells) {
    this.#columns = timeColumns.map(name => ({ name, place: cells.placeOf(name)!, read: [] }))
    this.#currency = cells.placeOf('BillingCurrency')!
  }

  /** Notes times that are missing, unreadable or out of order. @returns whether there are none. */
  check(note: NoteWrong): boolean {
    let good = true
    const known = { BillingPeriodStart: true, BillingPeriodEnd: true, ChargePeriodStart: true, ChargePeriodEnd: true }
    for (const { name, place, read } of this.#columns) {
      const id = this.cells.ids[place]!
      const text = this.cells.values[place]!.texts[id] ?? '?'
      let seconds = read[id]
      if (seconds === undefined) seconds = read[id] = readTime(text)
      if (seconds !== null) this.seconds[name] = seconds
      const wrong = seconds === null ? (text === '' ? MISSING : NOT_TIME) : seconds < FIRST_SECOND || seconds > LAST_SECOND ? OUTSIDE : null
      if (wrong === null) continue
      good = known[name] = false
      note(name, text, wrong)
    }
    for (const [start, end] of PERIODS) {
      if (!known[start] || !known[end] || this.seconds[start] < this.seconds[end]) continue
      good = false
      note(end, this.cells.textOf(end), {
        reason: `is not after ${start} (${this.cells.textOf(start)})`,
        mend: 'The end is exclusive: a day ends at midnight of the next.',
      })
    }
    return good
  }

  /** Holds a currency that is not always in use against the charge's start. @returns whether it was in use. */
  checkCurrency(note: NoteWrong): boolean {
    const id = this.cells.ids[this.#currency]!
    let bounds = this.#currencyBounds[id]
    if (bounds === undefined) {
      const { from, until } = currencyPeriod(this.cells.textOf('BillingCurrency'))
      const isAlways = from === null && until === null
      bounds = isAlways ? null : { from: from === null ? -Infinity : secondOf(from), until: until === null ? Infinity : secondOf(until) }
      this.#currencyBounds[id] = bounds
    }
    if (bounds === null) return true
    const { ChargePeriodStart: start } = this.seconds
    if (start >= bounds.from && start < bounds.until) return true
    note('BillingCurrency', this.cells.textOf('BillingCurrency'), {
      reason: `was not in use on ${this.cells.textOf('ChargePeriodStart').slice(0, 10)}`,
      mend: 'Check the currency and the date of the charge.',
    })
    return false
  }
}
