import type { JobProgress } from '../../shared/contracts/jobs'
import { and, eq, inArray, isNull, ne, sql } from 'drizzle-orm'
import { mergeConformance } from '../../core/focus/conformance'
import { daysLeftEmpty, sharedAccounts } from '../../core/focus/meeting'
import { isoInstant } from '../../core/time/instant'
import type { Mapping } from '../../core/focus/mapping/mapping'
import type { ImportOptions, ImportOverlap, ImportState, ImportStatus } from '../../shared/contracts/imports'
import { dictionaryNames } from '../../core/focus/star'
import type { ChargeStore, Undoing } from '../charges/charge-store'
import type { KnownTexts } from '../charges/entry-ids'
import { mergeSums } from '../charges/sums'
import type { Database, Db } from '../db/database'
import { billingPeriod, job, load, type DeliveredBy } from '../db/schema'
import type { CubeClient } from '../charges/cube-client'
import { saidOf } from '../problems/fault'
import { notFound, Problem } from '../problems/problem'
import { JobLost } from '../problems/job-ends'
import { named } from '../stores/names'
import { findJob, putJob } from '../stores/jobs'
import type { ImportDone, ImportMessage, ImportTask } from './reading-messages'
import type { Inbox } from './inbox'
import { readerLimitMb, ReadingProcess, type ReadingEnd } from './reading-process'
import { holdingsOf, type LoadedPeriod } from './holdings'
import { meetingsOf, newerDeliveries, putSideBySide, type Meeting } from './meetings'

/** A file of a delivery that lies in the inbox. */
export type ArrivedFile = { name: string; bytes: number; sha256: string }
type Progress = { bytesDone: number; rows: number; errorCount: number }
/** What came of reading a delivery, and when all that was read is staged: the next may be read meanwhile. */
type Read = { result: ImportDone | 'stopped'; staged: Promise<unknown> }
/** What the job that reads a load is told by and tells. */
type Underway = { signal: AbortSignal; progress: (progress: JobProgress) => void }
type Running = {
  id: number
  reading: ReadingProcess | null
  stop: boolean
  swapping: boolean
  progress: Progress
  report: Underway['progress']
}
type Listed = Omit<ImportStatus, 'errors' | 'inDatabase' | 'conformance' | 'canUndo' | 'canRedo' | 'wouldEmpty' | 'options'>

/** What a delivery is announced with. */
export type Announced = {
  source: string
  files: readonly { name: string; bytes: number }[]
  who: string
  mapping: Mapping | null
  /** When it was made, and what says so; when it arrives, where nothing does. */
  delivered?: { at: string; by: DeliveredBy }
  /** The key of the job that fetches it, which fetches it once. */
  fetchKey?: string
}

/** A load as a delivery of its source: the hashes of its files, see `deliveryKey`, when it was made, and what came of it. */
export type DeliveredLoad = Pick<typeof load.$inferSelect, 'id' | 'state' | 'deliveredAt' | 'deliveredBy' | 'finishedAt'> & {
  key: string
  /** Whether any billing period has its charges now. */
  counts: boolean
}

/** So often it is looked anew whether anything speaks against a delivery, when other charges come to count meanwhile. */
const MOST_LOOKS = 100

/** The job that reads a load. */
export const loadJob = (id: number | string): string => `load ${id}`

/** Tells deliveries apart by the contents of their files, in whatever order. */
export const deliveryKey = (files: readonly { sha256: string }[]): string =>
  files
    .map(file => file.sha256)
    .sort()
    .join(' ')

const openStates: ImportState[] = ['checking', 'loading']
const loadIsOpen = inArray(load.state, openStates)
const isOpen = (state: ImportState) => openStates.includes(state)

/**
 * Loads deliveries one after the other: read and checked in a process of their own, staged in batches, swapped in by one transaction. The
 * next is read while the one before is swapped in; they are swapped in in the order in which they came. Each is a job, so that what a
 * killed process has begun is read again by the next.
 */
