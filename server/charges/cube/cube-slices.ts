import { settlementWithin } from '../../../core/allocation/bound'
import { adjustmentsLeft, type Adjustment } from '../../../core/allocation/closing/adjustments'
import { treeOf, type AllocationPlan } from '../../../core/allocation/plan'
import { settleInSlices, type Settlement, type SettlementQuestion } from '../../../core/allocation/settle'
import type { Slices } from '../../../core/spend/slices'
import type { SettledBeside } from '../../../shared/contracts/allocation'
import type { Known } from './cube-state'

/** In which currency direct costs are compared, with which rates; null for those of today. */
export type RatesAsked = Pick<SettlementQuestion, 'reportCurrency' | 'rates'> | null
/** A month to be settled in a tree of a plan. `beside` is told with the reply as it is. */
export type SettlementAsked = Pick<SettlementQuestion, 'month' | 'measure'> & {
  tree: string | null
  plan: AllocationPlan
  rates: RatesAsked
  beside: SettledBeside
}
/** A closed month of which is asked what it would come to now. Plans are null where they would change nothing. */
export type AdjustmentsAsked = Pick<SettlementAsked, 'month' | 'measure' | 'tree' | 'rates'> & {
  /** When it was closed, and which plan holds for it since: what was found for these is remembered. */
  key: string
  kept: Pick<Settlement, 'statements' | 'unallocated'>
  keptPlan: AllocationPlan
  plan: AllocationPlan | null
  posted: readonly Adjustment[]
}

function* settle({ whole, ...known }: Known, { tree, plan, rates, month, measure }: Omit<SettlementAsked, 'beside'>): Slices<Settlement> {
  const centres = treeOf(plan, tree)
  if (!centres) throw new Error('there is no such tree of cost centres')
  const { reportCurrency, rates: list } = rates ?? known
  return yield* settleInSlices(whole, centres, { month, measure, reportCurrency, rates: list })
}

/** What takes longer than others should wait, made in slices; written here but for the revision. */
export const sliced = {
  *settlement(known: Known, { beside, ...asked }: SettlementAsked): Slices<Settlement & SettledBeside> {
    // what is borne of a pool depends on all that others bear
    const settled = yield* settle(known, asked)
    const { bound } = known
    return { ...(bound ? settlementWithin(settled, treeOf(asked.plan, asked.tree)!, bound) : settled), ...beside }
  },

  /** What is left to adjust of a closed month, of all cost centres. */
  *adjustments(known: Known, { key, kept, keptPlan, plan, posted, ...asked }: AdjustmentsAsked): Slices<{ adjustments: Adjustment[] }> {
    const remembered = known.remembered.get(key)
    if (remembered) return remembered as { adjustments: Adjustment[] }
    const charges = yield* settle(known, { ...asked, plan: keptPlan })
    const rules = plan && treeOf(plan, asked.tree) ? yield* settle(known, { ...asked, plan }) : null
    const found = { adjustments: adjustmentsLeft({ month: asked.month, kept, charges, rules, posted }) }
    known.remembered.set(key, found)
    return found
  },
}
export type CubeSlices = typeof sliced
