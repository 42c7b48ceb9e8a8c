import { and, eq, inArray, sql } from 'drizzle-orm'
import { dictionaries, dictionaryNames, type DictionaryName } from '../../core/focus/star'
import { isoInstant } from '../../core/time/instant'
import type { ImportOverlap, ImportPeriod } from '../../shared/contracts/imports'
import type { Database, Tx } from '../db/database'
import { billingPeriod, chargeSegment, dataRevision, load, type PutAway } from '../db/schema'
import { columnName, tableName } from '../db/schema/dictionary'
import type { ImportDone } from '../workers/imports'
import { readBytesCopy } from './bytes-copy'
import type { GivenIds, KnownEntries, NewEntries } from './entry-ids'
import type { EncodedSegment } from './segment-builder'
import { segmentCopy } from './segment-copy'
import { changesBetween, mergeSums } from './sums'

export type Period = { source: string; start: string }
/** A billing period as it counts: the load whose charges it has, and how many they are. */
export type CountingPeriod = Period & { loadId: number; rows: number }
/** What counts now: the state's number, the newest entry of each dictionary, the billing periods. */
export type Counting = { revision: number; newest: Record<DictionaryName, number>; periods: CountingPeriod[] }
/** What was read of a delivery that is to count. */
export type Swap = Pick<ImportDone, 'rows' | 'files' | 'periodEnds' | 'warnings' | 'conformance' | 'corrections'>

/** Held while entries are made, so that they become visible in the order of their ids: who has seen an id has seen all below it. */
const ENTERING = 7_246_002
/** PostgreSQL's own format, which both databases write and read alike. */
const BINARY = 'format binary'

/** An entry of a dictionary: its id, then its values in the dictionary's order. */
export type Entry = [id: number, ...values: (string | null)[]]

const selectEntries = (name: DictionaryName) => `select ${['id', ...dictionaryColumns(name)].join(', ')} from ${tableName(name)}`
const dictionaryColumns = (name: DictionaryName) => dictionaries[name].map(column => `"${columnName(column)}"`)

/**
 * Where charges are kept: segments of columns under the load that brought them, the dictionaries that their keys point into, and which load
 * each billing period has now. It works on either database.
 */
export class ChargeStore {
  constructor(private readonly database: Database) {}

  /** The entries of a dictionary by their hashes. */
  async knownEntries(name: DictionaryName): Promise<KnownEntries[DictionaryName]> {
    const rows = (await this.database.query(`select id, digest from ${tableName(name)}`)) as [number, string][]
    return rows.map(([id, digest]) => ({ id, digest }))
  }

  /** Keeps entries that are not kept yet, and tells the id of each, whoever made it. */
  async enter(entries: NewEntries): Promise<GivenIds> {
    return this.database.transaction(async session => {
      await session.query('select pg_advisory_xact_lock($1)', [ENTERING])
      const given: GivenIds = {}
      for (const name of dictionaryNames) {
        const list = entries[name]
        if (!list) continue
        const columns = ['digest', ...dictionaryColumns(name)]
        const values = columns.map((_, i) => `entry->>${i}`).join(', ')
        const made = await session.query(
          `insert into ${tableName(name)} (${columns.join(', ')}) select ${values} from json_array_elements($1::json) entry on conflict (digest) do nothing returning digest, id`,
          [JSON.stringify(list.map(({ digest, values }) => [digest, ...values]))],
        )
        const ids = new Map(made as [string, number][])
        const others = list.flatMap(({ digest }) => (ids.has(digest) ? [] : [digest]))
        if (others.length) {
          const kept = await session.query(
            `select digest, id from ${tableName(name)} where digest in (select json_array_elements_text($1::json))`,
            [JSON.stringify(others)],
          )
          for (const [digest, id] of kept as [string, number][]) ids.set(digest, id)
        }
        given[name] = list.map(({ digest }) => ids.get(digest)!)
      }
      return given
    })
  }

  /** Entries of a dictionary beyond an id, by their ids. */
  async entriesAfter(name: DictionaryName, id: number, most: number): Promise<Entry[]> {
    return (await this.database.query(`${selectEntries(name)} where id > $1 order by id limit ${most}`, [id])) as Entry[]
  }

  /** Entries of a dictionary by their ids. */
  async entries(name: DictionaryName, ids: readonly number[]): Promise<Entry[]> {
    const where = 'where id in (select value::int from json_array_elements_text($1::json))'
    return (await this.database.query(`${selectEntries(name)} ${where}`, [JSON.stringify(ids)])) as Entry[]
  }

