import { decimalText, parseDecimal } from '../money/decimal'
import { rateFinder, type Rate } from '../money/rates'
import { timesDecimal, type Scaled } from '../money/scaled'
import type { Lookup } from '../spend/lookup'
import type { Day } from '../time/day'
import { bearersOf } from './bearers'
import { ByCurrency, type Caught } from './caught'
import type { CostCentre, Pool } from './plan'
import { poolNeeds } from './pools'

/** What a pool is divided by: weights of cost centres and pools, and what has to be said of them; none where there is nothing to go by. */
export type Basis = {
  weights: { target: string; weight: bigint }[]
  notes: string[]
  lacking: string
  /** Who bears even parts where there is nothing to go by. */
  everyone: readonly string[]
  /** Why the pool cannot be divided in this month; null where it can. */
  refused: string | null
}
type Found = Omit<Basis, 'everyone' | 'refused'>

/** What bases are made of. */
export type BasisFacts = {
  centres: readonly CostCentre[]
  /** Direct cost by cost centre and currency. */
  direct: ReadonlyMap<string, ReadonlyMap<string, Scaled>>
  /** The same by service. */
  services: Caught['services']
  /** By pool, what the bill measures for each cost centre in the pool's unit. */
  quantities: ReadonlyMap<string, ReadonlyMap<string, Scaled>>
  lookups: Readonly<Record<string, Lookup>>
  /** The currency in which direct costs are compared; null: only what is billed in the pool's own. */
  reportCurrency: string | null
  rates: readonly Rate[]
  /** The month's last day, whose rates and lookups hold. */
  day: Day
}

/** The basis of a pool's money in a currency, by the pool's way to divide, among those that it is divided among. */
export function basisOf(pool: Pool, currency: string, facts: BasisFacts): Basis {
  const { centres, refused } = bearersOf(pool, facts)
  const everyone = centres.everyone
  if (refused !== null) return { weights: [], notes: [], lacking: '', everyone, refused }
  const found = foundBasis(pool, currency, facts, everyone)
  if (poolNeeds(pool).basis === 'weights') return { ...found, everyone, refused: null }
  return { ...found, weights: found.weights.filter(({ target }) => centres.all.has(target)), everyone, refused: null }
}

function foundBasis(pool: Pool, currency: string, facts: BasisFacts, everyone: readonly string[]): Found {
  const needs = poolNeeds(pool)
  switch (needs.basis) {
    case 'direct cost':
      return directBasis(currency, needs.services ? { ...facts, direct: directOf(needs.services, facts.services) } : facts)
    case 'even':
      return { weights: everyone.map(target => ({ target, weight: 1n })), notes: [], lacking: 'nobody is there' }
    case 'weights':
      return { weights: decimalWeights(Object.entries(needs.weights)), notes: [], lacking: 'it has no shares' }
    case 'quantity': {
      const measured = [...(facts.quantities.get(pool.id) ?? [])].sort(([a], [b]) => (a < b ? -1 : 1))
      return {
        weights: measured.map(([target, weight]) => ({ target, weight })),
        notes: [],
        lacking: `nothing is measured in ${needs.unit}`,
      }
    }
    case 'lookup': {
      const lookup = Object.hasOwn(facts.lookups, needs.lookup) ? facts.lookups[needs.lookup]! : null
      const said = facts.centres.flatMap(({ id }): [string, string][] => {
        const value = lookup && valueOn(lookup, id, facts.day)?.[needs.field]
        return value && parseDecimal(value) ? [[id, value]] : []
      })
      return { weights: decimalWeights(said), notes: [], lacking: `${needs.lookup} has no ${needs.field} on ${facts.day}` }
    }
  }
}

/** Direct cost of some services, by cost centre and currency. */
function directOf(services: readonly string[], all: Caught['services']): Map<string, Map<string, Scaled>> {
  const found = new ByCurrency()
  for (const [centre, own] of all)
    for (const service of services) for (const [currency, amount] of own.get(service) ?? []) found.add(centre, currency, amount)
  return found.sums
}

const valueOn = ({ entries }: Lookup, key: string, day: Day) =>
  entries.find(entry => entry.key === key && (entry.from === null || entry.from <= day) && (entry.until === null || day < entry.until))
    ?.values

/** Decimal texts as whole numbers of one scale, in the order of their names. */
function decimalWeights(given: [target: string, weight: string][]): Basis['weights'] {
  const texts = given.map(([target, text]) => [target, decimalText(parseDecimal(text)!)] as const)
  const digits = Math.max(0, ...texts.map(([, text]) => text.split('.')[1]?.length ?? 0))
  return texts
    .map(([target, text]) => {
      const [whole, fraction = ''] = text.split('.') as [string, string?]
      return { target, weight: BigInt(whole + fraction.padEnd(digits, '0')) }
    })
    .sort((a, b) => (a.target < b.target ? -1 : 1))
}

/**
 * What cost centres have directly, in the report currency at the rates of the month's last day. Who has costs without a rate is left out
 * and named. Where no cost has a rate, or no report currency is set, only what is billed in the pool's own currency counts.
 */
function directBasis(currency: string, { direct, reportCurrency, rates, day }: BasisFacts): Found {
  const centres = [...direct].sort(([a], [b]) => (a < b ? -1 : 1))
  const own = centres.flatMap(([target, costs]) => (costs.has(currency) ? [{ target, weight: costs.get(currency)! }] : []))
  const lacking = 'there are no direct costs'
  const billedIn = new Set(centres.flatMap(([, costs]) => [...costs.keys()]))
  // one currency: what it is worth does not matter
  if (billedIn.size === 1 && billedIn.has(currency)) return { weights: own, notes: [], lacking }
  if (reportCurrency === null) {
    const others = centres.length - own.length
    const notes = others
      ? [`${others} cost ${others === 1 ? 'centre' : 'centres'} without cost in ${currency} left out: no report currency is set`]
      : []
    return { weights: own, notes, lacking }
  }
  const rateOn = rateFinder(rates)
  const factors = new Map(
    [...billedIn].map(from => {
      const rate = rateOn(from, reportCurrency, day)?.rate
      const [whole, fraction = ''] = rate ? (decimalText(rate).split('.') as [string, string?]) : [null]
      return [from, whole === null ? null : { units: BigInt(whole + fraction), digits: fraction.length }] as const
    }),
  )
  const without = centres.filter(([, costs]) => [...costs.keys()].some(from => factors.get(from) === null)).map(([id]) => id)
  if (without.length === centres.length)
    return { weights: own, notes: [`no rate to ${reportCurrency} on ${day}: only cost in ${currency} counts`], lacking }
  const weights = centres
    .filter(([id]) => !without.includes(id))
    .map(([target, costs]) => ({
      target,
      weight: [...costs].reduce((sum, [from, amount]) => {
        const { units, digits } = factors.get(from)!
        return sum + (from === reportCurrency ? amount : timesDecimal(amount, units, digits))
      }, 0n),
    }))
  return {
    weights,
    notes: without.length ? [`left out for want of a rate to ${reportCurrency} on ${day}: ${without.join(', ')}`] : [],
    lacking,
  }
}
