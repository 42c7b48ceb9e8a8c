import type { RateCard } from '../../ratecard/rate-card'
import { findKind } from '../components'
import { completeInputs, hasPlace } from '../components/kind'
import type { Component, Estimate } from '../estimate'
import { findPlace } from '../pricing/place'
import { inputsElsewhere, type Replaced } from '../scenarios/equivalent'

/** A version of a provider's rate card. */
export type CardVersion = { provider: string; date: string; revision: number }

/** The estimate with a version of a provider's rate card named; a provider that it did not have is added. Its inputs stay. */
export function nameCard(estimate: Estimate, card: CardVersion): Estimate {
  const known = estimate.cards.some(c => c.provider === card.provider)
  return {
    ...estimate,
    cards: known ? estimate.cards.map(c => (c.provider === card.provider ? { ...card } : c)) : [...estimate.cards, { ...card }],
  }
}

/**
 * The estimate priced on another version of a provider's card: each row keeps what it is, by meter and variant or by all that is stated of
 * it. @returns with it what had to be replaced, by row; a row that is not offered any more keeps its inputs and is not priced.
 */
export function priceOnCard(
  estimate: Estimate,
  cards: ReadonlyMap<string, RateCard>,
  card: CardVersion,
  body: RateCard,
): { estimate: Estimate; replaced: Record<string, Replaced[]> } {
  const replaced: Record<string, Replaced[]> = {}
  const components = estimate.components.map((component): Component => {
    const kind = findKind(component.kind)
    const from = findPlace(component.inputs.where ?? '', estimate, cards)
    if (!kind || !hasPlace(kind) || from?.card.provider !== card.provider || !body.regions.some(r => r.id === from.region)) return component
    const to = { card: body, region: from.region }
    const complete = completeInputs(kind, component.inputs, from.card, from.region)
    const moved = inputsElsewhere(kind, complete, from, to)
    const inputs = moved.notOffered === null ? moved.inputs : complete
    if (moved.notOffered === null && moved.replaced.length) replaced[component.id] = moved.replaced
    return { ...component, inputs: keepAsWas(component, inputs, completeInputs(kind, component.inputs, body, from.region)) }
  })
  return { estimate: nameCard({ ...estimate, components }, card), replaced }
}

/** Stored inputs, with those written out that would otherwise become another card's default. */
export function keepAsWas(component: Component, wanted: Record<string, string>, asRead: Record<string, string>): Record<string, string> {
  const changed = Object.entries(wanted).filter(([name, value]) => asRead[name] !== value)
  return changed.length ? { ...component.inputs, ...Object.fromEntries(changed) } : component.inputs
}
