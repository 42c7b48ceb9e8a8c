import { evaluate } from '../../working/working'
import { Decimal, decimalText, type DecimalText } from '../../money/decimal'
import type { RateCard, ServerSize } from '../../ratecard/rate-card'
import { findPrice, variantsOf } from '../../ratecard/find-price'
import { openSystem, systemsOf } from '../components/server'
import { newEstimate, newRow, type Estimate, type WayToPay } from '../estimate'
import { priceEstimate, type Prices } from '../pricing/price-estimate'
import { rateOf, type RateUsed } from '../pricing/rates'

/** What a machine is needed for. Empty lists rule nothing out. */
export type Needs = {
  vcpu: number
  memoryGb: number
  architecture: string
  system: string
  host: string
  /** Zero for no disk. */
  diskGb: string
  hoursPerMonth: string
  count: string
  /** `provider/region`; only these are looked at. */
  places: string[]
  residencies: string[]
}

export type OfferWay = {
  way: WayToPay
  upfront: DecimalText
  monthly: DecimalText
  effectiveMonthly: DecimalText
  breakEvenHours: DecimalText | null
}

/** One size at one place, with what it costs each way. */
export type Offer = {
  provider: string
  region: string
  size: string
  facts: ServerSize
  diskClass: string | null
  /** The currency asked for; the card's own where no rate leads there: such an offer is not ranked. */
  currency: string
  /** The rate that it was converted at; null when it was not. */
  rate: RateUsed | null
  ways: OfferWay[]
}
export type Rejected = { provider: string; region: string; size: string | null; why: string }
export type Terms = Pick<Estimate, 'currency' | 'rates' | 'discounts' | 'month' | 'startsOn'>

/**
 * Everything that meets the needs, over all rate cards and regions, cheapest first for a way to pay; and why the rest fell out. Prices
 * come from the server and disk kinds themselves, uplifts included. An offer in a currency that no rate leads from stays in it and
 * stands behind all that can be compared, as does one that does not offer the way to pay.
 */
export function findMachines(needs: Needs, prices: Prices, terms: Terms, way: WayToPay): { offers: Offer[]; rejected: Rejected[] } {
  const offers: Offer[] = []
  const rejected: Rejected[] = []
  for (const card of prices.cards.values()) {
    for (const { id: region, residency } of card.regions) {
      const out = (size: string | null, why: string) => rejected.push({ provider: card.provider, region, size, why })
      if (needs.places.length && !needs.places.includes(`${card.provider}/${region}`)) {
        out(null, 'the region is ruled out')
        continue
      }
      if (needs.residencies.length && !needs.residencies.includes(residency ?? '')) {
        out(null, `data would lie in ${residency ?? 'an area that the card does not name'}`)
        continue
      }
      for (const facts of card.serverSizes) {
        const why = misfit(facts, needs, card, region)
        const offer = why === null ? priceOffer(facts, needs, card, region, prices, terms) : null
        if (why !== null) out(facts.size, why)
        else if (typeof offer === 'string') out(facts.size, offer)
        else if (offer) offers.push(offer)
      }
    }
  }
  return { offers: offers.sort(byCost(terms, way)), rejected }
}

/** Whether an offer can be compared with others: it is in the currency asked for and has the way to pay. */
export function isRanked(offer: Offer, { currency }: Pick<Terms, 'currency'>, way: WayToPay): boolean {
  return (currency === null || offer.currency === currency) && offer.ways.some(w => w.way === way)
}

function byCost(terms: Terms, way: WayToPay) {
  const cost = (offer: Offer) => new Decimal(offer.ways.find(w => w.way === way)?.effectiveMonthly ?? 0)
  return (a: Offer, b: Offer) =>
    Number(isRanked(b, terms, way)) - Number(isRanked(a, terms, way)) ||
    a.currency.localeCompare(b.currency) ||
    cost(a).cmp(cost(b)) ||
    a.size.localeCompare(b.size) ||
    a.region.localeCompare(b.region)
}

