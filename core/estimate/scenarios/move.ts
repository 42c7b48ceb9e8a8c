import type { RateCard } from '../../ratecard/rate-card'
import { findKind } from '../components'
import { completeInputs, hasPlace } from '../components/kind'
import type { Component, Estimate, Scenario } from '../estimate'
import { keepAsWas } from '../sheet/name-card'
import { findPlace, placeText } from '../pricing/place'
import { inputsElsewhere } from './equivalent'

/**
 * A scenario in which everything stands at another place. What each row is there follows from what it is here whenever it is priced, so
 * that later changes of the row count there too; rows that no rate card prices stay where they are.
 */
export function moveScenario(
  estimate: Pick<Estimate, 'provider' | 'region'>,
  to: { provider: string; region: string },
  id: string,
  name: string,
): Scenario {
  return { id, name, whole: { where: placeText(to.provider, to.region, estimate) }, rows: {}, conditions: [] }
}

/** Where a row of an estimate stands, told from another place. */
function seenFrom(
  where: string,
  estimate: Estimate,
  cards: ReadonlyMap<string, RateCard>,
  to: { provider: string; region: string },
): string {
  const place = findPlace(where, estimate, cards)
  return place ? placeText(place.card.provider, place.region, to) : where
}

/**
 * The estimate at another place of its own: rows without a place of their own go along as the same thing, those with one stay where they
 * are. Scenarios keep meaning the places that they named.
 */
export function relocate(estimate: Estimate, cards: ReadonlyMap<string, RateCard>, to: { provider: string; region: string }): Estimate {
  const place = findPlace(placeText(to.provider, to.region, estimate), estimate, cards)
  const home = findPlace('', estimate, cards)
  if (!place || !home) return { ...estimate, ...to }
  const components = estimate.components.map((component): Component => {
    const kind = findKind(component.kind)
    const where = component.inputs.where ?? ''
    if (!kind || where !== '' || !hasPlace(kind)) {
      const seen = seenFrom(where, estimate, cards, to)
      return seen === where ? component : { ...component, inputs: { ...component.inputs, where: seen } }
    }
    const complete = completeInputs(kind, component.inputs, home.card, home.region)
    const moved = inputsElsewhere(kind, complete, home, place)
    return {
      ...component,
      inputs: keepAsWas(
        component,
        moved.notOffered === null ? moved.inputs : complete,
        completeInputs(kind, component.inputs, place.card, place.region),
      ),
    }
  })
  const scenarios = estimate.scenarios.map((scenario): Scenario => {
    const place = (inputs: Record<string, string>) =>
      inputs.where === undefined ? inputs : { ...inputs, where: seenFrom(inputs.where, estimate, cards, to) }
    return {
      ...scenario,
      whole: place(scenario.whole),
      rows: Object.fromEntries(Object.entries(scenario.rows).map(([row, inputs]) => [row, place(inputs)])),
    }
  })
  return { ...estimate, ...to, components, scenarios }
}

/** Inputs of one row moved to another place: the same thing there, or the inputs as they are where it is not offered. */
export function rowAt(component: Component, where: string, estimate: Estimate, cards: ReadonlyMap<string, RateCard>): Component {
  const kind = findKind(component.kind)
  const [from, to] = [component.inputs.where ?? '', where].map(text => findPlace(text, estimate, cards))
  if (!kind || !from || !to) return { ...component, inputs: { ...component.inputs, where } }
  const complete = completeInputs(kind, component.inputs, from.card, from.region)
  const moved = inputsElsewhere(kind, complete, from, to)
  return {
    ...component,
    inputs: {
      ...keepAsWas(
        component,
        moved.notOffered === null ? moved.inputs : complete,
        completeInputs(kind, component.inputs, to.card, to.region),
      ),
      where,
    },
  }
}
