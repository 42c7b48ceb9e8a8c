import type { Day } from '../time/day'
import type { Working } from '../working/working'
import type { MetricName } from '../measured/metrics'
import type { Instruction } from './instruction'
import type { Effect } from './effect'

/** What an inventory says of a resource. */
export type Resource = {
  id: string
  name: string
  /** What it is, such as `gateway`: connectors say which types their inventory, measurements and actions are for. */
  type: string
  region: string
  subAccountName: string
  createdAt: string
  tags: Record<string, string>
}

/** A measured value; `at` is when the hour begins that it is of. */
export type Reading = { at: string; value: number }

/** Something that has happened to a resource, as the service tells it. */
export type OutsideEvent = {
  id: string
  at: string
  resourceId: string
  what: string
  by: string
  /** The record as the service keeps it, word by word, where it tells it. */
  raw?: string | null
}

/** What was charged for a resource on a day: by SKU, meter, unit and currency. Amounts are decimal text. */
export type ResourceCharge = {
  day: Day
  sku: string | null
  meter: string | null
  unit: string | null
  currency: string
  quantity: string
  effectiveCost: string
}

/** What was measured, a value to a day, and what it is held against. */
export type EvidenceSeries = {
  label: string
  unit: string
  days: { day: Day; value: number }[]
  /** What was measured, where it was. */
  metric?: MetricName | undefined
  /** Whether a value is the highest hour of its day; else it is all of the day together. */
  isHighest?: boolean | undefined
  /** What was found where it is below, or not above, this much. */
  threshold: { value: number; label: string } | null
  /** The whole of it in words, such as `Nothing passed in 30 days, measured every hour.` */
  said: string
}

/** What proves an opportunity: measured over days, the end exclusive. */
export type Evidence = { from: Day; to: Day; series: EvidenceSeries[] }

/** What an opportunity rests on: what was measured, or the bill alone. */
export const confidences = ['measured', 'from the bill'] as const
export type Confidence = (typeof confidences)[number]

/** What may go wrong for those who use it. */
export const risks = ['none', 'little', 'some'] as const
export type Risk = (typeof risks)[number]

/** Something that can be saved, with what proves it. Amounts are decimal text in `currency`. */
export type Opportunity = {
  id: string
  detector: string
  title: string
  resourceId: string
  resourceName: string
  /** The service that charges for it; empty where nobody says. */
  service: string
  provider: string
  region: string
  subAccountName: string
  tags: Record<string, string>
  currency: string
  monthlySaving: string
  /** Evaluates to the monthly saving. */
  working: Working
  /** What acting costs once, and how that is made up; null where it costs nothing. */
  oneOff: { amount: string; working: Working } | null
  /** What it does to what is paid, charge by charge: they add up to the monthly saving. */
  effects: Effect[]
  evidence: Evidence
  confidence: Confidence
  risk: Risk
  minutesOfWork: number
  /** What a service can be told to do; nothing where it takes a person. */
  instruction?: Instruction | undefined
}
