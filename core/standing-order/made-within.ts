import { addDays, addMonths, monthEnd, monthOf, monthStart, type Day } from '../time/day'
import type { MadeWhen } from './definition'

/** Whether what was made on a day is looked for on another; what nobody knows the day of is not. */
export function isMadeWhen(made: MadeWhen, on: Day | null, today: Day): boolean {
  if (on === null) return false
  const last = addMonths(monthOf(today), -1)
  switch (made.when) {
    case 'last month':
      return on >= monthStart(last) && on < monthEnd(last)
    case 'since last month':
      return on >= monthStart(last)
    case 'within':
      return on > addDays(today, -made.days)
    case 'before':
      return on < addDays(today, -made.days)
  }
}
