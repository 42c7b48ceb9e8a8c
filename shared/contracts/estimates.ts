import { z } from 'zod'
import { estimateSchema } from '../../core/estimate/estimate'

export const savedEstimate = z.object({ id: z.string(), version: z.number(), estimate: estimateSchema, who: z.string(), savedAt: z.string() })
export type SavedEstimate = z.infer<typeof savedEstimate>
export const estimateList = z.object({ estimates: z.array(savedEstimate) })
/** What is saved names the version it was made from; null for a new one. */
export const estimateSave = z.object({ basedOn: z.number().int().nullable(), estimate: estimateSchema })
export const estimateSaved = z.object({ id: z.string(), version: z.number() })
export const estimateId = z.string().regex(/^[0-9a-f-]{36}$/, 'not the id of an estimate')
