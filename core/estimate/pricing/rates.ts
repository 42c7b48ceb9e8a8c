import { Decimal, decimalText, type DecimalText } from '../../money/decimal'
import { rateFinder, type FoundRate, type Rate } from '../../money/rates'
import type { Day } from '../../time/day'
import { input, multiply, type Working } from '../../working/working'
import { NotPriced } from '../components/kind'
import { startOf, type Estimate } from '../estimate'
import { dayText } from '../../text/day-text'

/** After every day: the newest rate of a list. */
const NEWEST: Day = '9999-12-31'
const finders = new WeakMap<readonly Rate[], ReturnType<typeof rateFinder>>()
const finderOf = (rates: readonly Rate[]) => finders.get(rates) ?? finders.set(rates, rateFinder(rates)).get(rates)!

/** A rate that an estimate is converted at: from the list of dated rates, or set for this estimate alone; null when there is none. */
export type RateUsed = { from: string; to: string; rate: DecimalText; day: Day; own: boolean }

/**
 * The rate that holds when the estimate begins, the newest where nobody has said when that is. A rate that it has for itself comes first.
 */
export function rateOf(
  estimate: Pick<Estimate, 'rates' | 'month' | 'startsOn'>,
  rates: readonly Rate[],
  from: string,
  to: string,
): RateUsed | null {
  const own = estimate.rates.find(r => r.from === from)
  if (own) return { from, to, rate: own.rate, day: own.day, own: true }
  const found: FoundRate | null = finderOf(rates)(from, to, startOf(estimate) ?? NEWEST)
  return found && { from, to, rate: decimalText(found.rate), day: found.line?.validFrom ?? NEWEST, own: false }
}

/** Converts amounts into the estimate's currency at a dated rate. @throws NotPriced when there is none: a rate is never guessed. */
export function converter(estimate: Pick<Estimate, 'rates' | 'month' | 'startsOn'>, rates: readonly Rate[], to: string) {
  return (working: Working, from: string): Working => {
    if (from === to) return working
    const rate = mustFindRate(estimate, rates, from, to)
    return multiply(`${working.label}, in ${to}`, [working, input(`${to} for 1 ${from} on ${rate.day}`, new Decimal(rate.rate))])
  }
}

/** @throws NotPriced that names the pair and what needs it. */
export function mustFindRate(
  estimate: Pick<Estimate, 'rates' | 'month' | 'startsOn'>,
  rates: readonly Rate[],
  from: string,
  to: string,
  what = '',
): RateUsed {
  const rate = rateOf(estimate, rates, from, to)
  if (rate) return rate
  const day = startOf(estimate)
  throw new NotPriced({
    field: 'where',
    reason: `there is no rate from ${from} to ${to}${day ? ` that holds on ${dayText(day)}` : ''}${what}: give one under Terms, or under Sources for everything`,
    give: { rate: from, to },
  })
}
