import { describeLine } from '../../ratecard/describe'
import { findPrice, variantName } from '../../ratecard/find-price'
import type { RateCard } from '../../ratecard/rate-card'
import { dearestPrice } from '../bill/dearest-price'
import type { BilledResource, PaidUse } from '../bill/billed-resource'
import { atPrice, monthlyUnits, wordsOf, type Change } from '../bill/finding'
import { usesPaid, type Offer } from './offer'

/** The same in the other regions of its provider: all that is charged for a resource in its region moves with it. */
export function otherRegions(resource: BilledResource, use: PaidUse, card: RateCard): Offer[] {
  const own = card.regions.find(({ id }) => id === use.line.region)
  const uses = usesPaid(resource, use.currency)
  const unknown = uses.filter(({ line }) => !line)
  return card.regions
    .filter(({ id }) => id !== use.line.region)
    .map((region): Offer => {
      const offer = { key: `region/${region.id}`, kind: 'region' as const, to: region.name, gives: residency(region.residency) }
      const moving = uses.filter(({ line }) => line?.region === use.line.region)
      const there = moving.map(one => ({ one, line: findPrice(card, one.line!.meter, region.id, variantName(one.line!)) }))
      const lacking = there.find(({ one, line }) => line?.unit !== one.line!.unit)
      if (lacking) return { ...offer, asks: [], notOffered: `${region.name} has no «${describeLine(lacking.one.line!, card)}»` }
      const changes = there.map(({ one, line }): Change => ({
        use: one,
        how: 'cheaper',
        then: atPrice(
          describeLine(line!, card),
          monthlyUnits(resource, one),
          { price: dearestPrice(line!), sku: line!.sku, currency: card.currency },
          one,
        ),
      }))
      const asks = [
        ...(own?.residency !== region.residency ? [`its data may be in ${region.residency ?? 'a place that the card does not name'}`] : []),
        ...(own?.zones !== undefined && region.zones !== undefined && region.zones < own.zones
          ? [`${region.zones === 1 ? 'one zone is' : `${region.zones} zones are`} enough`]
          : []),
      ]
      return {
        ...offer,
        asks,
        changes,
        further: [],
        lacks: unknown.map(one => `«${wordsOf(one, card)}», which the rate card does not have`),
      }
    })
}

export const residency = (of: string | undefined) => (of === undefined ? '' : `data in ${of}`)
