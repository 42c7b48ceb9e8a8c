import { sumByCurrency } from '../../spend/plain-groups'
import { scaled } from '../../money/scaled'
import type { UnallocatedGroup } from '../caught'
import type { Settlement } from '../settle'

/** So many groups of what is unallocated are kept one by one with a closed month; the others of a currency as one. */
const MOST_GROUPS = 500

/** A settlement as it is kept when its month is closed: of what is unallocated the largest groups, and the sum of the others. */
export function keptSettlement(settlement: Settlement): Settlement {
  const { unallocated } = settlement
  if (unallocated.length <= MOST_GROUPS) return settlement
  const others = unallocated.slice(MOST_GROUPS)
  const sums = sumByCurrency(others.map(({ currency, amount }) => ({ currency, amount: scaled(amount) })))
  const rest = sums.map(({ currency, amount }): UnallocatedGroup => {
    const own = others.filter(group => group.currency === currency)
    const total = (count: 'resources' | 'count') => own.reduce((sum, group) => sum + group[count], 0)
    return { values: {}, currency, amount, resources: total('resources'), count: total('count') }
  })
  return { ...settlement, unallocated: [...unallocated.slice(0, MOST_GROUPS), ...rest] }
}
