/**
 * An amount as a whole number of 10⁻¹⁵ parts of a currency unit: exact, and cheap to add by the million.
 * Fifteen decimals are what a charge is stored with.
 */
export type Scaled = bigint

export const SCALE = 15
/** One currency unit. */
export const ONE = 10n ** 15n

/** The largest size of a single amount or quantity: bytes and tokens of a month, and money of the smallest units, stay below it. */
export const LARGEST_AMOUNT = 10 ** 15

export type ParsedScaled = { value: Scaled; rounded: boolean }

const PLAIN = /^([+-]?)(\d*)(?:\.(\d*))?(?:[eE]([+-]?\d{1,3}))?$/

/**
 * Reads decimal text, an exponent allowed (`1.5E-7`). Digits beyond the fifteenth decimal are rounded half to even and reported.
 * @returns null when the text is not a number.
 */
export function parseScaled(text: string): ParsedScaled | null {
  const match = PLAIN.exec(text)
  if (!match) return null
  const whole = match[2] ?? ''
  const fraction = match[3] ?? ''
  if (whole === '' && fraction === '') return null
  const exponent = match[4] ? Number(match[4]) : 0
  const digits = whole + fraction
  const shift = SCALE - fraction.length + exponent
  const negative = match[1] === '-'
  if (shift >= 0) {
    const value = BigInt(digits + '0'.repeat(shift))
    return { value: negative ? -value : value, rounded: false }
  }
  const divisor = 10n ** BigInt(-shift)
  const all = BigInt(digits)
  let value = all / divisor
  const left = all % divisor
  const twice = left * 2n
  if (twice > divisor || (twice === divisor && value % 2n === 1n)) value += 1n
  return { value: negative ? -value : value, rounded: left !== 0n }
}

/** Writes the amount with every digit it has and no more. */
export function scaledText(value: Scaled): string {
  const negative = value < 0n
  const size = negative ? -value : value
  const fraction = (size % ONE).toString().padStart(SCALE, '0').replace(/0+$/, '')
  return `${negative ? '-' : ''}${size / ONE}${fraction ? `.${fraction}` : ''}`
}

/** Reads text that is known to be an amount of at most fifteen decimals. Throws otherwise: that would be a fault, not bad input. */
export function scaled(text: string): Scaled {
  const parsed = parseScaled(text)
  if (!parsed || parsed.rounded) throw new RangeError(`not an amount of at most ${SCALE} decimals: ${text}`)
  return parsed.value
}

/** Digits without sign, and so many decimals as an amount has at most. */
const UNSIGNED = /^-?\d{1,15}(\.\d{1,15})?$/
/** Whole units are added as floats as long as these hold them exactly. */
const EXACT_WHOLE = 2 ** 52

/**
 * The exact sum of amounts as texts, of which there may be many: units and decimals are added apart, as floats that hold them.
 * @throws RangeError for a text that is no amount of at most fifteen decimals.
 */
export function sumOfTexts(texts: Iterable<string>): Scaled {
  let [total, whole, parts] = [0n, 0, 0]
  for (const text of texts) {
    if (!UNSIGNED.test(text)) {
      total += scaled(text)
      continue
    }
    const dot = text.indexOf('.')
    const sign = text.startsWith('-') ? -1 : 1
    const units = Math.abs(Number(dot < 0 ? text : text.slice(0, dot)))
    if (dot >= 0) parts += sign * Number(text.slice(dot + 1).padEnd(SCALE, '0'))
    whole += sign * units
    if (Math.abs(parts) >= 1e15) {
      whole += Math.sign(parts)
      parts -= Math.sign(parts) * 1e15
    }
    if (Math.abs(whole) >= EXACT_WHOLE) {
      total += BigInt(whole) * ONE
      whole = 0
    }
  }
  return total + BigInt(whole) * ONE + BigInt(parts)
}

/** One minor unit (a cent) in 10⁻¹⁵ parts, for a currency with so many decimals. */
export function minorUnit(decimals: number): Scaled {
  return 10n ** BigInt(SCALE - decimals)
}

/** How much an amount is, whichever way it goes. */
export const sizeOf = (amount: Scaled): Scaled => (amount < 0n ? -amount : amount)

/** An amount by so many, such as days; rounded half away from zero to the last digit that amounts have. */
export function dividedBy(amount: Scaled, many: number): Scaled {
  const by = BigInt(many)
  const quotient = (sizeOf(amount) * 2n + by) / (by * 2n)
  return amount < 0n ? -quotient : quotient
}

/** A part of a whole (both on one scale) as decimal text with at most so many decimals, at most fifteen; rounded half away from zero. */
export function quotientText(part: bigint, whole: bigint, digits: number): string {
  const quotient = ((sizeOf(part) * 2n * 10n ** BigInt(digits) + sizeOf(whole)) / (sizeOf(whole) * 2n)) * minorUnit(digits)
  return scaledText(part < 0n === whole < 0n ? quotient : -quotient)
}

/** An amount times a decimal of so many digits after its point, given as a whole number; rounded half to even. */
export function timesDecimal(amount: Scaled, factor: bigint, digits: number): Scaled {
  const one = 10n ** BigInt(digits)
  const product = amount * factor
  const size = product < 0n ? -product : product
  let quotient = size / one
  const twice = (size % one) * 2n
  if (twice > one || (twice === one && quotient % 2n === 1n)) quotient += 1n
  return product < 0n ? -quotient : quotient
}

/** Rounds half away from zero to the currency's decimals. */
export function roundScaled(value: Scaled, decimals: number): Scaled {
  const unit = minorUnit(decimals)
  const size = value < 0n ? -value : value
  const rounded = ((size * 2n + unit) / (unit * 2n)) * unit
  return value < 0n ? -rounded : rounded
}
