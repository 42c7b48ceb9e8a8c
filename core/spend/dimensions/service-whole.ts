import { CREATED_BY_COLUMN, CREATED_BY_TAG } from '../dimension'
import { columnLayer, entryCoding } from './entry-coding'
import type { DimensionKind } from './kind'
import { asText, keysOf } from './names'

/** `ServiceWhole`: a service with what it created under others. */
export const serviceWhole: DimensionKind<object> = {
  kind: 'service whole',
  read: name => (name === 'ServiceWhole' ? {} : null),
  coding({ entries, services: servicesOf }, _, name) {
    const services = servicesOf()
    const ofMaker = (maker: string | null) => (maker === null ? null : (services.get(maker) ?? null))
    return entryCoding(entries, name, [
      { dictionary: 'others', read: id => ofMaker(asText(entries.others(id)[CREATED_BY_COLUMN])) },
      { dictionary: 'tagSet', read: id => ofMaker(asText(entries.tags(id)[CREATED_BY_TAG])) },
      columnLayer(entries, 'sku', 'ServiceName'),
    ])
  },
  found(entries) {
    const { others, tagSet } = entries.entries
    const isThere =
      keysOf(others.length, id => entries.others(id)).includes(CREATED_BY_COLUMN) ||
      keysOf(tagSet.length, id => entries.tags(id)).includes(CREATED_BY_TAG)
    return isThere ? ['ServiceWhole'] : []
  },
  changesWithCharges: true,
  label: () => 'service with what it created',
  group: () => 'services and SKUs',
}
