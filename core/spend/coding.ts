import { tagDimension, tagKey, type DictionaryName } from '../focus/star'
import { columnPlace, CONTAINER_COLUMN, LEVELS, CREATED_BY_COLUMN, CREATED_BY_TAG, dimensionKind, lookupDimension } from './dimension'
import type { Entries } from './entries'
import type { Coding } from './layers'
import { noCoding } from './coded-column'
import { lookupCoding } from './lookup'

/** What codes are made of: entries, the service of each resource, codings of other dimensions, whose a charge is. */
export type CodingOf = {
  entries: Entries
  services: () => Map<string, string>
  coding: (dimension: string) => Coding
  centres: (tree: string | null, shows: 'id' | 'name') => Coding | null
}

type Layer = { dictionary: DictionaryName; read: (id: number) => string | null }

/** Codes of a dimension's values. @throws RangeError for something that is no dimension. */
export function makeCoding(dimension: string, of: CodingOf): Coding {
  const kind = dimensionKind(dimension)
  if (kind?.kind === 'cost centre') return of.centres(kind.tree, kind.shows) ?? noCoding
  if (kind?.kind === 'lookup') {
    const lookup = of.entries.reference.lookups[kind.lookup]
    return lookup ? lookupCoding(lookup, kind.field, of.coding(lookup.by), of.entries.reference.aliases[lookup.by] ?? {}) : noCoding
  }
  return entryCoding(dimension, of)
}

function entryCoding(dimension: string, { entries: cube, services }: CodingOf): Coding {
  const alias = cube.reference.aliases[dimension] ?? {}
  const values: (string | null)[] = [null]
  const codeOf = new Map<string | null, number>([[null, 0]])
  const layers = layersOf(cube, services, dimension).map(({ dictionary, read }) => {
    const codes = new Int32Array(cube.entries[dictionary].length)
    for (let id = 0; id < codes.length; id++) {
      const own = read(id)
      const value = own === null ? null : Object.hasOwn(alias, own) ? alias[own]! : own
      let code = codeOf.get(value)
      if (code === undefined) {
        code = values.push(value) - 1
        codeOf.set(value, code)
      }
      codes[id] = code
    }
    return { dictionary, codes }
  })
  // in the order of the alphabet answers need not sort names again and again
  const order = Array.from(values, (_, code) => code).sort((a, b) => (a === 0 ? -1 : b === 0 ? 1 : values[a]! < values[b]! ? -1 : 1))
  const place = new Int32Array(order.length)
  order.forEach((code, at) => {
    place[code] = at
  })
  for (const { codes } of layers) for (let id = 0; id < codes.length; id++) codes[id] = place[codes[id]!]!
  return { layers, values: order.map(code => values[code]!) }
}

function layersOf(cube: Entries, servicesOf: () => Map<string, string>, dimension: string): Layer[] {
  const kind = dimensionKind(dimension)
  if (!kind) throw new RangeError(`not a dimension: ${dimension}`)
  const column = (dictionary: DictionaryName, name: string) => {
    const place = columnPlace(dictionary, name)
    return (id: number) => cube.entries[dictionary][id]?.[place] ?? null
  }
  const subAccount = column('subAccount', 'SubAccountId')
  switch (kind.kind) {
    case 'column':
      return [{ dictionary: kind.dictionary, read: column(kind.dictionary, kind.column) }]
    case 'tag':
      return tagLayers(cube, kind.key)
    case 'tag source': {
      const sources = ['own', 'container', 'account']
      return tagLayers(cube, kind.key).map(layer => ({
        dictionary: layer.dictionary,
        read: id => (layer.read(id) === null ? null : sources[layer.order]!),
      }))
    }
    case 'price detail':
      return [{ dictionary: 'price', read: id => asText(cube.priceDetails(id)[kind.key]) }]
    case 'own column':
      return [{ dictionary: 'others', read: id => asText(cube.others(id)[kind.column]) }]
    case 'container':
      return [{ dictionary: 'others', read: id => rolledUp(containerPath(cube, id), kind.level) }]
    case 'account tree':
      return [
        {
          dictionary: 'subAccount',
          read: id => {
            const account = subAccount(id)
            return account === null ? null : rolledUp(cube.reference.accounts[account]?.path ?? [], kind.level)
          },
        },
      ]
    case 'charged for': {
      const sku = column('sku', 'SkuId')
      return [
        {
          dictionary: 'sku',
          read: id => {
            const code = sku(id)
            return code === null ? null : (cube.reference.charged[code] ?? null)
          },
        },
      ]
    }
    case 'service whole': {
      const services = servicesOf()
      const ofMaker = (maker: string | null) => (maker === null ? null : (services.get(maker) ?? null))
      return [
        { dictionary: 'others', read: id => ofMaker(asText(cube.others(id)[CREATED_BY_COLUMN])) },
        { dictionary: 'tagSet', read: id => ofMaker(asText(cube.tags(id)[CREATED_BY_TAG])) },
        { dictionary: 'sku', read: column('sku', 'ServiceName') },
      ]
    }
    case 'lookup':
    case 'cost centre':
      return []
  }
}

