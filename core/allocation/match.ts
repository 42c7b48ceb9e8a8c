import type { AllocationPlan, Rule } from './plan'

export type DimensionValues = Record<string, string | null>

/** The first rule whose conditions all hold; undefined when none does. */
export function firstMatch(plan: AllocationPlan, values: DimensionValues): Rule | undefined {
  return plan.rules.find(rule => rule.conditions.every(({ dimension, values: wanted }) => wanted.includes(values[dimension] ?? null)))
}
