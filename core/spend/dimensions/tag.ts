import { tagDimension, tagKey } from '../../focus/star'
import { entryCoding } from './entry-coding'
import type { DimensionKind } from './kind'
import { tagKeys, tagLayers } from './tag-layers'

/** `Tags/KEY`: the tag a charge has or inherits. */
export const tag: DimensionKind<{ key: string }> = {
  kind: 'tag',
  read(name) {
    const key = tagKey(name)
    return key === null ? null : { key }
  },
  coding: ({ entries }, { key }, name) => entryCoding(entries, name, tagLayers(entries, key)),
  found: entries => tagKeys(entries).map(tagDimension),
  label: ({ key }) => `${key} tag`,
  group: () => 'tags',
}
