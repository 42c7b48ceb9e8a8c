import { focusColumn } from '../../focus/columns'
import { dictionaryFor, type DictionaryName } from '../../focus/star'
import { columnLabels } from './column-labels'
import { columnLayer, entryCoding } from './entry-coding'
import type { DimensionGroup, DimensionKind } from './kind'

const groups: Partial<Record<DictionaryName, DimensionGroup>> = {
  billingAccount: 'accounts and containers',
  subAccount: 'accounts and containers',
  resource: 'resources and places',
  sku: 'services and SKUs',
  price: 'prices',
  commitment: 'commitments',
}

/** A FOCUS text column: `ServiceName`. */
export const column: DimensionKind<{ dictionary: DictionaryName }> = {
  kind: 'column',
  read(name) {
    const dictionary = dictionaryFor(name)
    return !dictionary || name === 'Tags' || name === 'Others' || focusColumn(name)?.type === 'json' ? null : { dictionary }
  },
  coding: ({ entries }, { dictionary }, name) => entryCoding(entries, name, [columnLayer(entries, dictionary, name)]),
  label: (_, name) => (Object.hasOwn(columnLabels, name) ? columnLabels[name]! : name),
  group: ({ dictionary }) => groups[dictionary] ?? 'charges and invoices',
}
