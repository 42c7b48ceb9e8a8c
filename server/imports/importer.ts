import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { Worker } from 'node:worker_threads'
import { and, eq, getTableColumns, inArray, sql } from 'drizzle-orm'
import { dictionaryNames } from '../../core/focus/star'
import { isoInstant } from '../../core/time/instant'
import type { Mapping } from '../../core/focus/mapping/mapping'
import type { ImportOverlap, ImportState, ImportStatus } from '../../shared/contracts/imports'
import type { Handle, Tx } from '../db/client'
import { billingPeriod, chargeSegment, dataRevision, dictionaryTables, load, type PutAway } from '../db/schema'
import { tableName } from '../db/schema/dictionary'
import type { CubeClient } from '../engine/cube-client'
import { Problem } from '../http/problem'
import type { ImportDone, ImportMessage, ImportTask } from '../workers/imports'
import type { KnownEntries, NewEntries } from './entry-ids'
import { entriesCopy } from './entries-copy'
import { findOverlaps } from './overlaps'
import { segmentCopy } from './segment-copy'
import type { EncodedSegment } from './segment-builder'
import { changesBetween, mergeSums } from './sums'

export type ArrivedFile = { name: string; path: string; bytes: number; sha256: string }
type Progress = { bytesDone: number; rows: number; errorCount: number }
/** What a load that waits for a choice needs to go on. */
type Swap = Pick<ImportDone, 'rows' | 'files' | 'periodEnds' | 'warnings' | 'conformance' | 'corrections'>
/** What came of reading a delivery, and when all that was read is staged: the thread may read the next meanwhile. */
type Read = { result: ImportDone | 'stopped'; staged: Promise<unknown> }
type Running = { id: number; worker: Worker | null; stop: boolean; swapping: boolean; progress: Progress }

/** Tells deliveries apart by the contents of their files, in whatever order. */
export const deliveryKey = (files: readonly { sha256: string }[]): string =>
  files
    .map(file => file.sha256)
    .sort()
    .join(' ')

const loadIsOpen = inArray(load.state, ['checking', 'loading'])

/**
 * Loads deliveries one after the other: read and checked in a thread, staged in batches, swapped in by one transaction. The next is read
 * while the one before is swapped in; they are swapped in in the order in which they came.
 */
export class Importer {
  #running = new Map<number, Running>()
  #reading: Promise<unknown> = Promise.resolve()
  /**
   * Until all that the thread has sent is kept, of whatever delivery. Once it fails, so does all that the same thread sends: it may build
   * on what was lost.
   */
  #staging: Promise<unknown> = Promise.resolve()
  #turn: Promise<void> = Promise.resolve()
  #worker: Worker | null = null

  constructor(
    private readonly database: Handle,
    private readonly cube: CubeClient,
    private readonly serverDir: string,
  ) {}

  /** Puts away what a killed process left: staged charges of loads that never came to their end. */
  async recover(): Promise<void> {
    const { db } = this.database
    const open = await db.select({ id: load.id }).from(load).where(loadIsOpen)
    for (const { id } of open) {
      await this.#dropStaged(id)
      await this.#finish(id, 'stopped', 'Rain Barrel ended during this load. Nothing of it was loaded: drop the files again.')
    }
  }

