import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { Worker } from 'node:worker_threads'
import { and, eq, inArray, sql } from 'drizzle-orm'
import { dictionaries, dictionaryNames } from '../../core/focus/star'
import type { ImportState, ImportStatus } from '../../shared/contracts/imports'
import type { Handle } from '../db/client'
import { billingPeriod, charge, dataRevision, dictionaryTables, load } from '../db/schema'
import type { CubeClient } from '../engine/cube-client'
import type { ImportMessage, ImportTask } from '../workers/imports'
import type { KnownEntries, NewEntries } from './encode'
import { changesBetween, databaseSums, mergeSums } from './sums'

export type ArrivedFile = { name: string, path: string, bytes: number, sha256: string }
type Progress = { bytesDone: number, rows: number, errorCount: number }
type Running = { id: number, worker: Worker | null, stop: boolean, swapping: boolean, progress: Progress }

const loadIsOpen = inArray(load.state, ['checking', 'loading'])

/** Loads deliveries one after the other: read and checked in a thread, staged in batches, swapped in by one transaction. */
export class Importer {
  #running = new Map<number, Running>()
  #turn: Promise<void> = Promise.resolve()

  constructor(private readonly database: Handle, private readonly cube: CubeClient, private readonly serverDir: string) {}

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
  async start(source: string, files: ArrivedFile[], folder: string, who: string): Promise<string> {
    const [row] = await this.database.db.insert(load).values({
      source, who, state: 'checking', files: files.map(({ name, bytes, sha256 }) => ({ name, bytes, sha256, rows: 0, periods: [] })),
    }).returning({ id: load.id })
    const id = row!.id
    const running: Running = { id, worker: null, stop: false, swapping: false, progress: { bytesDone: 0, rows: 0, errorCount: 0 } }
    this.#running.set(id, running)
    this.#turn = this.#turn.then(() => this.#run(running, source, files)).catch(error => this.#fault(id, error as Error)).finally(() => {
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
    void running.worker?.terminate()
    return true
  }

  /** Waits until everything queued so far has ended. */
  idle(): Promise<void> {
    return this.#turn
  }

  async status(id: string): Promise<ImportStatus | null> {
    if (!/^\d{1,9}$/.test(id)) return null
    const { db } = this.database
    const [row] = await db.select().from(load).where(eq(load.id, Number(id)))
    if (!row) return null
    const status = this.#statusOf(row)
    const inDatabase = status.state === 'loaded' ? await databaseSums(db, sql`p.load_id = ${row.id}`) : []
    return { ...status, errors: row.errors, inDatabase }
  }

  async recent(limit: number): Promise<Omit<ImportStatus, 'errors' | 'inDatabase'>[]> {
    const rows = await this.database.db.select().from(load).orderBy(sql`${load.id} desc`).limit(limit)
    return rows.map(row => this.#statusOf(row))
  }

  #statusOf(row: typeof load.$inferSelect): Omit<ImportStatus, 'errors' | 'inDatabase'> {
    const bytesTotal = row.files.reduce((total, file) => total + file.bytes, 0)
    const running = this.#running.get(row.id)
    const progress = running?.progress
    // whoever is told «loaded» finds the charges in every answer: not before the copy in memory has them
    const state = running && row.state === 'loaded' ? 'loading' : row.state
    return {
      id: String(row.id), source: row.source, state, bytesTotal, who: row.who, startedAt: row.startedAt, finishedAt: row.finishedAt,
      bytesDone: progress?.bytesDone ?? (state === 'stopped' ? 0 : bytesTotal), rows: progress?.rows ?? row.rows,
      errorCount: progress?.errorCount ?? row.errorCount,
      periods: row.periods, files: row.files, changes: row.changes, warnings: row.warnings, message: row.message,
    }
  }

  async #run(running: Running, source: string, files: ArrivedFile[]): Promise<void> {
    if (running.stop) return this.#stopped(running.id)
    const task: ImportTask = { loadId: running.id, files, known: await this.#knownEntries() }
    const worker = new Worker(pathToFileURL(join(this.serverDir, 'workers/imports.mjs')), { workerData: task })
    running.worker = worker
    const result = await this.#follow(worker, running)
    await worker.terminate()
    if (result === 'stopped') return this.#stopped(running.id)
    if (result.errorCount > 0) {
      await this.#dropStaged(running.id)
      await this.#finish(running.id, 'refused', null, { rows: result.rows, files: result.files, errorCount: result.errorCount, errors: result.errors })
      return
    }
    running.swapping = true
    await this.#swapIn(running.id, source, result)
    // From here on the delivery is loaded, whatever happens to the copy in memory.
    await this.cube.refresh(Object.keys(result.periodEnds).map(start => ({ source, start }))).catch((error) => {
      console.error('the charges in memory could not be brought up to date; restart Rain Barrel', error)
    })
  }

