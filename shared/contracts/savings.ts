import { z } from 'zod'
import { deeds, type Deed } from '../../core/opportunity/deeds'
import { namedRecord } from '../../core/text/named-record'
import type { Working } from '../../core/working/working'
import { amountText, day } from './common'

/**
 * Where an action stands: approved; sent, with no answer yet; sent, and nobody knows what became of it; done; not done, with what it rests
 * on as it was; or its approval has lapsed, since that does not hold any more.
 */
export const actionState = z.enum(['approved', 'sent', 'not known', 'done', 'failed', 'lapsed'])
export type ActionState = z.infer<typeof actionState>
export const actionStep = z.object({ at: z.string(), who: z.string(), what: z.string(), outcome: z.string() })
export type ActionStep = z.infer<typeof actionStep>
/** `gone`: it was acted on in vain, and is found no more. */
export const opportunityState = z.enum(['spotted', 'under way', 'done', 'gone'])
export type OpportunityState = z.infer<typeof opportunityState>

export const opportunityView = z.object({
  id: z.string(),
  state: opportunityState,
  foundAt: z.string(),
  detector: z.string(),
  title: z.string(),
  resourceId: z.string(),
  resourceName: z.string(),
  provider: z.string(),
  region: z.string(),
  subAccountName: z.string(),
  tags: namedRecord(z.string()),
  currency: z.string(),
  monthlySaving: amountText,
  hourlyPrice: amountText,
  working: z.custom<Working>(value => typeof value === 'object' && value !== null && 'op' in value),
  minutesOfWork: z.number(),
  evidence: z.object({
    from: day,
    to: day,
    series: z.array(
      z.object({
        label: z.string(),
        unit: z.string(),
        days: z.array(z.object({ day, value: z.number() })),
        threshold: z.object({ value: z.number(), label: z.string() }).nullable(),
        said: z.string(),
      }),
    ),
  }),
  /** What its action would do to what, in words: `delete`, `gateway`. */
  deed: z.enum(Object.keys(deeds) as [Deed, ...Deed[]]),
  noun: z.string(),
  /** From allocation: whom the resource lands on; null when no rule catches it. */
  centre: z.string().nullable(),
  owner: z.string().nullable(),
  action: z
    .object({
      state: actionState,
      approvedBy: z.string(),
      approvedAt: z.string(),
      doneAt: z.string().nullable(),
      tries: z.number(),
      steps: z.array(actionStep),
    })
    .nullable(),
})
export type OpportunityView = z.infer<typeof opportunityView>

export const ledgerLine = z.object({
  id: z.string(),
  resourceName: z.string(),
  doneAt: z.string(),
  approvedBy: z.string(),
  currency: z.string(),
  promisedMonthly: amountText,
  /** The last day the bill reaches since; null while it reaches none. */
  seenTo: day.nullable(),
  promised: amountText.nullable(),
  seen: amountText.nullable(),
  workings: z.object({ costBefore: amountText, hoursBefore: amountText, costSince: amountText, hoursSince: z.number() }).nullable(),
})
export type LedgerLine = z.infer<typeof ledgerLine>

export const savingsState = z.object({
  connected: z.boolean(),
  /** What is open, a sentence to a detector. */
  said: z.array(z.string()),
  opportunities: z.array(opportunityView),
  ledger: z.array(ledgerLine),
  revision: z.number(),
})
export type SavingsState = z.infer<typeof savingsState>

export const actionPreview = z.object({ id: z.string(), steps: z.array(z.string()), undo: z.string(), stillThere: z.boolean() })
export type ActionPreview = z.infer<typeof actionPreview>

export const dayPassed = z.object({ now: z.string(), importIds: z.array(z.string()) })
