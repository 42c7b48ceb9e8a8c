import { Decimal, decimalText, type DecimalText } from '../../money/decimal'
import { describeLine } from '../../ratecard/describe'
import { findSku } from '../../ratecard/rate-card'
import { evaluate, type Working } from '../../working/working'
import { findAssumptions } from './assumptions'
import { blindSpotTitle } from '../blind-spots'
import type { Field } from '../components/field'
import { applies, hasPlace } from '../components/kind'
import type { Component, Estimate } from '../estimate'
import { figuresOf } from '../pricing/figures'
import { inputText } from '../sheet/input-text'
import {
  currencyOf,
  figureOf,
  PriceMemo,
  priceScenarios,
  type FigureName,
  type PricedComponent,
  type PricedEstimate,
  type Prices,
} from '../pricing/price-estimate'
import { simulate, uncertainInputs } from '../ranges/simulate'
import { rateOf } from '../pricing/rates'
import { rowLabel, rowNames } from '../sheet/row-name'
import { alike, notCounted } from '../scenarios/compare'
import { replacedText } from '../scenarios/equivalent'
import { sumOfRows } from '../pricing/totals'

export type FigureTexts = Record<FigureName, DecimalText>
export type DocumentRow = {
  id: string
  label: string
  details: string
  where: string
  way: string
  figures: FigureTexts | null
  note: string
  muted: boolean
  problem: string | null
  /** What stands in its place where the document's scenario has it. */
  replaced: string
}
export type DocumentRanges = {
  draws: number
  p10: number
  p50: number
  p90: number
  histogram: { from: number; to: number; counts: number[] }
  drivers: { label: string; low: number; high: number }[]
}
/** Rows that a total lacks: how many, and what they cost where that is known. */
export type DocumentLacks = { rows: number; amounts: FigureTexts | null }

/** An estimate as it leaves the house: plain text and figures, nothing to compute. */
export type EstimateDocument = {
  audience: 'own' | 'customer'
  title: string
  note: string
  version: number | null
  preparedOn: string
  preparedBy: string
  currency: string
  /** The cards that it is priced on; a customer sees their days only. */
  cards: { provider: string; date: string }[]
  /** Rates that amounts were converted at. */
  rates: { from: string; to: string; rate: string; day: string }[]
  place: string
  month: string
  termYears: number
  target: DecimalText | null
  /** The scenario that rows and totals are of; null for the estimate as it stands. */
  scenario: string | null
  /** What must be so for that scenario to hold. */
  conditions: string[]
  /** Rows that the total lacks; null when it lacks none. */
  lacks: DocumentLacks | null
  parts: { name: string; figures: FigureTexts; rows: DocumentRow[] }[]
  /** From the sum of the rows to the total. */
  summary: { label: string; figures: FigureTexts }[]
  /**
   * Every column of the estimate, the first as it stands; none where there are no scenarios. Differences are to the first, over the rows
   * that both can price.
   */
  columns: { name: string; figures: FigureTexts; difference: FigureTexts | null; lacks: DocumentLacks | null }[]
  assumptions: { label: string; value: string; effect: DecimalText | null }[]
  /** Assumptions that are not listed. */
  moreAssumptions: number
  dismissed: { title: string; reason: string }[]
  ranges: DocumentRanges | null
  /** How the monthly amount of each row was made. */
  workings: { label: string; working: Working }[]
}

/** Which of the columns a document is of, and who has prepared it when. */
export type DocumentFacts = { version: number | null; preparedOn: string; preparedBy: string; scenario?: string | null }

export const AS_IT_STANDS = 'as it stands'

/** What a row is, in words: its inputs, those that a person has set first. */
export function rowDetails(component: Component, row: PricedComponent, isForCustomer = false): string {
  if (!row.kind) return ''
  // an amount that someone typed is own cost, and words for one's own people stay with them
  const mayShow = (field: Field) =>
    !isForCustomer || (!(row.kind!.outside && field.type === 'number') && !(field.type === 'text' && field.own))
  return row.kind.fields
    .filter(
      field =>
        mayShow(field) &&
        field.name !== 'pays' &&
        row.inputs[field.name] !== '' &&
        (field.column || component.confirmed.includes(field.name)) &&
        (!row.place || applies(field, row.inputs, row.place)),
    )
    .map(field => {
      const value = row.inputs[field.name]!
      if (field.name === 'sku' && row.place) {
        const line = findSku(row.place.card, value)
        return line ? describeLine(line, row.place.card) : value
      }
      // sizes, classes and systems name themselves; other choices are a bare word or number
      return field.column === 'size' || field.type === 'text' || (field.type === 'choice' && /\p{L}{4}/u.test(value))
        ? value
        : `${field.label} ${inputText(field, value)}`
    })
    .join(' · ')
}

const texts = (of: (name: FigureName) => Working): FigureTexts => figuresOf(name => decimalText(evaluate(of(name))))

