import type { OwnFinds } from '../own/own-finds'
import type { BilledResource } from './billed-resource'

/** What was charged of every resource, each up to the last day that its source has delivered whole. */
export type Bill = {
  resources: readonly BilledResource[]
  /** What people look for of it beside. */
  own: OwnFinds
}
