import { Decimal } from '../../money/decimal'
import type { RateCard } from '../../ratecard/rate-card'
import { ESTIMATE_MONTH_HOURS } from '../../time/day'
import { add, divide, evaluate, input, multiply, roundUp, type Working } from '../../working/working'
import { dearestPrice } from '../bill/dearest-price'
import { within, type BilledResource, type PaidUse } from '../bill/billed-resource'
import { amount } from '../bill/finding'
import type { Offer } from './offer'

/**
 * The commitments that the rate card has for what runs by the hour, at list prices: for as many as run at once without one, each hour of
 * the term, used or not. What is paid in advance is spread over the months of the term.
 */
export function commitments(resource: BilledResource, use: PaidUse, card: RateCard): Offer[] {
  const { line } = use
  if (line.unit !== 'Hours') return []
  const hours = resource.window.days * 24
  const atOnce = roundUp('as many as run at once', [
    divide('on average', [
      input(`hours in ${resource.window.days} days`, amount(within(use.quantity, 30)), 'h', use.sku),
      input('hours of these days', hours, 'h'),
    ]),
  ])
  return (line.commitments ?? []).map(({ years, paid, upfrontPrice, hourlyPrice }): Offer => {
    const parts: Working[] = []
    if (!new Decimal(hourlyPrice).eq(0))
      parts.push(
        multiply('every hour, used or not', [
          atOnce,
          input('hours a month', ESTIMATE_MONTH_HOURS, 'h'),
          input('committed price', hourlyPrice, card.currency, line.sku),
        ]),
      )
    if (!new Decimal(upfrontPrice).eq(0))
      parts.push(
        divide('of what is paid in advance', [
          multiply('paid in advance', [atOnce, input('each', upfrontPrice, card.currency, line.sku)]),
          input('months of the term', years * 12),
        ]),
      )
    const to = `${years === 1 ? '1 year' : `${years} years`}, ${paid}`
    const then = parts.length === 1 ? parts[0]! : add(to, parts)
    const one = evaluate(then).div(evaluate(atOnce))
    return {
      ...{ key: `pays/${to}`, kind: 'way to pay', to, gives: paidInAdvance(upfrontPrice, card.currency) },
      asks: [`it runs for ${years === 1 ? 'the year' : `the ${years} years`}, ${breakEven(one, dearestPrice(line))}`],
      ...{ changes: [{ use, how: 'cheaper', then }], further: [], lacks: [] },
    }
  })
}

const paidInAdvance = (each: string, currency: string) =>
  new Decimal(each).eq(0) ? 'nothing in advance' : `${new Decimal(each).toFixed(2)} ${currency} in advance for each`

/** From how many hours of a month on it costs less than without a commitment, at list prices. */
function breakEven(monthly: Decimal, hourly: string): string {
  const hours = monthly.div(hourly).round(0, 3)
  return hours.gt(ESTIMATE_MONTH_HOURS)
    ? 'and costs more than without, at list prices'
    : `${hours.toFixed()} of ${ESTIMATE_MONTH_HOURS} hours a month at least`
}
