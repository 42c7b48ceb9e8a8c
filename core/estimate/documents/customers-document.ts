import { Decimal, decimalText } from '../../money/decimal'
import type { Working } from '../../working/working'
import { hasPlace } from '../components/kind'
import type { Component, Estimate } from '../estimate'
import { figuresOf } from '../pricing/figures'
import { figureOf, type FigureName } from '../pricing/price-estimate'
import type { PricedEstimate } from '../pricing/priced'
import { rowLabel } from '../sheet/row-name'
import type { DocumentFacts, EstimateDocument, DocumentRow, FigureTexts } from './document-types'
import { rowDetails, wayOf, texts, placeOf } from './document-parts'

/**
 * The customer's copy, built from a list of what may go into it: title, names of rows and parts, region, inputs in words, customer's prices
 * and dates. Nothing else of the estimate is read here: no own cost, margin, discount, uplift, credit, target, note, scenario,
 * provider, person, reason, range or Workings.
 */
export function customersDocument(estimate: Estimate, chosen: PricedEstimate, facts: DocumentFacts): EstimateDocument {
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
