import { isCurrency } from '../../money/currency'
import { dateFormats, type DateFormat, type Mapping } from './mapping'
import { readDate, readNumber } from './read-text'

const likely: [column: string, kind: 'text' | 'number' | 'time', names: RegExp][] = [
  [
    'ChargePeriodStart',
    'time',
    /^(usage|charge|cost|service|booking)?[ _-]*(start[ _-]*)?(date|day|datum|from|period|month|time|timestamp)([ _-]*start)?$/i,
  ],
  ['ChargePeriodEnd', 'time', /^(end[ _-]*(date|day|time)|to|until|(date|period)[ _-]*end)$/i],
  [
    'BilledCost',
    'number',
    /^(total[ _-]*|net[ _-]*)?(cost|amount|charge|price|betrag|value|sum|net|spend)([ _-]*\(?(eur|usd|nok|net|total)\)?)?$/i,
  ],
  ['PricingQuantity', 'number', /^(usage[ _-]*)?(quantity|qty|units?[ _-]*used|usage|hours|seats|count|menge)$/i],
  ['ContractedUnitPrice', 'number', /^(unit[ _-]*(price|cost)|rate|price[ _-]*per[ _-]*unit)$/i],
  ['BillingCurrency', 'text', /^(billing[ _-]*)?(currency|curr|währung|ccy)([ _-]*code)?$/i],
  ['ServiceName', 'text', /^(service|product|item|category|module|application|plan)([ _-]*name)?$/i],
  [
    'SubAccountName',
    'text',
    /^((sub|linked|cost)[ _-]*)?(account|project|subscription|department|cost[ _-]*cent(er|re)|team|workspace|site)([ _-]*name)?$/i,
  ],
  ['SkuMeter', 'text', /^(meter|tier|kind|operation)([ _-]*name)?$/i],
  ['ResourceId', 'text', /^(resource|instance|asset|object|host)([ _-]*(id|identifier))?$/i],
  ['ResourceName', 'text', /^(resource|instance|asset|host)[ _-]*name$/i],
  ['RegionId', 'text', /^(region|location)([ _-]*(id|name))?$/i],
  ['PricingUnit', 'text', /^(unit|uom|unit[ _-]*of[ _-]*measure|einheit)$/i],
  ['ChargeDescription', 'text', /^(description|details?|text|comment|line[ _-]*item|note)$/i],
  ['InvoiceId', 'text', /^invoice([ _-]*(id|no|number|nr))?$/i],
]

