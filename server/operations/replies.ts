import { z } from 'zod'

/** What was changed or made. */
export const id = z.object({ id: z.string() })
export const numbered = z.object({ id: z.number() })
