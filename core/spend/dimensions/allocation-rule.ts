import { noCoding } from '../coded-column'
import { ALLOCATION_RULE, ALLOCATION_RULE_WORDS } from '../dimension'
import type { DimensionKind } from './kind'
import { after } from './names'

/**
 * `AllocationRule` and `AllocationRule/TREE`: which rule says whose a charge is; `AllocationRuleWords` beside the first. It is the trace
 * from a statement's line to the charges. Who sees a part of the company sees no rules.
 */
export const allocationRule: DimensionKind<{ tree: string | null; shows: 'rule' | 'rule words' }> = {
  kind: 'allocation rule',
  read(name) {
    if (name === ALLOCATION_RULE) return { tree: null, shows: 'rule' }
    if (name === ALLOCATION_RULE_WORDS) return { tree: null, shows: 'rule words' }
    const tree = after(name, `${ALLOCATION_RULE}/`)
    return tree === null ? null : { tree, shows: 'rule' }
  },
  coding: ({ centres }, { tree, shows }) => centres(tree, shows) ?? noCoding,
  changesWithCharges: true, // it is coded row by row
  isSaid: 'by rules',
  label: ({ tree, shows }) =>
    tree !== null ? `allocation rule, tree ${tree}` : shows === 'rule' ? 'allocation rule' : 'allocation rule in words',
  none: 'no rule',
  group: () => 'cost centres and lookups',
}
