import type { Condition, Rule } from '../../core/allocation/plan'
import { addDays } from '../../core/time/day'
import { dimensionLabel } from './dimensions'
import { dayText } from './days'

const measureWords: Record<Extract<Condition, { measure: string }>['measure'], string> = {
  billedCost: 'billed cost of a line',
  effectiveCost: 'effective cost of a line',
  listCost: 'list cost of a line',
  contractedCost: 'contracted cost of a line',
}

/** A condition in three parts: what it looks at, a verb, and how that has to be. */
export function conditionWords(one: Condition): { what: string; verb: string; value: string } {
  if ('measure' in one) {
    const bounds = [one.atLeast === undefined ? [] : `at least ${one.atLeast}`, one.below === undefined ? [] : `below ${one.below}`].flat()
    return { what: measureWords[one.measure], verb: 'is', value: bounds.join(' and ') }
  }
  const what = dimensionLabel(one.dimension)
  if ('pattern' in one) return { what, verb: 'is like', value: one.pattern }
  return { what, verb: 'is', value: one.values.map(value => value ?? 'none').join(' or ') || '…' }
}

/** The days on which a rule holds; empty where it always does. */
export function ruleDays({ from, until }: Pick<Rule, 'from' | 'until'>): string {
  return [from ? `from ${dayText(from)}` : [], until ? `to ${dayText(addDays(until, -1))}` : []].flat().join(' ')
}

/** A rule as a sentence without its target. */
export const ruleWords = (rule: Pick<Rule, 'conditions' | 'from' | 'until'>): string =>
  [
    rule.conditions
      .map(conditionWords)
      .map(({ what, verb, value }) => `${what} ${verb} ${value}`)
      .join(' and '),
    ruleDays(rule),
  ]
    .filter(Boolean)
    .join(', ')
