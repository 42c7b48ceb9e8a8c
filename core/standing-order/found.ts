import type { Day } from '../time/day'

type Amounts = { currency: string; amount: string }[]

/** Who is told to have made a resource: the event as its service told it. */
export type Making = { id: string; at: string; by: string; raw: string | null }

/** What an order finds, with all that is known of it. Amounts are decimal text. */
export type FoundResource = {
  resourceId: string
  name: string
  type: string | null
  provider: string
  region: string | null
  subAccountName: string
  /** The first day it is charged on; null where it is not charged yet. */
  firstDay: Day | null
  /** Whether its provider's charges begin with that day too: it may be any older. */
  isOlder: boolean
  /** What it cost in the last thirty days that are charged, and in all, by currency. */
  costOfMonth: Amounts
  costSoFar: Amounts
  /** Every event that tells of its making, oldest first. */
  makings: Making[]
  /** The person whose it is by the rules of allocation; null where nobody's. */
  owner: string | null
  /** The saving that was found on it, where that was looked for. */
  saving: { id: string; title: string; monthly: string; currency: string } | null
}

/** The day a resource was made: as an event tells, else the first day it is charged; null where that may be long before. */
export const madeOn = ({ makings, firstDay, isOlder }: Pick<FoundResource, 'makings' | 'firstDay' | 'isOlder'>): Day | null =>
  makings[0]?.at.slice(0, 10) ?? (isOlder ? null : firstDay)
