import { and, eq } from 'drizzle-orm'
import type { JobProgress } from '../../shared/contracts/jobs'
import type { ChargeStore } from '../charges/charge-store'
import type { CubeClient } from '../charges/cube-client'
import type { Database } from '../db/database'
import { load } from '../db/schema'
import { saidOf } from '../problems/fault'
import { JobLost } from '../problems/job-ends'
import { Arrivals } from './arrivals'
import { Choices } from './choices'
import type { Inbox } from './inbox'
import { LoadList } from './load-list'
import { finishLoad, loadIsOpen } from './load-row'
import { LoadSteps } from './load-steps'
import { Reading, type Read, type Running } from './reading'
import { Turn } from './turn'

/** What the job that reads a load is told by and tells. */
type Asked = { signal: AbortSignal; progress: (progress: JobProgress) => void }

/** So often it is looked anew whether anything speaks against a delivery, when other charges come to count meanwhile. */
const MOST_LOOKS = 100

/**
 * Loads deliveries one after the other: read and checked in a process of their own, staged in batches, swapped in by one transaction. The
 * next is read while the one before is swapped in; they are swapped in in the order in which they came. Each is a job, so that what a
 * killed process has begun is read again by the next.
 */
export class Importer {
  readonly arrivals: Arrivals
  readonly choices: Choices
  readonly steps: LoadSteps
  readonly list: LoadList
  readonly #turn: Turn
  readonly #read: Reading
  #running = new Map<number, Running>()
  #reading: Promise<unknown> = Promise.resolve()
  #closed = false

  constructor(
    private readonly database: Database,
    private readonly charges: ChargeStore,
    private readonly cube: CubeClient,
    readonly inbox: Inbox,
    private readonly place: string,
    serverDir: string,
  ) {
    this.#turn = new Turn(cube)
    this.#read = new Reading(charges, inbox, serverDir)
    this.arrivals = new Arrivals(database, charges, inbox, place)
    this.choices = new Choices(database, charges, this.#turn)
    this.steps = new LoadSteps(database, charges, this.#turn)
    this.list = new LoadList(database, charges, cube, this.choices, id => this.#running.get(id))
  }

  /**
   * Reads a load and makes it count, after those that came before. @returns what came of it, in words. @throws JobLost when it was stopped.
   */
  async carryOut(id: number, { signal, progress: report }: Asked): Promise<string> {
    const running: Running = { id, reading: null, stop: false, swapping: false, progress: { bytesDone: 0, rows: 0, errorCount: 0 }, report }
    this.#running.set(id, running)
    const abandon = () => this.stop(String(id))
    signal.addEventListener('abort', abandon)
    if (signal.aborted) abandon()
    const read = this.#reading.then(() => this.#begin(running))
    this.#reading = read.catch(() => {})
    try {
      await this.#turn.take(async () => this.#complete(running, await read))
    } catch (error) {
      if (this.#closed) throw new JobLost('Rain Barrel is ending')
      await this.#fault(id, error as Error)
      throw error
    } finally {
      signal.removeEventListener('abort', abandon)
      this.#running.delete(id)
      if (!this.#closed) {
        this.inbox.clear(id)
        await this.database.db.update(load).set({ place: null }).where(eq(load.id, id))
      }
    }
    const [now] = await this.database.db.select({ state: load.state, rows: load.rows }).from(load).where(eq(load.id, id))
    if (now?.state === 'stopped') throw new JobLost('Stopped before its end. Nothing of it was loaded.')
    return `${now?.state}: ${now?.rows} charges`
  }

  /** Gives up a load that processes end over. */
  async giveUp(id: number, why: string): Promise<void> {
    await this.charges.drop(id)
    await finishLoad(this.database.db, id, 'stopped', `${why} Nothing of it was loaded; the charges loaded before are as they were.`, {
      place: null,
    })
    this.inbox.clear(id)
  }

  /** Asks a load of this process to stop; nothing of it stays. False when it has already ended or is being swapped in. */
  stop(id: string): boolean {
    const running = this.#running.get(Number(id))
    if (!running || running.swapping || this.#closed) return false
    running.stop = true
    if (running.reading) this.#read.endReader()
    return true
  }

  /** Whether a load is under way in this process. */
  has(id: string): boolean {
    return this.#running.has(Number(id))
  }

  /** Waits until everything that has arrived in this data folder has ended. */
  async idle(): Promise<void> {
    const open = and(eq(load.place, this.place), eq(load.arrived, true), loadIsOpen)
    while (this.#running.size || (await this.database.db.select({ id: load.id }).from(load).where(open).limit(1)).length)
      await new Promise(resolve => setTimeout(resolve, 10))
  }

  /** Ends the reading process. What is under way is taken up by the next process. */
  close(): void {
    this.#closed = true
    this.#read.endReader()
  }

  /** Reads and checks a delivery and stages its charges; null when it has ended already. */
  async #begin(running: Running): Promise<Read | null> {
    const [row] = await this.database.db
      .select()
      .from(load)
      .where(and(eq(load.id, running.id), loadIsOpen))
    if (!row) return null
    await this.charges.drop(running.id) // what a process has staged that ended before it had read all
    return this.#read.read(running, row)
  }

  /** Makes the charges of a delivery that was read count, unless something speaks against it. */
  async #complete(running: Running, read: Read | null): Promise<void> {
    if (!read) return
    const { result, staged } = read
    await staged
    if (this.#closed) throw new Error('Rain Barrel is ending')
    if (result === 'stopped' || running.stop) return this.#stopped(running.id)
    if (result.errorCount > 0) {
      await this.charges.drop(running.id)
      await finishLoad(this.database.db, running.id, 'refused', null, {
        rows: result.rows,
        files: result.files,
        errorCount: result.errorCount,
        errors: result.errors,
        conformance: result.conformance,
      })
      return
    }
    running.swapping = true
    for (let looks = 0; looks < MOST_LOOKS; looks++) {
      const seen = this.cube.revision
      const [row] = await this.database.db
        .select({ source: load.source })
        .from(load)
        .where(and(eq(load.id, running.id), loadIsOpen))
      if (!row) return
      const { source } = row
      await this.database.db.update(load).set({ held: result.held }).where(eq(load.id, running.id))
      const meetings = await this.choices.meetings({ id: running.id, source, periodEnds: result.periodEnds })
      if (meetings.length) return this.choices.keepForChoice(running.id, result, meetings)
      if (await this.charges.swapIn(running.id, source, result, [], seen)) return this.#turn.refresh()
      await this.cube.refresh() // other charges have come to count: they may overlap
    }
    throw new Error('other deliveries came to count again and again meanwhile; load it again')
  }

  async #stopped(id: number): Promise<void> {
    await this.charges.drop(id)
    await finishLoad(this.database.db, id, 'stopped', 'Stopped before its end. Nothing of it was loaded.')
  }

  async #fault(id: number, error: Error): Promise<void> {
    const said = saidOf(error, `load ${id}`)
    await this.#read.settled() // what was sent before the failure may still be on its way
    await this.charges.drop(id)
    await finishLoad(
      this.database.db,
      id,
      'stopped',
      `The load failed: ${said}. Nothing of it was loaded; the charges loaded before are as they were.`,
    )
  }
}
