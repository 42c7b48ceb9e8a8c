import { z } from 'zod'
import { allocationPlanSchema } from '../../core/allocation/plan'
import { statementPurposes } from '../../core/allocation/statements/month-statements'
import { namedRecord } from '../../core/text/named-record'
import { amountText, month } from './common'
import { measureMonths, unitCostMonth } from './measures'
import { costMeasure } from './spend'
import { lookup } from './spend-settings'

/** A billing month by one of the costs, in the first tree of cost centres or another. */
export const allocationQuestion = z.object({
  month,
  measure: costMeasure,
  tree: z.string().optional(),
  /** Of a closed month: `today` for its charges as they are now, under the rules that hold for it since; else as it was closed. */
  as: z.enum(['closed', 'today']).optional(),
  /** `none` where uplifts on what ran are not looked at: a month is settled sooner without them. */
  uplifts: z.enum(['none']).optional(),
})
export type AllocationQuestion = z.infer<typeof allocationQuestion>

const values = z.record(z.string(), z.string().nullable())
const statementLine = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('direct'), service: z.string().nullable(), amount: amountText }),
  z.object({
    kind: z.literal('share'),
    pool: z.string(),
    poolId: z.string(),
    label: z.string(),
    amount: amountText,
    /** What the whole pool is; null where that is not for who asks. */
    ofPool: amountText.nullable(),
    /** What cost centres bear of it, and the part of the base; null where that is not for who asks, nothing where it was not kept. */
    base: z.object({ borne: amountText, part: amountText, of: amountText, unit: z.string() }).nullable().optional(),
    note: z.string().nullable(),
  }),
])
export const statement = z.object({
  centre: z.string(),
  currency: z.string(),
  direct: amountText,
  shared: amountText,
  total: amountText,
  lines: z.array(statementLine),
})
export type Statement = z.infer<typeof statement>
export const unallocatedGroup = z.object({
  values,
  currency: z.string(),
  amount: amountText,
  resources: z.number(),
  count: z.number(),
  /** Where it is what is on a pool that cannot be divided in this month: which, and why. */
  pool: z.object({ id: z.string(), name: z.string(), why: z.string() }).optional(),
})
export type UnallocatedGroup = z.infer<typeof unallocatedGroup>

const adjustmentLine = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('direct'), service: z.string().nullable(), amount: amountText }),
  z.object({ kind: z.literal('share'), pool: z.string(), poolId: z.string(), amount: amountText }),
  z.object({ kind: z.literal('unallocated'), amount: amountText }),
])
/** What changes of a month after it was closed; a centre of null is what is unallocated. */
export const adjustment = z.object({
  month,
  centre: z.string().nullable(),
  currency: z.string(),
  cause: z.enum(['charges', 'rules']),
  amount: amountText,
  lines: z.array(adjustmentLine),
})

/** A month that is closed: by which cost, under which rules, by whom. */
export const closedState = z.object({
  month,
  measure: costMeasure,
  version: z.number(),
  /** The version of the rules that its adjustments are reckoned by. */
  settledVersion: z.number(),
  /** What its statements are for; null where it was closed before that was asked. */
  purpose: z.enum(statementPurposes).nullable(),
  who: z.string(),
  closedAt: z.string(),
})
export type ClosedState = z.infer<typeof closedState>

/** What stands beside a settled month. */
const settledBeside = z.object({
  version: z.number(),
  /** Stands for rates, lookups and what else is known beside the charges: another one where any of it has changed. */
  basis: z.string(),
  /** Where the month is closed and this is what was kept of it. */
  closed: closedState.nullable(),
  /** What months closed before come to otherwise now, where this is the month that it arrives in. */
  adjustments: z.array(adjustment),
})
export type SettledBeside = z.infer<typeof settledBeside>

/** An uplift: so many of a unit at a price each (`%`: a share of what they cost); of what is on a pool its part. */
const upliftLine = z.object({
  centre: z.string().nullable(),
  set: z.string(),
  name: z.string(),
  label: z.string(),
  currency: z.string(),
  amount: amountText,
  times: z.object({ quantity: amountText, unit: z.string(), price: amountText }).nullable(),
  pool: z.object({ id: z.string(), name: z.string() }).nullable(),
})

export const settlement = z.object({
  statements: z.array(statement),
  catches: z.array(z.object({ rule: z.string(), currency: z.string(), amount: amountText, count: z.number() })),
  pools: z.array(z.object({ pool: z.string(), currency: z.string(), amount: amountText })),
  unallocated: z.array(unallocatedGroup),
  proof: z.array(
    z.object({
      currency: z.string(),
      bill: amountText,
      direct: amountText,
      shared: amountText,
      unallocated: amountText,
      equal: z.boolean(),
    }),
  ),
  flows: z.array(z.object({ provider: z.string().nullable(), target: z.string().nullable(), currency: z.string(), amount: amountText })),
  /** The organisation's uplifts on what ran, beside the bill: on a cost centre, or (null) on what lies on none. */
  uplifts: z.array(upliftLine).default([]),
  revision: z.number(),
  ...settledBeside.shape,
})
export type Settlement = z.infer<typeof settlement>