export class Importer {
  #running = new Map<number, Running>()
  #reading: Promise<unknown> = Promise.resolve()
  /**
   * Until all that was read is kept, of whatever delivery. Once it fails, so does all that the same process sends: it may build
   * on what was lost.
   */
  #staging: Promise<unknown> = Promise.resolve()
  #turn: Promise<unknown> = Promise.resolve()
  #reader: ReadingProcess | null = null
  #closed = false

  constructor(
    private readonly database: Database,
    private readonly charges: ChargeStore,
    private readonly cube: CubeClient,
    readonly inbox: Inbox,
    private readonly place: string,
    private readonly serverDir: string,
  ) {}

  /** Puts away what a killed process left in this data folder and nobody can go on with: files that had not all arrived. */
  async recover(): Promise<void> {
    const { db } = this.database
    await db.delete(load).where(and(eq(load.place, this.place), eq(load.arrived, false)))
    // loads that were begun before their files were kept for this
    for (const { id } of await db
      .select({ id: load.id })
      .from(load)
      .where(and(isNull(load.place), loadIsOpen))) {
      await this.charges.drop(id)
      await this.#finish(id, 'stopped', 'Rain Barrel ended during this load. Nothing of it was loaded: drop the files again.')
    }
    const open = await db
      .select({ id: load.id, who: load.who })
      .from(load)
      .where(and(eq(load.place, this.place), loadIsOpen))
    this.inbox.clearAllBut(open.map(({ id }) => id))
    // one whose job has gone, as when the database was away just as it ended, is queued anew
    for (const { id, who } of open) if (!(await findJob(db, loadJob(id)))) await this.#queue(db, id, who)
  }

  /**
   * Makes a load whose files are about to arrive in its folder of the inbox. It is neither read nor shown before `arrived`. @returns its
   * id.
   */
  async announce({ source, files, who, mapping, delivered, fetchKey }: Announced): Promise<number> {
    // whoever fetched it before and was killed, on this data folder or another, has left what nobody will complete
    if (fetchKey) await this.database.db.delete(load).where(and(eq(load.fetchKey, fetchKey), eq(load.arrived, false)))
    const [row] = await this.database.db
      .insert(load)
      .values({
        source,
        who,
        mapping,
        fetchKey: fetchKey ?? null,
        deliveredAt: delivered?.at ?? new Date().toISOString(),
        deliveredBy: delivered?.by ?? 'arrival',
        state: 'checking',
        place: this.place,
        arrived: false,
        files: files.map(({ name, bytes }) => ({ name, bytes, sha256: '', rows: 0, periods: [] })),
      })
      .returning({ id: load.id })
    return row!.id
  }

  /** Queues a load whose files have all arrived. */
  async arrived(id: number, files: readonly ArrivedFile[]): Promise<void> {
    await this.database.db.transaction(async tx => {
      const [row] = await tx
        .update(load)
        .set({ arrived: true, files: files.map(file => ({ ...file, rows: 0, periods: [] })) })
        .where(eq(load.id, id))
        .returning({ who: load.who })
      await this.#queue(tx, id, row!.who)
    })
    await this.database.notify('jobs', '')
  }

