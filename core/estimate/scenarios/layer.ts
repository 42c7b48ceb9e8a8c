import { findKind } from '../components'
import type { Component, Estimate, Scenario } from '../estimate'
import { findPlace, placeText } from '../pricing/place'
import { MUTED, overridesOf } from '../pricing/overrides'
import { priceEstimate, type Prices } from '../pricing/price-estimate'

export type Change = Pick<Scenario, 'whole' | 'rows' | 'conditions'>

/** A scenario made of a change, for pricing it. */
export const asScenario = (change: Partial<Change>, id = 'change', name = 'change'): Scenario => ({
  id,
  name,
  whole: {},
  rows: {},
  conditions: [],
  ...change,
})

/** A change on top of what a scenario changes already; where both say something, the later one counts. What must be so adds up. */
export function layer(scenario: Change | null, { whole, rows, conditions }: Change): Change {
  if (!scenario) return { whole, rows, conditions }
  const merged = { ...scenario.rows }
  for (const [id, inputs] of Object.entries(rows)) merged[id] = { ...merged[id], ...inputs }
  // what now holds for the whole must not be hidden by an input of a row that was changed before
  for (const name of Object.keys(whole)) {
    for (const [id, inputs] of Object.entries(merged)) {
      if (rows[id]?.[name] === undefined && name in inputs)
        merged[id] = Object.fromEntries(Object.entries(inputs).filter(([key]) => key !== name))
    }
  }
  return {
    whole: { ...scenario.whole, ...whole },
    rows: Object.fromEntries(Object.entries(merged).filter(([, inputs]) => Object.keys(inputs).length)),
    conditions: [...new Set([...scenario.conditions, ...conditions])],
  }
}

/**
 * The estimate with a scenario's inputs as its own; the scenario goes. A place for everything becomes the estimate's place, and what was
 * replaced there is written into the rows.
 */
export function takeOver(estimate: Estimate, scenarioId: string, prices: Prices): Estimate {
  const scenario = estimate.scenarios.find(s => s.id === scenarioId)
  if (!scenario) return estimate
  const priced = priceEstimate(estimate, prices, scenario)
  const place = scenario.whole.where === undefined ? null : findPlace(scenario.whole.where, estimate, prices.cards)
  const here = place ? { provider: place.card.provider, region: place.region } : { provider: estimate.provider, region: estimate.region }
  const seen = (where: string) => {
    const own = findPlace(where, estimate, prices.cards)
    return own ? placeText(own.card.provider, own.region, here) : where
  }
  const components = estimate.components.map((component): Component => {
    const row = priced.byId.get(component.id)!
    const { [MUTED]: muted, ...overrides } = overridesOf(scenario, findKind(component.kind), component.id)
    const moved = row.notOffered === null ? Object.fromEntries(row.replaced.map(r => [r.field, row.inputs[r.field]!])) : {}
    // the same line of another region has a SKU of its own
    const line: Record<string, string> = row.notOffered === null && row.inputs.sku ? { sku: row.inputs.sku } : {}
    const changed: Record<string, string> = { ...line, ...moved, ...overrides }
    const where = seen(row.inputs.where ?? component.inputs.where ?? '')
    const confirmed = [...new Set([...component.confirmed, ...Object.keys(overrides).filter(name => name !== 'where')])]
    const isSame =
      where === (component.inputs.where ?? '') &&
      Object.entries(changed).every(([name, value]) => component.inputs[name] === value) &&
      muted === undefined
    return isSame
      ? component
      : {
          ...component,
          inputs: { ...component.inputs, ...changed, where },
          confirmed,
          muted: muted === undefined ? component.muted : muted === 'yes',
        }
  })
  const others = estimate.scenarios
    .filter(s => s !== scenario)
    .map((other): Scenario => {
      const at = (inputs: Record<string, string>) => (inputs.where === undefined ? inputs : { ...inputs, where: seen(inputs.where) })
      return {
        ...other,
        whole: at(other.whole),
        rows: Object.fromEntries(Object.entries(other.rows).map(([id, inputs]) => [id, at(inputs)])),
      }
    })
  return { ...estimate, ...here, components, scenarios: others }
}
