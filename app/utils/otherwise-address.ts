import type { Condition, Narrowing } from '../../core/spend/question'

/** What of the charges is looked at, by an address; what cannot be read there is as if it were not. */
export type OtherwiseScope = { keep: Narrowing; leaveOut: Narrowing; conditions: Condition[] }

type Query = Record<string, unknown>

/** The address of what charges of a scope would cost otherwise. @param called how the scope is called where it is looked at. */
export const otherwiseAddress = (scope: Partial<OtherwiseScope>, called?: string) => ({
  path: '/savings/otherwise',
  query: {
    ...(scope.keep && Object.keys(scope.keep).length && { keep: JSON.stringify(scope.keep) }),
    ...(scope.leaveOut && Object.keys(scope.leaveOut).length && { leaveOut: JSON.stringify(scope.leaveOut) }),
    ...(scope.conditions?.length && { conditions: JSON.stringify(scope.conditions) }),
    ...(called !== undefined && { called }),
  },
})

export const scopeIn = ({ keep, leaveOut, conditions }: Query): OtherwiseScope => ({
  keep: (parsed(keep) ?? {}) as Narrowing,
  leaveOut: (parsed(leaveOut) ?? {}) as Narrowing,
  conditions: (parsed(conditions) ?? []) as Condition[],
})

function parsed(text: unknown): unknown {
  if (typeof text !== 'string' || !text) return null
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}
