import { decimalText, parseDecimal } from '../money/decimal'
import { asFactor, timesRate } from '../money/rate-factor'
import { rateFinder, type Rate } from '../money/rates'
import { SCALE, type Scaled } from '../money/scaled'
import type { Lookup } from '../spend/lookup'
import { monthOf, type Day } from '../time/day'
import { datesOf } from '../unit-cost/business-measure'
import type { MeasureMonths } from '../unit-cost/measure-months'
import { bearersOf } from './bearers'
import { ByCurrency, type Caught } from './caught'
import type { CostCentre, Pool } from './plan'
import { poolNeeds } from './pools'
import { dayText } from '../text/day-text'

/** What a pool is divided by: weights of cost centres and pools, and what has to be said of them; none where there is nothing to go by. */
export type Basis = {
  weights: { target: string; weight: bigint }[]
  /** What weights count, and how many decimals they have. */
  unit: string
  decimals: number
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
  /** The business measures of the tree. */
  measures: readonly MeasureMonths[]
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
  if (refused !== null) return { weights: [], unit: '', decimals: 0, notes: [], lacking: '', everyone, refused }
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
      return { ...evenly(everyone), notes: [], lacking: 'nobody is there' }
    case 'weights':
      return { ...decimalWeights(Object.entries(needs.weights)), unit: 'shares', notes: [], lacking: 'it has no shares' }
    case 'quantity': {
      const measured = [...(facts.quantities.get(pool.id) ?? [])].sort(([a], [b]) => (a < b ? -1 : 1))
      return {
        weights: measured.map(([target, weight]) => ({ target, weight })),
        ...{ unit: needs.unit, decimals: SCALE, notes: [] },
        lacking: `nothing is measured in ${needs.unit}`,
      }
    }
    case 'measure':
      return measureBasis(needs.measure, facts)
    case 'lookup': {
      const lookup = Object.hasOwn(facts.lookups, needs.lookup) ? facts.lookups[needs.lookup]! : null
      const said = facts.centres.flatMap(({ id }): [string, string][] => {
        const value = lookup && valueOn(lookup, id, facts.day)?.[needs.field]
        return value && parseDecimal(value) ? [[id, value]] : []
      })
      return {
        ...{ ...decimalWeights(said), unit: needs.field, notes: [] },
        lacking: `${needs.lookup} has no ${needs.field} on ${dayText(facts.day)}`,
      }
    }
  }
}

/** What a business measure counts in the month; where days are missing that is said, since others were told of them. */
function measureBasis(name: string, { measures, day }: BasisFacts): Found {
  const month = monthOf(day)
  const measure = measures.find(one => one.name === name)
  const counted = Object.entries((measure && Object.hasOwn(measure.months, month) && measure.months[month]) || {})
  const dates = measure ? datesOf(measure.grain, month).length : 0
  const lacking = counted.flatMap(([centre, { told }]) => (told < dates ? [`${dates - told} days of ${centre}`] : []))
  return {
    ...decimalWeights(counted.map(([centre, { sum }]) => [centre, sum])),
    unit: name,
    notes: lacking.length ? [`${name} is not told for ${lacking.join(', ')}`] : [],
    lacking: `no ${name} are told for ${month}`,
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

/** One part each. */
export const evenly = (targets: readonly string[]): Pick<Basis, 'weights' | 'unit' | 'decimals'> => ({
  ...{ weights: targets.map(target => ({ target, weight: 1n })), unit: 'even parts', decimals: 0 },
})

/** Decimal texts as whole numbers of one scale, in the order of their names. */
function decimalWeights(given: [target: string, weight: string][]): Pick<Basis, 'weights' | 'decimals'> {
  const texts = given.map(([target, text]) => [target, decimalText(parseDecimal(text)!)] as const)
  const digits = Math.max(0, ...texts.map(([, text]) => text.split('.')[1]?.length ?? 0))
  const weights = texts.map(([target, text]) => {
    const [whole, fraction = ''] = text.split('.') as [string, string?]
    return { target, weight: BigInt(whole + fraction.padEnd(digits, '0')) }
  })
  return { weights: weights.sort((a, b) => (a.target < b.target ? -1 : 1)), decimals: digits }
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
  const inOwn = { weights: own, unit: `${currency} direct`, decimals: SCALE, lacking }
  if (billedIn.size === 1 && billedIn.has(currency)) return { ...inOwn, notes: [] }
  if (reportCurrency === null) {
    const others = centres.length - own.length
    const notes = others
      ? [`${others} cost ${others === 1 ? 'centre' : 'centres'} without cost in ${currency} left out: no report currency is set`]
      : []
    return { ...inOwn, notes }
  }
  const rateOn = rateFinder(rates)
  const factors = new Map(
    [...billedIn].map(from => {
      const found = rateOn(from, reportCurrency, day)
      return [from, found && asFactor(found.rate)] as const
    }),
  )
  const without = centres.filter(([, costs]) => [...costs.keys()].some(from => factors.get(from) === null)).map(([id]) => id)
  if (without.length === centres.length)
    return { ...inOwn, notes: [`no rate to ${reportCurrency} on ${day}: only cost in ${currency} counts`] }
  const weights = centres
    .filter(([id]) => !without.includes(id))
    .map(([target, costs]) => ({
      target,
      weight: [...costs].reduce((sum, [from, amount]) => {
        return sum + (from === reportCurrency ? amount : timesRate(amount, factors.get(from)!))
      }, 0n),
    }))
  return {
    ...{ weights, unit: `${reportCurrency} direct`, decimals: SCALE },
    notes: without.length ? [`left out for want of a rate to ${reportCurrency} on ${day}: ${without.join(', ')}`] : [],
    lacking,
  }
}
