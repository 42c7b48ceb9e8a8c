import { Decimal, decimalText, type DecimalText } from '../money/decimal'
import type { RateCard } from '../ratecard/rate-card'
import { ESTIMATE_MONTH_HOURS } from '../time/day'
import { add, evaluate, input, multiply, subtract, type Working } from '../working/working'
import { findKind } from './components'
import { completeInputs, fieldProblem, type ComponentPrice, type Inputs } from './components/kind'
import type { Component, Estimate, WayToPay } from './estimate'
import type { WayPrice } from './ways-to-pay'

/** The figures of a way to pay, ready to show; null where it is not defined. */
export type WayFigures = { way: WayToPay, upfront: DecimalText, monthly: DecimalText, effectiveMonthly: DecimalText, firstYear: DecimalText, wholeTerm: DecimalText | null, breakEvenHours: DecimalText | null }

export type PricedComponent = {
  id: string
  inputs: Inputs
  /** What does not fit, by field; such a row counts as nothing and says so. */
  problems: Record<string, string>
  ways: (WayFigures & { workings: WayPrice })[]
  chosen: (WayFigures & { workings: WayPrice }) | null
  unitPrice: { value: DecimalText, per: string } | null
}

export type Totals = { upfront: DecimalText, monthly: DecimalText, effectiveMonthly: DecimalText, firstYear: DecimalText, wholeTerm: DecimalText }
export type PricedEstimate = { currency: string, components: PricedComponent[], totals: Totals, totalWorkings: Record<keyof Totals, Working>, unpriced: number }

/** A list price less the negotiated discount: the first step after the list price, before anything is added to it. */
function discounted(working: Working, percent: Decimal): Working {
  if (percent.eq(0)) return working
  return multiply(`${working.label}, less the negotiated discount`, [working, subtract('share that is paid', [input('all', 1), multiply('negotiated discount', [input('percent', percent, '%'), input('of a hundred', '0.01')])])])
}

function discountedWay(way: WayPrice, percent: Decimal): WayPrice {
  const less = (working: Working) => discounted(working, percent)
  return { ...way, upfront: less(way.upfront), monthly: less(way.monthly), effectiveMonthly: less(way.effectiveMonthly), firstYear: less(way.firstYear), wholeTerm: way.wholeTerm && less(way.wholeTerm) }
}

const figures = (workings: WayPrice): WayFigures & { workings: WayPrice } => {
  const text = (working: Working) => decimalText(evaluate(working))
  return {
    way: workings.way, workings, upfront: text(workings.upfront), monthly: text(workings.monthly), effectiveMonthly: text(workings.effectiveMonthly), firstYear: text(workings.firstYear),
    wholeTerm: workings.wholeTerm && text(workings.wholeTerm), breakEvenHours: workings.breakEvenHours && text(workings.breakEvenHours),
  }
}

/**
 * Prices every row of an estimate in order, and its totals. Order of a price: list price, negotiated discount, and at the end tax on
 * the total; nothing is rounded on the way. A row whose way to pay has no term counts its twelve months in the whole term.
 * @param monthHours 730, or a named month's real hours when what ran is priced again.
 */
export function priceEstimate(estimate: Estimate, card: RateCard, monthHours: number = ESTIMATE_MONTH_HOURS): PricedEstimate {
  const drawn = new Map<string, Decimal>()
  const percent = new Decimal(estimate.discountPercent)
  const components = estimate.components.map((component) => {
    const priced = priceComponent(component, estimate, card, monthHours, drawn)
    if (percent.eq(0)) return priced
    const ways = priced.ways.map(way => figures(discountedWay(way.workings, percent)))
    return { ...priced, ways, chosen: ways.find(way => way.way === priced.chosen?.way) ?? null }
  })
  const chosen = components.flatMap(c => c.chosen ?? [])
  const tax = new Decimal(estimate.taxPercent)
  const total = (label: string, of: (way: WayPrice) => Working) => {
    const all = add(label, chosen.map(({ workings }) => of(workings)))
    return tax.eq(0) ? all : add(`${label}, with tax`, [all, multiply('tax', [all, input('percent', tax, '%'), input('of a hundred', '0.01')])])
  }
  const totalWorkings = {
    upfront: total('upfront', way => way.upfront), monthly: total('monthly', way => way.monthly), effectiveMonthly: total('effective monthly', way => way.effectiveMonthly),
    firstYear: total('first 12 months', way => way.firstYear), wholeTerm: total('whole term', way => way.wholeTerm ?? way.firstYear),
  }
  const totals = Object.fromEntries(Object.entries(totalWorkings).map(([name, working]) => [name, decimalText(evaluate(working))])) as Totals
  return { currency: card.currency, components, totals, totalWorkings, unpriced: components.filter(c => !c.chosen).length }
}

function priceComponent(component: Component, estimate: Estimate, card: RateCard, monthHours: number, drawn: Map<string, Decimal>): PricedComponent {
  const kind = findKind(component.kind)
  const nothing = { id: component.id, ways: [], chosen: null, unitPrice: null }
  if (!kind) return { ...nothing, inputs: {}, problems: { kind: `there is no kind of component called «${component.kind}»` } }
  const inputs = completeInputs(kind, component.inputs, card, estimate.region)
  const problems: Record<string, string> = {}
  for (const field of kind.fields) {
    const problem = fieldProblem(field, inputs[field.name]!, card, estimate.region)
    if (problem) problems[field.name] = problem
  }
  if (Object.keys(problems).length) return { ...nothing, inputs, problems }
  const price: ComponentPrice = kind.price(inputs, { card, region: estimate.region, monthHours, countFreeAllowance: estimate.useFreeAllowance, drawn })
  if (!price.ok) return { ...nothing, inputs, problems: { [price.field]: price.reason } }
  const ways = price.ways.map(figures)
  return { id: component.id, inputs, problems, ways, chosen: ways.find(way => way.way === inputs.pays) ?? ways[0]!, unitPrice: price.unitPrice }
}
