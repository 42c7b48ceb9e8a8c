import type { Scenario } from '../estimate'
import type { Figures } from './figures'
import type { PricedComponent } from './price-row'
import type { Step } from './totals'

/** An estimate priced, as it stands or under a scenario. */
export type PricedEstimate = {
  scenario: string | null
  /** What the column changes; null for the rows as they stand. */
  change: Scenario | null
  currency: string
  monthHours: number
  /** Years that the whole term has. */
  termYears: number
  rows: PricedComponent[]
  byId: Map<string, PricedComponent>
  /** What is counted: rows that are priced and not muted. */
  counted: Set<string>
  /** What should be counted and cannot be priced. */
  uncounted: Set<string>
  /** Rows that are muted here, by themselves or by the scenario. */
  muted: Set<string>
  /** The sum of the rows: own cost. */
  cost: Figures
  /** Funding, margin and tax as they come on top, in that order; only those there are. */
  steps: Step[]
  /** Own cost before margin and tax, less funding; then the customer's price; then with tax. */
  total: Figures
  /** How many should be counted and cannot be priced. */
  unpriced: number
}
