import type { Scaled } from '../../money/scaled'
import type { Charged } from '../../ratecard/meters'
import { chargedFor } from '../../ratecard/describe'
import { findSku } from '../../ratecard/find-price'
import type { RateCard } from '../../ratecard/rate-card'
import type { Cube } from '../../spend/cube'
import type { DictionaryName } from '../../focus/star'
import { foundDimensions } from '../../spend/dimensions'
import { columnLayer, entryCoding } from '../../spend/dimensions/entry-coding'
import { sourceDays } from '../../spend/freshness'
import { groupInSlices } from '../../spend/group'
import type { Coding } from '../../spend/layers'
import type { Narrowing, TimelessScope } from '../../spend/question'
import type { Slices } from '../../spend/slices'
import { addDays, daysBetween } from '../../time/day'
import { resourceKey, type BilledResource, type BilledUse } from './billed-resource'
import { lookBacks, stretchesBefore, windowOf, type Window } from './stretches'

/** What is known of SKUs beside the charges: the newest card of each provider, and what is charged for existing and what for use. */
export type SkuFacts = { cards: ReadonlyMap<string, RateCard>; charged: Readonly<Record<string, Charged>> }

/** So many are gone through before others have their turn. */
const GROUPS_AT_ONCE = 2000
/** A source that delivers nothing any more says nothing of what runs now. */
const STALE_DAYS = 45
const environmentTag = /^Tags\/(environment|env|stage)$/i
const measures = ['pricingQuantity', 'effectiveCost', 'listCost'] as const
const nothing: readonly Scaled[] = Array.from({ length: lookBacks.length + 1 }, () => 0n)
const noSums = (): Scaled[] => nothing.slice()

/**
 * Reads of the charges what each resource was charged for, up to the last day that its source has delivered whole. Use only: purchases,
 * credits, tax and corrections say nothing of what runs.
 * @param asked what of it is read; all without it.
 */
export function* readBill(cube: Cube, facts: SkuFacts, asked: TimelessScope = everything): Slices<BilledResource[]> {
  const sources = sourceDays(cube)
  const newest = sources.reduce((last, { lastDay }) => (lastDay > last ? lastDay : last), '')
  const byWindow = new Map<string, { sources: string[]; window: Window }>()
  for (const { source, firstDay, lastDay } of sources) {
    if (daysBetween(lastDay, newest) > STALE_DAYS) continue
    const window = windowOf(addDays(lastDay, 1), firstDay)
    const key = `${window.from} ${window.end}`
    const together = byWindow.get(key) ?? { sources: [], window }
    together.sources.push(source)
    byWindow.set(key, together)
  }
  const environment = foundDimensions(cube).find(name => environmentTag.test(name))
  const dimensions = ['ProviderName', 'SubAccountName', ...(environment ? [environment] : [])]
  // one number a row for all that an entry says: names are read of the entries, where they are needed
  const splits = [entryPlaces(cube, 'resource'), entryPlaces(cube, 'sku'), priceKinds(cube)]
  const [ENTRY, SKU, PRICE] = splits.map((_, at) => dimensions.length + at) as [number, number, number]
  const read = {
    id: reader(cube, 'resource', 'ResourceId'),
    name: reader(cube, 'resource', 'ResourceName'),
    region: reader(cube, 'resource', 'RegionId'),
    sku: reader(cube, 'sku', 'SkuId'),
    meter: reader(cube, 'sku', 'SkuMeter'),
    service: reader(cube, 'sku', 'ServiceName'),
  }
  const found = new Map<string, BilledResource>()
  // what an entry and a provider stand for: asked of each group, and told by numbers alone
  const known = new Map<number, BilledResource>()
  for (const { sources: together, window } of byWindow.values()) {
    const cuts = stretchesBefore(window.end)
    const question = {
      ...{ start: cuts[0]!, end: window.end, cuts, grain: null },
      ...narrowedFurther(
        asked,
        { Source: together, ChargeCategory: ['Usage'], ChargeClass: [null] },
        { ResourceId: [null], SkuId: [null] },
      ),
      splitBy: dimensions,
      measures,
    }
    const groups = yield* groupInSlices(cube, question, { splits })
    const lastSeen = new Map<BilledResource, number>()
    const prices = groups.values[PRICE]!.map(text => JSON.parse(text ?? '[null,null]') as [string | null, string | null])
    const codes = groups.codes
    const valueAt = (split: number, group: number) => groups.values[split]![codes[split]![group]!] ?? null
    const sumAt = (measure: number, group: number): Scaled => groups.sums[measure]!.total(groups.cells[group]!)
    for (let group = 0; group < groups.size; group++) {
      if (group % GROUPS_AT_ONCE === 0) yield
      const entry = codes[ENTRY]![group]! - 1
      const sku = codes[SKU]![group]! - 1
      const stretch = groups.cuts![groups.steps[group]!]!
      const place = codes[0]![group]! * cube.entries.resource.length + entry
      let resource = known.get(place)
      if (!resource) {
        resource = resourceAt(found, valueAt(0, group) ?? '', read.id(entry)!, facts, window)
        known.set(place, resource)
      }
      // what it is called and where it is: as the newest charges have it
      if (stretch >= (lastSeen.get(resource) ?? -1)) {
        lastSeen.set(resource, stretch)
        resource.name = read.name(entry) ?? resource.id
        resource.service = read.service(sku) ?? ''
        resource.region = read.region(entry) ?? ''
        resource.subAccountName = valueAt(1, group) ?? ''
        resource.environment = environment ? valueAt(2, group) : null
      }
      const currency = groups.denomination(groups.kinds[group]!)
      const [unit, category] = prices[codes[PRICE]![group]!]!
      const use = useOf(resource, { sku: read.sku(sku)!, meter: read.meter(sku), unit, currency }, facts)
      const isCommitted = category === 'Committed'
      const [quantity, cost] = isCommitted ? [use.committedQuantity, use.committedCost] : [use.quantity, use.cost]
      quantity[stretch]! += sumAt(0, group)
      cost[stretch]! += sumAt(1, group)
      if (!isCommitted) use.list[stretch]! += sumAt(2, group)
    }
  }
  return [...found.values()]
}

