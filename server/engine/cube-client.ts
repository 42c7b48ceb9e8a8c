import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { Worker } from 'node:worker_threads'
import { sql } from 'drizzle-orm'
import { dictionaries, dictionaryNames } from '../../core/focus/star'
import type { Handle } from '../db/client'
import { columnName, tableName } from '../db/schema/dictionary'
import type { Rate } from '../../core/money/rates'
import { emptyReference, type SpendReference } from '../../core/spend/reference'
import type { ImportPeriod } from '../../shared/contracts/imports'
import { listRates } from '../stores/rates'
import { readSpendReference } from '../stores/spend-reference'
import type { ChunkUpdate, CubeCalls, CubeReply, CubeUpdate } from '../workers/cube'
import { chargeCopyColumns } from './copy-binary'

type Period = { source: string, start: string, load_id: number, periods: ImportPeriod[] }

const isoInstant = (text: string) => new Date(text).toISOString().replace('.000Z', 'Z')

export type Seen<T> = { revision: number, result: T }

/** All charges in a thread of their own: filled from the database, asked through messages. Every reply says which data it saw. */
export class CubeClient {
  #worker: Worker
  #waiting = new Map<number, { resolve: (reply: never) => void, reject: (error: Error) => void }>()
  #last = 0
  #knownIds = new Map(dictionaryNames.map(name => [name, 0]))

  constructor(serverDir: string, private readonly database: Handle) {
    this.#worker = new Worker(pathToFileURL(join(serverDir, 'workers/cube.mjs')))
    this.#worker.on('message', (reply: CubeReply) => {
      const waiting = this.#waiting.get(reply.id)
      this.#waiting.delete(reply.id)
      if ('error' in reply) waiting?.reject(new Error(reply.error))
      else waiting?.resolve({ revision: reply.revision, result: reply.result } as never)
    })
    this.#worker.on('error', (error) => {
      for (const { reject } of this.#waiting.values()) reject(error as Error)
      this.#waiting.clear()
    })
  }

  ask<K extends keyof CubeCalls>(call: K, argument: Parameters<CubeCalls[K]>[0]): Promise<Seen<ReturnType<CubeCalls[K]>>> {
    const id = ++this.#last
    return new Promise((resolve, reject) => {
      this.#waiting.set(id, { resolve, reject })
      this.#worker.postMessage({ id, call, argument })
    })
  }

  /** Reads billing periods from the database as they are now; all of them when none is named. */
  async refresh(periods?: { source: string, start: string }[]): Promise<void> {
    const { db, client } = this.database
    const update: CubeUpdate = { revision: 0, entries: [], chunks: [], gone: [], reference: emptyReference, rates: [] }
    for (const dictionary of dictionaryNames) {
      const columns = ['id', ...dictionaries[dictionary].map(columnName)].map(name => `"${name}"`).join(', ')
      const { rows } = await client.query(`select ${columns} from ${tableName(dictionary)} where id > $1 order by id`, [this.#knownIds.get(dictionary)], { rowMode: 'array' })
      for (const [id, ...values] of rows as unknown as [number, ...(string | null)[]][]) {
        update.entries.push({ dictionary, id, values })
        this.#knownIds.set(dictionary, id)
      }
    }
    Object.assign(update, await this.#known())
    const wanted = periods ? sql`where (p.source, p.start) in (${sql.join(periods.map(({ source, start }) => sql`(${source}, ${start}::timestamptz)`), sql`, `)})` : sql``
    const { rows: current } = await db.execute<Period>(sql`
      select p.source, to_char(p.start at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as start, p.load_id, l.periods
      from billing_period p join load l on l.id = p.load_id ${wanted} order by p.start`)
    for (const { source, start } of periods ?? []) {
      if (!current.some(period => period.source === source && Date.parse(period.start) === Date.parse(start))) update.gone.push({ source, billingPeriodStart: isoInstant(start) })
    }
    for (const period of current) update.chunks.push(await this.#segments(period))
    const { rows: [data] } = await db.execute<{ revision: number }>(sql`select revision from data_revision where id = 1`)
    update.revision = data?.revision ?? 0
    const { result: damaged } = await this.ask('update', update)
    if (!damaged.length) return
    // derived columns that are damaged or not whole are made again from the charges themselves
    console.warn(`columns of ${damaged.length} billing periods are read again from their charges`)
    const again: CubeUpdate = { ...update, entries: [], chunks: [] }
    for (const period of current) if (damaged.some(d => d.source === period.source && d.billingPeriodStart === period.start)) again.chunks.push(await this.#charges(period))
    await this.ask('update', again)
  }

  /** Takes up what is known beside the charges: aliases, trees, inherited tags, what SKUs are charged for, rates. */
  async refreshReference(): Promise<void> {
    await this.ask('refer', await this.#known())
  }

  async #known(): Promise<{ reference: SpendReference, rates: Rate[] }> {
    const { db } = this.database
    return { reference: await readSpendReference(db), rates: await listRates(db) }
  }

  async #segments({ source, start, load_id: loadId, periods }: Period): Promise<ChunkUpdate> {
    const { blob } = await this.database.client.query(
      `copy (select bytes from charge_segment where load_id = ${Number(loadId)} and billing_period_start = '${isoInstant(start)}' order by number) to '/dev/blob' (format binary)`)
    const rows = periods.reduce((n, period) => period.billingPeriodStart === start ? n + period.rows : n, 0)
    return { source, billingPeriodStart: start, rows, segments: blob! }
  }

  async #charges({ source, start, load_id: loadId }: Period): Promise<ChunkUpdate> {
    const own: Record<string, string> = { start_hour: `floor(extract(epoch from charge_period_start) / 3600)::int` }
    const columns = chargeCopyColumns.map(name => own[name] ?? `"${columnName(name)}"`).join(', ')
    const where = `load_id = ${Number(loadId)} and billing_period_start = '${isoInstant(start)}'`
    const { rows } = await this.database.client.query(`select count(*)::int as charges from charge where ${where}`)
    const { blob } = await this.database.client.query(`copy (select ${columns} from charge where ${where}) to '/dev/blob' (format binary)`)
    return { source, billingPeriodStart: start, rows: (rows[0] as unknown as { charges: number }).charges, copy: blob! }
  }

  async close(): Promise<void> {
    await this.#worker.terminate()
  }
}