  async #queue(db: Pick<Db, 'insert'>, id: number, who: string): Promise<void> {
    const due = new Date().toISOString()
    await putJob(db, { kind: 'load', name: loadJob(id), argument: { load: id }, every: null, due, tell: who, place: this.place })
  }

  /** Forgets a load whose files did not arrive. */
  async forget(id: number): Promise<void> {
    await this.database.db.delete(load).where(and(eq(load.id, id), eq(load.arrived, false)))
    this.inbox.clear(id)
  }

  /** A load that a job has fetched; undefined when it has not yet. */
  async fetched(fetchKey: string): Promise<number | undefined> {
    const [row] = await this.database.db
      .select({ id: load.id })
      .from(load)
      .where(and(eq(load.fetchKey, fetchKey), eq(load.arrived, true)))
    return row?.id
  }

  /**
   * Reads a load and makes it count, after those that came before. @returns what came of it, in words. @throws JobLost when it was stopped.
   */
  async carryOut(id: number, { signal, progress: report }: Underway): Promise<string> {
    const running: Running = { id, reading: null, stop: false, swapping: false, progress: { bytesDone: 0, rows: 0, errorCount: 0 }, report }
    this.#running.set(id, running)
    const abandon = () => this.stop(String(id))
    signal.addEventListener('abort', abandon)
    if (signal.aborted) abandon()
    const read = this.#reading.then(() => this.#begin(running))
    this.#reading = read.catch(() => {})
    const mine = this.#turn.then(async () => this.#complete(running, await read))
    this.#turn = mine.catch(() => {})
    try {
      await mine
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
    await this.#finish(id, 'stopped', `${why} Nothing of it was loaded; the charges loaded before are as they were.`, { place: null })
    this.inbox.clear(id)
  }

  /** Asks a load of this process to stop; nothing of it stays. False when it has already ended or is being swapped in. */
  stop(id: string): boolean {
    const running = this.#running.get(Number(id))
    if (!running || running.swapping || this.#closed) return false
    running.stop = true
    if (running.reading) this.#endReader()
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

  async status(id: string): Promise<ImportStatus | null> {
    if (!/^\d{1,9}$/.test(id)) return null
    const { db } = this.database
    const [row] = await db
      .select(named(load))
      .from(load)
      .where(eq(load.id, Number(id)))
    if (!row) return null
    const status = this.#statusOf(row, await this.#reported([row]))
    const current = await db.select({ start: billingPeriod.start }).from(billingPeriod).where(eq(billingPeriod.loadId, row.id))
    const chunks = current.map(({ start }) => ({ source: row.source, billingPeriodStart: isoInstant(start) }))
    const inDatabase = status.state === 'loaded' && current.length ? (await this.cube.within(null).ask('sums', chunks)).result : []
    return {
      ...status,
      errors: row.errors,
      inDatabase,
      conformance: row.conformance,
      options: status.state === 'choosing' ? await this.#options(row) : null,
      ...(await this.#steps(row.id, status.state)),
    }
  }

  /** Whether a load can be taken back or brought forth now, and what that would leave empty. */
  async #steps(id: number, state: ImportState): Promise<Pick<ImportStatus, 'canUndo' | 'canRedo' | 'wouldEmpty'>> {
    const undoing = state === 'loaded' ? await this.charges.undoing(id) : null
    const redoing = state === 'undone' ? await this.charges.redoing(id) : null
    return { canUndo: undoing !== null, canRedo: redoing !== null, wouldEmpty: undoing ? emptied(undoing) : [] }
  }

  async recent(limit: number): Promise<Listed[]> {
    const { errors: _, conformance: __, ...columns } = named(load)
    const rows = await this.database.db
      .select(columns)
      .from(load)
      .where(eq(load.arrived, true))
      .orderBy(sql`${load.id} desc`)
      .limit(limit)
    const reported = await this.#reported(rows)
    return rows.map(row => this.#statusOf(row, reported))
  }

  /** What a source has delivered, the newest first. */
  async delivered(source: string): Promise<DeliveredLoad[]> {
    const { db } = this.database
    const [rows, counting] = await Promise.all([
      db
        .select()
        .from(load)
        .where(eq(load.source, source))
        .orderBy(sql`${load.id} desc`),
      db.select({ loadId: billingPeriod.loadId }).from(billingPeriod).where(eq(billingPeriod.source, source)),
    ])
    const counts = new Set(counting.map(({ loadId }) => loadId))
    return rows.map(({ id, state, files, deliveredAt, deliveredBy, finishedAt }) => ({
      id,
      state,
      key: deliveryKey(files),
      deliveredAt,
      deliveredBy,
      finishedAt: finishedAt && isoInstant(finishedAt),
      counts: counts.has(id),
    }))
  }

  /** Ends the reading process. What is under way is taken up by the next process. */
  close(): void {
    this.#closed = true
    this.#endReader()
  }

  /** How far the loads are that other processes read. */
  async #reported(rows: readonly Pick<typeof load.$inferSelect, 'id' | 'state'>[]): Promise<Map<number, number>> {
    const names = rows.filter(({ id, state }) => isOpen(state) && !this.#running.has(id)).map(({ id }) => loadJob(id))
    if (!names.length) return new Map()
    const jobs = await this.database.db.select({ name: job.name, progress: job.progress }).from(job).where(inArray(job.name, names))
    return new Map(jobs.map(({ name, progress }) => [Number(name.split(' ')[1]), progress?.done ?? 0]))
  }

  #statusOf(row: Omit<typeof load.$inferSelect, 'errors' | 'conformance'>, reported: ReadonlyMap<number, number>): Listed {
    const bytesTotal = row.files.reduce((total, file) => total + file.bytes, 0)
    const running = this.#running.get(row.id)
    const progress = running?.progress
    // whoever is told «loaded» finds the charges in every answer: not before the copy in memory has them
    const isSeen = this.cube.sees(row.revision)
    const state = running?.swapping || (row.state === 'loaded' && !isSeen) ? 'loading' : row.state
    return {
      id: String(row.id),
      source: row.source,
      state,
      bytesTotal,
      who: row.who,
      startedAt: row.startedAt,
      finishedAt: row.finishedAt,
      bytesDone: progress?.bytesDone ?? reported.get(row.id) ?? (state === 'stopped' || isOpen(state) ? 0 : bytesTotal),
      rows: progress?.rows ?? row.rows,
      errorCount: progress?.errorCount ?? row.errorCount,
      overlaps: row.overlaps,
      corrections: row.corrections,
      mapped: row.mapping !== null,
      periods: row.periods,
      files: row.files,
      changes: row.changes,
      warnings: row.warnings,
      message: row.message,
      deliveredAt: row.deliveredAt,
    }
  }

  /** Reads and checks a delivery and stages its charges; null when it has ended already. */
  async #begin(running: Running): Promise<Read | null> {
    const [row] = await this.database.db
      .select()
      .from(load)
      .where(and(eq(load.id, running.id), loadIsOpen))
    if (!row) return null
    await this.charges.drop(running.id) // what a process has staged that ended before it had read all
    return this.#read(running, row)
  }

  async #read(running: Running, { source, files, mapping }: Pick<typeof load.$inferSelect, 'source' | 'files' | 'mapping'>): Promise<Read> {
    if (running.stop) return { result: 'stopped', staged: Promise.resolve() }
    // the process stays for the next load: it knows the dictionaries, and what it has learnt to do fast it does fast from the start
    const task: ImportTask = {
      loadId: running.id,
      source,
      mapping,
      files: files.map(({ name, bytes, sha256 }, i) => ({ name, bytes, sha256, path: this.inbox.path(running.id, i) })),
      known: this.#reader ? null : await this.#keptEntries(),
    }
    const reader = (this.#reader ??= this.#newReader())
    running.reading = reader
    return this.#follow(reader, running, task)
      .catch((error: Error) => {
        if (this.#reader === reader) this.#endReader()
        throw error
      })
      .finally(() => {
        running.reading = null
      })
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
      await this.#finish(running.id, 'refused', null, {
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
      const meetings = await this.#meetings({ id: running.id, source, periodEnds: result.periodEnds })
      if (meetings.length) return this.#keepForChoice(running.id, result, meetings)
      if (await this.charges.swapIn(running.id, source, result, [], seen)) return this.#refresh()
      await this.cube.refresh() // other charges have come to count: they may overlap
    }
    throw new Error('other deliveries came to count again and again meanwhile; load it again')
  }

  /** From here on the delivery is loaded, whatever happens to the copy in memory. */
  async #refresh(): Promise<void> {
    await this.cube.refresh().catch(error => {
      console.error('the charges in memory could not be brought up to date; restart Rain Barrel', error)
    })
  }

  #newReader(): ReadingProcess {
    const reader = new ReadingProcess(this.serverDir)
    reader.on('end', () => {
      if (this.#reader === reader) this.#reader = null // also where it ended with nothing to read
    })
    return reader
  }

  #endReader(): void {
    this.#reader?.end()
    this.#reader = null
  }

  /** Stages batches as they come until the delivery is read, was stopped or failed. */
  #follow(reader: ReadingProcess, running: Running, task: ImportTask): Promise<Read> {
    let staged: Promise<unknown> = Promise.resolve()
    const total = task.files.reduce((bytes, file) => bytes + file.bytes, 0)
    let hear: (message: ImportMessage) => void
    let notice: (why: ReadingEnd) => void
    return new Promise<Read>((resolve, reject) => {
      hear = message => {
        if (message.type === 'progress') {
          running.progress = { bytesDone: message.bytesDone, rows: message.rows, errorCount: message.errorCount }
          running.report({ done: message.bytesDone, of: total, unit: 'bytes', words: `${message.rows} charges read` })
        } else if (message.type === 'fault') reject(new Error(message.message))
        else if (message.type === 'done') resolve({ result: running.stop ? 'stopped' : message, staged })
        else {
          const mine = this.#staging
            .then(async () => {
              if (message.type === 'segments') {
                await this.charges.keep(running.id, message.segments)
                return 'next'
              }
              return { ids: await this.charges.enter(message.entries) }
            })
            .then(reply => reader.send(reply))
          staged = Promise.all([staged, mine])
          staged.catch(() => {}) // told to whoever waits for it, if anyone does
          this.#staging = mine
          mine.catch(error => {
            if (this.#reader === reader) this.#endReader()
            reject(error)
          })
        }
      }
      notice = why => {
        const result = running.stop || why === 'told' ? 'stopped' : notRead(task, running.progress, why)
        staged.then(() => resolve({ result, staged }), reject)
      }
      reader.on('message', hear)
      reader.on('end', notice)
      reader.send(task)
    }).finally(() => {
      reader.off('message', hear)
      reader.off('end', notice)
    })
  }

  /** What speaks against a load's counting now. */
  async #meetings(row: Pick<typeof load.$inferSelect, 'id' | 'source' | 'periodEnds'>): Promise<Meeting[]> {
    const periods = periodsOf(row)
    return [
      ...(await newerDeliveries(this.database, this.charges, row.id, periods)),
      ...(await meetingsOf(this.database, this.charges, periods)),
    ]
  }

  async #keepForChoice(id: number, result: ImportDone, meetings: readonly Meeting[]): Promise<void> {
    const { rows, files, periodEnds, warnings, conformance, corrections } = result
    await this.database.db
      .update(load)
      .set({
        state: 'choosing',
        rows,
        files,
        overlaps: meetings.map(overlapOf),
        conformance,
        corrections,
        warnings,
        periods: mergeSums(files.map(file => file.periods)),
        message: meetingText(meetings),
        periodEnds,
      })
      .where(eq(load.id, id))
  }

  /** What can be decided about a load that waits, as things are now. */
  async #options(row: typeof load.$inferSelect): Promise<ImportOptions> {
    const meetings = await this.#meetings(row)
    const ours = await holdingsOf(this.database, this.charges, periodsOf(row))
    const theirs = meetings.filter(({ theirs }) => theirs.loadId !== row.id).map(meeting => meeting.theirs)
    const others = await this.database.db
      .select()
      .from(load)
      .where(and(eq(load.state, 'choosing'), ne(load.id, row.id)))
    const waiting = (await holdingsOf(this.database, this.charges, others.flatMap(periodsOf))).filter(other =>
      ours.some(own => sharedAccounts(own, other).length),
    )
    return {
      meets: meetings.map(overlapOf),
      waiting: waiting.map(({ loadId, source, start }) => ({ id: String(loadId), source, billingPeriodStart: start })),
      emptyWithThis: daysLeftEmpty(theirs, ours),
      emptyWithOther: theirs.length ? daysLeftEmpty(ours, theirs) : [],
      both: meetings.length > 0 && meetings.every(meeting => meeting.bothCanCount),
    }
  }

  /**
   * Goes on with a load that waits, on what meets it now: `this` loads it and puts away what it meets, `other` leaves all as it is, `both`
   * lets it count beside what it meets, now and from then on, as long as their sub accounts differ.
   * @throws Problem when it does not wait, or both cannot count.
   */
  async choose(id: string, use: 'this' | 'other' | 'both', who: string): Promise<void> {
    await this.#inTurn(async () => {
      for (let isDone = false; !isDone;) {
        const seen = await this.charges.revision()
        const [row] = /^\d{1,9}$/.test(id)
          ? await this.database.db
              .select()
              .from(load)
              .where(and(eq(load.id, Number(id)), eq(load.state, 'choosing')))
          : []
        if (!row) throw new Problem('conflict', 'no-choice', 'There is nothing to choose', 'The load does not wait for a choice any more.')
        if (use === 'other') {
          await this.charges.drop(row.id)
          await this.#finish(row.id, 'stopped', 'What was loaded before was kept. Nothing of this delivery was loaded.')
          return
        }
        const meetings = await this.#meetings(row)
        if (use === 'both') {
          const not = meetings.find(meeting => !meeting.bothCanCount)
          if (not)
            throw new Problem(
              'conflict',
              'same-money',
              'Both cannot count',
              `${not.source} has charges of the same sub accounts: counting both would count the money twice. Choose one.`,
            )
          for (const { source } of meetings) await putSideBySide(this.database, row.source, source, who)
        }
        const away = use === 'both' ? [] : meetings.filter(({ theirs }) => theirs.loadId !== row.id && !isReplaced(row, theirs))
        const periods = away.map(({ theirs: { source, start } }) => ({ source, start }))
        isDone = await this.charges.swapIn(row.id, row.source, { ...row, conformance: row.conformance! }, periods, seen)
      }
      await this.#refresh()
    })
  }

  /**
   * Does a work after what is queued, so that what it has checked still holds when it acts. Its failure is the caller's alone: the queue
   * goes on.
   */
  async #inTurn(work: () => Promise<void>): Promise<void> {
    const mine = this.#turn.then(work)
    this.#turn = mine.catch(() => {})
    await mine
  }

  /**
   * Takes a load back: what was there before counts again.
   * @param empty whether billing periods may be left without charges.
   * @throws Problem when a later load has replaced some of it, money would count twice, or a period would be left without charges.
   */
  async undo(id: string, who: string, empty: boolean): Promise<void> {
    await this.#step(id, 'undo', async (loadId, undoing) => {
      const without = empty ? [] : emptied(undoing)
      if (without.length)
        throw new Problem(
          'conflict',
          'would-empty',
          'Nothing would be left',
          `Undoing it leaves ${without.map(period => `${period.source}, ${period.billingPeriodStart.slice(0, 7)}`).join(' and ')} without any charges. Confirm that to go on.`,
        )
      return this.charges.undo(loadId, who, undoing.seen)
    })
  }

  /** Loads again what was taken back. @throws Problem when something else has come to count since. */
  async redo(id: string, who: string): Promise<void> {
    await this.#step(id, 'redo', (loadId, undoing) => this.charges.redo(loadId, who, undoing.seen))
  }

  async #step(id: string, which: 'undo' | 'redo', act: (loadId: number, undoing: Undoing) => Promise<boolean>): Promise<void> {
    await this.#inTurn(async () => {
      for (let isDone = false; !isDone;) {
        const loadId = /^\d{1,9}$/.test(id) ? Number(id) : 0
        const undoing = await (which === 'undo' ? this.charges.undoing(loadId) : this.charges.redoing(loadId))
        if (!undoing)
          throw new Problem(
            'conflict',
            'not-undoable',
            `The load cannot be ${which === 'undo' ? 'undone' : 'loaded again'}`,
            'Only the load that a billing period has had last can be taken back or forth; begin with the later one.',
          )
        const [meeting] = await meetingsOf(this.database, this.charges, undoing.comes, undoing.goes)
        if (meeting)
          throw new Problem(
            'conflict',
            'would-meet',
            'Money would count twice',
            `${meeting.source} counts for ${meeting.billingAccountIds.join(', ')} from ${meeting.billingPeriodStart.slice(0, 10)}, and what would come back has the same account. Undo that load first.`,
          )
        isDone = await act(loadId, undoing)
      }
      await this.#refresh()
    })
  }

  /** Puts all of a source away, as a load that can be undone. @returns its id. @throws Problem when nothing of it counts. */
  async takeOut(source: string, who: string): Promise<string> {
    let id: number | null = null
    await this.#inTurn(async () => {
      id = await this.charges.takeOut(source, who)
      if (id === null) throw notFound('source', `No charges of «${source}» count.`)
      await this.#refresh()
    })
    return String(id)
  }

  /** What the database knows when all that was sent is kept or lost: what a new process begins with. */
  async #keptEntries(): Promise<KnownTexts> {
    this.#staging = this.#staging.catch(() => {})
    await this.#staging
    const known = {} as KnownTexts
    for (const name of dictionaryNames) known[name] = await this.charges.knownText(name)
    return known
  }

  async #stopped(id: number): Promise<void> {
    await this.charges.drop(id)
    await this.#finish(id, 'stopped', 'Stopped before its end. Nothing of it was loaded.')
  }

  async #fault(id: number, error: Error): Promise<void> {
    const said = saidOf(error, `load ${id}`)
    await this.#staging.catch(() => {}) // what was sent before the failure may still be on its way
    await this.charges.drop(id)
    await this.#finish(id, 'stopped', `The load failed: ${said}. Nothing of it was loaded; the charges loaded before are as they were.`)
  }

  async #finish(id: number, state: ImportState, message: string | null, more: Partial<typeof load.$inferInsert> = {}): Promise<void> {
    await this.database.db
      .update(load)
      .set({ state, message, finishedAt: sql`now()`, ...more })
      .where(eq(load.id, id))
  }
}

