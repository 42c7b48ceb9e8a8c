import { Decimal, decimalText, type DecimalText } from '../money/decimal'
import type { RateCard } from '../ratecard/rate-card'
import { upliftsFor, upliftWorkings, type StoredUplift } from '../uplift/uplift-set'
import { ESTIMATE_MONTH_HOURS, hoursOfMonth } from '../time/day'
import { add, divide, evaluate, input, multiply, subtract, type Working } from '../working/working'
import { findKind } from './components'
import { fieldProblem } from './components/field'
import { completeInputs, makeBuilder, none, NotPriced, type Charges, type ComponentKind, type Inputs, type Place, type Pool, type Refusal } from './components/kind'
import type { Component, Estimate, Scenario } from './estimate'
import { findPlace } from './place'
import { overYears, waysToPayFor, type WayPrice } from './ways-to-pay'

/** What prices come from: the cards that the estimate names, and the organisation's own charges. */
export type Prices = { cards: ReadonlyMap<string, RateCard>, uplifts: readonly StoredUplift[] }

export const figureNames = ['upfront', 'monthly', 'effectiveMonthly', 'firstYear', 'wholeTerm'] as const
export type FigureName = typeof figureNames[number]
export type Figures = Record<FigureName, Working>

/** One row as it is priced in one scenario. All Workings are in the estimate's currency. */
export type PricedComponent = {
  id: string
  kind: ComponentKind | null
  inputs: Inputs
  place: Place | null
  /** What does not fit, by field; such a row counts as nothing and says so. */
  problems: Record<string, string>
  refusal: Refusal | null
  ways: WayPrice[]
  chosen: WayPrice | null
  unitPrice: { value: DecimalText, per: string, currency: string } | null
  charges: Charges | null
  /** The own charges in its month, as far as they are amounts of their own. */
  uplifts: StoredUplift[]
  /** Its month before own charges, in its card's currency: what a support plan is a share of. */
  supportBase: Working
}

export type PricedEstimate = {
  scenario: string | null
  currency: string
  monthHours: number
  /** Years that the whole term has. */
  termYears: number
  rows: PricedComponent[]
  byId: Map<string, PricedComponent>
  /** What is counted: rows that are priced and not muted. */
  counted: Set<string>
  /** The sum of the rows: own cost. */
  cost: Figures
  /** Funding, margin and tax as they come on top, in that order; only those there are. */
  steps: { label: string, kind: 'funding' | 'margin' | 'tax', figures: Figures }[]
  /** Own cost before margin and tax, less funding; then the customer's price; then with tax. */
  total: Figures
  unpriced: number
}

/** Remembers rows that were priced and sums that were made: after an edit only what depends on it is computed again. One for each sheet that is open. */
export class PriceMemo {
  /** By row, the newest first. */
  readonly rows = new Map<string, Remembered[]>()
  readonly totals = new Map<string, { rows: PricedComponent[], priced: PricedEstimate, estimate: Estimate }>()
  private readonly sums = new Map<string, Working & { op: 'sum' }>()

  /** A sum; the very tree that was made under the key before while its parts are the same. */
  sum(key: string, label: string, parts: Working[]): Working {
    const known = this.sums.get(key)
    if (known && known.parts.length === parts.length && known.parts.every((part, i) => part === parts[i])) return known
    const made: Working & { op: 'sum' } = { op: 'sum', label, parts }
    this.sums.set(key, made)
    return made
  }
}
type Remembered = { scenario: string | null, component: Component['inputs'], kind: string, pattern: string | null, overrides: Inputs, settings: Settings, pool: [string, Working | undefined, Working | undefined][], rest: Working, row: PricedComponent }
type Settings = { key: string, monthHours: number, useFreeAllowance: boolean, prices: Prices, estimate: Estimate }

const NO_OVERRIDES: Inputs = {}
const wholes = new WeakMap<Scenario, Map<ComponentKind, Inputs>>()

/** Inputs of a row in a scenario: its own, then what holds for the whole scenario, then what holds for the row. */
export function overridesOf(scenario: Scenario | null, kind: ComponentKind | undefined, id: string): Inputs {
  if (!scenario || !kind) return NO_OVERRIDES
  const byKind = wholes.get(scenario) ?? wholes.set(scenario, new Map()).get(scenario)!
  let whole = byKind.get(kind)
  if (!whole) {
    const entries = Object.entries(scenario.whole).filter(([name]) => name === 'where' || kind.fields.some(field => field.name === name))
    whole = entries.length ? Object.fromEntries(entries) : NO_OVERRIDES
    byKind.set(kind, whole)
  }
  const own = scenario.rows[id]
  return own ? { ...whole, ...own } : whole
}

