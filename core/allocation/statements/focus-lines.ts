import { scaled, scaledText } from '../../money/scaled'
import type { CostMeasure } from '../../spend/question'
import { monthEnd, monthStart } from '../../time/day'
import type { CentreTree } from '../plan'
import type { Settlement } from '../settle'

/** Columns beside those of FOCUS that say whose a line is. */
export const ALLOCATION_COLUMNS = [
  ...['x_Allocation', 'x_CostCentreId', 'x_CostCentreName', 'x_CostCentreCode', 'x_PoolId', 'x_PoolName'],
] as const

/** How a line is allocated: on a cost centre, put on a pool, taken out of it again, borne of it, or on nobody. */
export type Allocation = 'direct' | 'pool' | 'pool shared out' | 'share of pool' | 'unallocated'

type Names = Pick<CentreTree, 'centres' | 'pools'>

function said(kind: Allocation, { centres, pools }: Names, centre: string | null, pool: string | null): (string | null)[] {
  const own = centres.find(({ id }) => id === centre)
  return [kind, centre, own?.name ?? null, own?.code ?? null, pool, pools.find(({ id }) => id === pool)?.name ?? null]
}

/** The allocation columns of a charge, by the cost centre or pool that rules put it on. */
export function allocationOf(target: string | null, names: Names): (string | null)[] {
  if (target === null) return said('unallocated', names, null, null)
  const isPool = names.pools.some(({ id }) => id === target)
  return isPool ? said('pool', names, null, target) : said('direct', names, target, null)
}

const columnOf: Record<CostMeasure, string> = {
  ...{ billedCost: 'BilledCost', effectiveCost: 'EffectiveCost', listCost: 'ListCost', contractedCost: 'ContractedCost' },
}

/**
 * What is borne of pools, as lines below the charges: for each pool and currency what is shared out of it, taken off, and for each cost
 * centre its share. They add up to nothing, so that all lines add up to the bill, those of a cost centre to its statement, and those
 * without one to what is unallocated. What cannot be divided in the month stays on its pool.
 * @param columns of FOCUS, in order; amounts of the other costs are zero, since only one is settled.
 */
export function sharedLines(
  { statements }: Pick<Settlement, 'statements'>,
  names: Names,
  { month, measure, columns }: { month: string; measure: CostMeasure; columns: readonly string[] },
): (string | null)[][] {
  const row = (amount: string, currency: string, description: string, pool: string, allocation: (string | null)[]) => {
    const values: Record<string, string | null> = {
      ...{ BilledCost: '0', EffectiveCost: '0', ListCost: '0', ContractedCost: '0', [columnOf[measure]]: amount },
      ...{ BillingCurrency: currency, BillingAccountId: 'allocation', BillingAccountName: 'Allocation' },
      ...{ BillingPeriodStart: `${monthStart(month)}T00:00:00Z`, BillingPeriodEnd: `${monthEnd(month)}T00:00:00Z` },
      ...{ ChargePeriodStart: `${monthStart(month)}T00:00:00Z`, ChargePeriodEnd: `${monthEnd(month)}T00:00:00Z` },
      ...{ ChargeCategory: 'Adjustment', ChargeFrequency: 'Recurring', ChargeDescription: description },
      ...{ ProviderName: 'Allocation', PublisherName: 'Allocation', InvoiceIssuerName: 'Allocation' },
      ...{ ServiceCategory: 'Other', ServiceName: pool },
    }
    return [...columns.map(column => (Object.hasOwn(values, column) ? values[column]! : null)), ...allocation]
  }
  const out = new Map<string, { pool: string; name: string; currency: string; sum: bigint }>()
  const shares = statements.flatMap(({ centre, currency, lines }) =>
    lines.flatMap(line => {
      if (line.kind !== 'share' || line.amount === '0') return []
      const key = JSON.stringify([line.poolId, currency])
      const own = out.get(key) ?? { pool: line.poolId, name: line.pool, currency, sum: 0n }
      out.set(key, own)
      own.sum += scaled(line.amount)
      const description = `Share of ${line.pool}, ${line.label}`
      return [row(line.amount, currency, description, line.pool, said('share of pool', names, centre, line.poolId))]
    }),
  )
  const taken = [...out.values()].map(({ pool, name, currency, sum }) =>
    row(scaledText(-sum), currency, `Shared out of ${name}`, name, said('pool shared out', names, null, pool)),
  )
  return [...taken, ...shares]
}
