import { noCoding } from '../coded-column'
import { COST_CENTRE, COST_CENTRE_NAME } from '../dimension'
import type { DimensionKind } from './kind'
import { after } from './names'

/**
 * `CostCentre` and `CostCentre/TREE`: whose a charge is by the rules of the first tree of cost centres, or of another; `CostCentreName`
 * beside the first.
 */
export const costCentre: DimensionKind<{ tree: string | null; shows: 'id' | 'name' }> = {
  kind: 'cost centre',
  read(name) {
    if (name === COST_CENTRE) return { tree: null, shows: 'id' }
    if (name === COST_CENTRE_NAME) return { tree: null, shows: 'name' }
    const tree = after(name, `${COST_CENTRE}/`)
    return tree === null ? null : { tree, shows: 'id' }
  },
  coding: ({ centres }, { tree, shows }) => centres(tree, shows) ?? noCoding,
  changesWithCharges: true, // it is coded row by row
  isSaid: 'by rules',
  label: ({ tree, shows }) => (tree !== null ? `cost centre, tree ${tree}` : shows === 'id' ? 'cost centre' : 'cost centre name'),
  none: 'unallocated',
  group: () => 'cost centres and lookups',
}
