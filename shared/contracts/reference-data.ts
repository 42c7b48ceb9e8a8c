import { z } from 'zod'
import { allocationPlanSchema } from '../../core/allocation/plan'
import { rateCardSchema } from '../../core/ratecard/rate-card'
import { person } from './people'

/** A file of people with the tree of cost centres, its rules and its pool. */
export const organisation = z.object({ people: z.array(person), plan: allocationPlanSchema })
export type Organisation = z.infer<typeof organisation>
export const organisationLoaded = z.object({ people: z.number(), centres: z.number(), rules: z.number(), version: z.number() })

export const rateCardEntry = z.object({ provider: z.string(), currency: z.string(), validFrom: z.string(), prices: z.number(), regions: z.number(), who: z.string(), loadedAt: z.string() })
export type RateCardEntry = z.infer<typeof rateCardEntry>
export const rateCardList = z.object({ cards: z.array(rateCardEntry) })
export const rateCardLoaded = z.object({ provider: z.string(), validFrom: z.string(), prices: z.number(), replaced: z.boolean() })
export { rateCardSchema }
