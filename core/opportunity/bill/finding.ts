import { Decimal, decimalText } from '../../money/decimal'
import { scaledText, type Scaled } from '../../money/scaled'
import { describeLine } from '../../ratecard/describe'
import { ESTIMATE_MONTH_HOURS } from '../../time/day'
import { add, divide, evaluate, input, multiply, subtract, type Working } from '../../working/working'
import type { Instruction } from '../instruction'
import type { Effect } from '../effect'
import type { EvidenceSeries, Opportunity, Risk } from '../opportunity'
import { within, type BilledResource, type BilledUse } from './billed-resource'

/** What a picture of the use is made of: units charged of some SKUs of a resource, day by day. */
export type SeriesAsked = Omit<EvidenceSeries, 'days'> & { resourceId: string; skus: string[] }

/** What a bill's detector found: an opportunity whose evidence is still to be drawn. */
export type BillFinding = Omit<Opportunity, 'evidence'> & {
  series: SeriesAsked[]
  /** Series of what was measured. */
  measured: EvidenceSeries[]
  window: BilledResource['window']
}

/** The decimals that a monthly saving is told in: more than any currency has, fewer than a quotient makes. */
const DECIMALS = 10

/** What a working comes to, in the decimals that a monthly saving is told in. */
export const amountOf = (working: Working): Decimal => evaluate(working).round(DECIMALS)

/** What a change leaves to be paid for a use: how, and the working of what it then costs a month. */
export type Change = { use: BilledUse; how: Effect['how']; then: Working | null }

/** What is said of a finding beside its money. */
export type Said = {
  detector: string
  /** What tells it from others of its kind on the resource, where there may be several: the SKU. */
  of?: string
  title: string
  series: SeriesAsked[]
  risk: Risk
  minutesOfWork: number
  oneOff?: Working | null
  /** What a service can be told to do. */
  instruction?: Instruction | undefined
  /** What was measured, where it rests on that. */
  measured?: EvidenceSeries[]
}

/**
 * An opportunity of what a change does to uses of a resource, in the currency of the first. What a commitment pays is in none of them.
 * @param further what is charged then that is not charged now. @returns null where nothing would be saved.
 */
export function findingOf(
  resource: BilledResource,
  changes: readonly Change[],
  said: Said,
  further: readonly Working[] = [],
): BillFinding | null {
  const currency = changes[0]?.use.currency
  if (currency === undefined || changes.some(({ use }) => use.currency !== currency)) return null
  const nows = changes.map(({ use }) => monthlyCost(resource, use))
  const thens = [...changes.flatMap(({ then }) => (then ? [then] : [])), ...further]
  const working = subtract('saved a month', [add('now', nows), thens.length ? add('then', thens) : input('then', 0)])
  const saved = amountOf(working)
  if (saved.lte(0)) return null
  const { oneOff, detector, of, measured, ...own } = said
  const once = oneOff ? amountOf(oneOff) : null
  return {
    ...own,
    detector,
    id: [detector, resource.provider, resource.id, ...(of === undefined ? [] : [of])].join('/'),
    ...{ resourceId: resource.id, resourceName: resource.name, service: resource.service, provider: resource.provider },
    ...{ region: resource.region, subAccountName: resource.subAccountName, tags: {}, currency },
    monthlySaving: decimalText(saved),
    working,
    oneOff: once?.gt(0) ? { amount: decimalText(once), working: oneOff! } : null,
    effects: effectsOf(resource, changes, nows, further),
    confidence: measured ? 'measured' : 'from the bill',
    measured: measured ?? [],
    window: resource.window,
  }
}

/** What is added to a use's charges by none of the uses of now is told with the first of them: it comes with it. */
function effectsOf(resource: BilledResource, changes: readonly Change[], nows: readonly Working[], further: readonly Working[]): Effect[] {
  const added = further.reduce((sum, one) => sum.plus(evaluate(one)), new Decimal(0))
  return changes.map(({ use, how, then }, i) => ({
    ...{ resourceId: resource.id, sku: use.sku, how },
    now: decimalText(amountOf(nows[i]!)),
    then: decimalText((then ? evaluate(then) : new Decimal(0)).plus(i === 0 ? added : 0).round(DECIMALS)),
  }))
}

/** What a use costs a month under present discounts: effective cost of the window, without what a commitment pays, for 730 hours. */
export function monthlyCost({ window, card }: Pick<BilledResource, 'window' | 'card'>, use: BilledUse): Working {
  return aMonth(
    wordsOf(use, card),
    input(`effective cost in ${window.days} days`, amount(within(use.cost, 30)), use.currency, use.sku),
    window.days,
  )
}

/** Units of a use a month, without those that a commitment pays. */
export function monthlyUnits({ window, card }: Pick<BilledResource, 'window' | 'card'>, use: BilledUse): Working {
  const unit = use.unit ?? 'units'
  return aMonth(
    `${wordsOf(use, card)}, a month`,
    input(`${unit} in ${window.days} days`, amount(within(use.quantity, 30)), unit, use.sku),
    window.days,
  )
}

/** A sum over some days for a month of 730 hours. */
const aMonth = (label: string, over: Working, days: number): Working =>
  divide(label, [
    multiply('of a month', [over, input('hours a month', ESTIMATE_MONTH_HOURS, 'h')]),
    input('hours of these days', days * 24, 'h'),
  ])

/**
 * Units at a price of the rate card, with the discount that is had now on what they are charged under.
 * @param price per unit, the dearest of the line's tiers.
 */
export function atPrice(
  label: string,
  units: Working,
  { price, sku, currency }: Priced,
  { cost, list }: Pick<BilledUse, 'cost' | 'list'>,
): Working {
  const [paid, atList] = [within(cost, 30), within(list, 30)]
  const parts = [units, input('price', price, currency, sku)]
  if (atList > 0n && paid !== atList)
    parts.push(divide('discount as now', [input('effective cost', amount(paid)), input('list cost', amount(atList))]))
  return multiply(label, parts)
}
export type Priced = { price: string; sku: string; currency: string }

/** What a use is of, in plain words. */
export const wordsOf = ({ line, meter, sku }: BilledUse, card: BilledResource['card']): string =>
  line && card ? describeLine(line, card) : (meter ?? sku)

/** An amount as workings take it. */
export const amount = (of: Scaled): Decimal => new Decimal(scaledText(of))
