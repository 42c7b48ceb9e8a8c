import type { Meter } from './meters'
import { placeOf } from './price-place'
import type { PriceLine, RateCard, ServerSize } from './rate-card'

type Index = {
  byPlace: Map<string, PriceLine>
  variants: Map<string, string[]>
  byMeter: Map<string, PriceLine[]>
  bySku: Map<string, PriceLine>
  sizes: Map<string, ServerSize>
}
const indexes = new WeakMap<RateCard, Index>()

/** A card never changes once it is read; it is looked up thousands of times while one types. */
export function indexOf(card: RateCard): Index {
  const known = indexes.get(card)
  if (known) return known
  const index: Index = {
    byPlace: new Map(),
    variants: new Map(),
    byMeter: new Map(),
    bySku: new Map(),
    sizes: new Map(card.serverSizes.map(s => [s.size, s])),
  }
  const push = <T>(lists: Map<string, T[]>, key: string, value: T) => void (lists.get(key)?.push(value) ?? lists.set(key, [value]))
  for (const line of card.prices) {
    const place = `${line.meter}\n${line.region}`
    const key = placeOf(line.meter, line.region, line.variant)
    if (!index.byPlace.has(key)) index.byPlace.set(key, line)
    push(index.byMeter, place, line)
    push(index.variants, place, variantName(line))
    index.bySku.set(line.sku, line)
  }
  // where a line names no variant, the service is what one can choose
  for (const line of card.prices) {
    const alias = placeOf(line.meter, line.region, variantName(line))
    if (!index.byPlace.has(alias)) index.byPlace.set(alias, line)
  }
  indexes.set(card, index)
  return index
}

/** What a line is called among those of its meter: its variant, or where it has none its service. */
export const variantName = ({ variant, service }: Pick<PriceLine, 'variant' | 'service'>): string => variant ?? service

/** The line of a meter and variant in a region; undefined when the card has none. */
export function findPrice(card: RateCard, meter: string, region: string, variant: string | null = null): PriceLine | undefined {
  return indexOf(card).byPlace.get(placeOf(meter, region, variant))
}

/** All lines of a meter in a region, in the card's order. */
export function linesOf(card: RateCard, meter: string, region: string): readonly PriceLine[] {
  return indexOf(card).byMeter.get(`${meter}\n${region}`) ?? []
}

/** The line of a SKU. */
export function findSku(card: RateCard, sku: string): PriceLine | undefined {
  return indexOf(card).bySku.get(sku)
}

/** A server size by its name. */
export function findSize(card: RateCard, size: string): ServerSize | undefined {
  return indexOf(card).sizes.get(size)
}

/** Variants (sizes, classes) that a meter has in a region by name, in the card's order. */
export function variantsOf(card: RateCard, meter: Meter, region: string): string[] {
  return [...(indexOf(card).variants.get(`${meter}\n${region}`) ?? [])]
}

/** Whether a region of the card has any price of the meter. */
export function hasMeter(card: RateCard, meter: Meter, region: string): boolean {
  return linesOf(card, meter, region).length > 0
}