const everything: TimelessScope = { keep: {}, leaveOut: {} }

/** Conditions with further ones: of a dimension that both keep, what both do. */
function narrowedFurther({ keep, leaveOut, conditions = [] }: TimelessScope, kept: Narrowing, left: Narrowing): TimelessScope {
  const both = Object.entries(kept).map(([name, values]) => {
    const own = Object.hasOwn(keep, name) ? keep[name]! : values
    return [name, values.filter(value => own.includes(value))]
  })
  const out = Object.entries(left).map(([name, values]) => [name, [...(Object.hasOwn(leaveOut, name) ? leaveOut[name]! : []), ...values]])
  return {
    keep: { ...keep, ...Object.fromEntries(both) },
    leaveOut: { ...leaveOut, ...Object.fromEntries(out) },
    conditions: [...conditions],
  }
}

/** A code for each entry of a dictionary: its place and one. */
function entryPlaces({ entries }: Cube, dictionary: DictionaryName): Coding {
  const codes = Int32Array.from(entries[dictionary], (_, place) => place + 1)
  return { layers: [{ dictionary, codes }], values: [null, ...Array.from(codes, String)] }
}

/** What of a price says in which unit it is, and whether a commitment pays it. */
function priceKinds(cube: Cube): Coding {
  const [unit, category] = ['PricingUnit', 'PricingCategory'].map(column => reader(cube, 'price', column)) as [Reader, Reader]
  return entryCoding(cube, 'price', [{ dictionary: 'price', read: id => JSON.stringify([unit(id), category(id)]) }])
}

type Reader = (entry: number) => string | null
/** Reads a column of a dictionary's entries; spellings that count as another value are that value. */
function reader(cube: Cube, dictionary: DictionaryName, column: string): Reader {
  const { read } = columnLayer(cube, dictionary, column)
  const alias = cube.reference.aliases[column] ?? {}
  return entry => {
    const own = read(entry)
    return own !== null && Object.hasOwn(alias, own) ? alias[own]! : own
  }
}

/** A resource by its id, made where it is not there yet. */
function resourceAt(found: Map<string, BilledResource>, provider: string, id: string, { cards }: SkuFacts, window: Window): BilledResource {
  const key = resourceKey({ provider, id })
  const before = found.get(key)
  if (before) return before
  const made = { ...{ id, provider, card: cards.get(provider) ?? null, window, uses: [], name: id, service: '' }, ...nowhere }
  found.set(key, made)
  return made
}

const nowhere = { region: '', subAccountName: '', environment: null }

function useOf(
  { uses, card }: BilledResource,
  of: Pick<BilledUse, 'sku' | 'meter' | 'unit' | 'currency'>,
  { charged }: SkuFacts,
): BilledUse {
  const known = uses.find(use => use.sku === of.sku && use.meter === of.meter && use.unit === of.unit && use.currency === of.currency)
  if (known) return known
  const line = card ? (findSku(card, of.sku) ?? null) : null
  const made: BilledUse = {
    ...of,
    line: line && line.unit === of.unit ? line : null,
    // the card that holds knows SKUs that the newest has dropped
    charged: Object.hasOwn(charged, of.sku) ? charged[of.sku]! : line ? chargedFor(line) : null,
    ...{ quantity: noSums(), cost: noSums(), list: noSums(), committedQuantity: noSums(), committedCost: noSums() },
  }
  uses.push(made)
  return made
}