  /** Registers a delivery whose files lie in `folder` and queues it. @returns the id of the load. */
  async start(source: string, files: ArrivedFile[], folder: string, who: string, mapping: Mapping | null = null): Promise<string> {
    const [row] = await this.database.db
      .insert(load)
      .values({
        source,
        who,
        mapping,
        state: 'checking',
        files: files.map(({ name, bytes, sha256 }) => ({ name, bytes, sha256, rows: 0, periods: [] })),
      })
      .returning({ id: load.id })
    const id = row!.id
    const running: Running = { id, worker: null, stop: false, swapping: false, progress: { bytesDone: 0, rows: 0, errorCount: 0 } }
    this.#running.set(id, running)
    const read = this.#reading.then(() => this.#read(running, source, files, mapping))
    this.#reading = read.catch(() => {})
    this.#turn = this.#turn
      .then(async () => this.#complete(running, source, await read))
      .catch(error => this.#fault(id, error as Error))
      .finally(() => {
        this.#running.delete(id)
        rmSync(folder, { recursive: true, force: true })
      })
    return String(id)
  }

  /** Asks a running load to stop; nothing of it stays. False when it has already ended or is being swapped in. */
  stop(id: string): boolean {
    const running = this.#running.get(Number(id))
    if (!running || running.swapping) return false
    running.stop = true
    if (running.worker) this.#endWorker()
    return true
  }

  /** Waits until everything queued so far has ended. */
  idle(): Promise<void> {
    return this.#turn
  }

  async status(id: string): Promise<ImportStatus | null> {
    if (!/^\d{1,9}$/.test(id)) return null
    const { db } = this.database
    const [row] = await db
      .select()
      .from(load)
      .where(eq(load.id, Number(id)))
    if (!row) return null
    const status = this.#statusOf(row)
    const current = await db.select({ start: billingPeriod.start }).from(billingPeriod).where(eq(billingPeriod.loadId, row.id))
    const inDatabase =
      status.state === 'loaded' && current.length
        ? (
            await this.cube.ask(
              'sums',
              current.map(({ start }) => ({ source: row.source, billingPeriodStart: isoInstant(start) })),
            )
          ).result
        : []
    const periods = new Set(row.periods.map(period => period.billingPeriodStart))
    return {
      ...status,
      errors: row.errors,
      inDatabase,
      conformance: row.conformance,
      canUndo: status.state === 'loaded' && current.length > 0 && current.length === periods.size,
    }
  }

  async recent(limit: number): Promise<Omit<ImportStatus, 'errors' | 'inDatabase' | 'conformance' | 'canUndo'>[]> {
    const { errors: _, conformance: __, ...columns } = getTableColumns(load)
    const rows = await this.database.db
      .select(columns)
      .from(load)
      .orderBy(sql`${load.id} desc`)
      .limit(limit)
    return rows.map(row => this.#statusOf(row))
  }

  /** What a source has delivered, whatever came of it: the hashes of each delivery's files, see `deliveryKey`. */
  async knownDeliveries(source: string): Promise<Set<string>> {
    const rows = await this.database.db.select({ files: load.files }).from(load).where(eq(load.source, source))
    return new Set(rows.map(row => deliveryKey(row.files)))
  }

  /** Ends the reading thread. */
  close(): void {
    this.#endWorker()
  }

  #statusOf(
    row: Omit<typeof load.$inferSelect, 'errors' | 'conformance'>,
  ): Omit<ImportStatus, 'errors' | 'inDatabase' | 'conformance' | 'canUndo'> {
    const bytesTotal = row.files.reduce((total, file) => total + file.bytes, 0)
    const running = this.#running.get(row.id)
    const progress = running?.progress
    // whoever is told «loaded» finds the charges in every answer: not before the copy in memory has them
    const state = running && (running.swapping || row.state === 'loaded') ? 'loading' : row.state
    return {
      id: String(row.id),
      source: row.source,
      state,
      bytesTotal,
      who: row.who,
      startedAt: row.startedAt,
      finishedAt: row.finishedAt,
      bytesDone: progress?.bytesDone ?? (state === 'stopped' ? 0 : bytesTotal),
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
    }
  }

  /** Reads and checks a delivery and stages its charges. */
  async #read(running: Running, source: string, files: ArrivedFile[], mapping: Mapping | null): Promise<Read> {
    if (running.stop) return { result: 'stopped', staged: Promise.resolve() }
    // the thread stays for the next load: it knows the dictionaries, and what it has learnt to do fast it does fast from the start
    const task: ImportTask = { loadId: running.id, source, mapping, files, known: this.#worker ? null : await this.#keptEntries() }
    const worker = (this.#worker ??= new Worker(pathToFileURL(join(this.serverDir, 'workers/imports.mjs'))))
    worker.unref()
    running.worker = worker
    return this.#follow(worker, running, task)
      .catch((error: Error) => {
        if (this.#worker === worker) this.#endWorker()
        throw error
      })
      .finally(() => {
        running.worker = null
      })
  }

  /** Makes the charges of a delivery that was read count, unless something speaks against it. */
  async #complete(running: Running, source: string, { result, staged }: Read): Promise<void> {
    await staged
    if (result === 'stopped' || running.stop) return this.#stopped(running.id)
    if (result.errorCount > 0) {
      await this.#dropStaged(running.id)
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
    const overlaps = await findOverlaps(this.cube, this.database.db, source, result.accounts)
    if (overlaps.length) {
      await this.#keepForChoice(running.id, result, overlaps)
      return
    }
    await this.#swapIn(running.id, source, result)
    await this.#refresh(Object.keys(result.periodEnds).map(start => ({ source, start })))
  }

  /** From here on the delivery is loaded, whatever happens to the copy in memory. */
  async #refresh(periods: { source: string; start: string }[]): Promise<void> {
    await this.cube.refresh(periods).catch(error => {
      console.error('the charges in memory could not be brought up to date; restart Rain Barrel', error)
    })
  }

  #endWorker(): void {
    void this.#worker?.terminate()
    this.#worker = null
  }

  /** Stages batches as they come until the thread is done, was stopped or failed. */
  #follow(worker: Worker, running: Running, task: ImportTask): Promise<Read> {
    const listeners: [string, (argument: never) => void][] = []
    const listen = <T>(event: string, act: (argument: T) => void) => {
      listeners.push([event, act as (argument: never) => void])
      worker.on(event, act as () => void)
    }
    return new Promise<Read>((resolve, reject) => {
      let staged: Promise<unknown> = Promise.resolve()
      listen('message', (message: ImportMessage) => {
        if (message.type === 'progress')
          running.progress = { bytesDone: message.bytesDone, rows: message.rows, errorCount: message.errorCount }
        else if (message.type === 'fault') reject(new Error(message.message))
        else if (message.type === 'done') resolve({ result: running.stop ? 'stopped' : message, staged })
        else {
          const mine = this.#staging
            .then(() => this.#stage(running.id, message.entries, message.segments))
            .then(() => worker.postMessage('next'))
          staged = Promise.all([staged, mine])
          staged.catch(() => {}) // told to whoever waits for it, if anyone does
          this.#staging = mine
          mine.catch(error => {
            if (this.#worker === worker) this.#endWorker()
            reject(error)
          })
        }
      })
      listen('error', reject)
      listen('exit', () =>
        staged.then(() => (running.stop ? resolve({ result: 'stopped', staged }) : reject(new Error('the reading thread ended'))), reject),
      )
      worker.postMessage(task)
    }).finally(() => {
      for (const [event, act] of listeners) worker.off(event, act as () => void)
    })
  }

  async #stage(id: number, entries: NewEntries, segments: EncodedSegment[]): Promise<void> {
    const { client } = this.database
    for (const name of dictionaryNames) {
      const list = entries[name]
      if (list) await client.query(`copy ${tableName(name)} from '/dev/blob' (format csv, null '\\N')`, [], { blob: entriesCopy(list) })
    }
    for (const segment of segments)
      await client.query(`copy charge_segment from '/dev/blob' (format binary)`, [], { blob: segmentCopy(id, segment) })
  }

  async #keepForChoice(id: number, result: ImportDone, overlaps: ImportOverlap[]): Promise<void> {
    const { rows, files, periodEnds, warnings, conformance, corrections } = result
    const sources = [...new Set(overlaps.map(overlap => overlap.source))].join(' and ')
    await this.database.db
      .update(load)
      .set({
        state: 'choosing',
        rows,
        files,
        overlaps,
        conformance,
        corrections,
        warnings,
        periods: mergeSums(files.map(file => file.periods)),
        message: `${sources} has delivered the same billing account for the same period. Only one of the two may count: choose which.`,
        periodEnds,
      })
      .where(eq(load.id, id))
  }

  /**
   * Goes on with a load that waits for a choice between two sources. `this` loads it and puts the other source's periods away; `other`
   * leaves all as it is.
   */
  async choose(id: string, use: 'this' | 'other'): Promise<void> {
    await this.#inTurn(async () => {
      const [row] = await this.database.db
        .select()
        .from(load)
        .where(and(eq(load.id, Number(id)), eq(load.state, 'choosing')))
      if (!row) throw new Problem(409, 'no-choice', 'There is nothing to choose', 'The load does not wait for a choice any more.')
      if (use === 'other') {
        await this.#dropStaged(row.id)
        await this.#finish(row.id, 'stopped', 'The other source was kept. Nothing of this delivery was loaded.')
        return
      }
      const { periodEnds } = row
      await this.#swapIn(
        row.id,
        row.source,
        {
          rows: row.rows,
          files: row.files,
          periodEnds,
          warnings: row.warnings,
          conformance: row.conformance!,
          corrections: row.corrections,
        },
        row.overlaps,
      )
      await this.#refresh([
        ...Object.keys(periodEnds).map(start => ({ source: row.source, start })),
        ...row.overlaps.map(({ source, billingPeriodStart }) => ({ source, start: billingPeriodStart })),
      ])
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

  async #swapIn(id: number, source: string, result: Swap, putAway: ImportOverlap[] = []): Promise<void> {
    const { db } = this.database
    const starts = Object.keys(result.periodEnds)
    const periods = mergeSums(result.files.map(file => file.periods))
    await db.transaction(async tx => {
      const revision = await nextRevision(tx)
      const ofThese = and(eq(billingPeriod.source, source), inArray(billingPeriod.start, starts))
      const replaced = await tx
        .select({
          start: billingPeriod.start,
          loadId: billingPeriod.loadId,
          previousLoadId: billingPeriod.previousLoadId,
          sums: load.periods,
        })
        .from(billingPeriod)
        .innerJoin(load, eq(load.id, billingPeriod.loadId))
        .where(ofThese)
      const before = replaced.flatMap(({ start, sums }) => sums.filter(sum => Date.parse(sum.billingPeriodStart) === Date.parse(start)))
      for (const start of starts) {
        const previousLoadId = replaced.find(old => Date.parse(old.start) === Date.parse(start))?.loadId ?? null
        const now = { loadId: id, previousLoadId, end: result.periodEnds[start]!, revision }
        await tx
          .insert(billingPeriod)
          .values({ source, start, ...now })
          .onConflictDoUpdate({ target: [billingPeriod.source, billingPeriod.start], set: now })
      }
      // one step back is kept, so that the load can be undone and what it moved can be shown; the step before that goes
      for (const old of replaced) if (old.previousLoadId !== null) await dropCharges(tx, old.previousLoadId, old.start)
      const away: PutAway[] = []
      for (const { source: other, billingPeriodStart } of putAway) {
        const [old] = await tx
          .delete(billingPeriod)
          .where(and(eq(billingPeriod.source, other), eq(billingPeriod.start, billingPeriodStart)))
          .returning()
        if (!old) continue
        away.push({ source: other, start: old.start, end: old.end, loadId: old.loadId })
        if (old.previousLoadId !== null) await dropCharges(tx, old.previousLoadId, old.start)
      }
      await tx
        .update(load)
        .set({
          state: 'loaded',
          finishedAt: sql`now()`,
          rows: result.rows,
          files: result.files,
          periods,
          warnings: result.warnings,
          changes: changesBetween(before, periods),
          conformance: result.conformance,
          corrections: result.corrections,
          putAway: away,
          message: putAway.length ? `Loaded in place of ${[...new Set(putAway.map(({ source }) => source))].join(' and ')}.` : null,
        })
        .where(eq(load.id, id))
    })
  }

  /** Takes a load back: what was there before counts again. @throws Problem when a later load has replaced some of it. */
  async undo(id: string, who: string): Promise<void> {
    await this.#inTurn(async () => {
      const status = await this.status(id)
      if (!status?.canUndo)
        throw new Problem(
          409,
          'not-undoable',
          'The load cannot be undone',
          'Only the load that a billing period has now can be undone; undo the later one first.',
        )
      await this.#refresh(await this.#takeBack(Number(id), who))
    })
  }

  /** Makes what was there before a load count again. @returns the periods it concerns. */
  async #takeBack(loadId: number, who: string): Promise<{ source: string; start: string }[]> {
    const periods: { source: string; start: string }[] = []
    await this.database.db.transaction(async tx => {
      const revision = await nextRevision(tx)
      for (const period of await tx.select().from(billingPeriod).where(eq(billingPeriod.loadId, loadId))) {
        const same = and(eq(billingPeriod.source, period.source), eq(billingPeriod.start, period.start))
        if (period.previousLoadId === null) await tx.delete(billingPeriod).where(same)
        else await tx.update(billingPeriod).set({ loadId: period.previousLoadId, previousLoadId: null, revision }).where(same)
        periods.push({ source: period.source, start: isoInstant(period.start) })
      }
      const [undone] = await tx.select({ putAway: load.putAway }).from(load).where(eq(load.id, loadId))
      for (const { source, start, end, loadId: kept } of undone!.putAway) {
        // what the other source has delivered since counts, not what was put away
        const back = await tx
          .insert(billingPeriod)
          .values({ source, start, end, loadId: kept, previousLoadId: null, revision })
          .onConflictDoNothing()
          .returning({ start: billingPeriod.start })
        if (back.length) periods.push({ source, start: isoInstant(start) })
        else await dropCharges(tx, kept, start)
      }
      await tx.delete(chargeSegment).where(eq(chargeSegment.loadId, loadId))
      await tx
        .update(load)
        .set({ state: 'undone', message: `Undone by ${who}. What was loaded before counts again.` })
        .where(eq(load.id, loadId))
    })
    return periods
  }

  /** What the database knows when all that was sent is kept or lost: what a new thread begins with. */
  async #keptEntries(): Promise<KnownEntries> {
    this.#staging = this.#staging.catch(() => {})
    await this.#staging
    const known = {} as KnownEntries
    for (const name of dictionaryNames)
      known[name] = await this.database.db
        .select({ id: dictionaryTables[name].id, digest: dictionaryTables[name].digest })
        .from(dictionaryTables[name])
    return known
  }

  async #dropStaged(id: number): Promise<void> {
    await this.database.db.delete(chargeSegment).where(eq(chargeSegment.loadId, id))
  }

  async #stopped(id: number): Promise<void> {
    await this.#dropStaged(id)
    await this.#finish(id, 'stopped', 'Stopped before its end. Nothing of it was loaded.')
  }

  async #fault(id: number, error: Error): Promise<void> {
    console.error(`load ${id} failed`, error)
    await this.#staging.catch(() => {}) // what was sent before the failure may still be on its way
    await this.#dropStaged(id)
    await this.#finish(
      id,
      'stopped',
      `The load failed: ${error.message}. Nothing of it was loaded; the charges loaded before are as they were.`,
    )
  }

  async #finish(id: number, state: ImportState, message: string | null, more: Partial<typeof load.$inferInsert> = {}): Promise<void> {
    await this.database.db
      .update(load)
      .set({ state, message, finishedAt: sql`now()`, ...more })
      .where(eq(load.id, id))
  }
}

async function nextRevision(tx: Tx): Promise<number> {
  const [data] = await tx
    .insert(dataRevision)
    .values({ id: 1, revision: 1 })
    .onConflictDoUpdate({ target: dataRevision.id, set: { revision: sql`${dataRevision.revision} + 1` } })
    .returning()
  return data!.revision
}

/** Takes the charges of a load's period away for good, and those it was chosen instead of. */
async function dropCharges(tx: Tx, loadId: number, start: string): Promise<void> {
  const [own] = await tx.select({ putAway: load.putAway }).from(load).where(eq(load.id, loadId))
  for (const away of own?.putAway ?? []) if (Date.parse(away.start) === Date.parse(start)) await dropCharges(tx, away.loadId, start)
  await tx.delete(chargeSegment).where(and(eq(chargeSegment.loadId, loadId), eq(chargeSegment.billingPeriodStart, start)))
}
