import type { DictionaryName } from '../focus/star'
import { columnPlace, type CentreShown } from './dimension'
import { dimensionOf, makeCoding } from './dimensions'
import { Entries } from './entries'
import type { Coding, SegmentOf } from './layers'
import type { SpendReference } from './reference'
import type { Segment } from './segment'

/** The charges of one source and billing period. */
export type SourcePeriod = {
  source: string
  /** The billing period as instants, the end exclusive. */
  billingPeriodStart: string
  billingPeriodEnd: string
  /** When the delivery was made, as far as anyone said; else when it arrived. */
  deliveredAt: string
  /** The number of the load whose charges these are, where they were loaded. */
  loadId?: number
  segments: Segment[]
}

/** The codes of whose charges are in a tree, null for the first; null where there is no such tree, or it is not to be seen. */
export type CentreCodings = (cube: Cube, tree: string | null, shows: CentreShown) => Coding | null

/** All charges in memory, coded by dictionaries. Holds data and finds codes; questions are answered elsewhere. */
export class Cube extends Entries {
  readonly currencies: string[] = []
  readonly periods = new Map<string, SourcePeriod>()
  #codings = new Map<string, Coding>()
  #services: Map<string, string> | null = null
  #centres: CentreCodings = () => null

  currencyCode(currency: string): number {
    const found = this.currencies.indexOf(currency)
    return found >= 0 ? found : this.currencies.push(currency) - 1
  }

  override addEntry(dictionary: DictionaryName, id: number, values: (string | null)[]): void {
    super.addEntry(dictionary, id, values)
    this.#codings.clear()
  }

  override setReference(reference: SpendReference): void {
    super.setReference(reference)
    this.#codings.clear()
  }

  /** Says how cost centres are coded: what says whose a charge is stands above the charges. */
  setCentres(centres: CentreCodings): void {
    this.#centres = centres
    this.#codings.clear()
  }

  /** The same charges with other things known beside them; whose they are is not known. For as long as these charges stay as they are. */
  knowing(reference: SpendReference): Cube {
    const own = new Cube()
    own.currencies.push(...this.currencies)
    Object.assign(own.entries, this.entries)
    for (const period of this.periods.values()) own.setPeriod(period)
    own.setReference(reference)
    return own
  }

  setPeriod(period: SourcePeriod): void {
    this.periods.set(periodKey(period.source, period.billingPeriodStart), period)
    this.#forgetServices()
  }

  removePeriod(source: string, billingPeriodStart: string): void {
    this.periods.delete(periodKey(source, billingPeriodStart))
    this.#forgetServices()
  }

  /** Which services there are depends on the periods, and so does what may be worked out of them. */
  #forgetServices(): void {
    this.#services = null
    for (const dimension of this.#codings.keys()) if (dimensionOf(dimension)!.changesWithCharges) this.#codings.delete(dimension)
  }

  get rows(): number {
    let rows = 0
    for (const segment of this.segments()) rows += segment.rows
    return rows
  }

  /** All segments, each with the billing month it belongs to and its source. */
  *segmentsByMonth(): Generator<SegmentOf> {
    for (const { billingPeriodStart, source, segments } of this.periods.values())
      for (const segment of segments) yield { segment, billingMonth: billingPeriodStart.slice(0, 7), source }
  }

  *segments(): Generator<Segment> {
    for (const period of this.periods.values()) yield* period.segments
  }

  /** Codes of a dimension's values. @throws RangeError for something that is no dimension. */
  coding(dimension: string): Coding {
    const known = this.#codings.get(dimension)
    if (known) return known
    const coding = makeCoding(dimension, {
      entries: this,
      services: () => this.serviceOfResource(),
      sources: () => [...new Set([...this.periods.values()].map(({ source }) => source))].sort(),
      coding: other => this.coding(other),
      centres: (tree, shows) => this.#centres(this, tree, shows),
    })
    this.#codings.set(dimension, coding)
    return coding
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

export function periodKey(source: string, billingPeriodStart: string): string {
  return `${billingPeriodStart} ${source}`
}
