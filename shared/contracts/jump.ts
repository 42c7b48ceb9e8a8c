import { z } from 'zod'

export const jumpQuery = z.object({ q: z.string().trim().min(1).max(200) })
export const jumpFound = z.object({
  kind: z.enum(['sentence', 'value', 'cost centre', 'estimate']),
  id: z.string(),
  name: z.string(),
  beside: z.string().nullable(),
  dimension: z.string().optional(),
  query: z.record(z.string(), z.union([z.string(), z.array(z.string())])).optional(),
})
export type JumpFound = z.infer<typeof jumpFound>
export const jumpReply = z.object({ found: z.array(jumpFound) })
