import { z } from 'zod'
export const actionState = z.enum(['approved', 'sent', 'done', 'failed'])
export type ActionState = z.infer<typeof actionState>
export const actionStep = z.object({ at: z.string(), who: z.string(), what: z.string(), outcome: z.string() })
export type ActionStep = z.infer<typeof actionStep>
