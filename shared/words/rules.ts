import type { Rule } from '../../core/allocation/plan'
import { conditionsWords } from '../../core/allocation/rule-words'
import { addDays } from '../../core/time/day'
import { dayText } from './days'

export { conditionWords } from '../../core/allocation/rule-words'

/** The days on which a rule holds; empty where it always does. */
export function ruleDays({ from, until }: Pick<Rule, 'from' | 'until'>): string {
  return [from ? `from ${dayText(from)}` : [], until ? `to ${dayText(addDays(until, -1))}` : []].flat().join(' ')
}

/** A rule as a sentence without its target. */
export const ruleWords = (rule: Pick<Rule, 'conditions' | 'from' | 'until'>): string =>
  [conditionsWords(rule), ruleDays(rule)].filter(Boolean).join(', ')
