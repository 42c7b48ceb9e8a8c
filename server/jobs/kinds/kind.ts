import type { z } from 'zod'
import type { JobProgress } from '../../../shared/contracts/jobs'
import type { Db } from '../../db/database'
import type { Tools } from '../../use-cases/work'

/** Who asks for what runs by itself. */
export const SCHEDULE = 'the schedule'

/** What a job works with while it runs. */
export type Run = {
  services: Tools
  /** Who asked for it; `SCHEDULE` where nobody did. */
  who: string
  /** The same for everything of this turn, however often it is taken up: goes with what is done outside. */
  key: string
  /** Aborted when it is wanted to stop, or another process has taken the job up. */
  signal: AbortSignal
  /**
   * Notes what is about to be done outside, in words that follow «whether», such as `the mail to … was sent`. Nothing is done outside
   * without it.
   * @throws JobLost when it must not be done any more.
   */
  about: (what: string) => Promise<void>
  progress: (progress: JobProgress) => void
}

/** What came of a run: in words, which are the job's outcome, and whether nothing goes on before a person has seen to it. */
export type Done<R> = { said: string; result: R; needsPerson?: boolean }

/** One kind of thing that runs by itself or takes long. */
export type JobKind<A, R = void> = {
  kind: string
  /** What it does, in words. */
  does: string
  argument: z.ZodType<A>
  /** Whether it may be stopped while it runs. */
  stops: boolean
  /** Whether many may run at once in a process, since they wait for each other by themselves. */
  queues?: boolean
  /** Whether it is done once: what came of it stands where the thing is, and the job goes when it has ended. */
  once?: boolean
  /** What it is about, and the page where that is changed. */
  describe(argument: A, db: Db): Promise<{ about: string; page: string | null }>
  /** Does it. What it throws is why it failed. */
  run(argument: A, run: Run): Promise<Done<R>>
  /**
   * Finds out what became of what a process was doing when it ended, and does nothing: it is never taken up by itself. Without it a job is
   * taken up, or, where it was about to act outside, nobody knows what became of that.
   */
  findOut?(argument: A, run: Run): Promise<string>
  /** Notes where it matters that it was given up for good. */
  givenUp?(argument: A, services: Tools, why: string): Promise<void>
}

/** A kind whose argument was read by its own contract. */
export type AnyJobKind = JobKind<unknown, unknown>
