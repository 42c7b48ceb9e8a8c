import { treeOf, type AllocationPlan } from '../../core/allocation/plan'
import type { Settlement } from '../../core/allocation/settle'
import type { Lookup } from '../../core/spend/lookup'
import type { CostMeasure } from '../../core/spend/question'
import type { MeasureMonths } from '../../core/unit-cost/measure-months'
import type { SettledBeside } from '../../shared/contracts/allocation'
import type { ChargesSeen } from '../charges/charges-seen'
import type { RatesAsked } from '../charges/cube/cube-slices'
import type { JsonBytes } from '../json-bytes'
import { notFound } from '../problems/problem'

/** A billing month in the first tree (null) or another; with rates of its own where it is closed. */
export type MonthAsked = {
  month: string
  measure: CostMeasure
  tree: string | null
  rates?: RatesAsked
  /** In place of those of their names; null for none. */
  lookups?: Record<string, Lookup | null> | undefined
  /** In place of those of their names. */
  measures?: readonly MeasureMonths[] | undefined
  /** `none` where nobody looks at uplifts. */
  uplifts?: 'none' | undefined
}

/**
 * Settles a billing month under a plan, where the charges are and without holding up other questions.
 * @param beside is told with the reply.
 * @param unwanted ends it when nobody wants it any more.
 */
export async function settleMonth(
  seen: ChargesSeen,
  plan: AllocationPlan,
  { month, measure, tree, rates = null, lookups, measures, uplifts }: MonthAsked,
  beside: SettledBeside,
  unwanted?: AbortSignal,
): Promise<JsonBytes<Settlement & SettledBeside & { revision: number }>> {
  if (!treeOf(plan, tree)) throw notFound('tree', `No tree of cost centres is called «${tree}».`)
  return seen.inSlices('settlement', { month, measure, tree, plan, rates, lookups, measures, uplifts, beside }, unwanted)
}
