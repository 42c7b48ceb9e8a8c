import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { Worker } from 'node:worker_threads'
import { sql } from 'drizzle-orm'
import { dictionaries, dictionaryNames } from '../../core/focus/star'
import type { Handle } from '../db/client'
import { columnName, tableName } from '../db/schema/dictionary'
import type { ChunkUpdate, CubeCalls, CubeReply, CubeUpdate } from '../workers/cube'
import { chargeCopyColumns } from './copy-binary'

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
    const update: CubeUpdate = { revision: 0, entries: [], chunks: [] }
    for (const dictionary of dictionaryNames) {
      const columns = ['id', ...dictionaries[dictionary].map(columnName)].map(name => `"${name}"`).join(', ')
      const { rows } = await client.query(`select ${columns} from ${tableName(dictionary)} where id > $1 order by id`, [this.#knownIds.get(dictionary)], { rowMode: 'array' })
      for (const [id, ...values] of rows as unknown as [number, ...(string | null)[]][]) {
        update.entries.push({ dictionary, id, values })
        this.#knownIds.set(dictionary, id)
      }
    }
    const wanted = periods ? sql`where (p.source, p.start) in (${sql.join(periods.map(({ source, start }) => sql`(${source}, ${start}::timestamptz)`), sql`, `)})` : sql``
    const { rows: current } = await db.execute<{ source: string, start: string, load_id: number, charges: number }>(sql`
      select p.source, to_char(p.start at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as start, p.load_id, count(c.load_id)::int as charges
      from billing_period p left join charge c on c.load_id = p.load_id and c.billing_period_start = p.start ${wanted}
      group by p.source, p.start, p.load_id order by p.start`)
    for (const period of current) update.chunks.push(await this.#chunk(period))
    const { rows: [data] } = await db.execute<{ revision: number }>(sql`select revision from data_revision where id = 1`)
    update.revision = data?.revision ?? 0
    await this.ask('update', update)
  }

  async #chunk(period: { source: string, start: string, load_id: number, charges: number }): Promise<ChunkUpdate> {
    const own: Record<string, string> = { start_hour: `(extract(epoch from charge_period_start) / 3600)::int` }
    const columns = chargeCopyColumns.map(name => own[name] ?? `"${columnName(name)}"`).join(', ')
    const { blob } = await this.database.client.query(
      `copy (select ${columns} from charge where load_id = ${Number(period.load_id)} and billing_period_start = '${new Date(period.start).toISOString()}') to '/dev/blob' (format binary)`)
    return { source: period.source, billingPeriodStart: period.start, rows: period.charges, copy: blob! }
  }

  async close(): Promise<void> {
    await this.#worker.terminate()
  }
}
