import { z } from 'zod'
import { billChangeKinds } from '../../core/opportunity/bill-change'
import { deeds, type Deed } from '../../core/opportunity/deeds'
import { differenceKinds } from '../../core/opportunity/explained'
import { confidences, risks } from '../../core/opportunity/opportunity'
import { namedRecord } from '../../core/text/named-record'
import type { Working } from '../../core/working/working'
import { amountText, day } from './common'

/**
 * Where an action stands: approved by one and waiting for a second person; approved; sent, with no answer yet; sent, and nobody knows
 * what became of it; done; not done, with what it rests on as it was; or its approval has lapsed, since that does not hold any more.
 */
export const actionState = z.enum(['waiting', 'approved', 'sent', 'not known', 'done', 'failed', 'lapsed'])
export type ActionState = z.infer<typeof actionState>
export const actionStep = z.object({ at: z.string(), who: z.string(), what: z.string(), outcome: z.string() })
export type ActionStep = z.infer<typeof actionStep>
/** Where an opportunity stands by what was found and done through a connection. `gone`: it was acted on in vain, and is found no more. */
export type FoundState = 'spotted' | 'under way' | 'done' | 'gone'
/** What people can decide. */
export const decidedState = z.enum(['agreed', 'under way', 'done', 'set aside'])
export type DecidedState = z.infer<typeof decidedState>
/** `measured`: it is done, and the bill shows what came of it. `gone`: it was agreed or acted on, and is found no more by itself. */
export const opportunityState = z.enum(['spotted', 'agreed', 'under way', 'done', 'measured', 'set aside', 'gone'])
export type OpportunityState = z.infer<typeof opportunityState>
export const opportunityNote = z.object({ at: z.string(), who: z.string(), text: z.string() })
export type OpportunityNote = z.infer<typeof opportunityNote>

const working = z.custom<Working>(value => typeof value === 'object' && value !== null && 'op' in value)

export const opportunityView = z.object({
  id: z.string(),
  state: opportunityState,
  /** When a connection first showed it; null for what the bill says, which is found anew each time. */
  foundAt: z.string().nullable(),
  detector: z.string(),
  title: z.string(),
  resourceId: z.string(),
  resourceName: z.string(),
  provider: z.string(),
  region: z.string(),
  subAccountName: z.string(),
  tags: namedRecord(z.string()),
  currency: z.string(),
  service: z.string(),
  monthlySaving: amountText,
  working,
  oneOff: z.object({ amount: amountText, working }).nullable(),
  /** Twelve months of it, less what it costs once. */
  firstYear: amountText,
  /** What it adds to the best that can be had of all that is open, in the currency of the total; null for what is in none. */
  counted: amountText.nullable(),
  confidence: z.enum(confidences),
  risk: z.enum(risks),
  minutesOfWork: z.number(),
  evidence: z.object({
    from: day,
    to: day,
    series: z.array(
      z.object({
        label: z.string(),
        unit: z.string(),
        days: z.array(z.object({ day, value: z.number() })),
        isHighest: z.boolean().optional(),
        threshold: z.object({ value: z.number(), label: z.string() }).nullable(),
        said: z.string(),
      }),
    ),
  }),
  /** What its action would do to what, in words: `delete`, `gateway`; null where it is done by hand. */
  canDo: z.object({ deed: z.enum(Object.keys(deeds) as [Deed, ...Deed[]]) }).nullable(),
  /** What its owner does, where nothing here can. */
  byHand: z.object({ steps: z.array(z.string()), undo: z.string() }).nullable(),
  decision: z
    .object({
      state: decidedState.nullable(),
      who: z.string(),
      at: z.string(),
      reason: z.string().nullable(),
      lookAgain: day.nullable(),
      due: day.nullable(),
      doneOn: day.nullable(),
      notes: z.array(opportunityNote),
    })
    .nullable(),
  /** It was done, and is found again on days since. */
  cameBack: z.boolean(),
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
      /** What undoing it would do, in words; null where it is not done, or nothing here undoes it. */
      undo: z.string().nullable(),
    })
    .nullable(),
})
export type OpportunityView = z.infer<typeof opportunityView>

