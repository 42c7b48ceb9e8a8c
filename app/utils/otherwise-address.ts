import { z } from 'zod'
import type { TimelessScope } from '../../core/spend/question'
import { spendScope } from '../../shared/contracts/spend'

type Query = Record<string, unknown>

/** The address of what charges of a scope would cost otherwise. */
export const otherwiseAddress = (scope: Partial<TimelessScope>) => ({
  path: '/savings/otherwise',
  query: {
    ...(scope.keep && Object.keys(scope.keep).length && { keep: JSON.stringify(scope.keep) }),
    ...(scope.leaveOut && Object.keys(scope.leaveOut).length && { leaveOut: JSON.stringify(scope.leaveOut) }),
    ...(scope.conditions?.length && { conditions: JSON.stringify(scope.conditions) }),
  },
})

/** What of the charges is looked at, by an address; what cannot be read there is as if it were not. */
export function scopeIn({ keep, leaveOut, conditions }: Query): Required<TimelessScope> {
  const read = scope.safeParse({ keep: parsed(keep), leaveOut: parsed(leaveOut), conditions: parsed(conditions) })
  return read.success ? read.data : scope.parse({})
}
const scope = z.object(spendScope)

function parsed(text: unknown): unknown {
  if (typeof text !== 'string' || !text) return undefined
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}
