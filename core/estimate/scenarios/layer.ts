import type { Estimate, Scenario } from '../estimate'
import { findKind } from '../components'
import { findPlace, placeText } from '../place'
import { overridesOf, type Prices } from '../price-estimate'

type Change = Pick<Scenario, 'whole' | 'rows'>

/** A change on top of what a scenario changes already; where both say something, the later one counts. */
export function layer(scenario: Change | null, { whole, rows }: Change): Change {
  if (!scenario) return { whole, rows }
  const merged = { ...scenario.rows }
  for (const [id, inputs] of Object.entries(rows)) merged[id] = { ...merged[id], ...inputs }
  // what now holds for the whole must not be hidden by an input of a row that was changed before
  for (const name of Object.keys(whole)) {
    for (const [id, inputs] of Object.entries(merged)) {
      if (rows[id]?.[name] === undefined && name in inputs) merged[id] = Object.fromEntries(Object.entries(inputs).filter(([key]) => key !== name))
    }
  }
  return { whole: { ...scenario.whole, ...whole }, rows: merged }
}

/** The estimate with a scenario's inputs as its own; the scenario goes. A place for everything becomes the estimate's place. */
export function takeOver(estimate: Estimate, scenarioId: string, { cards }: Pick<Prices, 'cards'>): Estimate {
  const scenario = estimate.scenarios.find(s => s.id === scenarioId)
  if (!scenario) return estimate
  const place = scenario.whole.where === undefined ? null : findPlace(scenario.whole.where, estimate, cards)
  const here = place ? { provider: place.card.provider, region: place.region } : { provider: estimate.provider, region: estimate.region }
  const components = estimate.components.map((component) => {
    const changed = { ...overridesOf(scenario, findKind(component.kind), component.id) }
    if (place && changed.where !== undefined) {
      // where a row stands is told as seen from the estimate's place, which changes
      const own = findPlace(changed.where, estimate, cards)
      if (own) changed.where = placeText(own.card.provider, own.region, here)
    }
    const confirmed = [...component.confirmed, ...Object.keys(changed).filter(name => name !== 'where' && !component.confirmed.includes(name))]
    return Object.keys(changed).length ? { ...component, inputs: { ...component.inputs, ...changed }, confirmed } : component
  })
  return { ...estimate, ...here, components, scenarios: estimate.scenarios.filter(s => s !== scenario) }
}