function misfit(facts: ServerSize, needs: Needs, card: RateCard, region: string): string | null {
  if (!findPrice(card, 'server-hour', region, facts.size)) return 'it has no price here'
  if (facts.vcpu < needs.vcpu) return `${facts.vcpu} vCPU are too few`
  if (facts.memoryGb < needs.memoryGb) return `${facts.memoryGb} GB are too little`
  if (needs.architecture && facts.architecture !== needs.architecture)
    return `it is ${facts.architecture ?? 'of an architecture that the card does not name'}`
  if (needs.system !== openSystem && !systemsOf(card, region).includes(needs.system))
    return `${card.provider} does not run ${needs.system} here`
  return null
}

/** @returns why the server kind itself refuses it, as text. */
function priceOffer(facts: ServerSize, needs: Needs, card: RateCard, region: string, prices: Prices, terms: Terms): Offer | string | null {
  const diskClass = new Decimal(needs.diskGb).gt(0) ? cheapestDisk(facts, card, region) : null
  if (new Decimal(needs.diskGb).gt(0) && !diskClass) return 'it takes no disk that is offered here'
  const wanted = terms.currency ?? card.currency
  const rate = card.currency === wanted ? null : rateOf(terms, prices.rates, card.currency, wanted)
  const currency = card.currency === wanted || rate ? wanted : card.currency
  const components = [
    newRow('server', '', 'server', {
      size: facts.size,
      system: needs.system,
      host: needs.host,
      hoursPerMonth: needs.hoursPerMonth,
      count: needs.count,
      pays: 'on-demand',
    }),
    ...(diskClass ? [newRow('disk', '', 'disk', { class: diskClass, storageGb: needs.diskGb, count: needs.count })] : []),
  ]
  const { rates, discounts, month, startsOn } = terms
  const priced = priceEstimate({ ...newEstimate('finder', card, region), rates, discounts, month, startsOn, currency, components }, prices)
  const failed = priced.rows.find(r => !r.chosen)
  if (failed) return Object.values(failed.problems)[0] ?? null
  const [server, disk] = priced.rows
  const withDisk = (figure: 'upfront' | 'monthly' | 'effectiveMonthly', index: number) =>
    decimalText(evaluate(server!.ways[index]![figure]).plus(disk ? evaluate(disk.chosen![figure]) : 0))
  return {
    provider: card.provider,
    region,
    size: facts.size,
    facts,
    diskClass,
    currency,
    rate,
    ways: server!.ways.map((w, i) => ({
      way: w.way,
      upfront: withDisk('upfront', i),
      monthly: withDisk('monthly', i),
      effectiveMonthly: withDisk('effectiveMonthly', i),
      breakEvenHours: w.breakEvenHours && decimalText(evaluate(w.breakEvenHours)),
    })),
  }
}

function cheapestDisk(facts: ServerSize, card: RateCard, region: string): string | null {
  const price = (name: string) => Number(findPrice(card, 'disk-gb-month', region, name)!.tiers[0]!.price)
  return (
    variantsOf(card, 'disk-gb-month', region)
      .filter(name => facts.diskClasses?.includes(name) ?? true)
      .sort((a, b) => price(a) - price(b))[0] ?? null
  )
}

/** Why sizes fell out: each reason with the sizes, or regions, that it holds for; the one that rules most out first. */
export function reasonsOf(rejected: readonly Rejected[]): { reason: string; list: string[] }[] {
  const byReason = new Map<string, Set<string>>()
  for (const { why, size, region } of rejected) {
    const known = byReason.get(why)
    if (known) known.add(size ?? region)
    else byReason.set(why, new Set([size ?? region]))
  }
  return [...byReason].map(([reason, sizes]) => ({ reason, list: [...sizes] })).sort((a, b) => b.list.length - a.list.length)
}
