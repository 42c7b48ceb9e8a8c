import { isCurrency } from '../money/currency'
import { Decimal, decimalText, parseDecimal } from '../money/decimal'
import { LARGEST_AMOUNT, parseScaled, scaledText, type Scaled } from '../money/scaled'
import { focusColumn, focusColumns, type FocusColumn } from './columns'
import { shownValue, type FileProblem } from './problem'
import { amountColumns, dictionaries, dictionaryFor, dictionaryNames, ownColumns, quantityColumns, type DictionaryName } from './star'

export type AmountColumn = typeof amountColumns[number]
export type QuantityColumn = typeof quantityColumns[number]

/** A checked charge, ready to be kept: amounts exact, times in UTC to the second, everything else by dictionary. */
export type Charge = {
  billingPeriodStart: string
  billingPeriodEnd: string
  chargePeriodStart: string
  chargePeriodEnd: string
  billingCurrency: string
  amounts: Record<AmountColumn, Scaled>
  quantities: Record<QuantityColumn, Scaled | null>
  entries: Record<DictionaryName, (string | null)[]>
}

export type Rounding = { column: string, difference: Decimal }
export type CheckedRow = { charge: Charge, roundings: Rounding[] } | { problems: FileProblem[] }
export type RowCheck = (cells: readonly string[], row: number) => CheckedRow

const isoTime = /^(\d{4}-\d{2}-\d{2})T(\d{2}):(\d{2})(?::(\d{2})(?:\.\d+)?)?(?:Z|\+00:?00)$/

/** Files repeat the same few texts in row after row: what one was read as is kept, up to a number of texts. */
function remembered<T>(read: (text: string) => T): (text: string) => T {
  const known = new Map<string, T>()
  return (text) => {
    const found = known.get(text)
    if (found !== undefined || known.has(text)) return found as T
    if (known.size >= 20_000) known.clear()
    const value = read(text)
    known.set(text, value)
    return value
  }
}

const readTime = remembered((text): string | null => {
  const match = isoTime.exec(text)
  if (!match) return null
  const normal = `${match[1]}T${match[2]}:${match[3]}:${match[4] ?? '00'}Z`
  const time = Date.parse(normal)
  return Number.isNaN(time) || new Date(time).toISOString().slice(0, 19) !== normal.slice(0, 19) ? null : normal
})

const readObject = remembered((text): Record<string, unknown> | null => {
  try {
    const value: unknown = JSON.parse(text)
    return typeof value === 'object' && value !== null && !Array.isArray(value) ? value as Record<string, unknown> : null
  }
  catch {
    return null
  }
})

/** The same object with its keys in order, so that equal tags are one dictionary entry. */
const canonical = remembered((text): string | null => {
  const entries = Object.entries(readObject(text) ?? {})
  return entries.length ? JSON.stringify(Object.fromEntries(entries.sort(([a], [b]) => a < b ? -1 : 1))) : null
})

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
  const seen = new Set<string>()
  header.forEach((name, index) => {
    if (name === '') wholeFile(null, `column ${index + 1} has no name`, 'Give it a name in the first line, or take the column out.')
    else if (seen.has(name)) wholeFile(name, 'the column is in the file twice', 'Take one of the two out.')
    seen.add(name)
  })
  for (const column of focusColumns) {
    if (column.presence !== 'mandatory' || seen.has(column.name)) continue
    const alike = header.find(name => name.trim().toLowerCase() === column.name.toLowerCase())
    wholeFile(column.name, 'a mandatory column is missing',
      alike === undefined ? 'Add the column; FOCUS 1.0 asks for it in every file.' : `Rename «${alike}» to «${column.name}».`)
  }
  return problems
}

/**
 * Makes the check of every row under this header. Each row gives either a charge or all its problems, never both.
 * Rules: FOCUS 1.0 to 1.2: mandatory values, types, allowed values, ISO 4217 billing currency, periods in order, tags an object.
 */
