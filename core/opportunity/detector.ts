import type { RateCard } from '../ratecard/rate-card'
import type { Day } from '../time/day'
import type { Opportunity, Reading, Resource } from './opportunity'

/** What a detector looks at: resources of a type, and what was measured of each over some days up to now. */
export type Needs = { inventory: string; measurements: { metric: string; days: number } | null }

/** A resource with what was measured of it, as a detector needs it. */
export type Facts = { resource: Resource; readings: readonly Reading[] }

/** What a detector looks with: the provider's prices and the first day that is not measured whole yet. */
export type DetectorContext = { card: RateCard; today: Day }

/** What can be done to a resource from outside; connectors say what they can do to which type. */
export type Deed = 'delete'

/** What an opportunity's action does, and how that is said. */
export type DetectorAction = {
  deed: Deed
  /** What is done before, at and after the deed, in words. */
  steps: (found: Opportunity) => string[]
  /** Whether and how it can be undone. */
  undo: string
  /** What the resource is called in a sentence: `The cloud does not list this … any more`. */
  noun: string
}

/** One way to find savings in what connectors report: what it needs, finds and does, and all that is said of it, in one file. */
export type Detector = {
  detector: string
  label: string
  needs: Needs
  find: (facts: readonly Facts[], context: DetectorContext) => Opportunity[]
  /**
   * Looks once more at what an approved opportunity rests on, with what is measured to this very hour.
   * @returns why it does not hold any more, in words; null where it does.
   */
  whyNot: (approved: Opportunity, facts: Facts, context: DetectorContext) => string | null
  action: DetectorAction
  /** How many that are open are spoken of, as a sentence. */
  says: (open: number) => string
  /** Reads evidence that was kept in an earlier form, where there was one. */
  earlierEvidence?: (kept: object) => Opportunity['evidence'] | null
}
