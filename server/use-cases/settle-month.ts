import { treeOf, type AllocationPlan } from '../../core/allocation/plan'
import type { Settlement } from '../../core/allocation/settle'
import type { AllocationQuestion } from '../../shared/contracts/allocation'
import { notFound } from '../problems/problem'
import type { JsonBytes } from '../json-bytes'
import type { ChargesSeen } from '../charges/charges-seen'

/**
 * Settles a billing month under a plan, where the charges are and without holding up other questions.
 * @param unwanted ends it when nobody wants it any more.
 */
export async function settleMonth(
  seen: ChargesSeen,
  { plan, version }: { plan: AllocationPlan; version: number },
  { month, measure, tree: id }: AllocationQuestion,
  unwanted?: AbortSignal,
): Promise<JsonBytes<Settlement & { revision: number; version: number }>> {
  const tree = id ?? null
  if (!treeOf(plan, tree)) throw notFound('tree', `No tree of cost centres is called «${tree}».`)
  return seen.inSlices('settlement', { month, measure, tree, plan, version }, unwanted)
}