/** Makes the document of an estimate for its own people or for a customer, of the column that is asked for. */
export function makeDocument(
  estimate: Estimate,
  prices: Prices,
  audience: EstimateDocument['audience'],
  facts: DocumentFacts,
): EstimateDocument {
  const memo = new PriceMemo()
  const columns = priceScenarios(estimate, prices, memo)
  const chosen = columns.find(column => column.scenario === (facts.scenario ?? null)) ?? columns[0]!
  return audience === 'customer' ? customersDocument(estimate, chosen, facts) : ownDocument(estimate, prices, columns, chosen, facts, memo)
}

function ownDocument(
  estimate: Estimate,
  prices: Prices,
  columns: PricedEstimate[],
  chosen: PricedEstimate,
  facts: DocumentFacts,
  memo: PriceMemo,
): EstimateDocument {
  const [base] = columns as [PricedEstimate]
  const scenario = estimate.scenarios.find(s => s.id === chosen.scenario) ?? null
  const names = rowNames(estimate.components)
  const row = (component: Component): DocumentRow => {
    const priced = chosen.byId.get(component.id)!
    return {
      id: component.id,
      label: rowLabel(component),
      details: rowDetails(component, priced),
      where: priced.place && hasPlace(priced.kind!) ? `${priced.place.region}, ${priced.place.card.provider}` : '',
      way: wayOf(priced),
      figures: priced.chosen && texts(name => figureOf(priced.chosen!, name, chosen.termYears)),
      note: component.note,
      muted: chosen.muted.has(component.id),
      problem: Object.values(priced.problems)[0] ?? null,
      replaced: replacedText(priced.replaced),
    }
  }
  // what takes longest is found when it is asked for: not every kind of file holds it
  const assumptions = once(() => findAssumptions(estimate, prices, memo))
  const ranges = once((): DocumentRanges | null => {
    const sim = uncertainInputs(chosen).length ? simulate(chosen, estimate.seed) : null
    return (
      sim && {
        draws: sim.draws,
        ...sim.quantiles.effectiveMonthly,
        histogram: sim.histogram,
        drivers: sim.tornado.map(({ label, low, high }) => ({ label, low, high })),
      }
    )
  })
  const named = (id: string | null) => estimate.scenarios.find(s => s.id === id)?.name ?? AS_IT_STANDS
  return {
    audience: 'own',
    title: estimate.name,
    note: estimate.note,
    version: facts.version,
    preparedOn: facts.preparedOn,
    preparedBy: facts.preparedBy,
    currency: chosen.currency,
    cards: estimate.cards.map(({ provider, date }) => ({ provider, date })),
    rates: ratesUsed(estimate, prices),
    place: placeOf(estimate, chosen, true),
    month: estimate.month ?? 'month of 730 hours',
    termYears: chosen.termYears,
    target: estimate.target,
    scenario: scenario?.name ?? null,
    conditions: scenario?.conditions ?? [],
    lacks: lacksOf(chosen, base),
    parts: partsOf(estimate, chosen, estimate.components.map(row)),
    summary: [
      ...(chosen.steps.length
        ? [
            { label: 'sum of the rows', figures: texts(name => chosen.cost[name]) },
            ...chosen.steps.map(step => ({ label: step.label, figures: texts(name => step.figures[name]) })),
          ]
        : []),
      { label: 'total', figures: texts(name => chosen.total[name]) },
    ],
    columns:
      columns.length < 2
        ? []
        : columns.map(column => {
            const [a, b] = alike(estimate, prices, base, column, memo)
            return {
              name: named(column.scenario),
              figures: texts(name => column.total[name]),
              difference:
                column === base
                  ? null
                  : texts(name => ({ op: 'difference', label: 'to the first', parts: [b.total[name], a.total[name]] })),
              lacks: lacksOf(column, base),
            }
          }),
    get assumptions() {
      return assumptions().list.map(({ label, value, effect, component, field }) => ({
        label,
        value: shown(chosen.byId.get(component), field, value),
        effect,
      }))
    },
    get moreAssumptions() {
      return assumptions().more
    },
    dismissed: estimate.dismissed
      .filter(d => !d.blindSpot.startsWith('duplicate '))
      .map(d => ({ title: blindSpotTitle(d.blindSpot), reason: d.reason })),
    get ranges() {
      return ranges()
    },
    workings: chosen.rows
      .filter(r => chosen.counted.has(r.id))
      .map(r => ({ label: names.get(r.id)!, working: figureOf(r.chosen!, 'effectiveMonthly', chosen.termYears) })),
  }
}

function once<T>(make: () => T): () => T {
  let made: { value: T } | null = null
  return () => (made ??= { value: make() }).value
}

const shown = (row: PricedComponent | undefined, name: string, value: string): string => {
  const field = row?.kind?.fields.find(f => f.name === name)
  return field ? inputText(field, value) : value
}
const wayOf = ({ ways, chosen }: PricedComponent): string =>
  ways.length > 1 && chosen ? [chosen.way, chosen.commits && `for the ${chosen.commits}`].filter(Boolean).join(', ') : ''
const lacksOf = (column: PricedEstimate, base: PricedEstimate): DocumentLacks | null => notCounted(column, base)

