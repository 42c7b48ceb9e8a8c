import { z } from 'zod'
import { everyUnits, type Every, type EveryUnit } from '../../core/time/rhythm'

/** `not known` is what a kill or a silence leaves: it may have been done outside, and is not done again by itself. */
export const jobState = z.enum(['waiting', 'running', 'done', 'failed', 'not known', 'stopped'])
export type JobState = z.infer<typeof jobState>

/** Stands where nobody is told what came of a job. */
export const NOBODY = 'nobody'

/** How far it is, in its own unit; null of all where that is not known. */
export const jobProgress = z.object({ done: z.number(), of: z.number().nullable(), unit: z.string(), words: z.string().optional() })
export type JobProgress = z.infer<typeof jobProgress>

const everyShape = z.object({
  count: z.number().int().min(1, 'at least 1'),
  unit: z.enum(everyUnits),
  day: z.number().int().min(1).max(31).optional(),
}) satisfies z.ZodType<Every>
/** About two years, and for minutes the 31 days that a watch may be given. */
const MOST: Record<EveryUnit, number> = { minute: 44_640, hour: 17_520, day: 730, week: 104, month: 24 }

/** Something that runs by itself or takes long. */
export const jobView = z.object({
  id: z.number(),
  kind: z.string(),
  /** What is done, and on what, in words. */
  does: z.string(),
  about: z.string(),
  /** Where one goes to change what it is about; null where there is no such page. */
  page: z.string().nullable(),
  every: everyShape.nullable(),
  due: z.string().nullable(),
  paused: z.boolean(),
  state: jobState,
  /** What it was about to do outside when it was last heard of. */
  step: z.string().nullable(),
  attempts: z.number(),
  pauseSeconds: z.number(),
  progress: jobProgress.nullable(),
  outcome: z.string().nullable(),
  endedAt: z.string().nullable(),
  doneAt: z.string().nullable(),
  tell: z.string(),
  /** Whether it can be stopped while it runs. */
  stops: z.boolean(),
})
export type JobView = z.infer<typeof jobView>
export const jobList = z.object({ jobs: z.array(jobView) })

/** What can be changed of a job; what is left out stays. `every: null`: only when someone asks. */
export const jobChange = z.object({
  every: everyShape
    .refine(({ count, unit }) => count <= MOST[unit], { path: ['count'], message: 'is too long: two years at most, 44640 for minutes' })
    .nullable()
    .optional(),
  paused: z.boolean().optional(),
  pauseSeconds: z.number().int().min(10, 'at least 10 seconds').max(86_400, 'at most a day').optional(),
  tell: z.string().trim().min(1).max(120).optional(),
})
export type JobChange = z.infer<typeof jobChange>
