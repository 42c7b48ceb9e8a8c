import { Decimal, type DecimalText } from '../../money/decimal'
import { isPooled, priceQuantity } from '../../ratecard/price-quantity'
import { upliftWorkings, type StoredUplift } from '../../uplift/uplift-set'
import { add, divide, evaluate, input, multiply, subtract, type Working } from '../../working/working'
import { none, type Charges, type ComponentKind } from '../components/kind'
import { inMonth, lineKey, monthsOf, type Drawn, type LinePool } from './line-pools'
import type { Plan, PlannedWay, Settings, StandingRow } from './plan-row'
import { converter } from './rates'
import { nothing, priceWay, type Paid, type WayPrice } from './ways-to-pay'

/** One row as it is priced in one scenario. All Workings are in the estimate's currency. */
export type PricedComponent = StandingRow & {
  ways: WayPrice[]
  chosen: WayPrice | null
  unitPrice: { value: DecimalText; per: string; currency: string } | null
  charges: Charges | null
  /** Sentences worth knowing before one believes the price. */
  notices: string[]
  /** The uplifts in its month, as far as they are amounts of their own. */
  uplifts: StoredUplift[]
  /** Its month before uplifts, in its card's currency: what a support plan is a share of. */
  supportBase: Working
}

export type Pools = ReadonlyMap<string, LinePool>

/** A row that cannot be priced. */
function unpricedRow({ id, kind, inputs, place, problems, refusal, replaced, notOffered }: Plan): PricedComponent {
  return {
    id,
    kind,
    inputs,
    place,
    problems,
    refusal,
    replaced,
    notOffered,
    ways: [],
    chosen: null,
    unitPrice: null,
    charges: null,
    notices: [],
    uplifts: [],
    supportBase: none,
  }
}

/** @param counted whether it draws from the pools with the others; a muted row is priced as if it did. */
export function priceRow(plan: Plan, pools: Pools, counted: boolean, settings: Settings): PricedComponent {
  const { priced: of, kind, place } = plan
  if (!of || !kind || !place) return unpricedRow(plan)
  const { estimate, prices, currency } = settings
  const discount = discountOf(kind, place.card.provider, settings)
  const convert = converter(estimate, prices.rates, currency)
  const own = upliftsIn(of.uplifts, of.charges, settings, convert)
  const { chosen } = of
  const { card } = place
  const finish = (way: PlannedWay, paid: Paid) =>
    priceWay(
      way,
      withCharges(paid, discount, own, working => convert(working, card.currency)),
    )
  const paid = paidOf(chosen, chosen, counted, of.horizon, pools)
  const taken = finish(chosen, paid)
  // the ways that are not taken are priced when someone looks at them
  let ways: WayPrice[] | null = null
  const { id, inputs, problems, refusal, replaced, notOffered } = plan
  return {
    id,
    kind,
    inputs,
    place,
    problems,
    refusal,
    replaced,
    notOffered,
    charges: of.charges,
    uplifts: of.uplifts,
    get notices() {
      return [...(of.charges.notices ?? []), ...raisedNotices(chosen, pools)]
    },
    get ways() {
      return (ways ??= of.ways().map(way => (way === chosen ? taken : finish(way, paidOf(way, chosen, counted, of.horizon, pools)))))
    },
    chosen: taken,
    unitPrice: of.charges.unitPrice && { ...of.charges.unitPrice, currency: card.currency },
    supportBase: supportBaseOf(chosen, paid, discount),
  }
}

/** What a way costs when its lines are priced in the pools. */
function paidOf(way: PlannedWay, chosen: PlannedWay, counted: boolean, horizon: number, pools: Pools): Paid {
  const isActual = counted && way === chosen
  const poolOf = (drawn: Drawn) => (isPooled(drawn.line) ? pools.get(lineKey(drawn)) : undefined)
  const own = counted ? chosen.drawn : []
  const cost = (drawn: Drawn, month: number): Working => {
    const pool = poolOf(drawn)
    if (!pool) return priceQuantity(drawn.label, drawn.line, inMonth(drawn, month))
    if (isActual) return pool.share(drawn, month)
    const alike = (list: readonly Drawn[]) => list.filter(d => lineKey(d) === lineKey(drawn))
    return pool.wouldBear(drawn, alike(way.drawn), alike(own), month)
  }
  const months = Math.max(monthsOf(way.drawn), ...way.drawn.map(drawn => poolOf(drawn)?.months ?? 0))
  const inAll = (month: number) => sum('the month', [...way.drawn.map(drawn => cost(drawn, month)), ...way.amounts, ...way.fixed])
  if (!months) return { upfront: way.upfront, monthly: inAll(0), months: null }
  const each = Array.from({ length: months }, (_, month) => ({ ...inAll(month), label: `month ${month + 1}` }))
  const looked = each.slice(0, horizon || months)
  return {
    upfront: way.upfront,
    months: each,
    monthly: divide('average month', [add(`${looked.length} months`, looked), input('months', looked.length)]),
  }
}

