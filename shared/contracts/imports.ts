import { z } from 'zod'
import { amountText, day } from './common'

export const importState = z.enum(['checking', 'choosing', 'loading', 'loaded', 'refused', 'stopped', 'undone'])
export type ImportState = z.infer<typeof importState>

/** `row` counts records from 1 after the header; null for the whole file. */
export const importError = z.object({
  file: z.string(),
  row: z.number().nullable(),
  column: z.string().nullable(),
  value: z.string().nullable(),
  reason: z.string(),
  mend: z.string(),
})
export type ImportError = z.infer<typeof importError>

export const importPeriod = z.object({
  billingPeriodStart: z.string(),
  currency: z.string(),
  rows: z.number(),
  billedCost: amountText,
  effectiveCost: amountText,
})
export type ImportPeriod = z.infer<typeof importPeriod>

/** What a delivery changed: before and after, per billing period and currency; null before when the period is new. */
export const importChange = z.object({
  billingPeriodStart: z.string(),
  currency: z.string(),
  before: amountText.nullable(),
  after: amountText,
  difference: amountText,
})
export type ImportChange = z.infer<typeof importChange>

export const importFile = z.object({
  name: z.string(),
  bytes: z.number(),
  sha256: z.string(),
  rows: z.number(),
  periods: z.array(importPeriod),
})
export type ImportFile = z.infer<typeof importFile>

/**
 * What counts already for the same time: the same billing account, of another source or under another start of the billing period, with the
 * other accounts of that delivery; or a delivery of the same source that is newer.
 */
export const importOverlap = z.object({
  source: z.string(),
  billingPeriodStart: z.string(),
  billingAccountIds: z.array(z.string()),
  others: z.array(z.string()),
  because: z.enum(['same account', 'newer']).default('same account'),
})
export type ImportOverlap = z.infer<typeof importOverlap>

/** Days that follow one another, the first and the last included. */
export const dayRun = z.tuple([day, day])

/** What a delivery that waits may be decided to, as it is now. */
export const importOptions = z.object({
  meets: z.array(importOverlap),
  /** Other deliveries that wait and meet this one: whichever is chosen last counts. */
  waiting: z.array(z.object({ id: z.string(), source: z.string(), billingPeriodStart: z.string() })),
  /** Days that would have no charges any more if this delivery counted instead. */
  emptyWithThis: z.array(dayRun),
  /** Days that would have none if what counts now stayed. */
  emptyWithOther: z.array(dayRun),
  /** Whether both can count: they have no sub account in common. */
  both: z.boolean(),
})
export type ImportOptions = z.infer<typeof importOptions>

/** What a load looks like against FOCUS: each rule, how many rows break it and the first of them. */
export const conformanceReport = z.object({
  rows: z.number(),
  rules: z.array(
    z.object({
      id: z.string(),
      says: z.string(),
      severity: z.enum(['error', 'warning']),
      since: z.string(),
      rows: z.number(),
      examples: z.array(z.object({ file: z.string(), row: z.number(), value: z.string().nullable() })),
    }),
  ),
  columns: z.object({
    focus: z.array(z.string()),
    own: z.array(z.string()),
    unknown: z.array(z.string()),
    missing: z.array(z.string()),
    empty: z.array(z.string()).optional(),
    meant: z.array(z.object({ name: z.string(), column: z.string() })).optional(),
  }),
})

