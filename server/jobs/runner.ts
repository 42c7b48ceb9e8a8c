import { randomUUID } from 'node:crypto'
import { conflict, notFound, Problem } from '../problems/problem'
import type { Tools } from '../use-cases/work'
import {
  claimJob,
  endJob,
  findJob,
  findJobById,
  keepClaims,
  mendDue,
  noteStep,
  putJob,
  releasePlace,
  removeJob,
  untilNextJob,
  wantStop,
  type Claimed,
  type Claimer,
  type Ended,
  type StoredJob,
} from '../stores/jobs'
import { carryOut } from './carry-out'
import { jobKinds } from './kinds'
import { endLeftBehind } from './left-behind'
import { progressOf } from './progress'
import { JobLost, JobStopped, NotKnown } from '../problems/job-ends'
import { SCHEDULE, type AnyJobKind, type JobKind, type Run } from './kinds/kind'

const LEASE_SECONDS = 60
/** Jobs that a process does at once, beside those that queue by themselves. */
const AT_ONCE = 4
/** However far off the next job is, it is looked so often, and once in a lease: another process may leave a job behind without a word. */
const LOOK_AT_LEAST_MS = 30_000
const CLOSE_MS = 3000

const fault = (error: unknown) => console.error('jobs could not be looked at; they are looked at again', error)

type Running = { job: StoredJob; kind: AnyJobKind; abort: AbortController; ended: Promise<unknown> }

/**
 * Does the jobs that are due: claims each for this process, gives signs of life while it does it, and notes what came of it. Several
 * processes on one database share the jobs; what a process leaves behind when it ends is taken up once its lease has ended.
 */
export class JobRunner {
  readonly #claimer: Claimer
  readonly #running = new Map<number, Running>()
  readonly #once = new Map<string, Promise<unknown>>()
  #timer: NodeJS.Timeout | null = null
  #beat: NodeJS.Timeout | null = null
  #looking: Promise<void> | null = null
  #lookAgain = false
  #closed = false

  constructor(
    private readonly services: Tools,
    private readonly place: string,
  ) {
    const leaseSeconds = Number(process.env.RAIN_BARREL_LEASE_SECONDS) || LEASE_SECONDS
    this.#claimer = { process: `${place}/${randomUUID()}`, place, leaseSeconds }
  }