export function monthHoursOf(estimate: Pick<Estimate, 'month'>): number {
  return estimate.month === null ? ESTIMATE_MONTH_HOURS : hoursOfMonth(estimate.month)
}

/**
 * Prices every row of an estimate in one scenario, and its totals; nothing is rounded on the way. The order of a price: list price,
 * negotiated discount, own charges, conversion to the estimate's currency at a dated rate, support, funding, reseller's margin, tax.
 * @param scenario null for the rows as they stand.
 */
export function priceEstimate(estimate: Estimate, prices: Prices, scenario: Scenario | null = null, memo: PriceMemo = new PriceMemo()): PricedEstimate {
  const settings = settingsOf(estimate, prices)
  const rows = priceRows(settings, scenario, memo)
  return totalled(settings, scenario, rows, termYearsOf(estimate, rows), memo)
}

/** The estimate as it stands, and each of its scenarios, over the same years: where the estimate does not fix them, the longest commitment of all. */
export function priceScenarios(estimate: Estimate, prices: Prices, memo: PriceMemo = new PriceMemo()): PricedEstimate[] {
  const settings = settingsOf(estimate, prices)
  const columns = [null, ...estimate.scenarios].map(scenario => ({ scenario, rows: priceRows(settings, scenario, memo) }))
  const years = Math.max(...columns.map(({ rows }) => termYearsOf(estimate, rows)))
  return columns.map(({ scenario, rows }) => totalled(settings, scenario, rows, years, memo))
}

function settingsOf(estimate: Estimate, prices: Prices): Settings {
  const monthHours = monthHoursOf(estimate)
  const currency = estimate.currency ?? prices.cards.get(estimate.provider)?.currency ?? 'EUR'
  return {
    key: JSON.stringify([monthHours, estimate.useFreeAllowance, estimate.discounts, estimate.rates, currency, estimate.provider, estimate.region]),
    monthHours, useFreeAllowance: estimate.useFreeAllowance, prices, estimate: { ...estimate, currency },
  }
}

const isCounted = (estimate: Estimate) => (row: PricedComponent, index: number) => row.chosen !== null && !estimate.components[index]!.muted

function termYearsOf(estimate: Estimate, rows: PricedComponent[]): number {
  return estimate.termYears ?? rows.filter(isCounted(estimate)).reduce((most, row) => Math.max(most, row.chosen!.years ?? 1), 1)
}

function priceRows(settings: Settings, scenario: Scenario | null, memo: PriceMemo): PricedComponent[] {
  const { estimate, prices } = settings
  const pool: Pool = new Map()
  const rows: PricedComponent[] = new Array(estimate.components.length)
  const last: number[] = []
  const bases = new Map<string, Working[]>()
  estimate.components.forEach((component, index) => {
    if (findKind(component.kind)?.last) return void last.push(index)
    // a row that is not counted draws nothing from what the others share
    const row = priceRow(component, scenario, settings, component.muted ? new Map(pool) : pool, none, memo)
    rows[index] = row
    if (!row.place || !row.chosen || component.muted || row.kind!.outside) return
    const list = bases.get(row.place.card.provider)
    if (list) list.push(row.supportBase)
    else bases.set(row.place.card.provider, [row.supportBase])
  })
  for (const index of last) {
    const component = estimate.components[index]!
    const where = overridesOf(scenario, findKind(component.kind), component.id).where ?? component.inputs.where ?? ''
    const provider = findPlace(where, estimate, prices.cards)?.card.provider ?? ''
    rows[index] = priceRow(component, scenario, settings, pool, memo.sum(`rest ${scenario?.id ?? ''} ${provider}`, 'the month of all other rows', bases.get(provider) ?? []), memo)
  }
  return rows
}

const REMEMBERED = 16
const sameInputs = (a: Inputs, b: Inputs) => {
  if (a === b) return true
  const keys = Object.keys(a)
  return keys.length === Object.keys(b).length && keys.every(key => a[key] === b[key])
}

