import { Decimal, parseDecimal } from '../../money/decimal'
import { divide, input, multiply, type Working } from '../../working/working'
import { readNumber, type TypedNumber } from './number-text'

/** How long something runs in a month: all of its hours, so many, a share of all, or so many hours on so many days of a week. */
export type TypedHours =
  { shape: 'always' } | { shape: 'hours' | 'percent'; number: TypedNumber } | { shape: 'week'; days: Decimal; hoursPerDay: Decimal }

/** All hours of whatever month is counted. */
export const ALWAYS_ON = 'always on'

const WEEK = /^(\d(?:\.\d+)?)d x (\d{1,2}(?:\.\d+)?)h$/
const HOURS_A_WEEK = 168

/**
 * Reads hours as they are stored: `always on`, `730`, `55 %` or `5d x 10h`; null when it is none of them. What people type is read by
 * `readTyped`.
 */
export function readHours(text: string): TypedHours | null {
  if (text === ALWAYS_ON) return { shape: 'always' }
  const week = WEEK.exec(text)
  if (week) return weekOf(new Decimal(week[1]!), new Decimal(week[2]!))
  const isPercent = text.endsWith(' %')
  const number = readNumber(isPercent ? text.slice(0, -2) : text)
  return number && { shape: isPercent ? 'percent' : 'hours', number }
}

/** So many days a week, so many hours on each; null for more than a week or a day has. */
export function weekOf(days: Decimal, hoursPerDay: Decimal): TypedHours | null {
  return days.lte(7) && hoursPerDay.lte(24) ? { shape: 'week', days, hoursPerDay } : null
}

/** The hours at their likely value as a share of all hours of the month; null for an amount that is no number. */
export function likelyHours(typed: TypedHours, monthHours: number): Decimal {
  switch (typed.shape) {
    case 'always':
      return new Decimal(monthHours)
    case 'week':
      return typed.days.times(typed.hoursPerDay).times(monthHours).div(HOURS_A_WEEK)
    case 'percent':
      return typed.number.likely.times(monthHours).div(100)
    case 'hours':
      return typed.number.likely
  }
}

/** Hours of a month that the text means, for checking its limits: the highest it may reach. */
export function mostHours(typed: TypedHours, monthHours: number): Decimal {
  if (typed.shape === 'percent') return typed.number.high.times(monthHours).div(100)
  return typed.shape === 'hours' ? typed.number.high : likelyHours(typed, monthHours)
}

/** The hours as Workings: a share or a weekly schedule of the hours that the month has. */
export function hoursWorking(typed: TypedHours, monthHours: number, ref: string): Working {
  const all = input('hours of the month', monthHours, 'h')
  switch (typed.shape) {
    case 'always':
      return all
    case 'week':
      return divide(
        'hours a month by the week',
        [
          multiply('days × hours × month', [input('days a week', typed.days), input('hours a day', typed.hoursPerDay, 'h'), all]),
          input('hours of a week', HOURS_A_WEEK, 'h'),
        ],
        'h',
      )
    case 'percent':
      return multiply(
        'share of the month',
        [{ ...input('percent', typed.number.likely, '%'), ref }, input('of a hundred', '0.01'), all],
        'h',
      )
    case 'hours':
      return { ...input('hours', typed.number.likely, 'h'), ref }
  }
}

/** Reads a decimal that may have no sign: for parts of a schedule. */
export const readPlain = (text: string): Decimal | null => (/^\d/.test(text) ? parseDecimal(text) : null)
