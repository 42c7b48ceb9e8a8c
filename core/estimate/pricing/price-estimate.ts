import { ESTIMATE_MONTH_HOURS, hoursOfMonth } from '../../time/day'
import type { Working } from '../../working/working'
import { findKind } from '../components'
import { none, type Inputs } from '../components/kind'
import type { Component, Estimate, Scenario } from '../estimate'
import { poolLines } from './line-pools'
import { findPlace } from './place'
import { planRow, type Prices, type Settings } from './plan-row'
import { priceRow, type PricedComponent } from './price-row'
import { stepsOn, sumRows } from './totals'
import { PriceMemo, rememberedPlan, rememberedRow } from './price-memo'
import type { PricedEstimate } from './priced'
import { NO_OVERRIDES, isMuted, overridesOf } from './overrides'

export { figureNames, figureText, figureWords, type FigureName, type Figures } from './figures'
export { variantOf, type Prices } from './plan-row'
export type { PricedComponent } from './price-row'
export { customerPrice } from './totals'
export { figureOf } from './ways-to-pay'

export function monthHoursOf(estimate: Pick<Estimate, 'month'>): number {
  return estimate.month === null ? ESTIMATE_MONTH_HOURS : hoursOfMonth(estimate.month)
}

/**
 * Prices every row of an estimate in one scenario, and its totals; nothing is rounded on the way. First each row says what it draws of
 * which lines, then every line is priced once on all that is drawn of it. The order of a price: list price, negotiated discount, own
 * charges, conversion to the estimate's currency at a dated rate, support, funding, reseller's margin, tax.
 * @param scenario null for the rows as they stand.
 */
export function priceEstimate(
  estimate: Estimate,
  prices: Prices,
  scenario: Scenario | null = null,
  memo: PriceMemo = new PriceMemo(),
): PricedEstimate {
  const settings = settingsOf(estimate, prices)
  const rows = priceRows(settings, scenario, memo)
  return totalled(settings, scenario, rows, termYearsOf(estimate, rows, scenario), memo)
}

/**
 * The estimate as it stands, and each of its scenarios, over the same years: where the estimate does not fix them, the longest commitment
 * of all.
 */
export function priceScenarios(estimate: Estimate, prices: Prices, memo: PriceMemo = new PriceMemo()): PricedEstimate[] {
  const settings = settingsOf(estimate, prices)
  const columns = [null, ...estimate.scenarios].map(scenario => ({ scenario, rows: priceRows(settings, scenario, memo) }))
  const years = Math.max(...columns.map(({ scenario, rows }) => termYearsOf(estimate, rows, scenario)))
  return columns.map(({ scenario, rows }) => totalled(settings, scenario, rows, years, memo))
}

/**
 * Prices single rows of an estimate as if each were the only one, with some inputs changed: for ranking what changes do, and for lists of
 * choices.
 */
export function pricerOfOne(estimate: Estimate, prices: Prices): (component: Component, overrides?: Inputs) => PricedComponent {
  const settings = settingsOf(estimate, prices)
  return (component, overrides = NO_OVERRIDES) => {
    const plan = planRow(component, overrides, settings)
    return priceRow(plan, poolLines(plan.priced?.chosen.drawn ?? [], estimate.useFreeAllowance, new Map()), true, settings)
  }
}

/** One row as if it were the only one. */
export const priceAlone = (estimate: Estimate, prices: Prices, component: Component, overrides?: Inputs): PricedComponent =>
  pricerOfOne(estimate, prices)(component, overrides)

/** Years of the whole term that an estimate and all of its scenarios have. */
export function yearsOfTerm(estimate: Estimate, prices: Prices, memo?: PriceMemo): number {
  return estimate.termYears ?? priceScenarios(estimate, prices, memo)[0]!.termYears
}

/** The currency of the totals. */
export const currencyOf = (estimate: Pick<Estimate, 'currency' | 'provider'>, { cards }: Pick<Prices, 'cards'>): string =>
  estimate.currency ?? cards.get(estimate.provider)?.currency ?? 'EUR'

function settingsOf(estimate: Estimate, prices: Prices): Settings {
  const monthHours = monthHoursOf(estimate)
  const currency = currencyOf(estimate, prices)
  return {
    key: JSON.stringify([
      monthHours,
      estimate.month,
      estimate.startsOn,
      estimate.useFreeAllowance,
      estimate.discounts,
      estimate.rates,
      currency,
      estimate.provider,
      estimate.region,
    ]),
    monthHours,
    prices,
    estimate,
    currency,
  }
}

const countedOf = (estimate: Estimate, rows: readonly PricedComponent[], scenario: Scenario | null) =>
  rows.filter((row, i) => row.chosen !== null && !isMuted(estimate.components[i]!, scenario))

