import type { Hourly } from '../measured/hourly'
import type { MetricName } from '../measured/metrics'
import type { RateCard } from '../ratecard/rate-card'
import type { Day } from '../time/day'
import type { Bill } from './bill/bill'
import type { BilledResource } from './bill/billed-resource'
import type { BillFinding } from './bill/finding'
import type { Deed } from './deeds'
import type { Opportunity, OutsideEvent, Reading, Resource, ResourceCharge } from './opportunity'

/** What a detector looks at: resources of a type, and what of each over so many days up to now. */
export type Needs = {
  inventory: string
  /** What was measured of it: the metrics, each over its days. */
  measurements?: readonly { metric: string; days: number }[]
  /** What has happened to it. */
  events?: { days: number }
  /** What was charged for it. */
  charges?: { days: number }
}

/** A resource with what a detector needs to know of it; what it does not need is empty. */
export type Facts = {
  resource: Resource
  /** By metric, in the order of time. */
  readings: ReadonlyMap<string, readonly Reading[]>
  events: readonly OutsideEvent[]
  charges: readonly ResourceCharge[]
}

/** What a detector looks with: the provider's prices and the first day that is not measured whole yet. */
export type DetectorContext = { card: RateCard; today: Day }

/** What an opportunity's action does, and how that is said. */
export type DetectorAction = {
  deed: Extract<Deed, 'delete'>
  /** What is done before, at and after the deed, in words. */
  steps: (found: Opportunity) => string[]
  /** Whether and how it can be undone. */
  undo: string
}

/** A figure that decides what is found: it can be set for the company and for a sub account. */
export type Threshold = {
  key: string
  /** Such as `days without use, at least`. */
  label: string
  unit: string
  usual: number
  least: number
  most: number
  /** Where only these can be told apart. */
  options?: readonly number[]
}
/** Thresholds as they are set, by key. */
export type Settings = Readonly<Record<string, number>>

type Common = {
  detector: string
  label: string
  /** How many that are open are spoken of, as a sentence. */
  says: (open: number) => string
}

/** What is found in the bill, for every source, and done by hand. */
type OnBill = Common & {
  thresholds: readonly Threshold[]
  /** What it goes by, in words, where that is no thresholds. */
  goesBy?: string
  /** What its owner does, in words, until it is marked as done, and how it can be undone. */
  byHand: { steps: (found: Opportunity) => string[]; undo: string }
}

/** One way to find savings in the bill alone: what it looks at, finds, and all that is said of it, in one file. */
export type BillDetector = OnBill & {
  from: 'bill'
  /** Gets ready for a bill. @returns what is found of a resource of it, by what the thresholds are set to there. */
  lookThrough: (bill: Bill) => (resource: BilledResource, settings: Settings) => BillFinding[]
}

/** One way to find savings in the bill and in what is measured of its resources, whoever measures. */
export type MeasuredDetector = OnBill & {
  from: 'measured'
  /** What it looks at, such as `machines`. */
  looksAt: string
  /** All that it may need to be measured. */
  metrics: readonly MetricName[]
  /** What of it has to be measured of a resource; null where it has no say on the resource. */
  needsOf: (resource: BilledResource) => readonly MetricName[] | null
  /**
   * Gets ready for a bill. @returns what is found of a resource that all that is needed is measured of, for `FEWEST_MEASURED_HOURS` at
   * least.
   */
  lookThrough: (bill: Bill) => (resource: BilledResource, settings: Settings, measured: (metric: MetricName) => Hourly) => BillFinding[]
}

/** Fewer hours prove nothing: fourteen days. */
export const FEWEST_MEASURED_HOURS = 14 * 24

/** One way to find savings in what connectors report: what it needs, finds and does, and all that is said of it, in one file. */
export type ConnectionDetector = Common & {
  from: 'connection'
  needs: Needs
  /** What it goes by, in words, where it has no thresholds that are set. */
  goesBy: string
  /** @param facts one resource after the other: so many are not held at once. */
  find: (facts: AsyncIterable<Facts> | Iterable<Facts>, context: DetectorContext) => Promise<Opportunity[]>
  /**
   * Looks once more at what an approved opportunity rests on, with what is measured to this very hour.
   * @returns why it does not hold any more, in words; null where it does.
   */
  whyNot: (approved: Opportunity, facts: Facts, context: DetectorContext) => string | null
  action: DetectorAction
  /** Reads evidence that was kept in an earlier form, where there was one. */
  earlierEvidence?: (kept: object) => Opportunity['evidence'] | null
}

/** A way to find savings. */
export type Detector = ThresholdDetector | ConnectionDetector
/** One that goes by thresholds. */
export type ThresholdDetector = BillDetector | MeasuredDetector
