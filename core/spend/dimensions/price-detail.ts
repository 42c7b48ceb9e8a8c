import { entryCoding } from './entry-coding'
import type { DimensionKind } from './kind'
import { after, asText, keysOf } from './names'

const PREFIX = 'SkuPriceDetails/'
const labels: Record<string, string> = {
  InstanceType: 'machine size',
  InstanceSeries: 'machine family',
  OperatingSystem: 'operating system',
  CoreCount: 'vCPU',
  MemorySize: 'memory, GB',
  StorageClass: 'storage class',
  x_Engine: 'engine',
}

/** `SkuPriceDetails/KEY`: machine size and family, operating system … */
export const priceDetail: DimensionKind<{ key: string }> = {
  kind: 'price detail',
  read(name) {
    const key = after(name, PREFIX)
    return key === null ? null : { key }
  },
  coding: ({ entries }, { key }, name) =>
    entryCoding(entries, name, [{ dictionary: 'price', read: id => asText(entries.priceDetails(id)[key]) }]),
  found: entries => keysOf(entries.entries.price.length, id => entries.priceDetails(id)).map(key => `${PREFIX}${key}`),
  label: ({ key }) => (Object.hasOwn(labels, key) ? labels[key]! : key),
  group: () => 'machines and what a price is for',
}
