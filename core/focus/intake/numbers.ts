import { Decimal } from '../../money/decimal'
import { LARGEST_HIGH, limbsOf } from '../../money/limbs'
import { LARGEST_AMOUNT, ONE, parseScaled, scaledText, type Scaled } from '../../money/scaled'
import type { Wrong } from '../problem'
import { amountColumns } from '../star'
import { numberColumns, type NoteWrong, type TakenCharge } from './charge'

const MISSING_AMOUNT: Wrong = { reason: 'an amount is missing', mend: 'Fill it in; write 0 where nothing is charged.' }
const NOT_NUMBER: Wrong = {
  reason: 'not a number',
  mend: 'Use digits with a point, such as 12.5 or 1.5E-7; no thousands separator, no currency sign.',
}
const TOO_LARGE: Wrong = { reason: `larger than ${LARGEST_AMOUNT.toFixed(0)}`, mend: 'Check the unit, or give it in a larger one.' }
const powers = Array.from({ length: 16 }, (_, i) => 10 ** i)
const largest = BigInt(LARGEST_AMOUNT) * ONE

/** The amounts and quantities of a row, read exactly into limbs. Places are those of `numberColumns`. */
export class Numbers {
  readonly high = new Float64Array(numberColumns.length)
  readonly low = new Float64Array(numberColumns.length)
  readonly beyond = new Float64Array(numberColumns.length)
  readonly present = new Uint8Array(numberColumns.length)
  /** By column, what was cut beyond fifteen decimals. */
  readonly roundings = new Map<string, { count: number; difference: Decimal }>()
  /** By place: 1 where it could not be read as plain digits; then `texts` has it. */
  readonly odd = new Uint8Array(numberColumns.length)
  readonly texts: string[] = numberColumns.map(() => '')
  /** By place: 1 where any charge had one; every charge has the amounts. */
  readonly everPresent = Uint8Array.from(numberColumns, (_, place) => (place < amountColumns.length ? 1 : 0))
  readonly #wrong: (Wrong | null)[] = numberColumns.map(() => null)
  #anyWrong = false
  /** Whether any number so far was larger than two limbs: until then the third need not be cleared. */
  #anyBeyond = false

  /** Digits with at most fifteen decimals, read without a text: nearly every amount. @returns false when it is anything else. */
  setPlain(place: number, bytes: Uint8Array, from: number, to: number): boolean {
    const { high, low, present } = this
    this.#wrong[place] = null
    this.odd[place] = 0
    if (this.#anyBeyond) this.beyond[place] = 0
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

  /** A number that is not plain: what there is to say of it is said again for each row. */
  setText(place: number, text: string): void {
    const { high, low, beyond, present } = this
    this.odd[place] = 1
    this.#wrong[place] = null
    this.texts[place] = text
    high[place] = low[place] = beyond[place] = present[place] = 0
    if (text === '') return
    const parsed = parseScaled(text)
    if (!parsed) return this.#isWrong(place, NOT_NUMBER)
    if (parsed.value > largest || parsed.value < -largest) return this.#isWrong(place, TOO_LARGE)
    if (parsed.rounded) this.#rounded(numberColumns[place]!, text, parsed.value)
    const limbs = limbsOf(parsed.value)
    high[place] = limbs.high
    low[place] = limbs.low
    beyond[place] = limbs.beyond
    if (limbs.beyond !== 0) this.#anyBeyond = true
    present[place] = 1
  }

  #isWrong(place: number, wrong: Wrong): void {
    this.#wrong[place] = wrong
    this.#anyWrong = true
  }

  #rounded(column: string, text: string, value: Scaled): void {
    const known = this.roundings.get(column)
    const difference = new Decimal(scaledText(value)).minus(new Decimal(text))
    this.roundings.set(column, { count: (known?.count ?? 0) + 1, difference: (known?.difference ?? new Decimal(0)).plus(difference) })
  }

  /** Notes amounts that are missing and numbers that cannot be read. @returns whether there are none. */
  check(note: NoteWrong): boolean {
    let good = true
    for (let place = 0; place < amountColumns.length; place++) {
      if (this.present[place] || this.#wrong[place]) continue
      good = false
      note(numberColumns[place]!, '', MISSING_AMOUNT)
    }
    if (this.#anyWrong) {
      this.#wrong.forEach((wrong, place) => {
        if (!wrong) return
        good = false
        note(numberColumns[place]!, this.texts[place]!, wrong)
      })
      this.#anyWrong = false
    }
    return good
  }

  /** Forgets what was wrong with a row that is not looked at any further. */
  passOver(): void {
    this.#anyWrong = false
  }

  /** Remembers which quantities a good row had. */
  count(): void {
    for (let place = amountColumns.length; place < this.present.length; place++) this.everPresent[place]! |= this.present[place]!
  }

  /** @returns the number in a place, near enough to compare it with another. */
  near(place: number): number {
    return this.beyond[place]! * 1e9 + this.high[place]! / 1e6 + this.low[place]! / 1e15
  }

  /** The arrays that a charge hands on. */
  get limbs(): Pick<TakenCharge, 'high' | 'low' | 'beyond' | 'present'> {
    const { high, low, beyond, present } = this
    return { high, low, beyond, present }
  }
}
