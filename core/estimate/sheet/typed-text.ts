import { Decimal, decimalText, parseDecimal } from '../../money/decimal'
import { usualWays } from '../../ratecard/earlier-words'
import type { Field } from '../components/field-types'
import { ALWAYS_ON, readHours, readPlain, weekOf } from './hours-text'
import { inOrder, numberText, readNumber, type TypedNumber } from './number-text'

/** Stands behind a number that was refused because it may be two: it is kept so until someone writes which. */
const ASKED = ' ?'

/** What was typed, as it is kept; or the sentence that mends it. */
export type Read = { value: string } | { problem: string }

/** Any blank that a number may be shown with between its thousands. */
const BLANK = '[ \\u00A0\\u202F\\u2009]'
const PLAIN = /^[+-]?(\d+\.?\d*|\.\d+)([eE][+-]?\d{1,3})?$/
const GROUPED = new RegExp(`^[+-]?[1-9]\\d{0,2}((?:,\\d{3})+|(?:${BLANK}\\d{3})+)(\\.\\d+)?$`)
/** A point before exactly three digits: in half of the world it parts thousands. */
const EITHER_WAY = /^[+-]?[1-9]\d{0,2}\.\d{3}$/
const POINTS = /^[+-]?[1-9]\d{0,2}(\.\d{3}){2,}$/
/** A number at the beginning, and what follows it. */
const LEADING = new RegExp(`^([+-]?(?:\\d(?:[\\d.,]|${BLANK}(?=\\d))*|\\.\\d+)(?:[eE][+-]?\\d{1,3}(?![A-Za-z]))?)\\s*(.*)$`, 'u')
const BETWEEN = /\s*(?:\.\.+|…|–|—)\s*|\s+(?:-|to)\s+|(?<=[\d%A-DF-Za-df-z])-(?=\d)/u

const scales: Record<string, string> = {
  k: '1e3',
  K: '1e3',
  thousand: '1e3',
  M: '1e6',
  mn: '1e6',
  million: '1e6',
  millions: '1e6',
  bn: '1e9',
  billion: '1e9',
  billions: '1e9',
}

/** Units that turn into each other, each by what one of it is in the smallest; written in small letters, since people do. */
const families: Record<string, string>[] = [
  { b: '1', bytes: '1', kb: '1e3', mb: '1e6', gb: '1e9', tb: '1e12', pb: '1e15' },
  { 'kb/s': '1', 'mb/s': '1e3', 'gb/s': '1e6', kbps: '0.125', mbps: '125', gbps: '125e3' },
  {
    ms: '1',
    milliseconds: '1',
    s: '1e3',
    sec: '1e3',
    second: '1e3',
    seconds: '1e3',
    min: '6e4',
    minute: '6e4',
    minutes: '6e4',
    h: '36e5',
    hour: '36e5',
    hours: '36e5',
    d: '864e5',
    day: '864e5',
    days: '864e5',
    week: '6048e5',
    weeks: '6048e5',
  },
  { month: '1', months: '1', quarter: '3', quarters: '3', year: '12', years: '12' },
  { '%': '1', percent: '1', 'per cent': '1' },
  { iops: '1', 'op/s': '1', operations: '1', 'operations a second': '1' },
]

/** Numbers without a unit, as this product says them: `1 million`, `12 k`. */
const MILLION = 'million'

const mended = (n: Decimal) => decimalText(n)
const padded = (text: string) => (/\.\d{3}$/.test(text) ? `${text}0` : text)

/** A number with nothing around it. @returns what is wrong with it as a sentence. */
function plainNumber(text: string): Decimal | string {
  if (EITHER_WAY.test(text)) {
    const [whole, digits] = text.split('.') as [string, string]
    return `«${text}» may be ${padded(mended(new Decimal(text)))} or ${whole},${digits}: write one of them`
  }
  if (PLAIN.test(text)) return parseDecimal(text)!
  if (GROUPED.test(text)) return new Decimal(text.replace(new RegExp(`,|${BLANK}`, 'gu'), ''))
  if (POINTS.test(text)) return `a point begins the decimals: write ${text.replaceAll('.', ',')} or ${text.replaceAll('.', '')}`
  if (text.includes(','))
    return `a comma parts groups of three digits, as in 1,500: write ${/^[+-]?\d+,\d+$/.test(text) ? text.replace(',', '.') : 'the number without it'}`
  if (new RegExp(BLANK, 'u').test(text))
    return `«${text}» are two numbers: write one, or three such as 650..895..1100 for low, likely and high`
  return `«${text}» is no number`
}

