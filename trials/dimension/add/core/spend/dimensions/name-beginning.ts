import { columnLayer, entryCoding } from './entry-coding'
import type { DimensionKind } from './kind'

/** `NameBeginning`: what a resource's name begins with, to the first dash. */
export const nameBeginning: DimensionKind<object> = {
  kind: 'name beginning',
  read: name => (name === 'NameBeginning' ? {} : null),
  coding({ entries }, _, name) {
    const { dictionary, read } = columnLayer(entries, 'resource', 'ResourceName')
    return entryCoding(entries, name, [{ dictionary, read: id => read(id)?.split('-')[0] ?? null }])
  },
  found: () => ['NameBeginning'],
  label: () => 'beginning of the name',
  none: 'without a name',
  group: () => 'resources and places',
}
