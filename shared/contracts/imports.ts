import { z } from 'zod'
import { amountText } from './common'

export const importState = z.enum(['checking', 'loading', 'loaded', 'refused', 'stopped'])
export type ImportState = z.infer<typeof importState>

/** `row` counts records from 1 after the header; null for the whole file. */
export const importError = z.object({ file: z.string(), row: z.number().nullable(), column: z.string().nullable(), value: z.string().nullable(), reason: z.string(), mend: z.string() })
export type ImportError = z.infer<typeof importError>

export const importPeriod = z.object({ billingPeriodStart: z.string(), currency: z.string(), rows: z.number(), billedCost: amountText, effectiveCost: amountText })
export type ImportPeriod = z.infer<typeof importPeriod>

/** What a delivery changed: before and after, per billing period and currency; null before when the period is new. */
export const importChange = z.object({ billingPeriodStart: z.string(), currency: z.string(), before: amountText.nullable(), after: amountText, difference: amountText })
export type ImportChange = z.infer<typeof importChange>

export const importFile = z.object({ name: z.string(), bytes: z.number(), sha256: z.string(), rows: z.number(), periods: z.array(importPeriod) })
export type ImportFile = z.infer<typeof importFile>

export const importStatus = z.object({
  id: z.string(), source: z.string(), state: importState, bytesDone: z.number(), bytesTotal: z.number(), rows: z.number(),
  periods: z.array(importPeriod), errorCount: z.number(), errors: z.array(importError),
  files: z.array(importFile), changes: z.array(importChange), warnings: z.array(z.string()), message: z.string().nullable(),
  who: z.string(), startedAt: z.string(), finishedAt: z.string().nullable(),
  /** The same sums asked of the database; empty until loaded, or for what a later delivery has replaced. */
  inDatabase: z.array(importPeriod),
})
export type ImportStatus = z.infer<typeof importStatus>

export const importAccepted = z.object({ id: z.string() })
export const importQuery = z.object({ source: z.string().trim().min(1, 'name the source of the delivery').max(80) })

/** Several files of one source dropped together: announced first, then sent one by one. */
export const deliveryStart = z.object({ source: importQuery.shape.source, files: z.array(z.object({ name: z.string().min(1).max(200), bytes: z.number().int().nonnegative() })).min(1).max(200) })
export type DeliveryStart = z.infer<typeof deliveryStart>

export const sourceState = z.object({
  source: z.string(), lastDay: z.string().nullable(), lastLoadedAt: z.string(),
  periods: z.array(importPeriod.extend({ loadId: z.string(), loadedAt: z.string() })),
})
export type SourceState = z.infer<typeof sourceState>
export const sourcesOverview = z.object({ sources: z.array(sourceState), loads: z.array(importStatus.omit({ errors: true, inDatabase: true })) })
export type SourcesOverview = z.infer<typeof sourcesOverview>
