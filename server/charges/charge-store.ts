import { and, eq, inArray, sql } from 'drizzle-orm'
import { dictionaryNames } from '../../core/focus/star'
import type { ImportPeriod } from '../../shared/contracts/imports'
import type { Database, Tx } from '../db/database'
import { billingPeriod, chargeSegment, load } from '../db/schema'
import { tableName } from '../db/schema/dictionary'
import { readBytesCopy } from './bytes-copy'
import { FreshSegments } from './fresh-segments'
import { countFrom, forgetUnreachable, stepBack, stepForth } from './period-history'
import type { EncodedSegment } from './segment-builder'
import { segmentCopy } from './segment-copy'
import { changesBetween, mergeSums } from './sums'
import { EntryStore } from './entry-store'
import type { Counting, CountingPeriod, Swap, Period } from './counting'
import { nextRevision, putPeriodsAway, tellRevision, type Undoing, type Steps, stepsOf } from './period-steps'

/** PostgreSQL's own format, which both databases write and read alike. */
const BINARY = 'format binary'

/** An instant of the database as text. */
const utc = (column: string) => `to_char(${column} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"')`

/**
 * Where charges are kept: segments of columns under the load that brought them, the dictionaries that their keys point into, and which load
 * each billing period has now. It works on either database.
 */
export class ChargeStore {
  readonly entries: EntryStore
  readonly #fresh = new FreshSegments()

  constructor(private readonly database: Database) {
    this.entries = new EntryStore(database)
  }

  /** Keeps segments under a load. They count once a billing period points to the load. */
  async keep(loadId: number, segments: readonly EncodedSegment[]): Promise<void> {
    for (const segment of segments) await this.database.copyIn('charge_segment', BINARY, segmentCopy(loadId, segment))
    this.#fresh.add(loadId, segments)
  }

  /** The charges of a billing period that counts, a segment to an array: those that were kept a moment ago without reading them back. */
  async taken({ loadId, start, rows }: CountingPeriod): Promise<Uint8Array[]> {
    return this.#fresh.take(loadId, start, rows) ?? this.segments(loadId, start)
  }

  /** The bytes of the charges of a load and billing period as they are kept, a segment to an array. */
  async segments(loadId: number, start: string, number?: number): Promise<Uint8Array[]> {
    const one = number === undefined ? '' : `and number = ${Number(number)}`
    const bytes = await this.database.copyOut(
      `select bytes from charge_segment where load_id = ${Number(loadId)} and billing_period_start = '${new Date(start).toISOString()}' ${one} order by number`,
      BINARY,
    )
    return readBytesCopy(bytes)
  }

  /** What counts now, as one state. */
  async counting(): Promise<Counting> {
    const entries = dictionaryNames.map(name => `'${name}', (select coalesce(max(id), 0) from ${tableName(name)})`).join(', ')
    const [row] = await this.database.query(`
      select coalesce((select revision from data_revision where id = 1), 0), json_build_object(${entries}),
        coalesce((select json_agg(json_build_object('source', p.source, 'start', ${utc('p.start')}, 'end', ${utc('p."end"')}, 'deliveredAt', ${utc('coalesce(l.delivered_at, l.started_at)')}, 'loadId', p.load_id, 'periods', l.periods) order by p.start, p.source)
          from billing_period p join load l on l.id = p.load_id), '[]'::json)`)
    const [revision, newest, periods] = row as [number, Counting['newest'], (Omit<CountingPeriod, 'rows'> & { periods: ImportPeriod[] })[]]
    return {
      revision,
      newest,
      periods: periods.map(({ periods: sums, ...period }) => ({
        ...period,
        rows: sums.reduce((rows, sum) => (sum.billingPeriodStart === period.start ? rows + sum.rows : rows), 0),
      })),
    }
  }

  /** The number of the state that counts now. */
  async revision(): Promise<number> {
    const [row] = await this.database.query('select revision from data_revision where id = 1')
    return (row?.[0] as number | undefined) ?? 0
  }

  /** Takes away what is kept of a load that does not count. */
  async drop(loadId: number): Promise<void> {
    this.#fresh.forget(loadId)
    await this.database.db.delete(chargeSegment).where(eq(chargeSegment.loadId, loadId))
  }