  /** Keeps segments under a load. They count once a billing period points to the load. */
  async keep(loadId: number, segments: readonly EncodedSegment[]): Promise<void> {
    for (const segment of segments) await this.database.copyIn('charge_segment', BINARY, segmentCopy(loadId, segment))
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
        coalesce((select json_agg(json_build_object('source', p.source, 'start', to_char(p.start at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"'), 'loadId', p.load_id, 'periods', l.periods) order by p.start, p.source)
          from billing_period p join load l on l.id = p.load_id), '[]'::json)`)
    const [revision, newest, periods] = row as [number, Counting['newest'], (Period & { loadId: number; periods: ImportPeriod[] })[]]
    return {
      revision,
      newest,
      periods: periods.map(({ source, start, loadId, periods: sums }) => ({
        source,
        start,
        loadId,
        rows: sums.reduce((rows, sum) => (sum.billingPeriodStart === start ? rows + sum.rows : rows), 0),
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
    await this.database.db.delete(chargeSegment).where(eq(chargeSegment.loadId, loadId))
  }

  /**
   * Makes the charges of a load count for its billing periods, in place of those of other sources that are named, all at once.
   * @param seen the state in which it was found that nothing speaks against it.
   * @returns false when that state is no longer the one that counts: then nothing was done.
   */
  async swapIn(id: number, source: string, result: Swap, putAway: readonly ImportOverlap[], seen: number): Promise<boolean> {
    const starts = Object.keys(result.periodEnds)
    const periods = mergeSums(result.files.map(file => file.periods))
    return this.#unlessOutdated(async tx => {
      const revision = await nextRevision(tx)
      const [own] = await tx.select({ state: load.state }).from(load).where(eq(load.id, id)).for('update')
      if (revision !== seen + 1 || !own || !['checking', 'loading', 'choosing'].includes(own.state)) throw new Outdated()
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
      const instead = [...new Set(putAway.map(overlap => overlap.source))].join(' and ')
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
          revision,
          message: instead ? `Loaded in place of ${instead}.` : null,
        })
        .where(eq(load.id, id))
      await tellRevision(tx, revision)
    })
  }

  /**
   * Makes what was there before a load count again, all at once.
   * @returns false when the load's charges no longer count for all its billing periods: then nothing was done.
   */
  async undo(loadId: number, who: string): Promise<boolean> {
    return this.#unlessOutdated(async tx => {
      const revision = await nextRevision(tx)
      const [undone] = await tx.select().from(load).where(eq(load.id, loadId)).for('update')
      const current = await tx.select().from(billingPeriod).where(eq(billingPeriod.loadId, loadId))
      if (!undone || !canUndo(undone, current.length)) throw new Outdated()
      for (const period of current) {
        const same = and(eq(billingPeriod.source, period.source), eq(billingPeriod.start, period.start))
        if (period.previousLoadId === null) await tx.delete(billingPeriod).where(same)
        else await tx.update(billingPeriod).set({ loadId: period.previousLoadId, previousLoadId: null, revision }).where(same)
      }
      for (const { source, start, end, loadId: kept } of undone.putAway) {
        // what the other source has delivered since counts, not what was put away
        const back = await tx
          .insert(billingPeriod)
          .values({ source, start, end, loadId: kept, previousLoadId: null, revision })
          .onConflictDoNothing()
          .returning({ start: billingPeriod.start })
        if (!back.length) await dropCharges(tx, kept, start)
      }
      await tx.delete(chargeSegment).where(eq(chargeSegment.loadId, loadId))
      const message = `Undone by ${who}. What was loaded before counts again.`
      await tx.update(load).set({ state: 'undone', message, revision }).where(eq(load.id, loadId))
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

/** A load can be taken back while all its billing periods have its charges. */
export function canUndo({ state, periods }: Pick<typeof load.$inferSelect, 'state' | 'periods'>, current: number): boolean {
  return state === 'loaded' && current > 0 && current === new Set(periods.map(period => isoInstant(period.billingPeriodStart))).size
}

/** Counts the state up. Whoever does so is alone with it until the transaction ends. */
async function nextRevision(tx: Tx): Promise<number> {
  const [data] = await tx
    .insert(dataRevision)
    .values({ id: 1, revision: 1 })
    .onConflictDoUpdate({ target: dataRevision.id, set: { revision: sql`${dataRevision.revision} + 1` } })
    .returning()
  return data!.revision
}

/** Tells every process on the database, once the transaction is kept, that other charges count. */
const tellRevision = (tx: Tx, revision: number) => tx.execute(sql`select pg_notify('rain_barrel_charges', ${String(revision)})`)

/** Takes the charges of a load's period away for good, and those it was chosen instead of. */
async function dropCharges(tx: Tx, loadId: number, start: string): Promise<void> {
  const [own] = await tx.select({ putAway: load.putAway }).from(load).where(eq(load.id, loadId))
  for (const away of own?.putAway ?? []) if (Date.parse(away.start) === Date.parse(start)) await dropCharges(tx, away.loadId, start)
  await tx.delete(chargeSegment).where(and(eq(chargeSegment.loadId, loadId), eq(chargeSegment.billingPeriodStart, start)))
}
