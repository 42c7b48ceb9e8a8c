import { namedObject, namedObjects } from '../text/named'
import { dictionaryNames, type DictionaryName } from '../focus/star'
import { makeCoding, type Coding } from './coding'
import { columnPlace } from './dimension'
import { emptyReference, type SpendReference } from './reference'
import type { Segment } from './segment'

/** The charges of one source and billing period. */
export type Chunk = {
  source: string
  /** The billing period as instants, the end exclusive. */
  billingPeriodStart: string
  billingPeriodEnd: string
  /** When the delivery was made, as far as anyone said; else when it arrived. */
  deliveredAt: string
  segments: Segment[]
}

type JsonDictionary = 'tagSet' | 'others' | 'price'
const jsonPlace: Record<JsonDictionary, number> = { tagSet: 0, others: 0, price: columnPlace('price', 'SkuPriceDetails') }
const nothing: Record<string, unknown> = namedObject()

/** All charges in memory, coded by dictionaries. Holds data and finds codes; questions are answered elsewhere. */
export class Cube {
  readonly currencies: string[] = []
  readonly chunks = new Map<string, Chunk>()
  /** Entries by dictionary and id; ids are the database's. */
  readonly entries = Object.fromEntries(dictionaryNames.map(name => [name, []])) as unknown as Record<
    DictionaryName,
    ((string | null)[] | undefined)[]
  >
  reference!: SpendReference
  #codings = new Map<string, Coding>()
  #parsed: Record<JsonDictionary, (Record<string, unknown> | undefined)[]> = { tagSet: [], others: [], price: [] }
  #services: Map<string, string> | null = null

  constructor() {
    this.setReference(emptyReference)
  }

  currencyCode(currency: string): number {
    const found = this.currencies.indexOf(currency)
    return found >= 0 ? found : this.currencies.push(currency) - 1
  }

  addEntry(dictionary: DictionaryName, id: number, values: (string | null)[]): void {
    this.entries[dictionary][id] = values
    this.#codings.clear()
  }

  setReference({ aliases, accounts, containerTags, charged }: SpendReference): void {
    this.reference = {
      aliases: namedObjects(aliases),
      accounts: namedObject(
        Object.fromEntries(Object.entries(accounts).map(([id, account]) => [id, { ...account, tags: namedObject(account.tags) }])),
      ),
      containerTags: namedObjects(containerTags),
      charged: namedObject(charged),
    }
    this.#codings.clear()
  }

  setChunk(chunk: Chunk): void {
    this.chunks.set(chunkKey(chunk.source, chunk.billingPeriodStart), chunk)
    this.#forgetServices()
  }

  removeChunk(source: string, billingPeriodStart: string): void {
    this.chunks.delete(chunkKey(source, billingPeriodStart))
    this.#forgetServices()
  }

  /** Which services there are depends on the chunks. */
  #forgetServices(): void {
    this.#services = null
    this.#codings.delete('ServiceWhole')
  }

  get rows(): number {
    let rows = 0
    for (const segment of this.segments()) rows += segment.rows
    return rows
  }

  *segments(): Generator<Segment> {
    for (const chunk of this.chunks.values()) yield* chunk.segments
  }

  /** Codes of a dimension's values. @throws RangeError for something that is no dimension. */
  coding(dimension: string): Coding {
    const known = this.#codings.get(dimension)
    if (known) return known
    const coding = makeCoding(this, dimension)
    this.#codings.set(dimension, coding)
    return coding
  }

  tags(id: number): Record<string, unknown> {
    return this.#json('tagSet', id)
  }

  /** The columns that have no place of their own. */
  others(id: number): Record<string, unknown> {
    return this.#json('others', id)
  }

  priceDetails(id: number): Record<string, unknown> {
    return this.#json('price', id)
  }

  #json(dictionary: JsonDictionary, id: number): Record<string, unknown> {
    const known = this.#parsed[dictionary][id]
    if (known) return known
    const text = this.entries[dictionary][id]?.[jsonPlace[dictionary]]
    const value = text ? namedObject(JSON.parse(text) as Record<string, unknown>) : nothing
    if (this.entries[dictionary][id]) this.#parsed[dictionary][id] = value
    return value
  }

  /** The service under which each resource is charged first. */
  serviceOfResource(): Map<string, string> {
    if (this.#services) return this.#services
    const resources = this.entries.resource
    const place = columnPlace('resource', 'ResourceId')
    const service = columnPlace('sku', 'ServiceName')
    const skuOf = new Int32Array(resources.length)
    for (const { rows, keys } of this.segments()) {
      for (let row = 0; row < rows; row++) {
        const id = keys.resource.ids[keys.resource.codes[row]!]!
        if (skuOf[id] === 0) skuOf[id] = keys.sku.ids[keys.sku.codes[row]!]! + 1
      }
    }
    const found = new Map<string, string>()
    for (let id = 0; id < resources.length; id++) {
      const name = resources[id]?.[place]
      const of = skuOf[id] ? this.entries.sku[skuOf[id]! - 1]?.[service] : null
      if (name && of && !found.has(name)) found.set(name, of)
    }
    this.#services = found
    return found
  }
}

export function chunkKey(source: string, billingPeriodStart: string): string {
  return `${billingPeriodStart} ${source}`
}