type Suffix = { scale: Decimal | null; unit: string }

/** What stands behind a number: a scale such as `k` or `million`, a unit, or both. */
function readSuffix(text: string): Suffix {
  const [first = '', ...rest] = text.trim().split(/\s+/u)
  const scale = scales[first] ?? (first.length > 2 ? scales[first.toLowerCase()] : undefined)
  return scale === undefined || first === '' ? { scale: null, unit: text.trim() } : { scale: new Decimal(scale), unit: rest.join(' ') }
}

/** The number in the field's own unit. */
function inUnit(number: Decimal, { scale, unit }: Suffix, field: { label: string; unit?: string }): Decimal | string {
  const own = field.unit ?? ''
  const scaled = scale ? number.times(scale) : number
  const said = unit.toLowerCase().replace(/\s+/g, ' ')
  if (own === MILLION) {
    if (said === own) return scaled
    if (said === '') return scale ? scaled.div('1e6') : scaled
    return `«${unit}» is no unit of ${field.label}: write millions, such as 1.5 or 1.5 M`
  }
  const family = families.find(f => Object.hasOwn(f, own.toLowerCase()))
  if (said === '') {
    if (scale?.eq('1e6') && family && 'gb' in family)
      return `is it MB, or millions of ${own}? Write ${mended(number)} MB or ${mended(number)} million ${own}`
    return scaled
  }
  if (said === own.toLowerCase() || (own === '' && isNameOf(field.label, said))) return scaled
  if (family && Object.hasOwn(family, said)) return scaled.times(family[said]!).div(family[own.toLowerCase()]!)
  return own === ''
    ? `${field.label} has no unit: write the number without «${unit}»`
    : `«${unit}» is no unit of ${field.label}: write it in ${
        family
          ? Object.keys(family)
              .filter(u => u.length <= own.length + 1)
              .map(u => spelt(u, own))
              .slice(0, 6)
              .join(', ')
          : own
      }`
}

const spelt = (unit: string, own: string) =>
  unit === own.toLowerCase()
    ? own
    : /^[kmgtp]b/.test(unit)
      ? unit
          .replace(/^k?.*$/, u => (u[0] === 'k' ? `k${u.slice(1).toUpperCase()}` : u.toUpperCase()))
          .replace('/S', '/s')
          .replace(/BPS$/, 'bps')
      : unit === 'b'
        ? 'B'
        : unit

/** `120 users` where the field is called users. */
const isNameOf = (label: string, said: string) =>
  label
    .toLowerCase()
    .split(/[\s,]+/)
    .some(word => word.length > 2 && (word === said || `${word}s` === said || word === `${said}s`))

function readPart(text: string, field: { label: string; unit?: string }, inherited?: Suffix): { number: Decimal; suffix: Suffix } | string {
  const found = LEADING.exec(text.trim())
  if (!found) return `«${text.trim()}» is no number`
  const number = plainNumber(found[1]!.trim())
  if (typeof number === 'string') return number
  const own = readSuffix(found[2]!)
  const suffix = !own.scale && !own.unit && inherited ? inherited : own
  const converted = inUnit(number, suffix, field)
  return typeof converted === 'string' ? converted : { number: converted, suffix }
}

/**
 * Reads a number as people write it: `2,000`, `1 500`, `1.5 TB`, `600 ms`, `100 k`, `1 million`, or three of them for low, likely and high:
 * `650..895..1100`, `650-895-1100`, `0.5 – 1 – 2 TB`. A unit is turned into the field's; what stands behind the last of three counts for
 * all.
 * @returns the number in the field's unit, or the sentence that mends it.
 */
