import { z } from 'zod'
import { allocationPlanSchema } from '../../core/allocation/plan'
import { amountText, month } from './common'
import { costMeasure } from './spend'

/** A billing month by one of the costs, in the first tree of cost centres or another. */
export const allocationQuestion = z.object({ month, measure: costMeasure, tree: z.string().optional() })
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
export const unallocatedGroup = z.object({ values, currency: z.string(), amount: amountText, resources: z.number(), count: z.number() })
export type UnallocatedGroup = z.infer<typeof unallocatedGroup>

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
  revision: z.number(),
  version: z.number(),
})
export type Settlement = z.infer<typeof settlement>

export const planState = z.object({ version: z.number(), plan: allocationPlanSchema, who: z.string(), savedAt: z.string() })
export type PlanState = z.infer<typeof planState>
/** The cost centres of the first tree that are for who asks; the uppermost have none above them. */
export const centreList = z.object({
  centres: z.array(z.object({ id: z.string(), name: z.string(), parent: z.string().nullable(), owner: z.string().nullable() })),
})
/** What is saved names the version it was made from, so that two people do not overwrite each other. */
export const planSave = z.object({ basedOn: z.number().int(), plan: allocationPlanSchema })
export const planPreview = z.object({ plan: allocationPlanSchema }).extend(allocationQuestion.shape)
export const planSaved = z.object({ version: z.number() })
