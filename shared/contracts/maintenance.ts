import { z } from 'zod'

/** What was read, and what of it is not as it was kept. */
export const checked = z.object({
  read: z.array(z.object({ what: z.string(), count: z.number() })),
  damaged: z.array(z.object({ what: z.string(), mend: z.string() })),
})
export type Checked = z.infer<typeof checked>
