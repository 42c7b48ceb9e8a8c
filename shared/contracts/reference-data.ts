import { z } from 'zod'
import { namedRecord } from '../../core/text/named-record'
import { allocationPlanSchema } from '../../core/allocation/plan'
import { rateCardSchema } from '../../core/ratecard/rate-card'
import { day } from './common'
import { personEntry } from './people'

/** People with cost centres, rules and pools. What takes the place of others names the version that it was held against. */
export const organisation = z
  .object({
    people: z.array(personEntry),
    plan: allocationPlanSchema,
    basedOn: z.number().int().optional(),
    /** Leaves closed months to the rules that hold for them. */
    leaveClosed: z.boolean().optional(),
  })
  .superRefine(({ people, plan }, context) => {
    const centres = new Set(plan.centres.map(({ id }) => id))
    const ids = new Set<string>()
    people.forEach(({ id, bound }, index) => {
      if (ids.has(id)) context.addIssue({ code: 'custom', path: ['people', index, 'id'], message: `«${id}» appears twice` })
      ids.add(id)
      bound?.forEach((centre, place) => {
        if (!centres.has(centre))
          context.addIssue({ code: 'custom', path: ['people', index, 'bound', place], message: `there is no cost centre «${centre}»` })
      })
    })
  })
export type Organisation = z.infer<typeof organisation>
/** The same as it is now: what is read here can be sent back. Before there are cost centres the plan is null and its version 0. */
export const organisationState = z.object({ people: z.array(personEntry), plan: allocationPlanSchema.nullable(), version: z.number() })
export type OrganisationState = z.infer<typeof organisationState>
export const organisationLoaded = z.object({ people: z.number(), centres: z.number(), rules: z.number(), version: z.number() })

export const rateCardEntry = z.object({
  provider: z.string(),
  currency: z.string(),
  validFrom: z.string(),
  revision: z.number(),
  prices: z.number(),
  regions: z.array(z.string()),
  who: z.string(),
  loadedAt: z.string(),
})
export type RateCardEntry = z.infer<typeof rateCardEntry>
export const rateCardList = z.object({ cards: z.array(rateCardEntry) })
export const rateCardLoaded = z.object({
  provider: z.string(),
  validFrom: z.string(),
  prices: z.number(),
  replaced: z.boolean(),
  changed: z.boolean(),
  revision: z.number(),
})
/** Which version of a card is asked for: the one that holds on a day, or a revision of just that day. */
export const cardAsked = z.object({ date: day.optional(), revision: z.coerce.number().int().positive().max(2_147_483_647).optional() })
export { rateCardSchema }
/** A connection that publishes a rate card: when it was asked last, and how often it is. */
export const cardSchedules = z.object({
  schedules: z.array(
    z.object({ connection: z.string(), everyHours: z.number(), lastAskedAt: z.string().nullable(), lastSaid: z.string().nullable() }),
  ),
})
export const scheduleAsked = z.object({
  everyHours: z
    .number()
    .int()
    .min(0)
    .max(24 * 31),
})
export const cardFetched = z.object({ provider: z.string(), validFrom: z.string(), prices: z.number(), said: z.string() })
export const skusAsked = z.object({ skus: z.array(z.string()).max(5000) })
export const skuWords = z.object({ words: z.string(), charged: z.enum(['existing', 'use']) })
export type SkuWords = z.infer<typeof skuWords>
export const skusDescribed = z.object({ skus: namedRecord(skuWords), revision: z.number() })
/** A card as the lines of a CSV file, by column. */
export const cardTable = z.object({ lines: z.array(z.record(z.string(), z.string())).max(200_000) })
