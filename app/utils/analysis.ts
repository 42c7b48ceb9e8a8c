import type { Assumptions } from '../../core/estimate/documents/assumptions'
import type { Estimate, Scenario } from '../../core/estimate/estimate'
import type { Prices } from '../../core/estimate/pricing/price-estimate'
import type { Simulated } from '../../core/estimate/ranges/simulate'
import type { Closer } from '../../core/estimate/scenarios/close-gap'

/** What the page asks of its worker: prices are told once, then estimates by a number that only grows. */
export type AnalysisTask = { prices: Prices } | { number: number; estimate: Estimate; scenario: Scenario | null }
export type AnalysisReply = { number: number } & (
  | { sizes: Record<string, string | null> }
  | { assumptions: Assumptions }
  | { closers: Closer[] }
  | { drawn: number }
  | { simulated: Simulated | null }
)
