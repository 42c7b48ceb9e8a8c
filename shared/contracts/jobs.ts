import { z } from 'zod'
import { everyUnits, type Every } from '../../core/time/rhythm'

/** `not known` is what a kill or a silence leaves: it may have been done outside, and is not done again by itself. */
export const jobState = z.enum(['waiting', 'running', 'done', 'failed', 'not known', 'stopped'])
export type JobState = z.infer<typeof jobState>

/** How far it is, in its own unit; null of all where that is not known. */
export const jobProgress = z.object({ done: z.number(), of: z.number().nullable(), unit: z.string(), words: z.string().optional() })
export type JobProgress = z.infer<typeof jobProgress>

/** At least a minute, at most two years. */
export const every = z
  .object({ count: z.number().int().min(1).max(1000), unit: z.enum(everyUnits), day: z.number().int().min(1).max(31).optional() })
  .refine(({ count, unit }) => unit !== 'month' || count <= 24, {
    path: ['count'],
    message: 'at most 24 months',
  }) satisfies z.ZodType<Every>

/** Something that runs by itself or takes long. */
export const jobView = z.object({
  id: z.number(),
  kind: z.string(),
  /** What is done, and on what, in words. */
  does: z.string(),
  about: z.string(),
  /** Where one goes to change what it is about; null where there is no such page. */
  page: z.string().nullable(),
  every: every.nullable(),
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
  every: every.nullable().optional(),
  paused: z.boolean().optional(),
  pauseSeconds: z.number().int().min(10, 'at least 10 seconds').max(86_400, 'at most a day').optional(),
  tell: z.string().trim().min(1).max(120).optional(),
})
export type JobChange = z.infer<typeof jobChange>
