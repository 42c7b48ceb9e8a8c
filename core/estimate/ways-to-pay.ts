import { Decimal, zero, type DecimalText } from '../money/decimal'
import type { CommitmentPrice } from '../ratecard/rate-card'
import { add, divide, evaluate, input, multiply, type Working } from '../working/working'
import type { WayToPay } from './estimate'

/** One way to pay for a component, with everything one compares. Amounts in the card's currency. */
export type WayPrice = {
  way: WayToPay
  /** Paid when the term begins. */
  upfront: Working
  /** What recurs every month. */
  monthly: Working
  /** What recurs, with the upfront spread over the term: recurring + upfront / (12 · years). */
  effectiveMonthly: Working
  /** Upfront and twelve months. */
  firstYear: Working
  /** All of a commitment's term; null without one. */
  wholeTerm: Working | null
  /** Hours a month from which the commitment is cheaper than on-demand: effective monthly / on-demand hourly price; null without one. */
  breakEvenHours: Working | null
}

const MONTHS = input('months a year', 12)
const nothing = input('nothing upfront', 0)

/** Paid as it runs. */
export function onDemand(monthly: Working): WayPrice {
  return { way: 'on-demand', upfront: nothing, monthly, effectiveMonthly: monthly, firstYear: multiply('first 12 months', [monthly, MONTHS]), wholeTerm: null, breakEvenHours: null }
}

export function wayName({ years, upfront }: Pick<CommitmentPrice, 'years' | 'upfront'>): WayToPay {
  return `${years} ${years === 1 ? 'year' : 'years'}, ${upfront} upfront` as WayToPay
}

/**
 * A commitment: charged for every hour of the term, used or not.
 * @param monthHours hours of the month, all of them charged.
 * @param onDemandPrice of an hour of one of them, for the break-even.
 */
export function committed(price: CommitmentPrice, count: Decimal, monthHours: number, onDemandPrice: DecimalText, sku: string): WayPrice {
  const servers = input('count', count)
  const years = input('years', price.years)
  const upfront = price.upfrontPrice === '0' ? nothing : multiply('upfront', [servers, input('upfront price each', price.upfrontPrice, '', sku)])
  const monthly = multiply('every hour of the month', [servers, input('hours, used or not', monthHours, 'h'), input('committed price', price.hourlyPrice, 'per hour', sku)])
  const spread = divide('upfront a month', [upfront, multiply('months of the term', [MONTHS, years])])
  const effectiveMonthly = add('effective monthly', [monthly, spread])
  const year = multiply('12 months', [monthly, MONTHS])
  const term = multiply('months of the term, recurring', [monthly, MONTHS, years])
  const free = new Decimal(onDemandPrice).eq(0) || count.eq(zero)
  return {
    way: wayName(price), upfront, monthly, effectiveMonthly,
    firstYear: add('upfront and first 12 months', [upfront, year]),
    wholeTerm: add('upfront and whole term', [upfront, term]),
    breakEvenHours: free ? null : divide('break-even hours a month', [effectiveMonthly, multiply('on-demand, an hour of all', [servers, input('on-demand price', onDemandPrice, 'per hour', sku)])]),
  }
}

/** The months after which an upfront has paid for itself: upfront / (on-demand monthly − recurring monthly); null when never. */
export function paybackMonths(way: WayPrice, onDemandWay: WayPrice): Decimal | null {
  const saving = evaluate(onDemandWay.monthly).minus(evaluate(way.monthly))
  const upfront = evaluate(way.upfront)
  return saving.gt(0) && upfront.gt(0) ? upfront.div(saving) : null
}