export const importStatus = z.object({
  id: z.string(),
  source: z.string(),
  state: importState,
  bytesDone: z.number(),
  bytesTotal: z.number(),
  rows: z.number(),
  periods: z.array(importPeriod),
  errorCount: z.number(),
  errors: z.array(importError),
  files: z.array(importFile),
  changes: z.array(importChange),
  warnings: z.array(z.string()),
  message: z.string().nullable(),
  who: z.string(),
  startedAt: z.string(),
  finishedAt: z.string().nullable(),
  overlaps: z.array(importOverlap),
  /** Charges that correct earlier ones, with their own sign. */
  corrections: z.array(importPeriod),
  mapped: z.boolean(),
  /** Whether its charges are the ones that count, and can be taken back to what was there before. */
  canUndo: z.boolean(),
  /** Whether it was taken back and can be loaded again as it is. */
  canRedo: z.boolean().optional(),
  /** Billing periods that would have no charges any more if it were undone. */
  wouldEmpty: z.array(z.object({ source: z.string(), billingPeriodStart: z.string() })).optional(),
  /** What can be decided, while it waits for a choice. */
  options: importOptions.nullable().optional(),
  /** When the delivery was made, as far as anyone said. */
  deliveredAt: z.string().nullable().optional(),
  /** The same sums of the charges that the database has kept, read back; empty until loaded, or for what a later delivery has replaced. */
  inDatabase: z.array(importPeriod),
  conformance: conformanceReport.nullable(),
})
export type ImportStatus = z.infer<typeof importStatus>

export const importAccepted = z.object({ id: z.string() })
export const importQuery = z.object({
  source: z.string().trim().min(1, 'name the source of the delivery').max(80),
  /** What the file is called. */
  file: z.string().min(1).optional(),
  /** Whether the files are read through the mapping kept for the source; else they are FOCUS. */
  mapped: z
    .union([z.boolean(), z.enum(['true', 'false'])])
    .default(false)
    .transform(value => value === true || value === 'true'),
  /** When the delivery was made, where the sender knows: an ISO 8601 instant with its zone. */
  deliveredAt: z.iso.datetime({ offset: true, error: 'use an instant such as 2026-11-23T06:00:00Z' }).optional(),
})

/** Several files of one source dropped together: announced first, then sent one by one. */
export const deliveryStart = z.object({
  source: importQuery.shape.source,
  mapped: z.boolean().default(false),
  deliveredAt: importQuery.shape.deliveredAt,
  /** Whether that time is the files' own. */
  isFileTime: z.boolean().default(false),
  files: z
    .array(z.object({ name: z.string().min(1).max(200), bytes: z.number().int().nonnegative() }))
    .min(1)
    .max(200),
})
export type DeliveryStart = z.infer<typeof deliveryStart>

export const sourceState = z.object({
  source: z.string(),
  lastDay: z.string().nullable(),
  lastLoadedAt: z.string(),
  /** The day after it of which a part is delivered. */
  partialDay: z.string().nullable(),
  /** The first later day on which something begins. */
  laterFrom: z.string().nullable(),
  /** When the newest delivery that counts was made. */
  deliveredAt: z.string().nullable(),
  /** Days between the first and the last that no charge covers: the first runs of them, and how many days there are. */
  missingDays: z.array(dayRun),
  missingCount: z.number(),
  mapped: z.boolean(),
  periods: z.array(importPeriod.extend({ loadId: z.string(), loadedAt: z.string() })),
})
export type SourceState = z.infer<typeof sourceState>
export const sourcesOverview = z.object({
  sources: z.array(sourceState),
  loads: z.array(
    importStatus.omit({ errors: true, inDatabase: true, conformance: true, canUndo: true, canRedo: true, wouldEmpty: true, options: true }),
  ),
})
export type SourcesOverview = z.infer<typeof sourcesOverview>

/** Which counts: the delivery that waits, what counts already, or both. */
export const importChoice = z.object({ use: z.enum(['this', 'other', 'both']) })
/** A step back that leaves billing periods without charges says so: it is carried out with `empty`. */
export const importUndo = z.object({ empty: z.boolean().default(false) })

/** What a restatement moved: sums of the same lines before and after. */
export const movedLines = z.object({
  lines: z.array(
    z.object({
      billingPeriodStart: z.string(),
      currency: z.string(),
      subAccount: z.string().nullable(),
      service: z.string().nullable(),
      sku: z.string().nullable(),
      resource: z.string().nullable(),
      before: amountText,
      after: amountText,
      difference: amountText,
    }),
  ),
  rest: z.number(),
})
export type MovedLines = z.infer<typeof movedLines>
