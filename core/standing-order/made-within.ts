import { addDays, addMonths, monthEnd, monthOf, monthStart, type Day } from '../time/day'
import type { MadeWhen } from './definition'
import { madeOn, type FoundResource } from './found'

/**
 * Whether a resource was made when an order looks for: what nobody knows the day of is not, unless it surely is older than that.
 * @param today the day from which it is looked at.
 */
export function isMadeWhen(made: MadeWhen, of: Pick<FoundResource, 'makings' | 'firstDay' | 'isOlder'>, today: Day): boolean {
  const on = madeOn(of) ?? (made.when === 'before' ? of.firstDay : null)
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
