import { z } from 'zod'
import { orderDefinition } from '../../core/standing-order/definition'
import type { FoundResource } from '../../core/standing-order/found'
import { day } from './common'

export { orderDefinition, type OrderDefinition } from '../../core/standing-order/definition'

/** What started a run. */
export const runCauses = ['person', 'schedule', 'event'] as const
export type RunCause = (typeof runCauses)[number]
/** `braked`: it would have touched too much, and did nothing. `not whole`: it ended before it had come to everything. */
export const runStates = ['running', 'done', 'braked', 'failed', 'not whole'] as const
export type RunState = (typeof runStates)[number]

/**
 * What became of one thing that a run found. In a dry run: `would do`, `would ask`. `asked`: a person chooses. `done before`: the order had
 * done the same to it already.
 */
export const itemStates = [
  'would do',
  'would ask',
  'done',
  'asked',
  'done before',
  'waits',
  'left alone',
  'failed',
  'not known',
  'not begun',
] as const
export type ItemState = (typeof itemStates)[number]

const runItem = z.object({
  found: z.custom<FoundResource>(value => typeof value === 'object' && value !== null && 'resourceId' in value),
  state: z.enum(itemStates),
  /** What is or would be done, in words. */
  does: z.string().nullable(),
  because: z.string(),
  /** What came of it, where something was tried. */
  said: z.string().nullable(),
  /** Whom a person chooses among, with what the tag would say. */
  candidates: z.array(z.object({ person: z.string(), value: z.string() })),
  /** The tag that waits for a choice. */
  key: z.string().nullable(),
})
export type RunItem = z.infer<typeof runItem>

export const orderRunView = z.object({
  id: z.number(),
  order: z.string(),
  isDry: z.boolean(),
  /** Whether it was of what the order is now. */
  isCurrent: z.boolean(),
  cause: z.enum(runCauses),
  who: z.string(),
  beganAt: z.string(),
  endedAt: z.string().nullable(),
  state: z.enum(runStates),
  said: z.string(),
  /** How many are in each state. */
  counts: z.array(z.object({ state: z.enum(itemStates), count: z.number() })),
})
export type OrderRunView = z.infer<typeof orderRunView>
export const orderRunWhole = orderRunView.extend({ items: z.array(runItem) })
export type OrderRunWhole = z.infer<typeof orderRunWhole>

export const orderExceptionView = z.object({
  resourceId: z.string(),
  reason: z.string(),
  until: day.nullable(),
  who: z.string(),
  at: z.string(),
})
export const standingOrderView = z.object({
  id: z.string(),
  definition: orderDefinition,
  isOn: z.boolean(),
  /** Whether what it is now was tried in a dry run: else nothing can start it. */
  isTried: z.boolean(),
  who: z.string(),
  changedAt: z.string(),
  /** When it runs next by itself; null where nothing starts it. */
  nextAt: z.string().nullable(),
  exceptions: z.array(orderExceptionView),
  runs: z.array(orderRunView),
})
export type StandingOrderView = z.infer<typeof standingOrderView>
export const standingOrders = z.object({
  orders: z.array(standingOrderView),
  /** By which detectors savings are found. */
  detectors: z.array(z.object({ detector: z.string(), label: z.string() })),
  people: z.array(z.object({ id: z.string(), name: z.string() })),
})
export type StandingOrders = z.infer<typeof standingOrders>

export const orderSwitch = z.object({ isOn: z.boolean() })
export const orderRunAsked = z.object({
  isDry: z.boolean(),
  /** Once, beyond its brake. */
  beyondBrake: z.boolean().default(false),
})
export type OrderRunAsked = z.infer<typeof orderRunAsked>
export const exceptionAsked = z.object({
  resourceId: z.string().min(1).max(500),
  reason: z.string().trim().min(1, 'say why').max(500),
  until: day.nullable(),
})
export const choiceAsked = z.object({ resourceId: z.string().min(1), person: z.string().min(1) })
