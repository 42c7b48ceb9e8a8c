import type { RateCard } from '../../ratecard/rate-card'
import type { Estimate, Scenario } from '../estimate'
import { findPlace, placeText } from '../place'
import { inputsAt, type Replaced } from './equivalent'

/**
 * A scenario in which everything stands at another place. Rows that need no card stay where they are. @returns with it, by row, what had
 * to be replaced because the place does not offer it.
 */
export function moveScenario(estimate: Estimate, cards: ReadonlyMap<string, RateCard>, to: { provider: string, region: string }, id: string, name: string): { scenario: Scenario, replaced: Record<string, Replaced[]> } {
  const where = placeText(to.provider, to.region, estimate)
  const place = findPlace(where, estimate, cards)
  const rows: Scenario['rows'] = {}
  const replaced: Record<string, Replaced[]> = {}
  for (const { id: row, kind, inputs } of estimate.components) {
    const from = findPlace(inputs.where ?? '', estimate, cards)
    if (!from || !place) continue
    const moved = inputsAt(kind, inputs, from, place)
    if (moved.replaced.length) {
      rows[row] = moved.inputs
      replaced[row] = moved.replaced
    }
  }
  return { scenario: { id, name, whole: { where }, rows }, replaced }
}
