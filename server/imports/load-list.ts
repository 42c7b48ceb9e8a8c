import { eq, inArray, sql } from 'drizzle-orm'
import { isoInstant } from '../../core/time/instant'
import type { ImportState, ImportStatus } from '../../shared/contracts/imports'
import type { ChargeStore } from '../charges/charge-store'
import type { CubeClient } from '../charges/cube-client'
import type { Database } from '../db/database'
import { billingPeriod, job, load } from '../db/schema'
import { named } from '../stores/names'
import type { Choices } from './choices'
import { deliveryKey, isOpen, loadJob, type LoadRow } from './load-row'
import { emptied } from './load-steps'

type Listed = Omit<ImportStatus, 'errors' | 'inDatabase' | 'conformance' | 'canUndo' | 'canRedo' | 'wouldEmpty' | 'options'>
/** How far a load is that this process reads, and whether it is being swapped in. */
export type Underway = { swapping: boolean; progress: { bytesDone: number; rows: number; errorCount: number } }

/** A load as a delivery of its source: the hashes of its files, see `deliveryKey`, when it was made, and what came of it. */
export type DeliveredLoad = Pick<LoadRow, 'id' | 'state' | 'deliveredAt' | 'deliveredBy' | 'finishedAt'> & {
  key: string
  /** Whether any billing period has its charges now. */
  counts: boolean
}

/** Loads as they are told of. */
export class LoadList {
  constructor(
    private readonly database: Database,
    private readonly charges: ChargeStore,
    private readonly cube: CubeClient,
    private readonly choices: Choices,
    private readonly underway: (id: number) => Underway | undefined,
  ) {}

  /** A load, whole; null where there is none. */
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
    const periods = current.map(({ start }) => ({ source: row.source, billingPeriodStart: isoInstant(start) }))
    const inDatabase = status.state === 'loaded' && current.length ? (await this.cube.within(null).ask('sums', periods)).result : []
    return {
      ...status,
      errors: row.errors,
      inDatabase,
      conformance: row.conformance,
      options: status.state === 'choosing' ? await this.choices.options(row) : null,
      ...(await this.#steps(row.id, status.state)),
    }
  }

  /** Whether a load can be taken back or brought forth now, and what that would leave empty. */
  async #steps(id: number, state: ImportState): Promise<Pick<ImportStatus, 'canUndo' | 'canRedo' | 'wouldEmpty'>> {
    const undoing = state === 'loaded' ? await this.charges.undoing(id) : null
    const redoing = state === 'undone' ? await this.charges.redoing(id) : null
    return { canUndo: undoing !== null, canRedo: redoing !== null, wouldEmpty: undoing ? emptied(undoing) : [] }
  }

  /** The newest loads. */
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

  /** How far the loads are that other processes read. */
  async #reported(rows: readonly Pick<LoadRow, 'id' | 'state'>[]): Promise<Map<number, number>> {
    const names = rows.filter(({ id, state }) => isOpen(state) && !this.underway(id)).map(({ id }) => loadJob(id))
    if (!names.length) return new Map()
    const jobs = await this.database.db.select({ name: job.name, progress: job.progress }).from(job).where(inArray(job.name, names))
    return new Map(jobs.map(({ name, progress }) => [Number(name.split(' ')[1]), progress?.done ?? 0]))
  }

  #statusOf(row: Omit<LoadRow, 'errors' | 'conformance'>, reported: ReadonlyMap<number, number>): Listed {
    const bytesTotal = row.files.reduce((total, file) => total + file.bytes, 0)
    const running = this.underway(row.id)
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
}
