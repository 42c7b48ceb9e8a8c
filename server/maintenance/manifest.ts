import { z } from 'zod'

export const BACKUP_FORMAT = 'rain-barrel backup 1'
/** The last part of a backup: what is in it. Its hash is the part after it. */
export const MANIFEST = 'manifest.json'
export const MANIFEST_HASH = 'manifest.sha256'

const part = z.object({ part: z.string(), bytes: z.number(), sha256: z.string() })

/** What a backup is made of: the changes of the schema that it has, its tables in the order in which they can be filled, its segments. */
export const manifestSchema = z.object({
  format: z.literal(BACKUP_FORMAT),
  madeAt: z.string(),
  migrations: z.array(z.string()),
  tables: z.array(part.extend({ name: z.string(), columns: z.array(z.string()), rows: z.number() })),
  segments: z.array(part.extend({ loadId: z.number(), start: z.string(), number: z.number(), rows: z.number() })),
})
export type Manifest = z.infer<typeof manifestSchema>

/** What keeps someone from making, reading or restoring a backup, in words for a person. */
export class MaintenanceFailed extends Error {}
