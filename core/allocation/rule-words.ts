import { dimensionOf } from '../spend/dimensions'
import type { Condition, Rule } from './plan'

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
  const what = dimensionOf(one.dimension)?.label ?? one.dimension
  if ('pattern' in one) return { what, verb: 'is like', value: one.pattern }
  return { what, verb: 'is', value: one.values.map(value => value ?? 'none').join(' or ') || '…' }
}

/** The conditions of a rule as a sentence. */
export const conditionsWords = ({ conditions }: Pick<Rule, 'conditions'>): string =>
  conditions
    .map(conditionWords)
    .map(({ what, verb, value }) => `${what} ${verb} ${value}`)
    .join(' and ')