export const planState = z.object({ version: z.number(), plan: allocationPlanSchema, who: z.string(), savedAt: z.string() })
export type PlanState = z.infer<typeof planState>
/** The cost centres of the first tree that are for who asks; the uppermost have none above them. */
export const centreList = z.object({
  centres: z.array(z.object({ id: z.string(), name: z.string(), parent: z.string().nullable(), owner: z.string().nullable() })),
})
/** A version that was saved, without its plan. */
export const planVersions = z.object({ versions: z.array(z.object({ version: z.number(), who: z.string(), savedAt: z.string() })) })
export const planAsked = z.object({ version: z.coerce.number().int().positive().max(2_147_483_647).optional() })
/** What is saved names the version it was made from, so that two people do not overwrite each other. */
export const planSave = z.object({
  basedOn: z.number().int(),
  plan: allocationPlanSchema,
  /** Leaves closed months to the rules that hold for them; else what changes of them is adjusted in the first open month. */
  leaveClosed: z.boolean().optional(),
})
/**
 * A plan that is not saved (without one, the one that holds), and lookups and business measures in place of those of their names; a lookup
 * of null stands for none.
 */
export const planPreview = z
  .object({
    plan: allocationPlanSchema.optional(),
    lookups: namedRecord(lookup.nullable()).optional(),
    measures: z.array(measureMonths).max(100).optional(),
  })
  .extend(allocationQuestion.omit({ as: true }).shape)
export type PlanPreview = z.infer<typeof planPreview>
/** Charges that move from one cost centre or pool to another; null for none. */
const moved = z.object({
  from: z.string().nullable(),
  to: z.string().nullable(),
  currency: z.string(),
  amount: amountText,
  count: z.number(),
})
/** What something that is not saved puts elsewhere in a month: in all, and by resource, service and account, the largest first. */
export const movedCharges = z.object({
  ways: z.array(moved),
  charges: z.array(moved.extend({ values })),
  more: z.number(),
  revision: z.number(),
})
export type MovedCharges = z.infer<typeof movedCharges>
export const planSaved = z.object({ version: z.number() })

/** Months that are closed, the newest first; the first open one that adjustments arrive in, and what is left to adjust of which. */
export const closings = z.object({ closed: z.array(closedState), firstOpen: month.nullable() })
export type Closings = z.infer<typeof closings>
/** Whether a month can be closed: what keeps it from that, and what whoever closes it should know. */
export const closingOutlook = z.object({ month, barrier: z.string().nullable(), warnings: z.array(z.string()) })
export type ClosingOutlook = z.infer<typeof closingOutlook>
/** A month is closed as it was looked at: by one of the costs, in a state of the charges and of what is beside them, under a version. */
export const closeMonth = z.object({
  month,
  measure: costMeasure,
  revision: z.number().int(),
  version: z.number().int(),
  basis: z.string().max(100),
  /** What its statements are for. */
  purpose: z.enum(statementPurposes).default('chargeback'),
})
export type CloseMonth = z.output<typeof closeMonth>

/** What a month's statements leave as: a document, a table, or a journal for the ledger. */
export const statementFormat = z.enum(['pdf', 'csv', 'xlsx', 'journal'])
export type StatementFormat = z.infer<typeof statementFormat>
/** The statements of a month; of one cost centre with all below it where it is named. */
export const statementsAsked = allocationQuestion.omit({ as: true, uplifts: true }).extend({ centre: z.string().optional() })
export type StatementsAsked = z.infer<typeof statementsAsked>

/** What stands beside the statements of a month. */
export const statementsBeside = z.object({
  /** The last day that all sources have delivered, where the month is not over: then it is not compared with a whole one. */
  to: z.string().nullable(),
  /** What each cost centre bore of the bill of the month before; null where nothing of that is loaded. */
  before: z.object({ month, totals: z.array(z.object({ centre: z.string(), currency: z.string(), total: amountText })) }).nullable(),
  /** What one of a business measure costs, on the cost centre and all below it; before: in the month before. */
  unitCosts: z.array(
    unitCostMonth.extend({
      centre: z.string(),
      measure: z.string(),
      unit: z.string(),
      currency: z.string(),
      before: z.string().nullable(),
    }),
  ),
})
export type StatementsBeside = z.infer<typeof statementsBeside>
