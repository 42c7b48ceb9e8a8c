import { z } from 'zod'
import { estimateSchema } from '../../core/estimate/estimate'
import { patternSchema } from '../../core/estimate/pattern'
import { upliftSetSchema } from '../../core/uplift/uplift-set'
import type { EstimateDocument } from '../../core/estimate/documents/document-types'
import { day, month } from './common'

export const savedEstimate = z.object({
  id: z.string(),
  version: z.number(),
  estimate: estimateSchema,
  who: z.string(),
  savedAt: z.string(),
  name: z.string().nullable(),
})
export type SavedEstimate = z.infer<typeof savedEstimate>
/** Where an estimate is filed. */
export const filing = z.object({ folder: z.string().trim().max(80).default(''), putAway: z.boolean().default(false) })
export type Filing = z.infer<typeof filing>
/** An estimate of the list; one that cannot be read says why, and the others stand. */
export const listedEstimate = savedEstimate.extend({
  estimate: estimateSchema.nullable(),
  title: z.string(),
  problem: z.string().nullable(),
  ...filing.shape,
})
export type ListedEstimate = z.infer<typeof listedEstimate>
export const estimateList = z.object({ estimates: z.array(listedEstimate) })
/** What is saved names the version it was made from; null for a new one. A name makes it a state to come back to. */
export const estimateSave = z.object({
  basedOn: z.number().int().nullable(),
  estimate: estimateSchema,
  name: z.string().trim().min(1).max(120).nullable().default(null),
})
export const estimateSaved = z.object({ id: z.string(), version: z.number() })
export const estimateId = z.string().regex(/^[0-9a-f-]{36}$/, 'not the id of an estimate')
export const versionList = z.object({
  versions: z.array(z.object({ version: z.number(), who: z.string(), savedAt: z.string(), name: z.string().nullable() })),
})
export const versionName = z.object({ name: z.string().trim().min(1, 'give the version a name').max(120) })

export const storedUplift = z.intersection(upliftSetSchema, z.object({ who: z.string(), setAt: z.string() }))
export const upliftList = z.object({ uplifts: z.array(storedUplift) })
export const storedPattern = z.object({ pattern: patternSchema, who: z.string(), savedAt: z.string() })
export const patternList = z.object({ patterns: z.array(storedPattern) })
export const kept = z.object({ id: z.string() })

export const audience = z.enum(['own', 'customer'])
export const exportFormat = z.enum(['csv', 'xlsx', 'pdf'])
export type ExportFormat = z.infer<typeof exportFormat>
/** The scenario that a document is of; null for the estimate as it stands. */
const ofScenario = z.string().max(60).nullable().default(null)
export const exportAsked = z.object({ format: exportFormat, audience, version: z.number().int().positive(), scenario: ofScenario })

/** A version of an estimate; the newest without one. */
export const versionAsked = z.object({
  version: z.coerce
    .number()
    .int()
    .positive()
    .max(2 ** 31 - 1)
    .optional(),
})

/** No link opens for longer, in days after it was made. */
export const LONGEST_LINK_DAYS = 730
export const linkAsked = z.object({ version: z.number().int().positive(), audience, scenario: ofScenario, expiresOn: day })
/** The address is told once, when the link is made. */
export const linkMade = z.object({ id: z.string(), path: z.string() })
export const linkList = z.object({
  links: z.array(
    z.object({
      id: z.string(),
      version: z.number(),
      audience,
      expiresOn: z.string(),
      revokedAt: z.string().nullable(),
      who: z.string(),
      madeAt: z.string(),
      opens: z.boolean(),
    }),
  ),
})
export const sharedDocument = z.object({
  document: z.custom<EstimateDocument>(value => typeof value === 'object' && value !== null && 'audience' in value),
  expiresOn: z.string(),
  madeAt: z.string(),
})

const narrowing = z.record(z.string(), z.array(z.string().nullable()))
/** What ran in a month, within a narrowing of the spend. */
export const usedAsked = z.object({ month, keep: narrowing.default({}), leaveOut: narrowing.default({}) })
export const usedLines = z.object({
  lines: z.array(
    z.object({
      provider: z.string(),
      region: z.string(),
      service: z.string(),
      sku: z.string(),
      resource: z.string().nullable(),
      resourceName: z.string().nullable(),
      quantity: z.string(),
    }),
  ),
  /** List cost of these lines as the bill has it, by currency. */
  listCost: z.array(z.object({ currency: z.string(), amount: z.string() })),
  /** Charges that are no use: purchases, credits, tax, corrections. */
  notUsage: z.number(),
  revision: z.number(),
})
