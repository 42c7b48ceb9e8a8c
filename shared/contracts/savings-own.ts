import { z } from 'zod'
import { otherwiseKinds } from '../../core/opportunity/otherwise/offer'
import type { Working } from '../../core/working/working'
import { amountText } from './common'
import { spendScope } from './spend'

const working = z.custom<Working>(value => typeof value === 'object' && value !== null && 'op' in value)
const skuOf = z.object({ provider: z.string().max(200), sku: z.string().max(300) })

/** What would be charged otherwise: a SKU among the charges of a scope; without one the dearest. Its time is the last 30 days delivered. */
export const otherwiseAsked = z.object({
  ...spendScope,
  sku: skuOf.nullable().default(null),
  /** The way that is told resource by resource. */
  way: z.string().max(300).nullable().default(null),
})
export type OtherwiseInput = z.input<typeof otherwiseAsked>

const resourceOtherwise = z.object({
  ...{ resourceId: z.string(), resourceName: z.string(), subAccountName: z.string(), region: z.string() },
  ...{ now: amountText, then: amountText.nullable(), saving: amountText.nullable(), working: working.nullable() },
  ...{ asks: z.array(z.string()), lacks: z.array(z.string()), why: z.string().nullable() },
  owner: z.string().nullable(),
  /** Whether this way was chosen for it. */
  isChosen: z.boolean(),
})
export type ResourceOtherwiseView = z.infer<typeof resourceOtherwise>

const way = z.object({
  ...{ key: z.string(), kind: z.enum(otherwiseKinds), to: z.string(), gives: z.string() },
  ...{ asks: z.array(z.string()), lacks: z.array(z.string()), resources: z.number() },
  ...{ now: amountText, then: amountText },
  /** What it saves a month; null where its cost is not whole, or nothing can be had so. Below zero it costs more. */
  saving: amountText.nullable(),
  /** What it costs then, as a part of what it costs now; null where nothing is compared. */
  share: z.number().nullable(),
  without: z.object({ resources: z.number(), reasons: z.array(z.string()) }),
  each: z.array(resourceOtherwise).nullable(),
  /** For how many resources it was chosen. */
  chosen: z.number(),
})
export type WayView = z.infer<typeof way>

export const otherwiseView = z.object({
  skus: z.array(skuOf.extend({ words: z.string(), currency: z.string(), resources: z.number(), monthly: amountText })),
  /** So many cost less and are not listed. */
  more: z.number(),
  found: skuOf
    .extend({
      ...{ words: z.string(), currency: z.string(), resources: z.number(), now: amountText, underSku: amountText },
      left: z.array(z.object({ resourceId: z.string(), resourceName: z.string(), why: z.string() })),
      ways: z.array(way),
    })
    .nullable(),
})
export type OtherwiseView = z.infer<typeof otherwiseView>

/** A way that is chosen for some resources, or taken back. */
export const otherwiseChoice = otherwiseAsked.extend({
  sku: skuOf,
  way: z.string().max(300),
  resources: z.array(z.string().max(500)).min(1, 'name a resource at least').max(5000),
  isChosen: z.boolean(),
})
export type OtherwiseChoice = z.infer<typeof otherwiseChoice>

export const ownRuleInput = z.object({
  name: z.string().trim().min(1, 'give it a name').max(120),
  ...spendScope,
  above: z
    .string()
    .regex(/^\d{1,12}(\.\d{1,10})?$/, 'write an amount such as 25 or 25.50')
    .describe('effective cost a month, at least'),
  currency: z.string().regex(/^[A-Z]{3}$/, 'use the three-letter code in capitals, such as EUR'),
})
export type OwnRuleInput = z.infer<typeof ownRuleInput>

const ownRuleView = z.object({ id: z.string(), ...ownRuleInput.shape, who: z.string(), at: z.string(), found: z.number() })
export type OwnRuleView = z.infer<typeof ownRuleView>
export const ownRules = z.object({ rules: z.array(ownRuleView) })

/** What a rule would find, before it is kept. */
export const ownRulePreview = z.object({ found: z.number(), monthly: amountText, titles: z.array(z.string()), more: z.number() })
export type OwnRulePreview = z.infer<typeof ownRulePreview>