/** The character that parts cells: the one that cuts most of the first lines into the same number of cells, the most of them. */
export function likelyDelimiter(text: string): Mapping['delimiter'] {
  const lines = text
    .split(/\r\n|\n|\r/)
    .filter(line => line.trim() !== '')
    .slice(0, 30)
  const score = (delimiter: string) => {
    const counts = lines.map(line => line.replace(/"[^"]*"/g, '').split(delimiter).length)
    // lines with a title above the header, or a sum below, are cut otherwise
    return Math.max(0, ...[...new Set(counts)].filter(n => n > 1).map(n => n * counts.filter(other => other === n).length))
  }
  return ([',', ';', '\t', '|'] as const).reduce((best, delimiter) => (score(delimiter) > score(best) ? delimiter : best))
}

/** Title lines above the header, of the first lines of a file: the header is the first that names as many columns as the lines below. */
export function likelyTitleLines(records: readonly (readonly string[])[]): number {
  const widths = records.map(row => row.length)
  const counts = new Map<number, number>()
  for (const width of widths) counts.set(width, (counts.get(width) ?? 0) + 1)
  const usual = [...counts].sort(([a, x], [b, y]) => y - x || b - a)[0]?.[0] ?? 0
  const isHeader = (row: readonly string[]) =>
    row.length === usual && row.every(cell => cell.trim() !== '' && !/^[-+(]?[\d.,' ]+\)?$/.test(cell.trim()))
  const first = records.findIndex(isHeader)
  return usual < 2 || first < 0 ? 0 : first
}

/** A first mapping for a file, from the names of its columns and what its first rows hold. A person looks at it before it is used. */
export function suggestMapping(
  header: readonly string[],
  all: readonly (readonly string[])[],
  delimiter: Mapping['delimiter'],
  skipLines = 0,
): Mapping {
  const isSum = (row: readonly string[]) => /^(total|sum|summe|subtotal)\b/i.test((row[0] ?? '').trim())
  const rows = all.filter(row => !isSum(row))
  const mapping: Mapping = {
    delimiter,
    encoding: 'utf-8',
    skipLines,
    decimal: '.',
    thousands: '',
    dateFormat: 'ISO',
    lasts: 'day',
    texts: {},
    numbers: {},
    times: {},
    tags: {},
    leaveOutRows: [],
  }
  const taken = new Set<string>()
  const cells = (name: string) => rows.map(row => row[header.indexOf(name)] ?? '').filter(cell => cell.trim() !== '')
  for (const [column, kind, names] of likely) {
    const found = header.find(name => names.test(name.trim()) && !taken.has(name))
    if (found === undefined) continue
    taken.add(found)
    if (kind === 'time') mapping.times[column] = { column: found }
    else if (kind === 'number') mapping.numbers[column] = { column: found }
    else mapping.texts[column] = { column: found }
  }
  const dates = mapping.times.ChargePeriodStart ? cells(mapping.times.ChargePeriodStart.column) : []
  mapping.dateFormat = likelyDateFormat(dates)
  if (mapping.dateFormat === 'YYYY-MM' || mapping.dateFormat === 'MM/YYYY') mapping.lasts = 'month'
  else if (dates.length && dates.every(date => /\d:\d\d/.test(date)) && dates.some(date => !/\b0?0:00/.test(date))) mapping.lasts = 'hour'
  const numbers = Object.values(mapping.numbers).flatMap(from => ('column' in from ? cells(from.column) : []))
  Object.assign(mapping, likelyNumbers(numbers))
  if (!mapping.texts.BillingCurrency) {
    const named = header
      .join(' ')
      .toUpperCase()
      .match(/\b[A-Z]{3}\b/g)
      ?.find(isCurrency)
    mapping.texts.BillingCurrency = { constant: named ?? 'EUR' }
  }
  // a quantity and a rate without an amount: their product is the cost
  if (
    !mapping.numbers.BilledCost &&
    mapping.numbers.PricingQuantity &&
    mapping.numbers.ContractedUnitPrice &&
    'column' in mapping.numbers.PricingQuantity &&
    'column' in mapping.numbers.ContractedUnitPrice
  ) {
    mapping.numbers.BilledCost = { column: mapping.numbers.PricingQuantity.column, timesColumn: mapping.numbers.ContractedUnitPrice.column }
  }
  mapping.leaveOutRows = [...new Set(all.filter(isSum).map(row => row[0]!))].map(is => ({ column: header[0]!, is }))
  return mapping
}

function likelyDateFormat(dates: readonly string[]): DateFormat {
  const fitting = dateFormats.filter(format => dates.length && dates.every(date => readDate(date, format) !== null))
  return fitting[0] ?? 'ISO'
}

function likelyNumbers(numbers: readonly string[]): Pick<Mapping, 'decimal' | 'thousands'> {
  const ways: Pick<Mapping, 'decimal' | 'thousands'>[] = [
    { decimal: '.', thousands: '' },
    { decimal: ',', thousands: '' },
    { decimal: ',', thousands: '.' },
    { decimal: '.', thousands: ',' },
    { decimal: ',', thousands: ' ' },
    { decimal: '.', thousands: ' ' },
    { decimal: '.', thousands: "'" },
  ]
  return ways.find(({ decimal, thousands }) => numbers.every(number => readNumber(number, decimal, thousands) !== null)) ?? ways[0]!
}
