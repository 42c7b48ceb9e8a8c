import type { Scaled } from '../../money/scaled'
import type { Charged } from '../../ratecard/meters'
import { findSku } from '../../ratecard/find-price'
import type { RateCard } from '../../ratecard/rate-card'
import type { Cube } from '../../spend/cube'
import { foundDimensions } from '../../spend/dimensions'
import { sourceDays } from '../../spend/freshness'
import { groupInSlices } from '../../spend/group'
import type { Slices } from '../../spend/slices'
import { addDays, daysBetween, type Day } from '../../time/day'
import type { Bill, BilledResource, BilledUse } from './billed-resource'
import { lookBacks, stretchesBefore, windowOf, type Window } from './stretches'

/** What is known of SKUs beside the charges: the newest card of each provider, and what is charged for existing and what for use. */
export type SkuFacts = { cards: ReadonlyMap<string, RateCard>; charged: Readonly<Record<string, Charged>> }

/** A source that delivers nothing any more says nothing of what runs now. */
const STALE_DAYS = 45
const environmentTag = /^Tags\/(environment|env|stage)$/i
const parts = [
  ...['ResourceId', 'ProviderName', 'SkuId', 'SkuMeter', 'PricingUnit', 'PricingCategory'],
  ...['ResourceName', 'ResourceType', 'ServiceName', 'RegionId', 'SubAccountName'],
] as const
const place = Object.fromEntries(parts.map((name, at) => [name, at])) as Record<(typeof parts)[number], number>
const measures = ['pricingQuantity', 'effectiveCost', 'listCost'] as const
const ENVIRONMENT = parts.length
const noSums = (): Scaled[] => Array.from({ length: lookBacks.length + 1 }, () => 0n)

/**
 * Reads of the charges what each resource was charged for, up to the last day that its source has delivered whole. Use only: purchases,
 * credits, tax and corrections say nothing of what runs.
 */
export function* readBill(cube: Cube, facts: SkuFacts): Slices<Bill> {
  const sources = sourceDays(cube)
  const newest = sources.reduce((last, { lastDay }) => (lastDay > last ? lastDay : last), '')
  const byWindow = new Map<string, { sources: string[]; window: Window }>()
  const ends: Record<string, Day> = {}
  for (const { source, firstDay, lastDay } of sources) {
    if (daysBetween(lastDay, newest) > STALE_DAYS) continue
    const window = windowOf(addDays(lastDay, 1), firstDay)
    const key = `${window.from} ${window.end}`
    const together = byWindow.get(key) ?? { sources: [], window }
    together.sources.push(source)
    byWindow.set(key, together)
    ends[source] = window.end
  }
  const environment = foundDimensions(cube).find(name => environmentTag.test(name))
  const found = new Map<string, BilledResource>()
  for (const { sources: together, window } of byWindow.values()) {
    const cuts = stretchesBefore(window.end)
    const groups = yield* groupInSlices(cube, {
      ...{ start: cuts[0]!, end: window.end, cuts, grain: null },
      keep: { Source: together, ChargeCategory: ['Usage'], ChargeClass: [null] },
      leaveOut: { ResourceId: [null], SkuId: [null] },
      splitBy: [...parts, ...(environment ? [environment] : [])],
      measures,
    })
    const lastSeen = new Map<BilledResource, number>()
    for (let group = 0; group < groups.size; group++) {
      const valueAt = (split: number) => groups.values[split]![groups.codes[split]![group]!] ?? null
      const value = (name: (typeof parts)[number]) => valueAt(place[name])
      const stretch = groups.cuts![groups.steps[group]!]!
      const provider = value('ProviderName') ?? ''
      const id = value('ResourceId')!
      const key = `${provider}\n${id}`
      let resource = found.get(key)
      if (!resource) {
        const card = facts.cards.get(provider) ?? null
        resource = { ...{ id, provider, card, window, uses: [], name: id, service: '' }, ...nowhere }
        found.set(key, resource)
      }
      // what it is called and where it is: as the newest charges have it
      if (stretch >= (lastSeen.get(resource) ?? -1)) {
        lastSeen.set(resource, stretch)
        resource.name = value('ResourceName') ?? id
        resource.type = value('ResourceType')
        resource.service = value('ServiceName') ?? ''
        resource.region = value('RegionId') ?? ''
        resource.subAccountName = value('SubAccountName') ?? ''
        resource.environment = environment ? valueAt(ENVIRONMENT) : null
      }
      const currency = groups.denomination(groups.kinds[group]!)
      const use = useOf(resource, { sku: value('SkuId')!, meter: value('SkuMeter'), unit: value('PricingUnit'), currency }, facts)
      const [quantity, cost, list] = groups.sums.map(sum => sum.total(groups.cells[group]!)) as [Scaled, Scaled, Scaled]
      const isCommitted = value('PricingCategory') === 'Committed'
      const add = (sums: Scaled[], amount: Scaled) => void (sums[stretch]! += amount)
      add(isCommitted ? use.committedQuantity : use.quantity, quantity)
      add(isCommitted ? use.committedCost : use.cost, cost)
      if (!isCommitted) add(use.list, list)
    }
    yield
  }
  return { resources: [...found.values()], ends }
}

const nowhere = { type: null, region: '', subAccountName: '', environment: null }

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
    charged: Object.hasOwn(charged, of.sku) ? charged[of.sku]! : null,
    ...{ quantity: noSums(), cost: noSums(), list: noSums(), committedQuantity: noSums(), committedCost: noSums() },
  }
  uses.push(made)
  return made
}
