import { focusColumn, focusColumns } from '../focus/columns'
import { dictionaries, dictionaryFor, dimensionColumns, tagKey, type DictionaryName } from '../focus/star'

/** The provider's own column that holds the container of a resource as a path: `passenger/booking/live`. */
export const CONTAINER_COLUMN = 'x_Container'
/** The provider's own column that names the resource which made this one. */
export const CREATED_BY_COLUMN = 'x_CreatedBy'
/** The tag that says the same where a provider has no such column. */
export const CREATED_BY_TAG = 'created-by'

/**
 * Everything that spend can be split by and narrowed to, in one list everywhere. A name is a FOCUS text column, `Tags/KEY`,
 * `TagsFrom/KEY` (whether a tag is the charge's own or inherited), `SkuPriceDetails/KEY` (machine size and family, operating system …),
 * `x_…` (a provider's own column), `Container/LEVEL` and `AccountTree/LEVEL` (rolled up), `ChargedFor` (existing or use, from the rate
 * card), `ServiceWhole` (a service with what it created under others), `Lookup/NAME/FIELD` (what a table that someone brought says of
 * another dimension's value), `CostCentre` and `CostCentre/TREE` (whose a charge is by the rules of the first tree, or of another), with
 * `CostCentreName` beside the first.
 */
export type DimensionKind =
  | { kind: 'column'; column: string; dictionary: DictionaryName }
  | { kind: 'tag' | 'tag source' | 'price detail'; key: string }
  | { kind: 'own column'; column: string }
  | { kind: 'container' | 'account tree'; level: number }
  | { kind: 'charged for' | 'service whole' }
  | { kind: 'lookup'; lookup: string; field: string }
  | { kind: 'cost centre'; tree: string | null; shows: 'id' | 'name' }

/** A dimension whose values are worked out of more than the columns of a charge. */
export const COST_CENTRE = 'CostCentre'
/** The name of a cost centre of the first tree, or of a pool, beside its id. */
export const COST_CENTRE_NAME = 'CostCentreName'
export const lookupDimension = (lookup: string, field: string): string => `Lookup/${lookup}/${field}`
/** The dimension of a tree of cost centres; null for the first. */
export const centreDimension = (tree: string | null): string => (tree === null ? COST_CENTRE : `${COST_CENTRE}/${tree}`)

/** Trees are rolled up to at most so many levels. */
export const LEVELS = 6
const after = (name: string, prefix: string) => (name.startsWith(prefix) && name.length > prefix.length ? name.slice(prefix.length) : null)
const levelOf = (text: string | null) => (text !== null && /^[1-9]$/.test(text) && Number(text) <= LEVELS ? Number(text) : null)

/** What a dimension's name stands for; null when it is none. */
export function dimensionKind(name: string): DimensionKind | null {
  const tag = tagKey(name)
  if (tag !== null) return { kind: 'tag', key: tag }
  const source = after(name, 'TagsFrom/')
  if (source !== null) return { kind: 'tag source', key: source }
  const detail = after(name, 'SkuPriceDetails/')
  if (detail !== null) return { kind: 'price detail', key: detail }
  const container = levelOf(after(name, 'Container/'))
  if (container !== null) return { kind: 'container', level: container }
  const tree = levelOf(after(name, 'AccountTree/'))
  if (tree !== null) return { kind: 'account tree', level: tree }
  const lookup = /^Lookup\/([^/]+)\/(.+)$/.exec(name)
  if (lookup) return { kind: 'lookup', lookup: lookup[1]!, field: lookup[2]! }
  if (name === COST_CENTRE || name === COST_CENTRE_NAME)
    return { kind: 'cost centre', tree: null, shows: name === COST_CENTRE ? 'id' : 'name' }
  const otherTree = after(name, `${COST_CENTRE}/`)
  if (otherTree !== null) return { kind: 'cost centre', tree: otherTree, shows: 'id' }
  if (name === 'ChargedFor') return { kind: 'charged for' }
  if (name === 'ServiceWhole') return { kind: 'service whole' }
  if (/^x_\w+$/.test(name)) return { kind: 'own column', column: name }
  const dictionary = dictionaryFor(name)
  if (!dictionary || name === 'Tags' || name === 'Others' || focusColumn(name)?.type === 'json') return null
  return { kind: 'column', column: name, dictionary }
}

/** Whether spend can be split by it. */
export function isDimension(name: string): boolean {
  return dimensionKind(name) !== null
}

/** Place of a column in its dictionary's entries. */
export function columnPlace(dictionary: DictionaryName, column: string): number {
  return (dictionaries[dictionary] as readonly string[]).indexOf(column)
}

/** The FOCUS columns among the dimensions, with the version that brought each. */
export const columnDimensions = dimensionColumns.map(name => ({ name, since: focusColumns.find(c => c.name === name)!.since }))
