import { z } from 'zod'

/** What every pool has, however it is divided. */
export const poolBase = { id: z.string().min(1), name: z.string().min(1) }