function priceRow(component: Component, scenario: Scenario | null, settings: Settings, pool: Pool, rest: Working, memo: PriceMemo): PricedComponent {
  const kind = findKind(component.kind)
  const overrides = overridesOf(scenario, kind, component.id)
  const remembered = memo.rows.get(component.id) ?? memo.rows.set(component.id, []).get(component.id)!
  const holds = (r: Remembered) => r.kind === component.kind && r.pattern === component.pattern && r.settings.key === settings.key && r.settings.prices === settings.prices && r.rest === rest
    && sameInputs(r.component, component.inputs) && sameInputs(r.overrides, overrides) && r.pool.every(([key, before]) => pool.get(key) === before)
  const last = remembered.find(r => r.scenario === (scenario?.id ?? null))
  const known = last && holds(last) ? last : remembered.find(holds)
  if (known) {
    for (const [key, , after] of known.pool) if (after) pool.set(key, after)
    return known.row
  }
  const drawn = new Map(pool)
  const row = freshRow(component, kind, overrides, settings, drawn, rest)
  const touched = [...drawn].filter(([key, after]) => pool.get(key) !== after).map(([key, after]): Remembered['pool'][number] => [key, pool.get(key), after])
  for (const [key, , after] of touched) pool.set(key, after!)
  remembered.unshift({ scenario: scenario?.id ?? null, component: component.inputs, kind: component.kind, pattern: component.pattern, overrides, settings, pool: touched, rest, row })
  if (remembered.length > REMEMBERED) remembered.pop()
  return row
}

function freshRow(component: Component, kind: ComponentKind | undefined, overrides: Inputs, settings: Settings, pool: Pool, rest: Working): PricedComponent {
  const { estimate, prices, monthHours, useFreeAllowance } = settings
  const given = { ...component.inputs, ...overrides }
  const nothing: PricedComponent = { id: component.id, kind: kind ?? null, inputs: given, place: null, problems: {}, refusal: null, ways: [], chosen: null, unitPrice: null, charges: null, uplifts: [], supportBase: none }
  if (!kind) return { ...nothing, problems: { kind: `there is no kind of component called «${component.kind}»` } }
  const place = findPlace(given.where ?? '', estimate, prices.cards)
  if (!place) return { ...nothing, problems: { where: `no rate card is loaded for «${given.where || `${estimate.provider}, ${estimate.region}`}»; choose another place, or drop the card under Sources` } }
  const inputs: Inputs = { ...completeInputs(kind, given, place.card, place.region), where: given.where ?? '' }
  // a way to pay that is wished for everything counts where it is offered
  if (inputs.pays !== undefined && overrides.pays !== undefined && fieldProblem(kind.fields.find(f => f.name === 'pays')!, inputs.pays, place.card, place.region)) inputs.pays = component.inputs.pays ?? 'on-demand'
  const problems: Record<string, string> = {}
  for (const field of kind.fields) {
    const problem = fieldProblem(field, inputs[field.name]!, place.card, place.region, monthHours)
    if (problem) problems[field.name] = problem
  }
  if (Object.keys(problems).length) return { ...nothing, inputs, place, problems }
  try {
    const charges = kind.price(makeBuilder(component.id, kind, inputs, place, { monthHours, useFreeAllowance }, pool, rest))
    return { ...nothing, inputs, place, charges, ...priced(kind, component, inputs, place, charges, settings) }
  }
  catch (error) {
    if (!(error instanceof NotPriced)) throw error
    return { ...nothing, inputs, place, problems: { [error.refusal.field]: error.refusal.reason }, refusal: error.refusal }
  }
}

/** The variant that a row is of its kind: what its size or class cell says. */
export const variantOf = (kind: ComponentKind, inputs: Inputs): string | null => {
  const field = kind.fields.find(f => f.column === 'size')
  return field ? inputs[field.name] ?? null : null
}

