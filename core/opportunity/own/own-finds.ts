import type { DecimalText } from '../../money/decimal'
import type { TimelessScope } from '../../spend/question'
import type { BilledResource } from '../bill/billed-resource'
import type { OtherwiseContext } from '../otherwise/offer'

/** Something else that somebody chose for a resource: of what it is charged for under a SKU, an offer by its key. */
export type Choice = { provider: string; resourceId: string; sku: string; key: string }

/**
 * A rule of one's own: a Sentence, and how much a resource has to cost in it to be found. What it costs there is what is saved where it
 * goes.
 */
export type OwnRule = {
  id: string
  name: string
  /** What is found, by the conditions of a Sentence; its period is the last 30 days that each source has delivered. */
  scope: TimelessScope
  /** Effective cost a month, at least. */
  above: DecimalText
  /** The currency that it is written in: amounts of others are not held against it. */
  currency: string
}

/** What people look for beside what is always looked for. */
export type OwnAsked = { chosen: readonly Choice[]; rules: readonly OwnRule[] }
export const nothingAsked: OwnAsked = { chosen: [], rules: [] }

/** The same, with what the bill has of it. */
export type OwnFinds = {
  chosen: readonly Choice[]
  /** Rules, with what resources are charged for within the Sentence of each. */
  rules: readonly { rule: OwnRule; within: readonly BilledResource[] }[]
  context: OtherwiseContext
}
