import type { PriceLine, RateCard } from '../../ratecard/rate-card'
import { describeLine } from '../../ratecard/describe'
import { findPrice, findSize } from '../../ratecard/find-price'
import { sameThing } from '../../estimate/scenarios/equivalent'
import { divide, input, multiply, type Working } from '../../working/working'
import { dearestPrice } from '../bill/dearest-price'
import { unitsIn, usesOf, type BilledResource, type BilledUse, type PaidUse } from '../bill/billed-resource'
import { dedicatedHost } from '../../estimate/components/server'
import { monthlyUnits, wordsOf, type Change } from '../bill/finding'
import { givesWords } from './gives'
import { usesPaid, type Offer, type OtherwiseContext } from './offer'
import { residency } from './regions'

/**
 * The same at other providers, in each of their regions, at their list prices: whatever keeps all that is stated of each thing that is
 * charged for, by the rule that estimates are moved by. What is charged by the vCPU goes by the size that is found there.
 */
export function otherProviders(resource: BilledResource, use: PaidUse, card: RateCard, { cards, rate }: OtherwiseContext): Offer[] {
  return [...cards.values()]
    .filter(({ provider }) => provider !== card.provider)
    .flatMap(other =>
      other.regions.map((region): Offer => {
        const offer = { key: `provider/${other.provider}/${region.id}`, kind: 'provider' as const, to: `${other.provider}, ${region.name}` }
        const found = rate(other.currency, card.currency)
        const not = (notOffered: string): Offer => ({ ...offer, gives: residency(region.residency), asks: [], notOffered })
        if (!found) return not(`no rate is known from ${other.currency} to ${card.currency}`)
        const uses = usesPaid(resource, use.currency)
        const [from, to] = [
          { card, region: use.line.region },
          { card: other, region: region.id },
        ]
        const asked = runsOn(resource)
        const head = sameThing(use.line, asked, from, to)
        // what is charged by a class is charged by the class that was found for it
        const beside = (line: PriceLine) =>
          head && line.variant !== null && line.variant === use.line.variant
            ? findPrice(other, line.meter, region.id, head.variant)
            : undefined
        const there = uses.map(one => ({ one, line: one.line ? (beside(one.line) ?? sameThing(one.line, asked, from, to)) : undefined }))
        const lacking = there.find(({ line }) => !line)
        if (lacking) return not(`${other.provider} has nothing in ${region.name} like «${wordsOf(lacking.one, card)}»`)
        const own = there.find(({ one }) => one.sku === use.sku)!.line!
        const sizes = { now: vcpuOf(card, use.line), then: vcpuOf(other, own) }
        const changes = there.map(({ one, line }): Change => {
          const priced = multiply(describeLine(line!, other), [
            unitsThere(resource, one, sizes),
            input('price', dearestPrice(line!), other.currency, line!.sku),
          ])
          const isSame = other.currency === card.currency
          const then = isSame
            ? priced
            : multiply(`in ${card.currency}`, [priced, input('rate', found.rate, `${card.currency} for a ${other.currency}`)])
          return { use: one, how: 'cheaper', then }
        })
        const gives = [own.variant ?? own.service, givesWords(own, other), residency(region.residency)].filter(Boolean).join(', ')
        const present = card.regions.find(({ id }) => id === use.line.region)?.residency
        const asks = present === region.residency ? [] : [`its data may be in ${region.residency ?? 'a place that the card does not name'}`]
        return { ...offer, gives, asks, changes, further: [], lacks: [] }
      }),
    )
}

/** What a size has to take, as the bill tells it: the system and the host that are charged by the vCPU. */
function runsOn(resource: BilledResource): Record<string, string> {
  const [system, host] = ['system-vcpu-hour', 'dedicated-vcpu-hour'].map(meter => usesOf(resource, meter).find(use => unitsIn(use, 3) > 0n))
  return { ...(system?.line?.variant && { system: system.line.variant }), ...(host && { host: dedicatedHost }) }
}

const vcpuOf = (card: RateCard, { variant }: PriceLine) => (variant === null ? undefined : findSize(card, variant)?.vcpu)

/** Units a month there: vCPU hours of as many vCPU as the size has there. */
function unitsThere(
  resource: BilledResource,
  one: BilledUse,
  { now, then }: { now: number | undefined; then: number | undefined },
): Working {
  const units = monthlyUnits(resource, one)
  if (one.unit !== 'vCPU-Hours' || now === undefined || then === undefined || now === then) return units
  return multiply('for as many vCPU', [units, divide('of the vCPU', [input('vCPU there', then), input('vCPU here', now)])])
}
