import { eq, sql } from 'drizzle-orm'
import { nextDue, type Every } from '../../core/time/rhythm'
import type { JobChange, JobProgress, JobState } from '../../shared/contracts/jobs'
import type { Database, Db } from '../db/database'
import { job } from '../db/schema'

export type StoredJob = typeof job.$inferSelect
/** What a job is made from. Made again under the same name it keeps its history. */
export type NewJob = {
  kind: string
  name: string
  argument: object
  every: Every | null
  /** An instant; null for only when someone asks. */
  due: string | null
  tell: string
  pauseSeconds?: number
  place?: string
}
/** How a job ended; where it comes round again, when. */
export type Ended = { state: Exclude<JobState, 'waiting' | 'running'>; outcome: string }

/** A job is left alone after so many processes in a row have ended while they did it: it may be what ends them. */
export const MOST_TAKEN_UP = 3
const LONGEST_PAUSE_SECONDS = 86_400

/** An instant as ISO 8601 has it, of a text of the database. */
const iso = (text: string) => new Date(text).toISOString()

/** Makes a job, or gives one of that name another argument, rhythm and time. */
export async function putJob(
  db: Pick<Db, 'insert'>,
  { kind, name, argument, every, due, tell, pauseSeconds, place = undefined }: NewJob,
): Promise<void> {
  const now = { kind, argument, every, due, roundDue: due, tell, ...(pauseSeconds !== undefined && { pauseSeconds }), place: place ?? null }
  await db
    .insert(job)
    .values({ name, ...now })
    .onConflictDoUpdate({ target: job.name, set: now })
}

export async function findJob(db: Pick<Db, 'select'>, name: string): Promise<StoredJob | undefined> {
  return (await db.select().from(job).where(eq(job.name, name)))[0]
}

export async function findJobById(db: Db, id: number): Promise<StoredJob | undefined> {
  return (await db.select().from(job).where(eq(job.id, id)))[0]
}

export async function listJobs(db: Db): Promise<StoredJob[]> {
  return db.select().from(job).orderBy(job.id)
}

/** The jobs of a kind by their names. */
export async function jobsOf(db: Pick<Db, 'select'>, kind: string): Promise<Map<string, StoredJob>> {
  return new Map((await db.select().from(job).where(eq(job.kind, kind))).map(row => [row.name, row]))
}

/** Lets a job come at once; the round that it comes by itself stays as it was. */
export async function dueNow(db: Pick<Db, 'update'>, name: string): Promise<void> {
  await db
    .update(job)
    .set({ due: sql`now()` })
    .where(eq(job.name, name))
}

export async function removeJob(db: Pick<Db, 'delete'>, name: string): Promise<void> {
  await db.delete(job).where(eq(job.name, name))
}

/** Changes what can be changed of a job; one whose rhythm changes is due a round from now. */
export async function changeJob(db: Db, id: number, { every, paused, pauseSeconds, tell }: JobChange): Promise<StoredJob | undefined> {
  const now = new Date().toISOString()
  const due = every === undefined ? undefined : every === null ? null : nextDue(every, now, now)
  await db
    .update(job)
    .set({
      ...(every !== undefined && { every, due: due!, roundDue: due! }),
      ...(paused !== undefined && { paused }),
      ...(pauseSeconds !== undefined && { pauseSeconds }),
      ...(tell !== undefined && { tell }),
      kind: sql`${job.kind}`, // there is always something to set
    })
    .where(eq(job.id, id))
  return findJobById(db, id)
}

/**
 * Brings what is due further off than its rhythm can have put it to now: a clock was ahead when it was, and is not any more. @returns how
 * many.
 */
export async function mendDue(db: Db): Promise<number> {
  const round = sql`(((${job.every} ->> 'count') || ' ' || (${job.every} ->> 'unit'))::interval)`
  const rows = await db
    .update(job)
    .set({ due: sql`now()`, roundDue: sql`now()` })
    .where(sql`${job.every} is not null and ${job.claimedBy} is null and ${job.due} > now() + 2 * ${round} + interval '1 hour'`)
    .returning({ id: job.id })
  return rows.length
}

/** A lease is never longer than so many of a claimer's own: one that is was given by a clock that was ahead. */
const LONGEST_LEASES = 10

/** Who claims: the process, the data folder it works on, how long without a sign of life it is believed to be there. */
export type Claimer = { process: string; place: string; leaseSeconds: number }
/** A job that was claimed; `takenUp` when another process had it and its lease has ended. */
export type Claimed = StoredJob & { takenUp: boolean }

/**
 * Claims one job that is due, or that was claimed by a process whose lease has ended. Two that claim at once get two jobs, or one of them
 * none.
 * @param kinds the kinds to choose among. @param name one job whether it is due or not, unless someone is at it.
 */
export async function claimJob(
  db: Db,
  { process, place, leaseSeconds }: Claimer,
  kinds: readonly string[],
  name?: string,
): Promise<Claimed | null> {
  const longest = sql`make_interval(secs => ${LONGEST_LEASES * leaseSeconds})`
  const left = sql`(claimed_by <> ${process} and (lease_until < now() or lease_until > now() + ${longest}))`
  const free = name === undefined ? sql`(claimed_by is null and due <= now() and not paused)` : sql`(claimed_by is null)`
  const one = name === undefined ? sql`true` : sql`name = ${name}`
  const { rows } = await db.execute<{ id: number; left_by: string | null }>(sql`
    with next as (
      select id, claimed_by from job
      where kind in (${sql.join(
        kinds.map(kind => sql`${kind}`),
        sql`, `,
      )}) and (place is null or place = ${place}) and ${one} and (${free} or ${left})
      order by due nulls first, id limit 1 for update skip locked
    )
    update job set claimed_by = ${process}, lease_until = now() + make_interval(secs => ${leaseSeconds}), state = 'running', key = coalesce(job.key, gen_random_uuid()),
      left_behind = left_behind + case when next.claimed_by is null then 0 else 1 end
    from next where job.id = next.id returning job.id, next.claimed_by as left_by`)
  const claimed = rows[0]
  if (!claimed) return null
  return { ...(await findJobById(db, claimed.id))!, takenUp: claimed.left_by !== null }
}

