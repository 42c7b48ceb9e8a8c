import { Decimal, zero } from '../../money/decimal'
import type { CommitmentPrice } from '../../ratecard/rate-card'
import { add, divide, evaluate, input, multiply, type Working } from '../../working/working'
import { isCharge, type Charge, type Charges, type CommitChoice, type Recurring } from '../components/kind'
import type { WayToPay } from '../estimate'
import type { FigureName } from './figures'

/** One way to pay for a component, before its lines are priced: what stays drawn on-demand, and what is paid whether used or not. */
export type Way = {
  way: WayToPay
  /** How many are committed to, as the kind's field `commitTo` says it; null where there is no choice. */
  commits: string | null
  /** Years of its commitment; null without one. */
  years: 1 | 3 | null
  /** What is drawn of lines, and amounts. */
  recurring: Recurring[]
  /** Paid every month for what is committed, used or not. */
  fixed: Working[]
  upfront: Working
  /** What breaks even: its effective month, and what an hour of it costs on-demand. */
  breakEven: { monthly: Working; upfront: Working; onDemandHour: Working } | null
}

/** A way to pay with everything one compares. Figures are of its own term; the estimate's are made by `figureOf`. */
export type WayPrice = {
  way: WayToPay
  commits: string | null
  years: 1 | 3 | null
  /** Paid when the term begins. */
  upfront: Working
  /** What recurs every month. */
  monthly: Working
  /** The cost of its own term (12 months without a commitment) divided by its months. */
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

export function wayName({ years, paid }: Pick<CommitmentPrice, 'years' | 'paid'>): WayToPay {
  return years === 1 ? `1 year, ${paid}` : `3 years, ${paid}`
}

const sumOf = (label: string, parts: Working[]): Working => (parts.length === 1 ? parts[0]! : add(label, parts))

/** A way to pay by name, made when it is looked at. */
export type OfferedWay = Pick<Way, 'way' | 'commits' | 'years'> & { make: () => Way }

/** Every way to pay for a component: as it runs, and by each commitment that its lines have, for each number that one could commit to. */
export function waysOf(charges: Charges, monthHours: number): OfferedWay[] {
  const { recurring, running = [], commitChoices = [] } = charges
  const asItRuns = (): Way => ({
    way: 'on-demand',
    commits: null,
    years: null,
    recurring: [...running, ...recurring],
    fixed: [],
    upfront: charges.once?.length ? sumOf('paid once', charges.once) : nothing,
    breakEven: null,
  })
  return [
    { way: 'on-demand', commits: null, years: null, make: asItRuns },
    ...commitChoices.flatMap(choice =>
      termsOf(choice, running).map((term): OfferedWay => ({
        way: wayName(term),
        commits: choice.value,
        years: term.years,
        make: () => committed(term, choice, running, recurring, monthHours),
      })),
    ),
  ]
}

type Term = Pick<CommitmentPrice, 'years' | 'paid'>

/** Terms that any of the lines offers, the first line's first. */
function termsOf({ parts }: CommitChoice, running: Charge[]): Term[] {
  const terms = new Map<string, Term>()
  for (const { running: at } of parts)
    for (const { years, paid } of running[at]!.line.commitments ?? [])
      if (!terms.has(wayName({ years, paid }))) terms.set(wayName({ years, paid }), { years, paid })
  return [...terms.values()]
}

/** A commitment: charged for every hour of the term, used or not; what cannot be committed to recurs as it runs. */
function committed(term: Term, choice: CommitChoice, running: Charge[], recurring: Recurring[], monthHours: number): Way {
  const fixed: Working[] = []
  const upfronts: Working[] = []
  const drawn: Recurring[] = []
  let breakEven: Way['breakEven'] = null
  running.forEach((charge, at) => {
    const part = choice.parts.find(p => p.running === at)
    const price = part && charge.line.commitments?.find(c => c.years === term.years && c.paid === term.paid)
    if (!part || !price) return void drawn.push(charge)
    const { count, beyond } = part
    const everyHour = multiply(`${charge.label.replace(', on-demand', '')}, every hour of the month`, [
      count,
      input('hours, used or not', monthHours, 'h'),
      input('committed price', price.hourlyPrice, 'per hour', charge.line.sku),
    ])
    const upfront = new Decimal(price.upfrontPrice).eq(0)
      ? nothing
      : multiply('upfront', [count, input('upfront price each', price.upfrontPrice, undefined, charge.line.sku)])
    fixed.push(everyHour)
    if (upfront !== nothing) upfronts.push(upfront)
    if (beyond) drawn.push({ ...charge, label: `${charge.label}, beyond what is committed`, quantity: beyond })
    // hours break even of what is committed to first: the machines
    breakEven ??=
      charge.line.tiers.length > 1
        ? null
        : {
            monthly: everyHour,
            upfront,
            onDemandHour: multiply('on-demand, an hour of all', [
              count,
              input('unit price', charge.line.tiers[0]!.price, 'per hour', charge.line.sku),
            ]),
          }
  })
  return {
    way: wayName(term),
    commits: choice.value,
    years: term.years,
    recurring: [...drawn, ...recurring],
    fixed,
    upfront: upfronts.length ? sumOf('upfront', upfronts) : nothing,
    breakEven,
  }
}

/** What a way costs a month, each of its months where they differ, when its lines are priced. */
export type Paid = { upfront: Working; monthly: Working; months: Working[] | null }

/** The figures of a way of its own term. */
export function priceWay({ way, commits, years, breakEven }: Way, { upfront, monthly, months }: Paid): WayPrice {
  const ownYears = years ?? 1
  const year = multiply('12 months', [monthly, MONTHS])
  const termMonths = years === 3 ? multiply('months of the term', [MONTHS, input('years', years)]) : MONTHS
  const firstYear =
    months && months.length >= 12
      ? add('first 12 months', months.slice(0, 12))
      : upfront === nothing
        ? multiply('first 12 months', [monthly, MONTHS])
        : add(years ? 'upfront and first 12 months' : 'paid once and first 12 months', [upfront, year])
  const wholeTerm = months
    ? add(`${months.length} months`, months)
    : years
      ? upfront === nothing
        ? multiply('whole term', [monthly, termMonths])
        : add('upfront and whole term', [upfront, multiply('months of the term, recurring', [monthly, termMonths])])
      : null
  const effective = upfront === nothing ? monthly : divide('effective monthly', [ownYears === 1 ? firstYear : wholeTerm!, termMonths])
  return {
    way,
    commits,
    years,
    upfront,
    monthly,
    months,
    firstYear,
    wholeTerm,
    effectiveMonthly: effective,
    breakEvenHours: breakEvenHours(breakEven, termMonths),
  }
}

function breakEvenHours(of: Way['breakEven'], termMonths: Working): Working | null {
  if (!of || evaluate(of.onDemandHour).lte(0)) return null
  const effective =
    of.upfront === nothing
      ? of.monthly
      : add('effective monthly of what is committed', [of.monthly, divide('upfront a month', [of.upfront, termMonths])])
  return divide('break-even hours a month', [effective, of.onDemandHour])
}

/** What a way costs over so many years: a shorter commitment is bought again when it ends; months that differ go on like the last. */
export function overYears(way: WayPrice, years: number): Working {
  if (way.months) {
    const wanted = years * 12
    const last = way.months.at(-1)!
    const all = add(`${Math.min(wanted, way.months.length)} months`, way.months.slice(0, wanted))
    return wanted <= way.months.length
      ? all
      : add(`${years * 12} months`, [all, multiply('months like the last', [last, input('months', wanted - way.months.length)])])
  }
  const purchases = way.years === null ? 1 : Math.ceil(years / way.years)
  const recurring = multiply(`${years * 12} months`, [way.monthly, input('months', years * 12)])
  if (way.upfront === nothing) return recurring
  return add(`over ${years} ${years === 1 ? 'year' : 'years'}`, [
    purchases === 1 ? way.upfront : multiply('bought again when it ends', [way.upfront, input('times', purchases)]),
    recurring,
  ])
}

const overTerm = new WeakMap<WayPrice, Map<string, Working>>()

/**
 * A figure of a row as the sheet shows it: whole term and effective monthly are over the estimate's years, so that columns add up and
 * compare.
 */
export function figureOf(way: WayPrice, name: FigureName, termYears: number): Working {
  if (name !== 'wholeTerm' && name !== 'effectiveMonthly') return way[name]
  const known = overTerm.get(way) ?? overTerm.set(way, new Map()).get(way)!
  const key = `${name} ${termYears}`
  const before = known.get(key)
  if (before) return before
  const made = name === 'wholeTerm' ? overYears(way, termYears) : spreadOverTerm(way, termYears)
  known.set(key, made)
  return made
}

/** Whole term divided by its months; where nothing is paid at once and no month differs, that is the month itself. */
function spreadOverTerm(way: WayPrice, years: number): Working {
  if (way.upfront === nothing && !way.months) return way.monthly
  return divide('effective monthly', [figureOf(way, 'wholeTerm', years), input('months of the term', years * 12)])
}

/** The months after which an upfront has paid for itself: upfront / (on-demand monthly − recurring monthly); null when never. */
export function paybackMonths(way: WayPrice, onDemandWay: WayPrice): Decimal | null {
  const saving = evaluate(onDemandWay.monthly).minus(evaluate(way.monthly))
  const upfront = evaluate(way.upfront)
  return saving.gt(0) && upfront.gt(0) ? upfront.div(saving) : null
}

/** Charges of what recurs, and the amounts. */
export const splitRecurring = (recurring: readonly Recurring[]): { charges: Charge[]; amounts: Working[] } => ({
  charges: recurring.filter(isCharge),
  amounts: recurring.filter((one): one is Working => !isCharge(one)),
})
