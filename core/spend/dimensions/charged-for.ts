import { columnLayer, entryCoding } from './entry-coding'
import type { DimensionKind } from './kind'

/** `ChargedFor`: existing or use, as the rate card says of a SKU. */
export const chargedFor: DimensionKind<object> = {
  kind: 'charged for',
  read: name => (name === 'ChargedFor' ? {} : null),
  coding({ entries }, _, name) {
    const { dictionary, read } = columnLayer(entries, 'sku', 'SkuId')
    const { charged } = entries.reference
    const said = (sku: string | null) => (sku === null ? null : (charged[sku] ?? null))
    return entryCoding(entries, name, [{ dictionary, read: id => said(read(id)) }])
  },
  found: ({ reference }) => (Object.keys(reference.charged).length ? ['ChargedFor'] : []),
  label: () => 'charged for',
  none: 'not said by a rate card',
  group: () => 'services and SKUs',
}
