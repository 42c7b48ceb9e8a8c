import { z } from 'zod'

/** What a look into a watched folder goes through at most: so many folders deep, so many entries, and so many deliveries taken. */
export const WATCH_LIMITS = { depth: 8, entries: 20_000, deliveries: 100 }
/**
 * What is looked at by itself. `together` says what one delivery of a folder is: each file, replacing what its billing periods had, or
 * all files of a folder (each folder below it by itself), which then may be parts of one billing period.
 */
export const watchInput = z.object({
  source: z.string().trim().min(1).max(80),
  kind: z.enum(['folder', 'connection']),
  place: z.string().trim().min(1).max(500),
  together: z.enum(['file', 'folder']).default('file'),
  everyMinutes: z
    .number()
    .int()
    .min(1)
    .max(60 * 24 * 31),
})
export const watchList = z.object({
  watches: z.array(
    watchInput.extend({ id: z.number(), who: z.string(), lastAskedAt: z.string().nullable(), lastSaid: z.string().nullable() }),
  ),
  /** Inside which folders may be watched. */
  folders: z.array(z.string()),
})
export type Watch = z.infer<typeof watchList>['watches'][number]
