import { focusColumns } from '../focus/columns'
import { dictionaries, dimensionColumns, type DictionaryName } from '../focus/star'

/** The provider's own column that holds the container of a resource as a path: `passenger/booking/live`. */
export const CONTAINER_COLUMN = 'x_Container'
/** The provider's own column that names the resource which made this one. */
export const CREATED_BY_COLUMN = 'x_CreatedBy'
/** The tag that says the same where a provider has no such column. */
export const CREATED_BY_TAG = 'created-by'

/** A dimension whose values are worked out of more than the columns of a charge. */
export const COST_CENTRE = 'CostCentre'
/** The name of a cost centre of the first tree, or of a pool, beside its id. */
export const COST_CENTRE_NAME = 'CostCentreName'
/** The rule of the first tree that says whose a charge is, by its id; and in words. */
export const ALLOCATION_RULE = 'AllocationRule'
export const ALLOCATION_RULE_WORDS = 'AllocationRuleWords'
/** What is shown of whose a charge is: the cost centre or pool by id or name, or the rule that says so by id or in words. */
export type CentreShown = 'id' | 'name' | 'rule' | 'rule words'
/** The name under which a charge was delivered. */
export const SOURCE = 'Source'
export const lookupDimension = (lookup: string, field: string): string => `Lookup/${lookup}/${field}`
/** The dimension of a tree of cost centres; null for the first. */
export const centreDimension = (tree: string | null): string => (tree === null ? COST_CENTRE : `${COST_CENTRE}/${tree}`)

/** Place of a column in its dictionary's entries. */
export function columnPlace(dictionary: DictionaryName, column: string): number {
  return (dictionaries[dictionary] as readonly string[]).indexOf(column)
}

/** The FOCUS columns among the dimensions, with the version that brought each. */
export const columnDimensions = dimensionColumns.map(name => ({ name, since: focusColumns.find(c => c.name === name)!.since }))
