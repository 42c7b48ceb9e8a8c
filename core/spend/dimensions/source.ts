import { columnCoding } from '../coded-column'
import { SOURCE } from '../dimension'
import type { DimensionKind } from './kind'

/** `Source`: the name under which a charge was delivered, whatever its columns say. */
export const source: DimensionKind<object> = {
  kind: 'source',
  read: name => (name === SOURCE ? {} : null),
  coding({ sources }) {
    const values = [null, ...sources()]
    const codeOf = new Map(values.map((value, code) => [value, code]))
    // all charges of a segment came together
    return columnCoding(values, of => ({ codes: new Uint16Array(of.segment.rows), ids: Int32Array.of(codeOf.get(of.source) ?? 0) }))
  },
  found: () => [SOURCE],
  changesWithCharges: true,
  label: () => 'source of the delivery',
  group: () => 'charges and invoices',
}
