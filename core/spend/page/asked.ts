import type { Question } from '../question'
import type { SpendView } from '../view'
import { scopeOf, type DataDays } from '../view-period'

/** A question, in one currency where the view reports in one. */
export type Asked = Question & { reportCurrency?: string }

/** A question of a view's charges. */
export function askedOf(view: SpendView, days: DataDays, more: Partial<Asked> = {}): Asked {
  const { measure, reportCurrency } = view
  return { measure, splitBy: [], grain: null, ...scopeOf(view, days), ...(reportCurrency && { reportCurrency }), ...more }
}
