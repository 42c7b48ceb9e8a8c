import { scaled, scaledText, type Scaled } from '../money/scaled'
import { servingMethods, type AllocationPlan, type ServingMethod } from './plan'

/** A cost centre's shared cost by each method in which pools that serve each other are settled; null where a method cannot be used. */
export type ComparedMethods = { centre: string; byMethod: Record<ServingMethod, string | null> }

type Settled = { statements: readonly { centre: string; currency: string; shared: string }[] }

/**
 * What cost centres bear of all pools by each method, in a currency, in the order of the plan; those that bear nothing by any are left out.
 * @param settled by method a month settled by it; null where the plan cannot be settled by it.
 */
export function comparedMethods(
  { centres }: Pick<AllocationPlan, 'centres'>,
  settled: Readonly<Record<ServingMethod, Settled | null>>,
  currency: string,
): ComparedMethods[] {
  const sums = new Map<string, Partial<Record<ServingMethod, Scaled>>>()
  for (const method of servingMethods)
    for (const one of settled[method]?.statements ?? []) {
      if (one.currency !== currency || one.shared === '0') continue
      const own = sums.get(one.centre) ?? {}
      own[method] = (own[method] ?? 0n) + scaled(one.shared)
      sums.set(one.centre, own)
    }
  return centres.flatMap(({ id }) => {
    const own = sums.get(id)
    if (!own) return []
    const text = (method: ServingMethod) => (settled[method] ? scaledText(own[method] ?? 0n) : null)
    return [{ centre: id, byMethod: { direct: text('direct'), 'step-down': text('step-down'), reciprocal: text('reciprocal') } }]
  })
}