  /**
   * Makes the charges of a load count for its billing periods, in place of other periods that are named, all at once.
   * @param seen the state in which it was found that nothing speaks against it.
   * @returns false when that state is no longer the one that counts: then nothing was done.
   */
  async swapIn(id: number, source: string, result: Swap, putAway: readonly Period[], seen: number): Promise<boolean> {
    const starts = Object.keys(result.periodEnds)
    const periods = mergeSums(result.files.map(file => file.periods))
    return this.#unlessOutdated(async tx => {
      const revision = await nextRevision(tx)
      const [own] = await tx.select({ state: load.state }).from(load).where(eq(load.id, id)).for('update')
      if (revision !== seen + 1 || !own || !['checking', 'loading', 'choosing'].includes(own.state)) throw new Outdated()
      const replaced = await tx
        .select({ start: billingPeriod.start, sums: load.periods })
        .from(billingPeriod)
        .innerJoin(load, eq(load.id, billingPeriod.loadId))
        .where(and(eq(billingPeriod.source, source), inArray(billingPeriod.start, starts)))
      const before = replaced.flatMap(({ start, sums }) => sums.filter(sum => Date.parse(sum.billingPeriodStart) === Date.parse(start)))
      const away = await putPeriodsAway(tx, putAway, revision)
      for (const start of starts) await countFrom(tx, { source, start, end: result.periodEnds[start]! }, id, revision)
      const instead = [...new Set(putAway.map(period => period.source))].join(' and ')
      await tx
        .update(load)
        .set({
          state: 'loaded',
          finishedAt: sql`now()`,
          rows: result.rows,
          files: result.files,
          periods,
          held: result.held,
          warnings: result.warnings,
          changes: changesBetween(before, periods),
          conformance: result.conformance,
          corrections: result.corrections,
          periodEnds: result.periodEnds,
          putAway: away,
          revision,
          message: instead ? `Loaded in place of ${instead}.` : null,
        })
        .where(eq(load.id, id))
      await forgetUnreachable(tx)
      await tellRevision(tx, revision)
    })
  }

  /**
   * Puts all billing periods of a source away, as a load without charges that can be undone.
   * @returns the load's id; null when nothing of the source counts.
   */
  async takeOut(source: string, who: string): Promise<number | null> {
    let id: number | null = null
    const isDone = await this.#unlessOutdated(async tx => {
      const revision = await nextRevision(tx)
      const periods = await tx.select().from(billingPeriod).where(eq(billingPeriod.source, source))
      if (!periods.length) throw new Outdated()
      const away = await putPeriodsAway(tx, periods, revision)
      const [row] = await tx
        .insert(load)
        .values({
          source,
          who,
          state: 'loaded',
          files: [],
          finishedAt: sql`now()`,
          putAway: away,
          revision,
          message: `All of ${source} was deleted: ${away.length} ${away.length === 1 ? 'billing period' : 'billing periods'}.`,
        })
        .returning({ id: load.id })
      id = row!.id
      await tellRevision(tx, revision)
    })
    return isDone ? id : null
  }

  /** What taking a load back would do; null when it does not count for all of its billing periods. */
  async undoing(loadId: number): Promise<Undoing | null> {
    return this.#planned(loadId, 'loaded', ({ own, others }) => ({
      goes: own.map(({ period }) => period),
      comes: [...own, ...others].flatMap(({ period, history }) => {
        const step = history?.older.at(-1) ?? null
        return step === null ? [] : [{ ...period, loadId: step }]
      }),
    }))
  }

  /** What loading it again, after it was taken back, would do; null when something else has come to count since. */
  async redoing(loadId: number): Promise<Undoing | null> {
    return this.#planned(loadId, 'undone', ({ own, others }) => ({
      goes: others.map(({ period }) => period),
      comes: own.map(({ period }) => ({ ...period, loadId })),
    }))
  }

  async #planned(loadId: number, state: 'loaded' | 'undone', plan: (steps: Steps) => Omit<Undoing, 'seen'>): Promise<Undoing | null> {
    const seen = await this.revision()
    const { db } = this.database
    const [row] = await db.select().from(load).where(eq(load.id, loadId))
    if (row?.state !== state) return null
    const steps = await stepsOf(db, row)
    return steps && { seen, ...plan(steps) }
  }

  /**
   * Makes what was there before a load count again, all at once, the periods too that it was chosen instead of.
   * @returns false when other charges have come to count since `seen`: then nothing was done.
   */
  async undo(loadId: number, who: string, seen: number): Promise<boolean> {
    return this.#unlessOutdated(async tx => {
      const revision = await nextRevision(tx)
      const [row] = await tx.select().from(load).where(eq(load.id, loadId)).for('update')
      const steps = revision === seen + 1 && row?.state === 'loaded' ? await stepsOf(tx, row) : null
      if (!steps) throw new Outdated()
      for (const { period } of [...steps.own, ...steps.others]) await stepBack(tx, period, revision)
      const message = `Undone by ${who}. What was loaded before counts again.`
      await tx.update(load).set({ state: 'undone', message, revision }).where(eq(load.id, loadId))
      await tellRevision(tx, revision)
    })
  }

  /** Makes a load that was taken back count again, and puts away again what it was chosen instead of. @returns as `undo`. */
  async redo(loadId: number, who: string, seen: number): Promise<boolean> {
    return this.#unlessOutdated(async tx => {
      const revision = await nextRevision(tx)
      const [row] = await tx.select().from(load).where(eq(load.id, loadId)).for('update')
      const steps = revision === seen + 1 && row?.state === 'undone' ? await stepsOf(tx, row) : null
      if (!steps) throw new Outdated()
      for (const { period } of [...steps.others, ...steps.own]) await stepForth(tx, period, revision)
      const message = `Loaded again by ${who}, after it was undone.`
      await tx.update(load).set({ state: 'loaded', message, revision }).where(eq(load.id, loadId))
      await tellRevision(tx, revision)
    })
  }

  /** @returns false when the work found that what it builds on holds no longer; then nothing of it stays. */
  async #unlessOutdated(work: (tx: Tx) => Promise<void>): Promise<boolean> {
    try {
      await this.database.db.transaction(work)
      return true
    } catch (error) {
      if (error instanceof Outdated) return false
      throw error
    }
  }
}

/** What a transaction builds on holds no longer. */
class Outdated extends Error {}
