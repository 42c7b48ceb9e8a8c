import { dayFromNumber, type Day } from '../time/day'
import type { Cube } from './cube'
import { columnPlace } from './dimension'
import { keysOfLayer } from './layers'
import { hourOf } from './segment'

/** The first day on which any charge has an own value of a dimension (a tag of its own, not an inherited one); null for never. */
export function firstDay(cube: Cube, dimension: string): Day | null {
  const layer = cube.coding(dimension).layers[0]
  if (!layer) return null
  let first = Infinity
  for (const of of cube.segmentsByMonth()) {
    const { rows, firstHour, time } = of.segment
    if (firstHour >= first) continue
    const { codes, ids } = keysOfLayer(layer, of)
    const has = ids.map(id => (layer.codes[id] === 0 ? 0 : 1))
    if (!has.includes(1)) continue
    const hours = time.starts.map(hourOf)
    for (let row = 0; row < rows; row++) if (hours[time.codes[row]!]! < first && has[codes[row]!] === 1) first = hours[time.codes[row]!]!
  }
  return first === Infinity ? null : dayFromNumber(Math.floor(first / 24))
}

/** Something that has a place of its own in Spend: what it is, its value and the name it is shown under. */
export type FoundPlace = {
  dimension: 'SubAccountName' | 'ServiceName' | 'ResourceId' | 'SkuId' | 'ProviderName'
  value: string
  name: string
  beside: string | null
}

const MOST_OF_A_KIND = 8

/** Accounts, services, resources and SKUs whose name or id holds a text; those that begin with it first. */
export function findPlaces(cube: Cube, text: string): FoundPlace[] {
  const sought = text.trim().toLowerCase()
  if (!sought) return []
  const search = (
    dimension: FoundPlace['dimension'],
    dictionary: 'subAccount' | 'sku' | 'resource' | 'billingAccount',
    value: string,
    name: string,
    beside: string | null,
  ) => {
    const [valueAt, nameAt, besideAt] = [
      columnPlace(dictionary, value),
      columnPlace(dictionary, name),
      beside === null ? -1 : columnPlace(dictionary, beside),
    ]
    const found = new Map<string, FoundPlace>()
    for (const entry of cube.entries[dictionary]) {
      const id = entry?.[valueAt]
      if (!entry || !id || found.has(id)) continue
      const named = entry[nameAt] ?? id
      if (named.toLowerCase().includes(sought) || id.toLowerCase().includes(sought))
        found.set(id, { dimension, value: id, name: named, beside: besideAt < 0 ? null : (entry[besideAt] ?? null) })
    }
    const rank = (place: FoundPlace) => (place.name.toLowerCase() === sought ? 0 : place.name.toLowerCase().startsWith(sought) ? 1 : 2)
    return [...found.values()].sort((a, b) => rank(a) - rank(b) || a.name.localeCompare(b.name, 'en')).slice(0, MOST_OF_A_KIND)
  }
  return [
    ...search('ProviderName', 'billingAccount', 'ProviderName', 'ProviderName', null),
    ...search('SubAccountName', 'subAccount', 'SubAccountName', 'SubAccountName', 'SubAccountId'),
    ...search('ServiceName', 'sku', 'ServiceName', 'ServiceName', 'ServiceCategory'),
    ...search('ResourceId', 'resource', 'ResourceId', 'ResourceName', 'ResourceType'),
    ...search('SkuId', 'sku', 'SkuId', 'SkuId', 'SkuMeter'),
  ]
}
