import { ALLOCATION_RULE, centreDimension } from '../spend/dimension'
import type { CostMeasure, Narrowing } from '../spend/question'
import type { Sentence } from '../spend/sentence'
import { monthEnd, monthStart } from '../time/day'
import type { Period } from '../time/period'

/** What a statement is of: a billing month by one of the costs, in the first tree (null) or another. */
export type TracedStatement = { centre: string; currency: string; month: string; measure: CostMeasure; tree: string | null }

/** Where the charges behind a line are: a sentence of spend over the billing periods of the month. */
export type Trace = Pick<Sentence, 'measure' | 'splitBy' | 'keep' | 'basis'> & { currency: string; period: Period }

/** Of a line, what its charges are found by. */
export type TracedLine = { kind: 'direct'; service: string | null } | { kind: 'share'; poolId: string }

/**
 * The charges that a line of a statement goes back to, by the rule that put them there. They add up to the line: of a direct line to its
 * amount; of a share to what the rules put into the pool, before other pools flow into it and it is divided.
 * @param seesRules without it they are split by resource: who sees a part of the company sees no rules.
 */
export function traceOf(line: TracedLine, { centre, currency, month, measure, tree }: TracedStatement, seesRules = true): Trace {
  const of = centreDimension(tree)
  const keep: Narrowing = line.kind === 'direct' ? { [of]: [centre], ServiceName: [line.service] } : { [of]: [line.poolId] }
  const rule = tree === null ? ALLOCATION_RULE : `${ALLOCATION_RULE}/${tree}`
  const period = { start: monthStart(month), end: monthEnd(month) }
  return { measure, splitBy: [seesRules ? rule : 'ResourceId'], keep, basis: 'billing', currency, period }
}