const sum = (label: string, parts: Working[]): Working => (parts.length === 1 ? parts[0]! : add(label, parts))

function raisedNotices(chosen: PlannedWay, pools: Pools): string[] {
  return chosen.drawn.flatMap(drawn => {
    const raised = pools.get(lineKey(drawn))?.raised()
    if (!raised) return []
    return [
      raised.by === 'quantity'
        ? `${drawn.label}: at least ${raised.least} ${raised.unit} a month are charged, more than is drawn.`
        : `${drawn.label}: at least ${raised.least} a month is charged, more than what is drawn costs.`,
    ]
  })
}

type Own = { monthly: Working[]; percents: Working[] }

function upliftsIn(
  uplifts: readonly StoredUplift[],
  charges: Charges,
  settings: Settings,
  convert: (working: Working, from: string) => Working,
): Own {
  const extra = uplifts.map(set => ({ ...upliftWorkings(set, charges, settings.monthHours), currency: set.currency }))
  return {
    monthly: extra.flatMap(({ monthly, currency }) => monthly.map(working => convert(working, currency))),
    percents: extra.flatMap(({ percent }) => percent ?? []),
  }
}

/** A list price less the negotiated discount: the first step after the list price, before anything is added to it. */
function discounted(working: Working, discount: Discount): Working {
  if (!discount || evaluate(working).eq(0)) return working
  return multiply(`${working.label}, less the negotiated discount`, [working, discount])
}

/** The share of a list price that is paid; null for all of it. */
type Discount = Working | null

const shares = new WeakMap<Settings, Map<string, Discount>>()
function discountOf({ outside }: ComponentKind, provider: string, settings: Settings): Discount {
  if (outside) return null
  const known = shares.get(settings) ?? shares.set(settings, new Map()).get(settings)!
  const before = known.get(provider)
  if (before !== undefined) return before
  const percent = new Decimal(settings.estimate.discounts.find(d => d.provider === provider)?.percent ?? 0)
  const made = percent.eq(0)
    ? null
    : subtract('share that is paid', [
        input('all', 1),
        multiply('negotiated discount', [input('percent', percent, '%'), input('of a hundred', '0.01')]),
      ])
  known.set(provider, made)
  return made
}

/** Discount, uplifts and conversion on what is paid. */
function withCharges(paid: Paid, discount: Discount, own: Own, convert: (working: Working) => Working): Paid {
  if (!discount && !own.monthly.length && !own.percents.length && convert(none) === none) return paid
  const money = (working: Working, flat: readonly Working[]): Working => {
    if (working === nothing) return working
    const base = convert(discounted(working, discount))
    const share = own.percents.map(percent => multiply('uplift on the amount', [base, percent, input('of a hundred', '0.01')]))
    return share.length + flat.length ? add(`${working.label}, with uplifts`, [base, ...share, ...flat]) : base
  }
  return {
    upfront: money(paid.upfront, []),
    monthly: money(paid.monthly, own.monthly),
    months: paid.months && paid.months.map(month => money(month, own.monthly)),
  }
}

/** What of the row's month a support plan is a share of: its effective month of its own term, after the discount. */
function supportBaseOf(way: PlannedWay, paid: Paid, discount: Discount): Working {
  const month =
    paid.upfront === nothing
      ? paid.monthly
      : add('month with the upfront spread', [
          paid.monthly,
          divide('upfront a month', [paid.upfront, input('months of its term', 12 * (way.years ?? 1))]),
        ])
  return discounted(month, discount)
}