function placeOf(estimate: Estimate, { change }: PricedEstimate, withProvider: boolean): string {
  const where = change?.whole.where
  const slash = where?.lastIndexOf('/') ?? -1
  const [provider, region] = slash > 0 ? [where!.slice(0, slash), where!.slice(slash + 1)] : [estimate.provider, where || estimate.region]
  return withProvider ? `${region}, ${provider}` : region
}

/** Rates that some row or own charge is converted at. */
function ratesUsed(estimate: Estimate, prices: Prices): EstimateDocument['rates'] {
  const to = currencyOf(estimate, prices)
  const foreign = new Set(
    [...prices.cards.values()]
      .filter(card => estimate.cards.some(c => c.provider === card.provider))
      .map(card => card.currency)
      .concat(prices.uplifts.map(set => set.currency))
      .filter(from => from !== to),
  )
  return [...foreign].flatMap(from => {
    const rate = rateOf(estimate, prices.rates, from, to)
    return rate ? [{ from, to, rate: rate.rate, day: rate.day }] : []
  })
}

function partsOf(estimate: Estimate, chosen: PricedEstimate, rows: DocumentRow[]): EstimateDocument['parts'] {
  return [...new Set(estimate.components.map(c => c.part))].map(name => {
    const own = new Set(estimate.components.filter(c => c.part === name).map(c => c.id))
    const counted = chosen.rows.filter(row => own.has(row.id) && chosen.counted.has(row.id))
    return { name, rows: rows.filter(row => own.has(row.id)), figures: figuresOf(figure => sumOfRows(counted, figure, chosen.termYears)) }
  })
}

/**
 * The customer's copy, built from a list of what may go into it: title, names of rows and parts, region, inputs in words, customer's prices
 * and dates. Nothing else of the estimate is read here: no own cost, margin, discount, own charge, credit, target, note, scenario,
 * provider, person, reason, range or Workings.
 */
function customersDocument(estimate: Estimate, chosen: PricedEstimate, facts: DocumentFacts): EstimateDocument {
  const margin = new Decimal(estimate.marginPercent)
  const price = (working: Working): Working =>
    margin.eq(0)
      ? working
      : {
          op: 'quotient',
          label: 'price',
          parts: [working, { op: 'input', label: 'share', value: decimalText(new Decimal(1).minus(margin.times('0.01'))) }],
        }
  const row = (component: Component): DocumentRow => {
    const priced = chosen.byId.get(component.id)!
    return {
      id: component.id,
      label: rowLabel(component),
      details: rowDetails(component, priced, true),
      where: priced.place && hasPlace(priced.kind!) ? priced.place.region : '',
      way: wayOf(priced),
      figures: priced.chosen && texts(name => price(figureOf(priced.chosen!, name, chosen.termYears))),
      note: '',
      muted: false,
      problem: priced.chosen ? null : 'not priced',
      replaced: '',
    }
  }
  const rows = estimate.components.filter(c => !chosen.muted.has(c.id)).map(row)
  const sum = (list: FigureTexts[]) => figuresOf(name => decimalText(list.reduce((total, f) => total.plus(f[name]), new Decimal(0))))
  const parts = [...new Set(estimate.components.filter(c => !chosen.muted.has(c.id)).map(c => c.part))].map(name => {
    const own = rows.filter(r => estimate.components.find(c => c.id === r.id)!.part === name)
    return { name, rows: own, figures: sum(own.flatMap(r => r.figures ?? [])) }
  })
  const tax = chosen.steps.find(step => step.kind === 'tax')
  const before = (name: FigureName): Working =>
    tax ? { op: 'difference', label: 'before tax', parts: [chosen.total[name], tax.figures[name]] } : chosen.total[name]
  const reduced = chosen.steps.some(step => step.kind === 'funding')
  return {
    audience: 'customer',
    title: estimate.name,
    note: '',
    version: null,
    preparedOn: facts.preparedOn,
    preparedBy: '',
    currency: chosen.currency,
    cards: [...new Set(estimate.cards.map(c => c.date))].map(date => ({ provider: '', date })),
    rates: [],
    place: placeOf(estimate, chosen, false),
    month: estimate.month ?? 'month of 730 hours',
    termYears: chosen.termYears,
    target: null,
    scenario: null,
    conditions: [],
    lacks: chosen.unpriced ? { rows: chosen.unpriced, amounts: null } : null,
    parts,
    summary: [
      ...(reduced
        ? [
            {
              label: 'reduction',
              figures: texts(name => ({ op: 'difference', label: 'reduction', parts: [before(name), price(chosen.cost[name])] })),
            },
          ]
        : []),
      ...(tax
        ? [
            { label: 'price', figures: texts(before) },
            { label: tax.label, figures: texts(name => tax.figures[name]) },
          ]
        : []),
      { label: 'total', figures: texts(name => chosen.total[name]) },
    ],
    columns: [],
    assumptions: [],
    moreAssumptions: 0,
    dismissed: [],
    ranges: null,
    workings: [],
  }
}