function termYearsOf(estimate: Estimate, rows: readonly PricedComponent[], scenario: Scenario | null): number {
  return estimate.termYears ?? countedOf(estimate, rows, scenario).reduce((most, row) => Math.max(most, row.chosen!.years ?? 1), 1)
}

function priceRows(settings: Settings, scenario: Scenario | null, memo: PriceMemo): PricedComponent[] {
  const { components } = settings.estimate
  const rows: PricedComponent[] = new Array(components.length)
  const isLast = (component: Component) => findKind(component.kind)?.last === true
  const first = components.flatMap((component, at) => (isLast(component) ? [] : [at]))
  const last = components.flatMap((component, at) => (isLast(component) ? [at] : []))
  priceStage(first, () => none, rows, settings, scenario, memo, 'rows')
  if (!last.length) return rows
  const bases = new Map<string, Working[]>()
  for (const at of first) {
    const row = rows[at]!
    if (!row.place || !row.chosen || row.kind!.outside || isMuted(components[at]!, scenario)) continue
    const list = bases.get(row.place.card.provider)
    if (list) list.push(row.supportBase)
    else bases.set(row.place.card.provider, [row.supportBase])
  }
  const restOf = (component: Component) => {
    const where = overridesOf(scenario, findKind(component.kind), component.id).where ?? component.inputs.where ?? ''
    const provider = findPlace(where, settings.estimate, settings.prices.cards)?.card.provider ?? ''
    return memo.sum(`rest ${scenario?.id ?? ''} ${provider}`, 'the month of all other rows', bases.get(provider) ?? [])
  }
  priceStage(last, restOf, rows, settings, scenario, memo, 'last')
  return rows
}

/** Plans rows, pools what they draw, and prices them in the pools. */
function priceStage(
  places: number[],
  restOf: (component: Component) => Working,
  rows: PricedComponent[],
  settings: Settings,
  scenario: Scenario | null,
  memo: PriceMemo,
  stage: string,
): void {
  const { components, useFreeAllowance } = settings.estimate
  const plans = places.map(at => rememberedPlan(components[at]!, scenario, settings, restOf(components[at]!), memo))
  const counted = places.map((at, i) => plans[i]!.priced !== null && !isMuted(components[at]!, scenario))
  const drawn = plans.flatMap(({ priced }, i) => (priced && counted[i] ? priced.chosen.drawn : []))
  const key = `${stage} ${scenario?.id ?? ''} ${useFreeAllowance}`
  const pools = poolLines(drawn, useFreeAllowance, memo.pools.get(key) ?? new Map())
  memo.pools.set(key, pools)
  places.forEach((at, i) => {
    rows[at] = rememberedRow(plans[i]!, pools, counted[i]!, settings, memo)
  })
}

function totalled(
  settings: Settings,
  scenario: Scenario | null,
  rows: PricedComponent[],
  termYears: number,
  memo: PriceMemo,
): PricedEstimate {
  const { estimate, monthHours, currency } = settings
  const key = scenario?.id ?? ''
  const muted = estimate.components.filter(c => isMuted(c, scenario)).map(c => c.id)
  const before = memo.totals.get(key)
  if (
    before &&
    before.priced.change === scenario &&
    before.muted === muted.join('\n') &&
    before.priced.currency === currency &&
    before.priced.termYears === termYears &&
    before.rows.length === rows.length &&
    rows.every((row, i) => row === before.rows[i]) &&
    sameTotals(before.estimate, estimate)
  )
    return before.priced
  const counted = countedOf(estimate, rows, scenario)
  const summed = sumRows(estimate, counted, termYears, key, memo.sum)
  const { steps, total } = stepsOn(estimate, summed, termYears)
  const mutedIds = new Set(muted)
  const uncounted = rows.filter(row => !row.chosen && !mutedIds.has(row.id)).map(row => row.id)
  const priced: PricedEstimate = {
    scenario: scenario?.id ?? null,
    change: scenario,
    currency,
    monthHours,
    termYears,
    rows,
    byId: new Map(rows.map(row => [row.id, row])),
    counted: new Set(counted.map(row => row.id)),
    uncounted: new Set(uncounted),
    muted: mutedIds,
    cost: summed.cost,
    steps,
    total,
    unpriced: uncounted.length,
  }
  memo.totals.set(key, { rows, priced, estimate, muted: muted.join('\n') })
  return priced
}

function sameTotals(a: Estimate, b: Estimate): boolean {
  return (
    a.marginPercent === b.marginPercent &&
    a.taxPercent === b.taxPercent &&
    JSON.stringify(a.funding) === JSON.stringify(b.funding) &&
    a.components.length === b.components.length &&
    a.components.every((c, i) => c.part === b.components[i]!.part && c.id === b.components[i]!.id)
  )
}
