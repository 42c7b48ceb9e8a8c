import { entryCoding } from './entry-coding'
import type { DimensionKind } from './kind'
import { after } from './names'
import { tagLayers } from './tag-layers'

/** `TagsFrom/KEY`: whether a tag is the charge's own or inherited, and from where. */
export const tagSource: DimensionKind<{ key: string }> = {
  kind: 'tag source',
  read(name) {
    const key = after(name, 'TagsFrom/')
    return key === null ? null : { key }
  },
  coding: ({ entries }, { key }, name) =>
    entryCoding(
      entries,
      name,
      tagLayers(entries, key).map(({ dictionary, read, source }) => ({ dictionary, read: id => (read(id) === null ? null : source) })),
    ),
  label: ({ key }) => `where the ${key} tag comes from`,
  group: () => 'tags',
}