  /** Begins: takes up what a process before has left in this data folder, and looks for what is due. */
  async start(): Promise<void> {
    const { database } = this.services
    await releasePlace(database, this.place)
    await database.listen('jobs', told => this.#hear(told))
    this.#beat = setInterval(() => void this.#keep().catch(fault), (this.#claimer.leaseSeconds * 1000) / 3)
    this.#beat.unref()
    this.wake()
  }

  /** Looks at once for what is due. */
  wake(): void {
    if (this.#closed) return
    if (this.#looking) {
      this.#lookAgain = true
      return
    }
    this.#lookAgain = false
    this.#looking = this.#look()
      .catch(fault)
      .finally(() => {
        this.#looking = null
        if (this.#lookAgain) this.wake()
      })
  }

  /** Tells every process to look. */
  async tell(): Promise<void> {
    this.wake()
    await this.services.database.notify('jobs', '')
  }

  /**
   * Does a job now, whether it is due or not, and waits for it.
   * @returns what came of it. @throws what made it fail; Problem when someone is at it.
   */
  async runNow<A, R>(kind: JobKind<A, R>, name: string, who: string): Promise<{ said: string; result: R }> {
    const claimed = await this.#claim(kind.kind, name)
    try {
      return (await this.#run(claimed, who)) as { said: string; result: R }
    } catch (error) {
      if (error instanceof NotKnown) throw new Problem('outside', 'not-known', 'Nobody knows whether it was done', error.message)
      if (error instanceof JobLost) throw conflict('It was not done', error.message)
      throw error
    }
  }

  /**
   * Does what is done once, and waits for it. Asked again while this process does it, it waits for the same.
   * @throws what made it fail; Problem when another process is at it.
   */
  runOnce<A extends object, R>(kind: JobKind<A, R>, name: string, argument: A, who: string): Promise<{ said: string; result: R }> {
    const underWay = this.#once.get(name) as Promise<{ said: string; result: R }> | undefined
    if (underWay) return underWay
    const mine = putJob(this.services.database.db, { kind: kind.kind, name, argument, every: null, due: null, tell: who })
      .then(() => this.runNow(kind, name, who))
      .finally(() => this.#once.delete(name))
    this.#once.set(name, mine)
    return mine
  }

  /** The same of a job by its id, without waiting. */
  async startNow(id: number, who: string): Promise<void> {
    const job = await findJobById(this.services.database.db, id)
    const kind = job && jobKinds.find(known => known.kind === job.kind)
    if (!kind) throw notFound('job', 'It may have been deleted already.')
    this.#run(await this.#claim(kind.kind, job.name), who).catch(() => {}) // stands in the job's row
  }

  /** Claims a job by its name. @throws Problem when there is none, or someone is at it. */
  async #claim(kind: string, name: string): Promise<Claimed> {
    const { db } = this.services.database
    const claimed = await claimJob(db, this.#claimer, [kind], name)
    if (claimed) return claimed
    if (!(await findJob(db, name))) throw notFound('job', 'It may have been deleted already.')
    throw conflict('It is under way already', 'Wait until it has ended: the outcome is listed under Automatic jobs.')
  }

  /** Asks a job to stop, wherever it runs. @returns false when it has ended. */
  async stop(name: string): Promise<boolean> {
    const isAsked = await wantStop(this.services.database.db, name)
    if (isAsked) await this.services.database.notify('jobs', 'stop')
    await this.#keep()
    return isAsked
  }

  async close(): Promise<void> {
    this.#closed = true
    if (this.#timer) clearTimeout(this.#timer)
    if (this.#beat) clearInterval(this.#beat)
    await this.#looking?.catch(() => {})
    // what acts outside is given the time to end; what takes longer is taken up by the next process
    const acting = [...this.#running.values()].flatMap(({ kind, ended }) => (kind.stops ? [] : [ended.catch(() => {})]))
    await Promise.race([Promise.all(acting), new Promise(resolve => setTimeout(resolve, CLOSE_MS).unref())])
    for (const { abort } of this.#running.values()) abort.abort(new JobLost('Rain Barrel is ending'))
    // what is left may be taken up at once
    await releasePlace(this.services.database, this.place)
    await this.services.database.notify('jobs', '')
  }

  async #look(): Promise<void> {
    const { db } = this.services.database
    await mendDue(db)
    for (const isQueue of [true, false]) {
      const kinds = jobKinds.filter(kind => (kind.queues ?? false) === isQueue).map(({ kind }) => kind)
      while (!this.#closed && (isQueue || this.#busy() < AT_ONCE)) {
        const claimed = await claimJob(db, this.#claimer, kinds)
        if (!claimed) break
        this.#run(claimed, SCHEDULE).catch(() => {}) // stands in the job's row
      }
    }
    const ms = this.#busy() < AT_ONCE ? await untilNextJob(db, this.place) : null
    if (this.#closed) return
    if (this.#timer) clearTimeout(this.#timer)
    this.#timer = setTimeout(() => this.wake(), Math.max(50, Math.min(ms ?? Infinity, LOOK_AT_LEAST_MS, this.#claimer.leaseSeconds * 1000)))
    this.#timer.unref()
  }

  #busy(): number {
    return [...this.#running.values()].filter(({ kind }) => !kind.queues).length
  }

  #hear(told: string): void {
    if (told === 'stop') void this.#keep().catch(fault)
    else this.wake()
  }

  /** Gives a sign of life for what is under way, and stops what is wanted to stop or was lost. */
  async #keep(): Promise<void> {
    const running = [...this.#running] // what is claimed meanwhile is not among what is asked for
    const kept = await keepClaims(this.services.database.db, this.#claimer)
    for (const [id, { abort }] of running) {
      const now = kept.get(id)
      if (!now) abort.abort(new JobLost('another process has taken it up'))
      else if (now.stopWanted) abort.abort(new JobStopped('it was stopped'))
    }
  }

  async #run(claimed: Claimed, who: string): Promise<{ said: string; result: unknown }> {
    const { db } = this.services.database
    const kind = jobKinds.find(known => known.kind === claimed.kind)!
    const end = async (ended: Ended) => {
      const isOurs = await endJob(db, claimed, this.#claimer.process, ended)
      // what came of a thing that is done once stands where the thing is
      if (isOurs && kind.once) await removeJob(db, claimed.name)
      return isOurs
    }
    const argument = kind.argument.safeParse(claimed.argument)
    if (!argument.success) {
      await end({ state: 'failed', outcome: 'What it is about cannot be read any more. Take it out and make it anew.' })
      throw new Error(`job ${claimed.name} has an argument that cannot be read`)
    }
    const abort = new AbortController()
    const running: Running = { job: claimed, kind, abort, ended: Promise.resolve() }
    this.#running.set(claimed.id, running)
    if (claimed.stopWanted) abort.abort(new JobStopped('it was stopped'))
    const run: Run = {
      services: this.services,
      who,
      key: claimed.key!,
      signal: abort.signal,
      about: async what => {
        if (!(await noteStep(db, claimed, this.#claimer.process, what))) throw new JobLost('it was stopped or taken up elsewhere')
      },
      progress: progressOf(db, claimed, this.#claimer.process),
    }
    try {
      const isEnded = claimed.takenUp && (await endLeftBehind(claimed, kind, argument.data, run, end))
      if (isEnded) throw new JobLost(isEnded)
      const mine = carryOut(kind, argument.data, run, end, () => this.#closed)
      running.ended = mine
      return await mine
    } finally {
      this.#running.delete(claimed.id)
      this.wake()
    }
  }
}
