import { monthEnd, monthStart } from '../time/day'
import type { CentreTree, CostCentre, Rule } from './plan'

/** Whether charges can land on a cost centre on any day of a month. */
export const isInMonth = ({ from, until }: CostCentre, month: string): boolean =>
  (!from || from < monthEnd(month)) && (!until || until > monthStart(month))

/**
 * The rules of a tree, each within the days of the cost centre that it puts charges on: what begins later goes to who bore it before, and
 * what has ended to whoever follows.
 */
export function rulesInForce({ rules, centres }: Pick<CentreTree, 'rules' | 'centres'>): Rule[] {
  const dated = new Map(centres.flatMap(one => (one.from || one.until ? [[one.id, one] as const] : [])))
  if (!dated.size) return rules
  return rules.map(rule => {
    const centre = dated.get(rule.target)
    return centre ? { ...rule, from: later(rule.from, centre.from), until: earlier(rule.until, centre.until) } : rule
  })
}

type Bound = string | null | undefined
const later = (a: Bound, b: Bound) => (a && b ? (a > b ? a : b) : (a ?? b ?? null))
const earlier = (a: Bound, b: Bound) => (a && b ? (a < b ? a : b) : (a ?? b ?? null))