  /** Stages batches until the thread is done, was stopped or failed. */
  #follow(worker: Worker, running: Running): Promise<Extract<ImportMessage, { type: 'done' }> | 'stopped'> {
    return new Promise((resolve, reject) => {
      let staging: Promise<unknown> = Promise.resolve()
      worker.on('message', (message: ImportMessage) => {
        if (message.type === 'progress') running.progress = { bytesDone: message.bytesDone, rows: message.rows, errorCount: message.errorCount }
        else if (message.type === 'fault') reject(new Error(message.message))
        else if (message.type === 'done') staging.then(() => resolve(running.stop ? 'stopped' : message), reject)
        else {
          staging = staging.then(() => this.#stage(message.entries, message.lines)).then(() => worker.postMessage('next'))
          staging.catch(reject)
        }
      })
      worker.on('error', reject)
      worker.on('exit', () => staging.then(() => running.stop ? resolve('stopped') : reject(new Error('the reading thread ended')), reject))
    })
  }

  async #stage(entries: NewEntries, lines: Uint8Array): Promise<void> {
    const { db, client } = this.database
    for (const name of dictionaryNames) {
      const list = entries[name]
      if (!list) continue
      const table = dictionaryTables[name]
      for (let i = 0; i < list.length; i += 1000) {
        await db.insert(table).values(list.slice(i, i + 1000).map(({ id, digest, values }) =>
          ({ id, digest, ...Object.fromEntries(dictionaries[name].map((column, k) => [column, values[k] ?? null])) }))).onConflictDoNothing()
      }
    }
    await client.query(`copy charge from '/dev/blob'`, [], { blob: lines })
  }

  async #swapIn(id: number, source: string, result: Extract<ImportMessage, { type: 'done' }>): Promise<void> {
    const { db } = this.database
    await db.update(load).set({ state: 'loading' }).where(eq(load.id, id))
    const starts = Object.keys(result.periodEnds)
    const periods = mergeSums(result.files.map(file => file.periods))
    await db.transaction(async (tx) => {
      const [data] = await tx.insert(dataRevision).values({ id: 1, revision: 1 })
        .onConflictDoUpdate({ target: dataRevision.id, set: { revision: sql`${dataRevision.revision} + 1` } }).returning()
      const ofThese = and(eq(billingPeriod.source, source), inArray(billingPeriod.start, starts))
      const before = await databaseSums(tx, sql`p.source = ${source} and p.start in (${sql.join(starts.map(start => sql`${start}::timestamptz`), sql`, `)})`)
      const replaced = await tx.select().from(billingPeriod).where(ofThese)
      for (const start of starts) {
        await tx.insert(billingPeriod).values({ source, start, end: result.periodEnds[start]!, loadId: id, revision: data!.revision })
          .onConflictDoUpdate({ target: [billingPeriod.source, billingPeriod.start], set: { loadId: id, end: result.periodEnds[start]!, revision: data!.revision } })
      }
      for (const old of replaced) await tx.delete(charge).where(and(eq(charge.loadId, old.loadId), eq(charge.billingPeriodStart, old.start)))
      await tx.update(load).set({
        state: 'loaded', finishedAt: sql`now()`, rows: result.rows, files: result.files, periods, warnings: result.warnings, changes: changesBetween(before, periods),
      }).where(eq(load.id, id))
    })
  }

  async #knownEntries(): Promise<KnownEntries> {
    const known = {} as KnownEntries
    for (const name of dictionaryNames) known[name] = await this.database.db.select({ id: dictionaryTables[name].id, digest: dictionaryTables[name].digest }).from(dictionaryTables[name])
    return known
  }

  async #dropStaged(id: number): Promise<void> {
    await this.database.db.delete(charge).where(eq(charge.loadId, id))
  }

  async #stopped(id: number): Promise<void> {
    await this.#dropStaged(id)
    await this.#finish(id, 'stopped', 'Stopped before its end. Nothing of it was loaded.')
  }

  async #fault(id: number, error: Error): Promise<void> {
    console.error(`load ${id} failed`, error)
    await this.#dropStaged(id)
    await this.#finish(id, 'stopped', `The load failed: ${error.message}. Nothing of it was loaded; the charges loaded before are as they were.`)
  }

  async #finish(id: number, state: ImportState, message: string | null, more: Partial<typeof load.$inferInsert> = {}): Promise<void> {
    await this.database.db.update(load).set({ state, message, finishedAt: sql`now()`, ...more }).where(eq(load.id, id))
  }
}
