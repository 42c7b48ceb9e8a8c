import { and, eq, isNull } from 'drizzle-orm'
import type { Mapping } from '../../core/focus/mapping/mapping'
import type { ChargeStore } from '../charges/charge-store'
import type { Database, Db } from '../db/database'
import { load, type DeliveredBy } from '../db/schema'
import { findJob, putJob } from '../stores/jobs'
import type { Inbox } from './inbox'
import { finishLoad, loadIsOpen, loadJob, type ArrivedFile } from './load-row'

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

/** Deliveries until all their files are there and their loads are queued. */
export class Arrivals {
  constructor(
    private readonly database: Database,
    private readonly charges: ChargeStore,
    readonly inbox: Inbox,
    private readonly place: string,
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
      await finishLoad(db, id, 'stopped', 'Rain Barrel ended during this load. Nothing of it was loaded: drop the files again.')
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
}
