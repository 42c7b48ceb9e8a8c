import type { RollingPeriod } from '../../core/spend/sentence'
import { addDays, monthOf } from '../../core/time/day'
import type { Period } from '../../core/time/period'
import { dayText, monthText } from './days'

/** The period in words, its last day included: `1 to 23 Nov 2026`, `October 2026`. */
export function periodText({ start, end }: Period): string {
  const last = addDays(end, -1)
  if (start === last) return dayText(start)
  if (start.endsWith('-01') && end.endsWith('-01'))
    return monthOf(start) === monthOf(last) ? monthText(start) : `${monthText(start)} to ${monthText(last)}`
  return monthOf(start) === monthOf(last) ? `${Number(start.slice(8))} to ${dayText(last)}` : `${dayText(start)} to ${dayText(last)}`
}

export const rollingNames: Record<RollingPeriod, string> = {
  'this-month': 'this month so far',
  'last-month': 'last month',
  'last-7': 'the last 7 days',
  'last-30': 'the last 30 days',
  'last-90': 'the last 90 days',
  'three-months': 'three whole months',
  'six-months': 'six whole months',
  'twelve-months': 'twelve whole months',
  'this-year': 'this year so far',
  all: 'all that is loaded',
}
