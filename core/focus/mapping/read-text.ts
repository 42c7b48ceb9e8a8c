import { isDay, monthEnd, addDays } from '../../time/day'
import type { DateFormat } from './mapping'

const patterns: Record<Exclude<DateFormat, 'ISO' | 'seconds'>, RegExp> = {
  'YYYY-MM-DD': /^(?<y>\d{4})-(?<m>\d{1,2})-(?<d>\d{1,2})$/,
  'DD.MM.YYYY': /^(?<d>\d{1,2})\.(?<m>\d{1,2})\.(?<y>\d{4})$/,
  'DD/MM/YYYY': /^(?<d>\d{1,2})\/(?<m>\d{1,2})\/(?<y>\d{4})$/,
  'MM/DD/YYYY': /^(?<m>\d{1,2})\/(?<d>\d{1,2})\/(?<y>\d{4})$/,
  YYYYMMDD: /^(?<y>\d{4})(?<m>\d{2})(?<d>\d{2})$/,
  'YYYY-MM': /^(?<y>\d{4})-(?<m>\d{1,2})$/,
  'MM/YYYY': /^(?<m>\d{1,2})\/(?<y>\d{4})$/,
}
const clock = /^(?<date>\S+)[T ](?<hour>\d{1,2}):(?<minute>\d{2})(?::(?<second>\d{2})(?:\.\d+)?)?\s*(?:Z|UTC|\+00:?00)?$/

/** A time in a file's own format as FOCUS writes it, in UTC; null when it is not in that format or not in the calendar. */
export function readDate(text: string, format: DateFormat): string | null {
  const trimmed = text.trim()
  if (format === 'seconds') return /^\d{9,11}$/.test(trimmed) ? new Date(Number(trimmed) * 1000).toISOString().replace('.000Z', 'Z') : null
  const time = clock.exec(trimmed)?.groups
  const date = time?.date ?? trimmed
  const found = (format === 'ISO' ? patterns['YYYY-MM-DD'] : patterns[format]).exec(date)?.groups
  if (!found) return null
  const day = `${found.y}-${found.m!.padStart(2, '0')}-${(found.d ?? '1').padStart(2, '0')}`
  if (!isDay(day)) return null
  const [hour, minute, second] = [time?.hour ?? '0', time?.minute ?? '00', time?.second ?? '00']
  if (Number(hour) > 23 || Number(minute) > 59 || Number(second) > 59) return null
  return `${day}T${hour.padStart(2, '0')}:${minute}:${second}Z`
}

/** The end of a charge that starts at a time and lasts an hour, a day or a month. */
export function endAfter(start: string, lasts: 'hour' | 'day' | 'month'): string {
  const day = start.slice(0, 10)
  if (lasts === 'hour') return new Date(Date.parse(start) + 3_600_000).toISOString().replace('.000Z', 'Z')
  return `${lasts === 'day' ? addDays(day, 1) : monthEnd(day.slice(0, 7))}T00:00:00Z`
}

/** A number in a file's own writing as plain decimal text; brackets and a trailing minus stand for less than zero. Null when it is none. */
export function readNumber(text: string, decimal: '.' | ',', thousands: '' | ',' | '.' | ' ' | "'"): string | null {
  let plain = text
    .trim()
    .replace(/[\u00A0\u202F]/g, ' ')
    .replace(/\u2212/g, '-')
  if (plain === '') return ''
  const bracketed = /^\((.*)\)$/.exec(plain)
  if (bracketed) plain = `-${bracketed[1]!.trim()}`
  if (/^[^-].*-$/.test(plain)) plain = `-${plain.slice(0, -1).trim()}`
  plain = plain.replace(/^([+-]?)\s*[A-Z]{3}\s+|\s+[A-Z]{3}$|[€$£]/g, '$1').trim()
  if (thousands !== '') {
    // a separator that does not part groups of three is no separator: 1,50 is not 150
    const [whole = '', ...rest] = plain.split(decimal)
    const groups = whole.replace(/^[+-]/, '').split(thousands)
    if (groups.length > 1 && (groups[0] === '' || groups[0]!.length > 3 || groups.slice(1).some(group => group.length !== 3))) return null
    plain = [whole.split(thousands).join(''), ...rest].join(decimal)
  }
  if (decimal === ',') {
    if (plain.includes('.')) return null
    plain = plain.replace(',', '.')
  }
  return /^[+-]?(\d+(\.\d*)?|\.\d+)([eE][+-]?\d{1,3})?$/.test(plain) ? plain.replace(/^\+/, '') : null
}
