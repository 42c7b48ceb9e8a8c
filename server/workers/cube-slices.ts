import { treeOf, type AllocationPlan } from '../../core/allocation/plan'
import { settleInSlices, type Settlement } from '../../core/allocation/settle'
import type { CostMeasure } from '../../core/spend/question'
import type { Known } from './cube-replies'

/** A month to be settled under a plan; its version is told with the reply. */
export type SettlementAsked = { month: string; measure: CostMeasure; tree: string | null; plan: AllocationPlan; version: number }

/** What takes longer than others should wait, made in slices; written here but for the revision. */
export const sliced = {
  *settlement(
    { cube, rates, reportCurrency }: Known,
    { tree, plan, version, ...question }: SettlementAsked,
  ): Generator<void, Settlement & { version: number }> {
    const centres = treeOf(plan, tree)
    if (!centres) throw new Error('there is no such tree of cost centres')
    return { ...(yield* settleInSlices(cube, centres, { ...question, reportCurrency, rates })), version }
  },
}
export type CubeSlices = typeof sliced
