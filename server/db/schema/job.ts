import { boolean, index, integer, jsonb, pgTable, serial, text, timestamp, uuid } from 'drizzle-orm/pg-core'
import type { Every } from '../../../core/time/rhythm'
import type { JobProgress, JobState } from '../../../shared/contracts/jobs'

const when = (name: string) => timestamp(name, { withTimezone: true, mode: 'string' })

/** What is about to be done outside, noted before it is: where a kill leaves it at that, nobody knows whether it was. */
export type JobStep = { what: string; at: string }

/** What runs by itself or takes long: one row for each, whether it comes round again or is done once. */
export const job = pgTable(
  'job',
  {
    id: serial('id').primaryKey(),
    /** A kind of `server/jobs/kinds`. */
    kind: text('kind').notNull(),
    /** What it is about, as its kind reads it. */
    argument: jsonb('argument').notNull(),
    /** One row for one thing, such as `folder 3`. */
    name: text('name').notNull().unique(),
    /** How often it comes round; null for what is done once, or when someone asks. */
    every: jsonb('every').$type<Every>(),
    /** When it is to be done next; null for not by itself. */
    due: when('due'),
    /** When it is due by its rhythm, where a try in vain is repeated before. */
    roundDue: when('round_due'),
    paused: boolean('paused').notNull().default(false),
    state: text('state').$type<JobState>().notNull().default('waiting'),
    /** The process that does it now, and until when that is believed without a sign of life. */
    claimedBy: text('claimed_by'),
    leaseUntil: when('lease_until'),
    /** Only a process on this data folder can do it: its files lie there. */
    place: text('place'),
    /**
     * The key of what is under way: goes with everything that it does outside, however often it is taken up; a new one each time it is due.
     */
    key: uuid('key'),
    step: jsonb('step').$type<JobStep>(),
    /** Tries in vain since it last ended well. */
    attempts: integer('attempts').notNull().default(0),
    /** Processes in a row that have ended while they did it. */
    leftBehind: integer('left_behind').notNull().default(0),
    /** Seconds between the first try in vain and the next; twice as many after each further one. */
    pauseSeconds: integer('pause_seconds').notNull().default(60),
    progress: jsonb('progress').$type<JobProgress>(),
    stopWanted: boolean('stop_wanted').notNull().default(false),
    outcome: text('outcome'),
    /** When it last ended, well or not; and when it last ended well. */
    endedAt: when('ended_at'),
    doneAt: when('done_at'),
    /** Who is to be told what came of it. */
    tell: text('tell').notNull(),
    madeAt: when('made_at').notNull().defaultNow(),
  },
  table => [index('job_by_due').on(table.due)],
)
