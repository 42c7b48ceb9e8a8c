import { Decimal, zero } from '../money/decimal'
import type { CommitmentPrice, PriceLine } from '../ratecard/rate-card'
import { add, divide, evaluate, input, multiply, type Working } from '../working/working'
import type { Charges } from './components/kind'
import type { WayToPay } from './estimate'

/** One way to pay for a component, with everything one compares. */
export type WayPrice = {
  way: WayToPay
  /** Years of its commitment; null without one. */
  years: 1 | 3 | null
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
  /** Where months differ: each of them. */
  months: Working[] | null
}

const MONTHS = input('months a year', 12)
export const nothing = input('nothing upfront', zero)

export function wayName({ years, upfront }: Pick<CommitmentPrice, 'years' | 'upfront'>): WayToPay {
  return `${years} ${years === 1 ? 'year' : 'years'}, ${upfront} upfront` as WayToPay
}

/** Every way to pay for a component: as it runs, and by each commitment that its line has. */
export function waysToPayFor(charges: Charges, label: string, monthHours: number): WayPrice[] {
  const { committable, recurring } = charges
  if (charges.months) return [byMonths(charges, label)]
  const running = committable ? [multiply(committable.label, [committable.count, committable.hours, hourlyPrice(committable.line)])] : []
  const monthly = sumOf(label, [...running, ...recurring])
  const once = charges.once?.length ? sumOf('paid once', charges.once) : nothing
  const year = multiply('12 months', [monthly, MONTHS])
  const asItRuns: WayPrice = {
    way: 'on-demand', years: null, upfront: once, monthly, effectiveMonthly: charges.once?.length ? add('effective monthly', [monthly, divide('paid once, a month of a year', [once, MONTHS])]) : monthly,
    firstYear: charges.once?.length ? add('paid once and first 12 months', [once, year]) : multiply('first 12 months', [monthly, MONTHS]), wholeTerm: null, breakEvenHours: null, months: null,
  }
  return [asItRuns, ...(committable?.line.commitments ?? []).map(price => committed(committable!, price, recurring, label, monthHours))]
}

const hourlyPrice = (line: PriceLine) => input('unit price', line.tiers[0]!.price, 'per hour', line.sku)
const sumOf = (label: string, parts: Working[]): Working => parts.length === 1 ? parts[0]! : add(label, parts)

/** A commitment: charged for every hour of the term, used or not; what cannot be committed to recurs as it runs. */
function committed({ line, count, hours, label }: NonNullable<Charges['committable']>, price: CommitmentPrice, recurring: Working[], name: string, monthHours: number): WayPrice {
  const years = input('years', price.years)
  const upfront = new Decimal(price.upfrontPrice).eq(0) ? nothing : multiply('upfront', [count, input('upfront price each', price.upfrontPrice, undefined, line.sku)])
  const everyHour = multiply(`${label}, every hour of the month`, [count, input('hours, used or not', monthHours, 'h'), input('committed price', price.hourlyPrice, 'per hour', line.sku)])
  const spread = divide('upfront a month', [upfront, multiply('months of the term', [MONTHS, years])])
  const monthly = sumOf(name, [everyHour, ...recurring])
  const effectiveMonthly = upfront === nothing ? monthly : add('effective monthly', [monthly, spread])
  const onDemand = multiply('on-demand, an hour of all', [count, hourlyPrice(line)])
  const comparable = evaluate(onDemand).gt(0)
  return {
    way: wayName(price), years: price.years, upfront, monthly, effectiveMonthly,
    firstYear: add('upfront and first 12 months', [upfront, multiply('12 months', [monthly, MONTHS])]),
    wholeTerm: add('upfront and whole term', [upfront, multiply('months of the term, recurring', [monthly, MONTHS, years])]),
    breakEvenHours: comparable && evaluate(hours).gte(0) ? divide('break-even hours a month', [add('effective monthly of what is committed', [everyHour, spread]), onDemand]) : null,
    months: null,
  }
}

/** Where months differ, the month that stands for all is their average, and the term is all of them. */
function byMonths({ months = [], recurring }: Charges, label: string): WayPrice {
  const each = months.map((month, i) => recurring.length ? add(`month ${i + 1}`, [month, ...recurring]) : month)
  const all = add(`${label}, ${each.length} months`, each)
  const monthly = divide('average month', [all, input('months', each.length)])
  const firstYear = each.length >= 12 ? add('first 12 months', each.slice(0, 12)) : multiply('first 12 months, like the average', [monthly, MONTHS])
  return { way: 'on-demand', years: null, upfront: nothing, monthly, effectiveMonthly: monthly, firstYear, wholeTerm: all, breakEvenHours: null, months: each }
}

/** What a way costs over so many years: a shorter commitment is bought again when it ends; months that differ go on like the last. */
export function overYears(way: WayPrice, years: number): Working {
  if (way.months) {
    const wanted = years * 12
    const last = way.months.at(-1)!
    const all = add(`${Math.min(wanted, way.months.length)} months`, way.months.slice(0, wanted))
    return wanted <= way.months.length ? all : add(`${years * 12} months`, [all, multiply('months like the last', [last, input('months', wanted - way.months.length)])])
  }
  const purchases = way.years === null ? 1 : Math.ceil(years / way.years)
  const recurring = multiply(`${years * 12} months`, [way.monthly, input('months', years * 12)])
  if (way.upfront === nothing) return recurring
  return add(`over ${years} ${years === 1 ? 'year' : 'years'}`, [purchases === 1 ? way.upfront : multiply('bought again when it ends', [way.upfront, input('times', purchases)]), recurring])
}

/** The months after which an upfront has paid for itself: upfront / (on-demand monthly − recurring monthly); null when never. */
export function paybackMonths(way: WayPrice, onDemandWay: WayPrice): Decimal | null {
  const saving = evaluate(onDemandWay.monthly).minus(evaluate(way.monthly))
  const upfront = evaluate(way.upfront)
  return saving.gt(0) && upfront.gt(0) ? upfront.div(saving) : null
}
