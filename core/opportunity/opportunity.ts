import type { Working } from '../working/working'

/** What a connector's inventory says about a gateway. */
export type GatewayFacts = {
  id: string
  name: string
  region: string
  subAccountName: string
  createdAt: string
  tags: Record<string, string>
}

/** What passed in an hour, in GB. */
export type HourReading = { hour: string; gb: number }

/** Something that can be saved, with what proves it. Amounts are decimal text in `currency`. */
export type Opportunity = {
  id: string
  detector: string
  title: string
  resourceId: string
  resourceName: string
  provider: string
  region: string
  subAccountName: string
  tags: Record<string, string>
  currency: string
  monthlySaving: string
  /** Evaluates to the monthly saving. */
  working: Working
  /** The unit price that the saving rests on, for comparing with the bill afterwards. */
  hourlyPrice: string
  evidence: { from: string; to: string; hoursMeasured: number; gbTotal: string; dailyGb: { day: string; gb: number }[] }
  minutesOfWork: number
}