export function rowCheck(header: readonly string[]): RowCheck {
  const position = new Map(header.map((name, index) => [name, index]))
  const others = header.map((name, index) => ({ name, index })).filter(({ name }) => !dictionaryFor(name) && !ownColumns.includes(name))
  const checkers = header.flatMap((name, index) => {
    const column = focusColumn(name)
    return column && !isOwnNumber(name) && column.type !== 'datetime' ? [{ index, column, check: valueCheck(column) }] : []
  })
  const entryColumns = dictionaryNames.filter(name => name !== 'others' && name !== 'tagSet')
    .map(name => ({ name, columns: dictionaries[name].map(column => ({ index: position.get(column), json: focusColumn(column)?.type === 'json' })) }))
  const numbers = [...amountColumns, ...quantityColumns].map(name => ({ name, index: position.get(name), nullable: focusColumn(name)!.nullable }))
  const at = (name: string) => position.get(name)!
  const times = ['BillingPeriodStart', 'BillingPeriodEnd', 'ChargePeriodStart', 'ChargePeriodEnd'] as const
  const currencyAt = at('BillingCurrency')
  const tagsAt = position.get('Tags')

  return (cells, row) => {
    const problems: FileProblem[] = []
    const problem = (column: string | null, value: string | null, reason: string, mend: string) =>
      problems.push({ row, column, value: value === null ? null : shownValue(value), reason, mend })
    if (cells.length !== header.length) {
      problem(null, null, `the row has ${cells.length} cells where the header names ${header.length}`,
        'Look for a missing or extra comma, or a text with a comma or line break that is not in quotes.')
      return { problems }
    }
    for (const { index, column, check } of checkers) {
      const wrong = check(cells[index]!)
      if (wrong) problem(column.name, cells[index]!, wrong.reason, wrong.mend)
    }
    const read = {} as Record<typeof times[number], string>
    for (const name of times) {
      const text = cells[at(name)]!
      const time = readTime(text)
      if (time) read[name] = time
      else if (text === '') problem(name, '', 'a value is missing', 'Fill in the date and time, such as 2026-11-01T00:00:00Z.')
      else problem(name, text, 'not a date and time in UTC', 'Write it like 2026-11-01T00:00:00Z.')
    }
    for (const [start, end] of [['BillingPeriodStart', 'BillingPeriodEnd'], ['ChargePeriodStart', 'ChargePeriodEnd']] as const) {
      if (read[start] && read[end] && read[start] >= read[end]) {
        problem(end, cells[at(end)]!, `is not after ${start} (${read[start]})`, 'The end is exclusive: a day ends at midnight of the next.')
      }
    }
    const amounts = {} as Record<AmountColumn, Scaled>
    const quantities = {} as Record<QuantityColumn, Scaled | null>
    const roundings: Rounding[] = []
    for (const { name, index, nullable } of numbers) {
      const text = index === undefined ? '' : cells[index]!
      if (text === '') {
        if (nullable) quantities[name as QuantityColumn] = null
        else problem(name, '', 'an amount is missing', 'Fill it in; write 0 where nothing is charged.')
        continue
      }
      const parsed = parseScaled(text)
      if (!parsed) {
        problem(name, text, 'not a number', 'Use digits with a point, such as 12.5 or 1.5E-7; no thousands separator, no currency sign.')
        continue
      }
      if (parsed.value > largest || parsed.value < -largest) {
        problem(name, text, `larger than ${LARGEST_AMOUNT.toFixed(0)}`, 'Check the unit; a single charge cannot be this large.')
        continue
      }
      if (parsed.rounded) roundings.push({ column: name, difference: new Decimal(scaledText(parsed.value)).minus(parseDecimal(text)!) })
      if (isAmount(name)) amounts[name] = parsed.value
      else quantities[name] = parsed.value
    }
    const currency = cells[currencyAt]!
    if (currency !== '' && !isCurrency(currency)) {
      problem('BillingCurrency', currency, 'not an ISO 4217 currency', 'Use the three-letter code in capitals, such as EUR.')
    }
    if (problems.length) return { problems }

    const entries = {} as Charge['entries']
    for (const { name, columns } of entryColumns) {
      entries[name] = columns.map(({ index, json }) => {
        const text = index === undefined ? '' : cells[index]!
        if (text === '') return null
        return json ? canonical(text) : text
      })
    }
    entries.tagSet = [tagsAt === undefined || cells[tagsAt] === '' ? null : canonical(cells[tagsAt]!)]
    const rest = others.filter(({ index }) => cells[index] !== '').map(({ name, index }) => [name, cells[index]!] as const)
    entries.others = [rest.length ? JSON.stringify(Object.fromEntries(rest)) : null]
    return {
      charge: {
        billingPeriodStart: read.BillingPeriodStart, billingPeriodEnd: read.BillingPeriodEnd,
        chargePeriodStart: read.ChargePeriodStart, chargePeriodEnd: read.ChargePeriodEnd,
        billingCurrency: currency, amounts, quantities, entries,
      },
      roundings,
    }
  }
}

const largest = BigInt(Math.floor(LARGEST_AMOUNT)) * 10n ** 15n
const isAmount = (name: string): name is AmountColumn => (amountColumns as readonly string[]).includes(name)
const isOwnNumber = (name: string) => isAmount(name) || (quantityColumns as readonly string[]).includes(name)

type Wrong = { reason: string, mend: string }

function valueCheck(column: FocusColumn): (text: string) => Wrong | null {
  const { type, nullable, allowed, presence } = column
  const missing: Wrong = { reason: 'a value is missing', mend: allowed ? `Use one of: ${allowed.join(', ')}.` : 'Fill it in.' }
  const allowedSet = allowed && new Set(allowed)
  return (text) => {
    if (text === '') return nullable || presence !== 'mandatory' ? null : missing
    if (allowedSet && !allowedSet.has(text)) return { reason: 'not an allowed value', mend: `Use one of: ${allowed!.join(', ')}${nullable ? ', or leave it empty' : ''}.` }
    if (type === 'decimal' && !parseScaled(text)) return { reason: 'not a number', mend: 'Use digits with a point, such as 12.5 or 1.5E-7.' }
    if (type === 'json') {
      const object = readObject(text)
      if (!object) return { reason: 'not a JSON object', mend: 'Write it like {"team":"booking"}.' }
      if (column.name === 'Tags' && !Object.values(object).every(isScalar)) return { reason: 'a tag holds more than one value', mend: 'A tag is a text, a number, true, false or null.' }
    }
    return null
  }
}

/** In words, for the load's report: what rounding to fifteen decimals does to a column's total. */
export function roundingSentence(column: string, count: number, difference: Decimal): string {
  return `${column}: ${count} ${count === 1 ? 'value has' : 'values have'} more than 15 decimals; rounded half to even, which changes the total by ${decimalText(difference)}`
}
