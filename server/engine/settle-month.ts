import { ruleDimensions, type AllocationPlan } from '../../core/allocation/plan'
import { settle, settlementDimensions, type Settlement } from '../../core/allocation/settle'
import { scaled } from '../../core/money/scaled'
import type { AllocationQuestion } from '../../shared/contracts/allocation'
import { Problem } from '../http/problem'
import type { CubeClient } from './cube-client'

// charges of a billing month may lie in any charge period: a correction in October can be about September
const ALWAYS = { start: '1970-01-01', end: '2200-01-01' }

/** Settles a billing month under a plan, from the charges in memory. */
export async function settleMonth(
  cube: CubeClient,
  plan: AllocationPlan,
  { month, measure }: AllocationQuestion,
): Promise<Settlement & { revision: number }> {
  const dimensions = [...new Set([...settlementDimensions, ...ruleDimensions(plan)])]
  const question = { grain: null, ...ALWAYS, keep: {}, leaveOut: {}, billingMonth: month }
  const [groups, bill] = await Promise.all([
    cube.ask('group', { ...question, splitBy: dimensions, measures: [measure] }),
    cube.ask('answer', { ...question, splitBy: [], measure }),
  ])
  if (groups.revision !== bill.revision)
    throw new Problem(409, 'conflict', 'New charges were loaded meanwhile', 'Ask again: the figures would be of two states of the data.')
  const cells = groups.result.map(({ values, currency, amounts, count }) => ({ values, currency, amount: amounts[0]!, count }))
  const totals = bill.result.totals.map(({ currency, amount }) => ({ currency, amount: scaled(amount) }))
  return { ...settle(plan, cells, totals, ruleDimensions(plan)), revision: bill.revision }
}
