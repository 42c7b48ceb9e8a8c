import type { RateCard } from '../../ratecard/rate-card'
import type { Day } from '../../time/day'
import type { Opportunity } from '../opportunity'

/** What a detector looks with: the provider's prices and the first day that is not measured yet. */
export type DetectorContext = { card: RateCard; today: Day }

/** One way to find savings in what a connector reports. */
export type Detector<Facts> = {
  detector: string
  label: string
  find: (facts: readonly Facts[], context: DetectorContext) => Opportunity[]
  /**
   * Looks once more at what an approved opportunity rests on, with what is measured to this very hour.
   * @returns why it does not hold any more, in words; null where it does.
   */
  whyNot: (approved: Opportunity, facts: Facts, context: DetectorContext) => string | null
}