export const ledgerLine = z.object({
  id: z.string(),
  /** When it was undone again: it saves until then; null where it was not. */
  undoneAt: z.string().nullable(),
  /** The opportunity that it is of, and by which detector that was found. */
  opportunity: z.string(),
  detector: z.string(),
  resourceName: z.string(),
  doneAt: z.string(),
  approvedBy: z.string(),
  currency: z.string(),
  promisedMonthly: amountText,
  /** What may have come in its place, under another id: from which day on, and its effective cost since. Not taken from what is seen. */
  again: z.array(z.object({ resourceId: z.string(), name: z.string(), subAccount: z.string(), since: day, amount: amountText })),
  /** The snapshots that were taken before it was deleted, and their effective cost since. Not taken from what is seen. */
  snapshots: z.array(z.object({ resourceId: z.string(), name: z.string(), amount: amountText })),
  /** The last day the bill reaches since; null while it reaches none. */
  seenTo: day.nullable(),
  promised: amountText.nullable(),
  /** Seen on the bill: in effective cost, and apart in billed cost. */
  seen: amountText.nullable(),
  seenBilled: amountText.nullable(),
  daysBefore: z.number(),
  daysSince: z.number(),
  /** Why seen is not promised: together what lies between them. */
  differences: z.array(z.object({ kind: z.enum(differenceKinds), amount: amountText })),
  /** By commitment: what the deed left free of it and nobody uses; it is paid all the same and is not in what is seen. */
  unusedCommitments: z.array(z.object({ commitment: z.string(), amount: amountText })),
  /** SKU by SKU: what would have been charged, and what was; null while the bill reaches no day since. */
  workings: z
    .array(
      z.object({
        sku: z.string(),
        words: z.string(),
        unit: z.string().nullable(),
        how: z.enum(['gone', 'less', 'cheaper']),
        /** A commitment paid for it. */
        isCommitted: z.boolean(),
        unitsBefore: amountText,
        costBefore: amountText,
        unitsElse: amountText,
        counterfactual: amountText,
        actual: amountText,
      }),
    )
    .nullable(),
})
export type LedgerLine = z.infer<typeof ledgerLine>

/** A way to find savings: whether it has what it needs, what it goes by and what it has found. */
export const finderView = z.object({
  detector: z.string(),
  label: z.string(),
  from: z.enum(['bill', 'measured', 'connection']),
  /**
   * Of how many resources that it looks at all that it needs is measured, and which of the others cost most; null where it needs nothing.
   */
  coverage: z.object({ measured: z.number(), unmeasured: z.number(), dearest: z.array(z.string()) }).nullable(),
  /** What is missing and how it is given; null where it can look. */
  lacks: z.string().nullable(),
  found: z.number(),
  /** In words, where it has no thresholds that are set. */
  goesBy: z.string().nullable(),
  thresholds: z.array(
    z.object({
      key: z.string(),
      label: z.string(),
      unit: z.string(),
      usual: z.number(),
      least: z.number(),
      most: z.number(),
      options: z.array(z.number()).optional(),
      /** For the company; and by sub account where it is another. */
      value: z.number(),
      bySubAccount: namedRecord(z.number()),
    }),
  ),
})
export type FinderView = z.infer<typeof finderView>

/** What all that is open comes to a month, each amount once. */
export const wholeSaving = z.object({
  currency: z.string().nullable(),
  total: amountText,
  notCounted: z.array(z.object({ id: z.string(), amount: amountText, instead: z.array(z.string()) })),
  /** Without a rate into the currency: in no total. */
  unrated: z.array(z.string()),
  /** Whether no other combination saves more, as far as is known. */
  isBest: z.boolean(),
})

export const savingsState = z.object({
  connected: z.boolean(),
  /** What is open, a sentence to a detector. */
  said: z.array(z.string()),
  opportunities: z.array(opportunityView),
  whole: wholeSaving,
  finders: z.array(finderView),
  ledger: z.array(ledgerLine),
  /** Above which monthly saving together, in the currency of the total, a second person has to approve; null where nobody has to. */
  secondPersonAbove: amountText.nullable(),
  revision: z.number(),
})
export type SavingsState = z.infer<typeof savingsState>

