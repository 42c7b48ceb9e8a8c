import { dictionaries, dictionaryFor, dictionaryNames, tagDimension, tagKey, type DictionaryName } from '../focus/star'

/** The charges of one source and billing period, a column to an array. */
export type Chunk = {
  source: string
  /** First day of the billing period. */
  billingPeriodStart: string
  rows: number
  /** Hours since 1 January 1970 at which the charge period starts. */
  startHour: Int32Array
  /** Position in the cube's list of currencies. */
  currency: Uint8Array
  keys: Record<DictionaryName, Int32Array>
  measures: Record<MeasureName, { high: Float64Array, low: Float64Array }>
}

export const measureNames = ['billedCost', 'effectiveCost', 'listCost', 'pricingQuantity'] as const
export type MeasureName = typeof measureNames[number]

/** A dimension seen from its dictionary: for every entry the code of its value; codes index `values`, null being a value too. */
export type Coding = { dictionary: DictionaryName, codes: Int32Array, values: (string | null)[] }

/** All charges in memory, coded by dictionaries. Holds data and finds codes; questions are answered elsewhere. */
export class Cube {
  readonly currencies: string[] = []
  readonly chunks = new Map<string, Chunk>()
  /** Entries by dictionary and id; ids are the database's. */
  readonly entries = Object.fromEntries(dictionaryNames.map(name => [name, []])) as unknown as Record<DictionaryName, ((string | null)[] | undefined)[]>
  #codings = new Map<string, Coding>()
  #tags: (Record<string, unknown> | undefined)[] = []

  currencyCode(currency: string): number {
    const found = this.currencies.indexOf(currency)
    return found >= 0 ? found : this.currencies.push(currency) - 1
  }

  addEntry(dictionary: DictionaryName, id: number, values: (string | null)[]): void {
    this.entries[dictionary][id] = values
    if (dictionary === 'tagSet') this.#tags[id] = values[0] ? JSON.parse(values[0]) as Record<string, unknown> : {}
    this.#codings.clear()
  }

  setChunk(chunk: Chunk): void {
    this.chunks.set(chunkKey(chunk.source, chunk.billingPeriodStart), chunk)
  }

  removeChunk(source: string, billingPeriodStart: string): void {
    this.chunks.delete(chunkKey(source, billingPeriodStart))
  }

  get rows(): number {
    let rows = 0
    for (const chunk of this.chunks.values()) rows += chunk.rows
    return rows
  }

  /** Codes of a dimension's values. @throws RangeError for something that is no dimension. */
  coding(dimension: string): Coding {
    const known = this.#codings.get(dimension)
    if (known) return known
    const key = tagKey(dimension)
    const dictionary = key === null ? dictionaryFor(dimension) : 'tagSet'
    if (!dictionary) throw new RangeError(`not a dimension: ${dimension}`)
    const column = key === null ? (dictionaries[dictionary] as readonly string[]).indexOf(dimension) : -1
    const values: (string | null)[] = []
    const codeOf = new Map<string | null, number>()
    const entries = this.entries[dictionary]
    const codes = new Int32Array(entries.length)
    for (let id = 0; id < entries.length; id++) {
      const value = key === null ? entries[id]?.[column] ?? null : tagText(this.#tags[id]?.[key])
      let code = codeOf.get(value)
      if (code === undefined) {
        code = values.push(value) - 1
        codeOf.set(value, code)
      }
      codes[id] = code
    }
    const coding = { dictionary, codes, values }
    this.#codings.set(dimension, coding)
    return coding
  }

  /** All tag keys that any charge has, as dimensions. */
  tagDimensions(): string[] {
    const keys = new Set<string>()
    for (const tags of this.#tags) if (tags) for (const key of Object.keys(tags)) keys.add(key)
    return [...keys].sort().map(tagDimension)
  }
}

/** A tag's value as text; a null or missing one is none. */
function tagText(value: unknown): string | null {
  return value === null || value === undefined ? null : String(value)
}

export function chunkKey(source: string, billingPeriodStart: string): string {
  return `${billingPeriodStart} ${source}`
}