/** What came of a delivery over which the reading process ended: it is refused, at the file that was being read. */
function notRead({ files }: ImportTask, { bytesDone, rows }: Progress, why: Exclude<ReadingEnd, 'told'>): ImportDone {
  let before = 0
  const file = files.find(({ bytes }) => (before += bytes) > bytesDone) ?? files.at(-1)!
  const [reason, mend] =
    why === 'too large'
      ? [
          `too large for this machine: reading it took more than ${readerLimitMb()} MB of memory`,
          'Deliver it in smaller parts, such as smaller row groups, or raise RAIN_BARREL_READER_MB.',
        ]
      : ['damaged: it ended the process that read it', 'Copy or export it again.']
  return {
    type: 'done',
    rows,
    files: files.map(({ name, bytes, sha256 }) => ({ name, bytes, sha256, rows: 0, periods: [] })),
    periodEnds: {},
    warnings: [],
    errorCount: 1,
    errors: [{ file: file.name, row: null, column: null, value: null, reason, mend }],
    conformance: mergeConformance([]),
    corrections: [],
    held: {},
  }
}

/** The billing periods of a load. */
const periodsOf = ({ id, source, periodEnds }: Pick<typeof load.$inferSelect, 'id' | 'source' | 'periodEnds'>): LoadedPeriod[] =>
  Object.entries(periodEnds).map(([start, end]) => ({ source, start, end, loadId: id }))

