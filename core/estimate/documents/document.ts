import { findAssumptions } from './assumptions'
import { blindSpotTitle } from '../blind-spots'
import { hasPlace } from '../components/kind'
import type { Component, Estimate } from '../estimate'
import { figureOf, priceScenarios, type Prices } from '../pricing/price-estimate'
import { PriceMemo } from '../pricing/price-memo'
import type { PricedEstimate } from '../pricing/priced'
import { simulate, uncertainInputs } from '../ranges/simulate'
import { rowLabel, rowNames } from '../sheet/row-name'
import { alike } from '../scenarios/compare'
import { replacedText } from '../scenarios/equivalent'
import { type EstimateDocument, type DocumentFacts, type DocumentRow, type DocumentRanges, AS_IT_STANDS } from './document-types'
import { customersDocument } from './customers-document'
import { rowDetails, wayOf, texts, once, ratesUsed, placeOf, lacksOf, partsOf, shown } from './document-parts'

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
