import { entryCoding } from './entry-coding'
import type { DimensionKind } from './kind'
import { levelOf, levels, LEVELS, rolledUp } from './names'
import { containerPath } from './tag-layers'

const PREFIX = 'Container/'

/** `Container/LEVEL`: the container of a resource, rolled up. */
export const container: DimensionKind<{ level: number }> = {
  kind: 'container',
  read(name) {
    const level = levelOf(name, PREFIX)
    return level === null ? null : { level }
  },
  coding: ({ entries }, { level }, name) =>
    entryCoding(entries, name, [{ dictionary: 'others', read: id => rolledUp(containerPath(entries, id), level) }]),
  found(entries) {
    let deepest = 0
    for (let id = 0; id < entries.entries.others.length; id++) deepest = Math.max(deepest, containerPath(entries, id).length)
    return levels(PREFIX, Math.min(LEVELS, deepest))
  },
  label: ({ level }) => (level === 1 ? 'container, top level' : `container, ${level} levels`),
  group: () => 'accounts and containers',
}