/** Whether a billing period is one that the load replaces anyway. */
const isReplaced = ({ source, periodEnds }: Pick<typeof load.$inferSelect, 'source' | 'periodEnds'>, period: LoadedPeriod) =>
  source === period.source && Object.keys(periodEnds).some(start => Date.parse(start) === Date.parse(period.start))

const overlapOf = ({ bothCanCount: _, theirs: __, ...overlap }: Meeting): ImportOverlap => overlap

/** Billing periods that would be left without charges: nothing comes back for their time. */
const emptied = ({ goes, comes }: Undoing): { source: string; billingPeriodStart: string }[] =>
  goes
    .filter(
      ({ start, end }) => !comes.some(other => Date.parse(other.start) < Date.parse(end) && Date.parse(other.end) > Date.parse(start)),
    )
    .map(({ source, start }) => ({ source, billingPeriodStart: isoInstant(start) }))

function meetingText(meetings: readonly Meeting[]): string {
  const newer = meetings.find(({ because }) => because === 'newer')
  if (newer) return `A newer delivery of ${newer.source} counts for the same billing period. The newer counts unless this one is chosen.`
  const sources = [...new Set(meetings.map(({ source }) => source))].join(' and ')
  return `${sources} has delivered the same billing account for the same time. Choose what counts.`
}