function priced(kind: ComponentKind, component: Component, inputs: Inputs, { card }: Place, charges: Charges, { estimate, prices, monthHours }: Settings): Pick<PricedComponent, 'ways' | 'chosen' | 'unitPrice' | 'uplifts' | 'supportBase'> {
  const listed = waysToPayFor(charges, kind.label, monthHours)
  const wanted = inputs.pays === undefined ? listed[0]! : listed.find(way => way.way === inputs.pays)
  if (!wanted) throw new NotPriced({ field: 'pays', reason: `«${inputs.pays}» is not offered for this`, instead: { value: 'on-demand', label: 'pay on-demand' } })
  const discount = new Decimal(kind.outside ? 0 : estimate.discounts.find(d => d.provider === card.provider)?.percent ?? 0)
  const uplifts = kind.last ? [] : upliftsFor(prices.uplifts, { kind: kind.kind, variant: variantOf(kind, inputs), pattern: component.pattern })
  const convert = converter(estimate)
  const extra = uplifts.map(set => ({ ...upliftWorkings(set, charges), currency: set.currency }))
  const own = extra.flatMap(({ monthly, currency }) => monthly.map(working => convert(working, currency)))
  const percents = extra.flatMap(({ percent }) => percent ?? [])
  const ways = listed.map(way => finished(way, discount, own, percents, working => convert(working, card.currency)))
  return {
    ways, chosen: ways[listed.indexOf(wanted)]!, uplifts, supportBase: discounted(wanted.effectiveMonthly, discount),
    unitPrice: charges.unitPrice && { ...charges.unitPrice, currency: card.currency },
  }
}

/** A list price less the negotiated discount: the first step after the list price, before anything is added to it. */
function discounted(working: Working, percent: Decimal): Working {
  if (percent.eq(0) || evaluate(working).eq(0)) return working
  return multiply(`${working.label}, less the negotiated discount`, [working, subtract('share that is paid', [input('all', 1), multiply('negotiated discount', [input('percent', percent, '%'), input('of a hundred', '0.01')])])])
}

/** Converts an amount at the estimate's dated rate. @throws NotPriced when there is none: a rate is never guessed. */
function converter(estimate: Estimate) {
  return (working: Working, from: string): Working => {
    const to = estimate.currency!
    if (from === to) return working
    const rate = estimate.rates.find(r => r.from === from)
    if (!rate) throw new NotPriced({ field: 'where', reason: `there is no rate from ${from} to ${to}: give one under Terms` })
    return multiply(`${working.label}, in ${to}`, [working, input(`${to} for 1 ${from} on ${rate.day}`, rate.rate)])
  }
}

/** Discount, own charges and conversion on every figure of a way to pay. */
function finished(way: WayPrice, discount: Decimal, own: Working[], percents: Working[], convert: (working: Working) => Working): WayPrice {
  const money = (working: Working, months: number | null): Working => {
    const base = convert(discounted(working, discount))
    if (base === way.upfront && evaluate(base).eq(0)) return base
    const share = percents.map(percent => multiply('own charge on the amount', [base, percent, input('of a hundred', '0.01')]))
    const flat = months === null ? [] : own.map(charge => months === 1 ? charge : multiply(`${charge.label}, ${months} months`, [charge, input('months', months)]))
    return share.length + flat.length ? add(`${working.label}, with own charges`, [base, ...share, ...flat]) : base
  }
  if (discount.eq(0) && !own.length && !percents.length && convert(none) === none) return way
  return {
    ...way, upfront: money(way.upfront, null), monthly: money(way.monthly, 1), effectiveMonthly: way.effectiveMonthly === way.monthly ? money(way.monthly, 1) : money(way.effectiveMonthly, 1), firstYear: money(way.firstYear, 12),
    wholeTerm: way.wholeTerm && money(way.wholeTerm, way.months?.length ?? 12 * (way.years ?? 1)), months: way.months && way.months.map(month => money(month, 1)),
  }
}

const overTerm = new WeakMap<WayPrice, Map<number, Working>>()
/** A way's cost over the estimate's term; the same tree each time it is asked for. */
export function termCost(way: WayPrice, years: number): Working {
  const known = overTerm.get(way) ?? overTerm.set(way, new Map()).get(way)!
  return known.get(years) ?? known.set(years, overYears(way, years)).get(years)!
}

/** A figure of a row as the sheet shows it: the whole term is the estimate's, so that the column adds up. */
export function figureOf(way: WayPrice, name: FigureName, termYears: number): Working {
  return name === 'wholeTerm' ? termCost(way, termYears) : way[name]
}

