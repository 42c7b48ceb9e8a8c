import { settlementWithin } from '../../../core/allocation/bound'
import { treeOf, type AllocationPlan } from '../../../core/allocation/plan'
import { settleInSlices, type Settlement } from '../../../core/allocation/settle'
import type { CostMeasure } from '../../../core/spend/question'
import type { Known } from './cube-state'

/** A month to be settled under a plan; its version is told with the reply. */
export type SettlementAsked = { month: string; measure: CostMeasure; tree: string | null; plan: AllocationPlan; version: number }

/** What takes longer than others should wait, made in slices; written here but for the revision. */
export const sliced = {
  *settlement(
    { whole, bound, rates, reportCurrency }: Known,
    { tree, plan, version, ...question }: SettlementAsked,
  ): Generator<void, Settlement & { version: number }> {
    const centres = treeOf(plan, tree)
    if (!centres) throw new Error('there is no such tree of cost centres')
    // what is borne of a pool depends on all that others bear
    const settled = yield* settleInSlices(whole, centres, { ...question, reportCurrency, rates })
    return { ...(bound ? settlementWithin(settled, centres, bound) : settled), version }
  },
}
export type CubeSlices = typeof sliced
