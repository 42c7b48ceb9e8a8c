import { columnLabels } from './column-labels'
import { entryCoding } from './entry-coding'
import type { DimensionKind } from './kind'
import { asText, keysOf } from './names'

const isOwn = (name: string) => /^x_\w+$/.test(name)

/** `x_…`: a provider's own column. */
export const ownColumn: DimensionKind<{ column: string }> = {
  kind: 'own column',
  read: name => (isOwn(name) ? { column: name } : null),
  coding: ({ entries }, { column }, name) =>
    entryCoding(entries, name, [{ dictionary: 'others', read: id => asText(entries.others(id)[column]) }]),
  found: entries => keysOf(entries.entries.others.length, id => entries.others(id)).filter(isOwn),
  label: (_, name) => (Object.hasOwn(columnLabels, name) ? columnLabels[name]! : name),
  group: () => 'the provider’s own columns',
}