function totalled({ estimate, monthHours }: Settings, scenario: Scenario | null, rows: PricedComponent[], termYears: number, memo: PriceMemo): PricedEstimate {
  const key = scenario?.id ?? ''
  const before = memo.totals.get(key)
  if (before && before.priced.termYears === termYears && before.rows.length === rows.length && rows.every((row, i) => row === before.rows[i]) && sameTotals(before.estimate, estimate)) return before.priced
  const counted = rows.filter(isCounted(estimate))
  const cost = sumsByPart(estimate, rows, termYears, key, memo)
  const steps: PricedEstimate['steps'] = []
  let total = cost
  const step = (label: string, kind: PricedEstimate['steps'][number]['kind'], of: (name: FigureName, working: Working) => Working) => {
    const added = Object.fromEntries(figureNames.map(name => [name, of(name, total[name])])) as Figures
    steps.push({ label, kind, figures: added })
    total = Object.fromEntries(figureNames.map(name => [name, add(`with ${label}`, [total[name], added[name]])])) as Figures
  }
  const month = evaluate(cost.monthly)
  for (const funding of estimate.funding) {
    if (month.lt(funding.threshold)) continue
    const monthly = input(`${funding.label}, a month`, new Decimal(funding.amount).times(-1))
    const least = { op: 'larger', label: 'no more than the month costs', parts: [monthly, subtract('the month', [none, total.monthly])] } as const satisfies Working
    const months = { upfront: 0, monthly: 1, effectiveMonthly: 1, firstYear: Math.min(12, funding.months), wholeTerm: Math.min(12 * termYears, funding.months) }
    step(funding.label, 'funding', name => multiply(funding.label, [least, input('months', months[name])]))
  }
  const margin = new Decimal(estimate.marginPercent)
  if (margin.gt(0)) step(`margin ${estimate.marginPercent} %`, 'margin', (_, working) => subtract('margin', [customerPrice(working, margin), working]))
  const tax = new Decimal(estimate.taxPercent)
  if (tax.gt(0)) step(`tax ${estimate.taxPercent} %`, 'tax', (_, working) => multiply('tax', [working, input('percent', tax, '%'), input('of a hundred', '0.01')]))
  const priced: PricedEstimate = {
    scenario: scenario?.id ?? null, currency: estimate.currency!, monthHours, termYears, rows, byId: new Map(rows.map(row => [row.id, row])), counted: new Set(counted.map(row => row.id)), cost, steps, total,
    unpriced: rows.filter((row, i) => !row.chosen && !estimate.components[i]!.muted).length,
  }
  memo.totals.set(key, { rows, priced, estimate })
  return priced
}

/** The sums of the rows by the parts of the workload: what changes in one part leaves the sums of the others as they are. */
function sumsByPart(estimate: Estimate, rows: PricedComponent[], termYears: number, scenario: string, memo: PriceMemo): Figures {
  const parts = new Map<string, WayPrice[]>()
  const counts = isCounted(estimate)
  rows.forEach((row, i) => {
    if (!counts(row, i)) return
    const { part } = estimate.components[i]!
    const list = parts.get(part)
    if (list) list.push(row.chosen!)
    else parts.set(part, [row.chosen!])
  })
  return Object.fromEntries(figureNames.map((name) => {
    const sums = [...parts].map(([part, ways]) => memo.sum(`${scenario}\n${name}\n${part}`, part || 'rows', ways.map(way => figureOf(way, name, termYears))))
    return [name, sums.length === 1 ? sums[0]! : memo.sum(`${scenario}\n${name}`, `all parts, ${figureWords[name]}`, sums)]
  })) as Figures
}

/** Own cost divided by the share that is not margin: the margin is a share of the customer's price. */
export function customerPrice(working: Working, marginPercent: Decimal): Working {
  return divide('customer\'s price', [working, subtract('share that is not margin', [input('all', 1), multiply('margin', [input('percent', marginPercent, '%'), input('of a hundred', '0.01')])])])
}

function sameTotals(a: Estimate, b: Estimate): boolean {
  return a.marginPercent === b.marginPercent && a.taxPercent === b.taxPercent && a.currency === b.currency && JSON.stringify(a.funding) === JSON.stringify(b.funding)
    && a.components.length === b.components.length && a.components.every((c, i) => c.muted === b.components[i]!.muted)
}

export const figureWords: Record<FigureName, string> = { upfront: 'upfront', monthly: 'monthly', effectiveMonthly: 'effective monthly', firstYear: 'first 12 months', wholeTerm: 'whole term' }

/** A figure as exact text. */
export const figureText = (working: Working): DecimalText => decimalText(evaluate(working))
