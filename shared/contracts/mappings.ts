import { z } from 'zod'
import { mappingSchema } from '../../core/focus/mapping/mapping'
import { importError } from './imports'

/** The beginning of a file that is not FOCUS, and the mapping to look at it through. */
export const mappingPreviewAsked = z.object({
  source: z.string().trim().min(1).max(80),
  name: z.string(),
  text: z.string().max(400_000),
  mapping: mappingSchema.nullable(),
})
export const mappingPreview = z.object({
  mapping: mappingSchema,
  saved: z.boolean(),
  header: z.array(z.string()),
  /** The first rows as they stand in the file. */
  raw: z.array(z.array(z.string())),
  /** The same rows as charges: FOCUS columns, and null where a row is left out. */
  columns: z.array(z.string()),
  rows: z.array(z.array(z.string()).nullable()),
  problems: z.array(importError.omit({ file: true })),
})
export type MappingPreview = z.infer<typeof mappingPreview>
export const mappingSaved = z.object({ source: z.string() })
