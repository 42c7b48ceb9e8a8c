import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { Worker } from 'node:worker_threads'
import { sql } from 'drizzle-orm'
import { dictionaries, dictionaryNames, type DictionaryName } from '../../core/focus/star'
import type { Handle } from '../db/client'
import { columnName, tableName } from '../db/schema/dictionary'
import { isoInstant } from '../../core/time/instant'
import type { ImportPeriod } from '../../shared/contracts/imports'
import { listRates } from '../stores/rates'
import { readSpendReference } from '../stores/spend-reference'
import type { Beside, CubeCalls, CubeReply, NewEntries } from '../workers/cube'
import { storedBytes } from './stored-segments'

type Period = { source: string; start: string; load_id: number; periods: ImportPeriod[] }

/** So many dictionary entries are handed on in one message. */
const ENTRIES_AT_ONCE = 20_000

export type Seen<T> = { revision: number; result: T }

/** All charges in a thread of their own: filled from the database, asked through messages. Every reply says which data it saw. */
export class CubeClient {
  #worker: Worker
  #waiting = new Map<number, { resolve: (reply: never) => void; reject: (error: Error) => void }>()
  #last = 0
  #knownIds = new Map(dictionaryNames.map(name => [name, 0]))

  constructor(
    serverDir: string,
    private readonly database: Handle,
  ) {
    this.#worker = new Worker(pathToFileURL(join(serverDir, 'workers/cube.mjs')))
    this.#worker.on('message', (reply: CubeReply) => {
      const waiting = this.#waiting.get(reply.id)
      this.#waiting.delete(reply.id)
      if ('error' in reply) waiting?.reject(new Error(reply.error))
      else waiting?.resolve({ revision: reply.revision, result: reply.result } as never)
    })
    this.#worker.on('error', error => {
      for (const { reject } of this.#waiting.values()) reject(error as Error)
      this.#waiting.clear()
    })
  }

  ask<K extends keyof CubeCalls>(
    call: K,
    argument: Parameters<CubeCalls[K]>[0],
    transfer: ArrayBuffer[] = [],
  ): Promise<Seen<ReturnType<CubeCalls[K]>>> {
    const id = ++this.#last
    return new Promise((resolve, reject) => {
      this.#waiting.set(id, { resolve, reject })
      this.#worker.postMessage({ id, call, argument }, transfer)
    })
  }

  /**
   * Reads billing periods from the database as they are now; all of them, and what is known beside them, when none is named. Until all are
   * there, questions see what was.
   */
  async refresh(periods?: { source: string; start: string }[]): Promise<void> {
    const { db } = this.database
    const {
      rows: [newest],
    } = await db.execute<Record<DictionaryName | 'revision', number | null>>(
      sql.raw(
        `select ${dictionaryNames.map(name => `(select max(id) from ${tableName(name)}) as "${name}"`).join(', ')}, (select revision from data_revision where id = 1) as revision`,
      ),
    )
    for (const dictionary of dictionaryNames)
      if ((newest![dictionary] ?? 0) > this.#knownIds.get(dictionary)!) await this.#enter(dictionary)
    const wanted = periods
      ? sql`where (p.source, p.start) in (${sql.join(
          periods.map(({ source, start }) => sql`(${source}, ${start}::timestamptz)`),
          sql`, `,
        )})`
      : sql``
    const { rows: current } = await db.execute<Period>(sql`
      select p.source, to_char(p.start at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as start, p.load_id, l.periods
      from billing_period p join load l on l.id = p.load_id ${wanted} order by p.start`)
    for (const { source, start, load_id: loadId, periods } of current) {
      const segments = await storedBytes(this.database, loadId, start)
      const rows = periods.reduce((n, period) => (period.billingPeriodStart === start ? n + period.rows : n), 0)
      await this.ask('stage', { source, billingPeriodStart: start, rows, segments }, [
        ...new Set(segments.map(segment => segment.buffer as ArrayBuffer)),
      ])
    }
    const gone = (periods ?? []).filter(
      ({ source, start }) => !current.some(period => period.source === source && Date.parse(period.start) === Date.parse(start)),
    )
    await this.ask('update', {
      ...(periods ? {} : await this.#known()),
      revision: newest!.revision ?? 0,
      gone: gone.map(({ source, start }) => ({ source, billingPeriodStart: isoInstant(start) })),
    })
  }

  /** Takes up the entries that a dictionary has got since it was last looked at. */
  async #enter(dictionary: DictionaryName): Promise<void> {
    const columns = ['id', ...dictionaries[dictionary].map(columnName)].map(name => `"${name}"`).join(', ')
    for (;;) {
      const { rows } = await this.database.client.query(
        `select ${columns} from ${tableName(dictionary)} where id > $1 order by id limit ${ENTRIES_AT_ONCE}`,
        [this.#knownIds.get(dictionary)],
        { rowMode: 'array' },
      )
      const entries = rows as unknown as NewEntries['entries']
      if (!entries.length) return
      await this.ask('enter', { dictionary, entries })
      this.#knownIds.set(dictionary, entries.at(-1)![0])
      if (entries.length < ENTRIES_AT_ONCE) return
    }
  }

  /** Takes up what is known beside the charges: aliases, trees, inherited tags, what SKUs are charged for, rates. */
  async refreshReference(): Promise<void> {
    await this.ask('refer', await this.#known())
  }

  async #known(): Promise<Beside> {
    const { db } = this.database
    return { reference: await readSpendReference(db), rates: await listRates(db) }
  }

  async close(): Promise<void> {
    await this.#worker.terminate()
  }
}