/** Gives a sign of life for what a process has claimed. @returns the jobs it still has, and which of them are wanted to stop. */
export async function keepClaims(db: Db, { process, leaseSeconds }: Claimer): Promise<Map<number, { stopWanted: boolean }>> {
  const rows = await db
    .update(job)
    .set({ leaseUntil: sql`now() + make_interval(secs => ${leaseSeconds})` })
    .where(eq(job.claimedBy, process))
    .returning({ id: job.id, stopWanted: job.stopWanted })
  return new Map(rows.map(({ id, stopWanted }) => [id, { stopWanted }]))
}

const stillOurs = ({ id, key }: Pick<StoredJob, 'id' | 'key'>, process: string) =>
  sql`${job.id} = ${id} and ${job.claimedBy} = ${process} and ${job.key} = ${key}`

/**
 * Notes what is about to be done outside, before it is. @returns false when the claim was lost or it is wanted to stop: then it must not be
 * done.
 */
export async function noteStep(db: Db, claimed: StoredJob, process: string, what: string): Promise<boolean> {
  const rows = await db
    .update(job)
    .set({ step: { what, at: new Date().toISOString() } })
    .where(sql`${stillOurs(claimed, process)} and not ${job.stopWanted}`)
    .returning({ id: job.id })
  return rows.length > 0
}

export async function noteProgress(db: Db, claimed: StoredJob, process: string, progress: JobProgress): Promise<void> {
  await db.update(job).set({ progress }).where(stillOurs(claimed, process))
}

/** What was done less than this before its time is not done again at its time. */
const JUST_DONE_MS = 3_600_000

/**
 * When a job is to be done next after it ended: by its rhythm, or sooner after a try in vain, the longer the more there were. What a person
 * has run shortly before its time counts for it.
 */
export function dueNext(
  { every, due, roundDue, pauseSeconds, attempts }: Pick<StoredJob, 'every' | 'due' | 'roundDue' | 'pauseSeconds' | 'attempts'>,
  state: Ended['state'],
  now: string,
): { due: string | null; roundDue: string | null } {
  if (!every) return { due: null, roundDue: null }
  const from = iso(roundDue ?? due ?? now)
  const later = (moment: string) => (Date.parse(from) > Date.parse(moment) ? from : nextDue(every, from, moment))
  const isOften = every.unit === 'minute' || every.unit === 'hour'
  if (state !== 'failed') {
    // what was let come sooner beside its rounds counts for none of them
    const isBeside = attempts === 0 && due !== null && iso(due) < from
    const round = isBeside
      ? later(now)
      : isOften
        ? nextDue(every, from, now)
        : later(new Date(Date.parse(now) + JUST_DONE_MS).toISOString())
    return { due: round, roundDue: round }
  }
  const round = later(now)
  const pause = Math.min(pauseSeconds * 2 ** Math.min(attempts, 20), LONGEST_PAUSE_SECONDS)
  const again = new Date(Date.parse(now) + pause * 1000).toISOString()
  return { due: again < round ? again : round, roundDue: round }
}

/** Ends a claimed job. @returns false when the claim was lost: what was to be noted is another's to say. */
export async function endJob(db: Db, claimed: StoredJob, process: string, { state, outcome }: Ended): Promise<boolean> {
  return db.transaction(async tx => {
    const [now] = await tx.select().from(job).where(stillOurs(claimed, process)).for('update')
    if (!now) return false
    const endedAt = new Date().toISOString()
    await tx
      .update(job)
      .set({
        state,
        outcome,
        endedAt,
        ...(state === 'done' && { doneAt: endedAt }),
        ...dueNext(now, state, endedAt),
        attempts: state === 'failed' ? now.attempts + 1 : 0,
        leftBehind: 0,
        claimedBy: null,
        leaseUntil: null,
        key: null,
        step: null,
        progress: null,
        stopWanted: false,
      })
      .where(eq(job.id, now.id))
    return true
  })
}

/** Asks for a job to stop that is under way, or is done once and waits its turn. @returns false when it is neither. */
export async function wantStop(db: Db, name: string): Promise<boolean> {
  const rows = await db
    .update(job)
    .set({ stopWanted: true })
    .where(sql`${job.name} = ${name} and (${job.state} = 'running' or (${job.every} is null and ${job.due} is not null))`)
    .returning({ id: job.id })
  return rows.length > 0
}

/** Ends the leases of processes that worked on a data folder before: whoever has its lock now knows that they are gone. */
export async function releasePlace({ db }: Pick<Database, 'db'>, place: string): Promise<void> {
  await db
    .update(job)
    .set({ leaseUntil: sql`now() - interval '1 second'` })
    .where(sql`starts_with(${job.claimedBy}, ${`${place}/`})`)
}

/** Milliseconds until a job is due or a lease ends; null when nothing is waited for. */
export async function untilNextJob(db: Db, place: string): Promise<number | null> {
  const { rows } = await db.execute<{ ms: number | null }>(sql`
    select (extract(epoch from min(case when claimed_by is null then due else lease_until end) - now()) * 1000)::float8 as ms
    from job where (place is null or place = ${place}) and (claimed_by is not null or (due is not null and not paused))`)
  return rows[0]?.ms ?? null
}