export function readQuantity(text: string, field: { label: string; unit?: string }): TypedNumber | string {
  const typed = text.trim().replaceAll('−', '-')
  const parts = typed.split(BETWEEN)
  if (parts.length === 1) {
    const one = readPart(typed, field)
    return typeof one === 'string' ? one : { low: one.number, likely: one.number, high: one.number, isRange: false }
  }
  if (parts.length !== 3) return 'a range has three numbers, low, likely and high, such as 650..895..1100'
  const last = readPart(parts[2]!, field)
  if (typeof last === 'string') return last
  const [low, likely] = [parts[0]!, parts[1]!].map(part => readPart(part, field, last.suffix))
  if (typeof low === 'string') return low
  if (typeof likely === 'string') return likely
  return inOrder(low!.number, likely!.number, last.number) ?? 'low, likely and high must stand in this order, such as 650..895..1100'
}

const SCHEDULE = /^(\S+?)\s*(?:d|days?)(?:\s*a\s*week)?\s*[x×*]\s*(\S+?)\s*(?:h|hours?)(?:\s*a\s*day)?$/i
const TURNED = /^(\S+?)\s*(?:h|hours?)(?:\s*a\s*day)?\s*(?:[x×*]|on)\s*(\S+?)\s*(?:d|days?)(?:\s*a\s*week)?$/i
const ALWAYS = /^(always(\s+on)?|24\s*[/x×]\s*7)$/i

function readTypedHours(text: string, field: { label: string; unit?: string }): Read {
  if (ALWAYS.test(text)) return { value: ALWAYS_ON }
  const straight = SCHEDULE.exec(text)
  const turned = straight ? null : TURNED.exec(text)
  if (straight || turned) {
    const [days, hours] = (straight ? [straight[1]!, straight[2]!] : [turned![2]!, turned![1]!]).map(readPlain)
    const week = days && hours && weekOf(days, hours)
    return week && week.shape === 'week'
      ? { value: `${decimalText(week.days)}d x ${decimalText(week.hoursPerDay)}h` }
      : { problem: `${field.label}: a week has up to 7 days of up to 24 hours, such as 5d x 10h` }
  }
  const percent = /^(.*\S)\s*(?:%|per ?cent)$/i.exec(text)
  const number = percent
    ? readQuantity(percent[1]!.replaceAll('%', ''), { label: field.label })
    : readQuantity(text, { ...field, unit: 'h' })
  return typeof number === 'string'
    ? { problem: `${field.label}: ${number}. Hours are such as 730, always on, 55 %, or a week such as 5d x 10h` }
    : { value: `${numberText(number)}${percent ? ' %' : ''}` }
}

/** Trade's and earlier words for ways to pay. */
function readChoice(text: string, options: readonly string[] | null): string {
  if (!options || options.includes(text)) return text
  const wanted = text.toLowerCase()
  return options.find(option => option.toLowerCase() === wanted) ?? options.find(option => option === usualWays(text)) ?? text
}

/**
 * Reads what was typed, pasted or dropped into a field, as it is kept: one grammar for sheet, panels, paste and files. Whatever the product
 * prints for a value is read back as that value.
 * @param options of a choice where the row stands; null where they are not known.
 */
export function readTyped(field: Field, text: string, options: readonly string[] | null = null): Read {
  const typed = field.type === 'text' ? text.trim() : text.trim().replace(/ \?$/, '')
  switch (field.type) {
    case 'text':
      return { value: typed }
    case 'choice':
      return { value: readChoice(typed, options) }
    case 'hours':
      return readTypedHours(typed, field)
    case 'number': {
      if (typed === '' && field.optional) return { value: '' }
      const number = readQuantity(typed, field)
      return typeof number === 'string' ? { problem: `${field.label}: ${number}` } : { value: numberText(number) }
    }
  }
}

/** An input as it is priced, wherever it came from: stored as it should be, or as someone wrote it into a file. */
export function storedText(field: Field, text: string): string {
  if (field.type === 'number' ? readNumber(text) : field.type === 'hours' ? readHours(text) : true) return text
  const read = readTyped(field, text)
  return 'value' in read ? read.value : text
}

/**
 * What is typed into a field as it is kept. What cannot be read stays as it is, so that the check can say what is wrong and nothing typed
 * is lost.
 */
export function keptText(field: Field, text: string, options: readonly string[] | null = null): string {
  const read = readTyped(field, text, options)
  if ('value' in read) return read.value
  // what could be meant either way must not be read as one of them when it is priced
  const typed = text.trim()
  return readNumber(typed.replace(/ %$/, '')) ? `${typed}${ASKED}` : typed
}
