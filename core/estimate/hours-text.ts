import { Decimal } from '../money/decimal'
import { divide, input, multiply, type Working } from '../working/working'
import { readNumber, type TypedNumber } from './number-text'

/** How long something runs in a month: hours, a share of all hours, or so many hours on so many days of a week. */
export type TypedHours = { shape: 'hours' | 'percent', number: TypedNumber } | { shape: 'week', days: Decimal, hoursPerDay: Decimal }

const WEEK = /^(\d(?:\.\d+)?)\s*d(?:ays?)?\s*[x×*]\s*(\d{1,2}(?:\.\d+)?)\s*h(?:ours?)?$/i
const HOURS_A_WEEK = 168

/** Reads `730`, `55 %` or `5d x 10h`; null when it is none of them. */
export function readHours(text: string): TypedHours | null {
  const week = WEEK.exec(text.trim())
  if (week) {
    const [days, hoursPerDay] = [new Decimal(week[1]!), new Decimal(week[2]!)]
    return days.lte(7) && hoursPerDay.lte(24) ? { shape: 'week', days, hoursPerDay } : null
  }
  const percent = /^(.+?)\s*%$/.exec(text.trim())
  const number = readNumber(percent ? percent[1]! : text)
  return number && { shape: percent ? 'percent' : 'hours', number }
}

/** Hours of a month that the text means, for checking its limits: the highest it may reach. */
export function mostHours(typed: TypedHours, monthHours: number): Decimal {
  if (typed.shape === 'week') return typed.days.times(typed.hoursPerDay).times(monthHours).div(HOURS_A_WEEK)
  return typed.shape === 'percent' ? typed.number.high.times(monthHours).div(100) : typed.number.high
}

/** The hours as Workings: a share or a weekly schedule of the hours that the month has. */
export function hoursWorking(typed: TypedHours, monthHours: number, ref: string): Working {
  const all = input('hours of the month', monthHours, 'h')
  if (typed.shape === 'week') return divide('hours a month by the week', [multiply('days × hours × month', [input('days a week', typed.days), input('hours a day', typed.hoursPerDay, 'h'), all]), input('hours of a week', HOURS_A_WEEK, 'h')], 'h')
  if (typed.shape === 'percent') return multiply('share of the month', [{ ...input('percent', typed.number.likely, '%'), ref }, input('of a hundred', '0.01'), all], 'h')
  return { ...input('hours', typed.number.likely, 'h'), ref }
}