const decidedWords = z.string().trim().min(1, 'write a few words').max(2000)
/** What is decided about some opportunities at once, all or none. */
export const savingsDecision = z
  .strictObject({
    ids: z.array(z.string().min(1).max(600)).min(1, 'name at least one opportunity').max(1000),
    /** `spotted` takes back what was decided. */
    state: z.enum(['spotted', ...decidedState.options]).optional(),
    reason: decidedWords.optional(),
    lookAgain: day.nullable().optional(),
    due: day.nullable().optional(),
    doneOn: day.optional(),
    note: decidedWords.optional(),
  })
  .superRefine((asked, context) => {
    if (asked.state === 'set aside' && asked.reason === undefined)
      context.addIssue({ code: 'custom', path: ['reason'], message: 'say why it is set aside' })
    if (asked.doneOn !== undefined && asked.state !== 'done')
      context.addIssue({ code: 'custom', path: ['doneOn'], message: 'a day is for what is done' })
  })
export type SavingsDecision = z.infer<typeof savingsDecision>

/** Thresholds of detectors in place of those that are set; those that are not named go back to the usual. */
export const thresholdsSet = z.strictObject({
  thresholds: z
    .array(
      z.strictObject({
        detector: z.string().max(100),
        key: z.string().max(100),
        /** Empty for the company. */
        subAccount: z.string().max(500),
        value: z.number(),
      }),
    )
    .max(5000),
})
export type ThresholdsSet = z.infer<typeof thresholdsSet>
/** What would be found with other thresholds: by detector how much, and what comes and goes. */
export const thresholdsPreview = z.object({
  found: z.array(z.object({ detector: z.string(), label: z.string(), now: z.number(), then: z.number() })),
  now: amountText,
  then: amountText,
  currency: z.string().nullable(),
  comes: z.array(z.string()),
  goes: z.array(z.string()),
})
export type ThresholdsPreview = z.infer<typeof thresholdsPreview>

export const actionPreview = z.object({
  id: z.string(),
  steps: z.array(z.string()),
  undo: z.string(),
  /** Why it would be left alone as it stands: who has locked it, or what it is by now; null where nothing speaks against it. */
  why: z.string().nullable(),
})
export type ActionPreview = z.infer<typeof actionPreview>

/** Above which monthly saving together a second person has to approve; null for nobody. */
export const approvalLimit = z.strictObject({
  above: z
    .string()
    .regex(/^\d{1,12}(\.\d{1,4})?$/, 'write an amount from 0 on, such as 500')
    .nullable(),
})

/** Opportunities that are acted on together, one after the other. */
export const actsAsked = z.strictObject({ ids: z.array(z.string().min(1).max(600)).min(1, 'name at least one opportunity').max(1000) })
export type ActsAsked = z.infer<typeof actsAsked>
/** What would be done to each, and why nothing here can; what all that can be done saves a month, each amount once. */
export const actsPreview = z.object({
  items: z.array(
    z.object({
      id: z.string(),
      title: z.string(),
      resourceName: z.string(),
      does: z.string().nullable(),
      undo: z.string().nullable(),
      /** Whether nothing brings it back. */
      isFinal: z.boolean(),
      monthlySaving: amountText,
      currency: z.string(),
      why: z.string().nullable(),
    }),
  ),
  total: amountText,
  currency: z.string().nullable(),
  /** Whether a second person has to approve it. */
  needsSecond: z.boolean(),
})
export type ActsPreview = z.infer<typeof actsPreview>

/** This month's bill to date against the same days of the month before, explained; days as periods, the end exclusive. */
export const billAndSavings = z.object({
  now: z.object({ start: day, end: day }),
  before: z.object({ start: day, end: day }),
  /** So many sources have delivered fewer days: of them, fewer days are compared. */
  behind: z.number(),
  changes: z.array(
    z.object({
      currency: z.string(),
      before: amountText,
      now: amountText,
      parts: z.array(z.object({ kind: z.enum(billChangeKinds), amount: amountText })),
    }),
  ),
})
export type BillAndSavings = z.infer<typeof billAndSavings>

export const dayPassed = z.object({ now: z.string(), importIds: z.array(z.string()) })
