import { sumByCurrency } from '../../core/spend/plain-groups'
import type { ResourceView } from '../../shared/contracts/resources'
import type { ChargesSeen } from '../charges/charges-seen'
import { ALWAYS } from './resource-facts'

type Related = NonNullable<ResourceView['createdBy']>

/** A resource that another names, by its newest name and type. */
export async function relatedTo(seen: ChargesSeen, id: string | null): Promise<Related | null> {
  if (!id) return null
  const { result } = await seen.ask('group', {
    ...ALWAYS,
    keep: { ResourceId: [id] },
    splitBy: ['ResourceName', 'ResourceType'],
    grain: null,
    measures: ['effectiveCost'],
  })
  return {
    id,
    name: result[0]?.values.ResourceName ?? null,
    type: result[0]?.values.ResourceType ?? null,
    amounts: sumByCurrency(result.map(g => ({ currency: g.currency, amount: g.amounts[0]! }))),
  }
}

/** Resources that name this one in a column of their own. */
export async function naming(seen: ChargesSeen, column: string, id: string): Promise<Related[]> {
  const { result } = await seen.ask('group', {
    ...ALWAYS,
    keep: { [column]: [id] },
    splitBy: ['ResourceId', 'ResourceName', 'ResourceType'],
    grain: null,
    measures: ['effectiveCost'],
  })
  return result.flatMap(g =>
    g.values.ResourceId
      ? [
          {
            id: g.values.ResourceId,
            name: g.values.ResourceName ?? null,
            type: g.values.ResourceType ?? null,
            amounts: sumByCurrency([{ currency: g.currency, amount: g.amounts[0]! }]),
          },
        ]
      : [],
  )
}
