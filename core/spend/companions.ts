import { ALLOCATION_RULE, ALLOCATION_RULE_WORDS, COST_CENTRE, COST_CENTRE_NAME } from './dimension'

/** A column that says in words what an id means, asked for together with it. */
export const companionOf: Record<string, string> = {
  ResourceId: 'ResourceName',
  [COST_CENTRE]: COST_CENTRE_NAME,
  [ALLOCATION_RULE]: ALLOCATION_RULE_WORDS,
}

/** Dimensions with the columns that name them. */
export const withCompanions = (dimensions: readonly string[]): string[] => [
  ...new Set(dimensions.flatMap(d => (companionOf[d] ? [d, companionOf[d]] : [d]))),
]
