import { wasCurrency } from '../money/currency'
import type { Decimal } from '../money/decimal'
import { decimalText } from '../money/decimal'
import { parseScaled } from '../money/scaled'
import { oneSlip } from '../text/one-slip'
import { focusColumns, type FocusColumn } from './columns'
import { whyNoneKept, whyNotKept } from './keepable'
import { shownValue, type FileProblem, type Wrong } from './problem'

const isoTime = /^(\d{4}-\d{2}-\d{2})T(\d{2}):(\d{2})(?::(\d{2})(?:\.\d+)?)?(?:Z|\+00:?00)$/

/** Seconds since 1970 of a time in UTC such as `2026-11-01T00:00:00Z`; null when it is none, or one the calendar does not have. */
export function readTime(text: string): number | null {
  const match = isoTime.exec(text)
  if (!match) return null
  const normal = `${match[1]}T${match[2]}:${match[3]}:${match[4] ?? '00'}Z`
  const time = Date.parse(normal)
  return Number.isNaN(time) || new Date(time).toISOString().slice(0, 19) !== normal.slice(0, 19) ? null : time / 1000
}

function readObject(text: string): Record<string, unknown> | null {
  try {
    const value: unknown = JSON.parse(text)
    return typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Record<string, unknown>) : null
  } catch {
    return null
  }
}

/** The same object with its keys in order, so that equal tags are one dictionary entry; null for an empty one. */
export function canonicalJson(text: string): string | null {
  const entries = Object.entries(readObject(text) ?? {})
  return entries.length ? JSON.stringify(Object.fromEntries(entries.sort(([a], [b]) => (a < b ? -1 : 1)))) : null
}

const isScalar = (value: unknown) => value === null || ['string', 'number', 'boolean'].includes(typeof value)

/**
 * Checks the names of the columns: all mandatory ones there, none twice.
 * @returns problems of the whole file; empty when rows can be read.
 */
export function checkHeader(header: readonly string[]): FileProblem[] {
  const problems: FileProblem[] = []
  const wholeFile = (column: string | null, reason: string, mend: string) => problems.push({ row: null, column, value: null, reason, mend })
  if (header.length === 0 || header.every(name => name.trim() === '')) {
    wholeFile(null, 'the file is empty', 'Export the billing period again; the first line must name the columns.')
    return problems
  }
  if (!header.some(name => isFocusName(name)))
    return [
      {
        row: null,
        column: null,
        value: shownValue(header.slice(0, 5).join(', ')),
        reason: 'this is no FOCUS file: its first line names none of the columns',
        mend: 'Export the billing period as FOCUS in CSV or Parquet, or say under «Mapping» what the columns of your own CSV are.',
      },
    ]
  const seen = new Set<string>()
  header.forEach((name, index) => {
    if (name === '') wholeFile(null, `column ${index + 1} has no name`, 'Give it a name in the first line, or take the column out.')
    else if (seen.has(name)) wholeFile(name, 'the column is in the file twice', 'Take one of the two out.')
    seen.add(name)
  })
  for (const column of focusColumns) {
    if (column.presence !== 'mandatory' || seen.has(column.name)) continue
    const alike = header.find(name => name.trim().toLowerCase() === column.name.toLowerCase())
    wholeFile(
      column.name,
      'a mandatory column is missing',
      alike === undefined ? 'Add the column; FOCUS 1.0 asks for it in every file.' : `Rename «${alike}» to «${column.name}».`,
    )
  }
  return problems
}

const plain = (name: string) => name.toLowerCase().replace(/[^a-z0-9]/g, '')
const focusNames = new Map(focusColumns.map(({ name }) => [plain(name), name]))
const isFocusName = (name: string) => focusNames.has(plain(name))

/** The FOCUS column that a name of another column most likely means; null where none is near. */
export function meantColumn(name: string, header: readonly string[]): string | null {
  const own = plain(name)
  if (name.startsWith('x_') || own.length < 4) return null
  const near = focusNames.get(own) ?? [...focusNames].find(([known]) => oneSlip(own, known))?.[1]
  return near && near !== name && !header.includes(near) ? near : null
}

/**
 * The check of single values of a column: nullability, allowed values, type, ISO 4217 for the billing currency, tags an object of plain
 * values.
 * Source: FOCUS 1.0 to 1.2.
 */
export function valueCheck(column: FocusColumn): (text: string) => Wrong | null {
  const { type, nullable, allowed, presence } = column
  const missing: Wrong = { reason: 'a value is missing', mend: allowed ? `Use one of: ${allowed.join(', ')}.` : 'Fill it in.' }
  const allowedSet = allowed && new Set(allowed)
  return text => {
    if (text === '') return nullable || presence !== 'mandatory' ? null : missing
    if (allowedSet && !allowedSet.has(text))
      return { reason: 'not an allowed value', mend: `Use one of: ${allowed!.join(', ')}${nullable ? ', or leave it empty' : ''}.` }
    if (type === 'decimal' && !parseScaled(text))
      return { reason: 'not a number', mend: 'Use digits with a point, such as 12.5 or 1.5E-7.' }
    if (type === 'json') {
      const object = readObject(text)
      if (!object) return { reason: 'not a JSON object', mend: 'Write it like {"team":"booking"}.' }
      if (column.name === 'Tags' && !Object.values(object).every(isScalar))
        return { reason: 'a tag holds more than one value', mend: 'A tag is a text, a number, true, false or null.' }
      const why = whyNoneKept(object)
      if (why) return why
    }
    if (column.name === 'BillingCurrency' && !wasCurrency(text))
      return { reason: 'not an ISO 4217 currency', mend: 'Use the three-letter code in capitals, such as EUR.' }
    return whyNotKept(text)
  }
}

/** In words, for the load's report: what rounding to fifteen decimals does to a column's total. */
export function roundingSentence(column: string, count: number, difference: Decimal): string {
  return `${column}: ${count} ${count === 1 ? 'value has' : 'values have'} more than 15 decimals; rounded half to even, which changes the total by ${decimalText(difference)}`
}