/** A tag's own layer and, where anything inherits it, those of containers and accounts. `order` says which is which. */
function tagLayers(cube: Entries, key: string): (Layer & { order: number })[] {
  const { accounts, containerTags } = cube.reference
  const layers: (Layer & { order: number })[] = [{ order: 0, dictionary: 'tagSet', read: id => asText(cube.tags(id)[key]) }]
  if (Object.values(containerTags).some(tags => key in tags)) {
    layers.push({
      order: 1,
      dictionary: 'others',
      read: id => {
        const path = containerPath(cube, id)
        for (let length = path.length; length > 0; length--) {
          const value = containerTags[path.slice(0, length).join('/')]?.[key]
          if (value !== undefined) return value
        }
        return null
      },
    })
  }
  if (Object.values(accounts).some(account => key in account.tags)) {
    const place = columnPlace('subAccount', 'SubAccountId')
    layers.push({
      order: 2,
      dictionary: 'subAccount',
      read: id => {
        const account = cube.entries.subAccount[id]?.[place]
        return account ? (accounts[account]?.tags[key] ?? null) : null
      },
    })
  }
  return layers
}

function containerPath(cube: Entries, id: number): string[] {
  return (
    asText(cube.others(id)[CONTAINER_COLUMN])
      ?.split('/')
      .filter(part => part !== '') ?? []
  )
}

/** The first `level` names of a path; what lies higher up stays with its own name, so that nothing is lost when rolling up. */
function rolledUp(path: readonly string[], level: number): string | null {
  return path.length ? path.slice(0, level).join('/') : null
}

/** A value as text; a null, empty or missing one is none. */
function asText(value: unknown): string | null {
  return value === null || value === undefined || value === '' ? null : typeof value === 'object' ? JSON.stringify(value) : String(value)
}

/** All names of dimensions whose keys come with the data: tags (inherited ones too), price details, own columns, levels of trees. */
export function foundDimensions(cube: Entries): string[] {
  const keysOf = (read: (id: number) => Record<string, unknown>, entries: number) => {
    const keys = new Set<string>()
    for (let id = 0; id < entries; id++) for (const key of Object.keys(read(id))) keys.add(key)
    return keys
  }
  const tags = keysOf(id => cube.tags(id), cube.entries.tagSet.length)
  for (const { tags: inherited } of Object.values(cube.reference.accounts)) for (const key of Object.keys(inherited)) tags.add(key)
  for (const inherited of Object.values(cube.reference.containerTags)) for (const key of Object.keys(inherited)) tags.add(key)
  const own = [...keysOf(id => cube.others(id), cube.entries.others.length)].filter(key => dimensionKind(key)?.kind === 'own column')
  const details = keysOf(id => cube.priceDetails(id), cube.entries.price.length)
  let containers = 0
  for (let id = 0; id < cube.entries.others.length; id++)
    containers = Math.max(containers, Math.min(LEVELS, containerPath(cube, id).length))
  const tree = Object.values(cube.reference.accounts).reduce((most, { path }) => Math.max(most, Math.min(LEVELS, path.length)), 0)
  const levels = (name: string, count: number) => Array.from({ length: count }, (_, i) => `${name}/${i + 1}`)
  return [
    ...[...tags].sort().map(tagDimension),
    ...[...details].sort().map(key => `SkuPriceDetails/${key}`),
    ...own.sort(),
    ...levels('Container', containers),
    ...levels('AccountTree', tree),
    ...(own.includes(CREATED_BY_COLUMN) || tags.has(CREATED_BY_TAG) ? ['ServiceWhole'] : []),
    ...(Object.keys(cube.reference.charged).length ? ['ChargedFor'] : []),
    ...Object.entries(cube.reference.lookups).flatMap(([name, { fields }]) => fields.map(field => lookupDimension(name, field))),
  ]
}

/** Keys of the tags that something inherits. */
export function inheritedTagKeys(cube: Entries): string[] {
  const keys = new Set<string>()
  for (const dimension of foundDimensions(cube)) {
    const key = tagKey(dimension)
    if (key !== null && tagLayers(cube, key).length > 1) keys.add(key)
  }
  return [...keys].sort()
}
