import { noCoding } from '../coded-column'
import { lookupDimension } from '../dimension'
import { lookupCoding } from '../lookup'
import type { DimensionKind } from './kind'

/** `Lookup/NAME/FIELD`: what a table that someone brought says of another dimension's value. */
export const lookedUp: DimensionKind<{ lookup: string; field: string }> = {
  kind: 'lookup',
  read(name) {
    const found = /^Lookup\/([^/]+)\/(.+)$/.exec(name)
    return found && { lookup: found[1]!, field: found[2]! }
  },
  coding({ entries: { reference }, coding }, { lookup: name, field }) {
    const lookup = reference.lookups[name]
    return lookup ? lookupCoding(lookup, field, coding(lookup.by), reference.aliases[lookup.by] ?? {}) : noCoding
  },
  found: ({ reference }) =>
    Object.entries(reference.lookups).flatMap(([name, { fields }]) => fields.map(field => lookupDimension(name, field))),
  changesWithCharges: true, // it is coded row by row
  isSaid: 'by lookups',
  label: ({ lookup, field }) => `${field} of ${lookup}`,
  group: () => 'cost centres and lookups',
}
