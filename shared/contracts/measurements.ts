import { z } from 'zod'

/** What a file is called, so that what is said of it can name it. */
export const measurementsQuery = z.object({ file: z.string().trim().min(1).max(200).default('measurements.csv') })

/** What became of a file of measurements: rows that do not fit are refused by themselves, the others are kept. */
export const measurementsTaken = z.object({
  file: z.string(),
  rows: z.number(),
  refused: z.number(),
  /** The first hundred of the rows that were refused. */
  wrong: z.array(z.object({ line: z.number(), why: z.string() })),
  days: z.number(),
  resources: z.number(),
  /** Resources that are on no bill, and some of them. */
  unknown: z.number(),
  unknownNames: z.array(z.string()),
})
export type MeasurementsTaken = z.infer<typeof measurementsTaken>

/** What can be measured, and what of it came as files. */
export const measurementsState = z.object({
  metrics: z.array(z.object({ metric: z.string(), what: z.string(), unit: z.string(), ofHour: z.enum(['highest', 'sum']) })),
  filed: z.array(z.object({ metric: z.string(), days: z.number(), first: z.string(), last: z.string(), resources: z.number() })),
})
export type MeasurementsState = z.infer<typeof measurementsState>
export const measurementsDropped = z.object({ days: z.number() })
