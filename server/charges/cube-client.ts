import { randomUUID } from 'node:crypto'
import { dictionaryNames, type DictionaryName } from '../../core/focus/star'
import type { ChargeStore } from './charge-store'
import type { Counting, CountingPeriod } from './counting'
import type { Database } from '../db/database'
import { readBeside } from '../stores/beside'
import { measuredLately } from '../stores/measured'
import type { Bound } from '../../core/allocation/bound'
import type { CubeChanges, CubeRequest } from './cube/cube-messages'
import { ChargesSeen } from './charges-seen'
import type { CubeThread } from './cube-thread'

/** So many dictionary entries are handed on in one message. */
const ENTRIES_AT_ONCE = 20_000

/** Charges that are replaced again and again while they are read are read so often at most: the next telling brings what is missing. */
const MOST_READINGS = 5

const keyOf = ({ source, start }: { source: string; start: string }) => JSON.stringify([source, start])

/** All charges in a thread of their own: filled from the database, asked through messages, by what whoever asks may see. */
export class CubeClient {
  #knownIds = new Map(dictionaryNames.map(name => [name, 0]))
  /** The billing periods in memory, and whose charges they have. */
  #loads = new Map<string, CountingPeriod>()
  #revision = -1
  #isStale = false
  /** Tells this process from others on the database. */
  readonly #me = randomUUID()
  #turn: Promise<void> = Promise.resolve()
  #measuring: Promise<void> = Promise.resolve()
  #isMeasured = false
  #isClosed = false

  /** @param thread may be under way before the database is open. */
  constructor(
    private readonly thread: CubeThread,
    private readonly charges: ChargeStore,
    private readonly database: Database,
  ) {}

  /** What someone may see of the charges; null for all. */
  within(bound: Bound | null): ChargesSeen {
    return new ChargesSeen((request, unwanted) => this.thread.send({ ...request, within: bound } as CubeRequest, [], unwanted))
  }

  async #change<K extends keyof CubeChanges>(change: K, argument: CubeChanges[K], transfer: ArrayBuffer[] = []): Promise<void> {
    await this.thread.send({ change, argument } as CubeRequest, transfer)
  }

  /** The state of the charges that questions see; below zero until the first. */
  get revision(): number {
    return this.#revision
  }

  /** Whether questions see a state of the charges, or never will because they could not be read. */
  sees(revision: number): boolean {
    return this.#isStale || this.#revision >= revision
  }

  /**
   * Takes up the charges that count now: the billing periods whose charges are others than those in memory, and the dictionary entries they
   * need. Until all are there, questions see what was. Asked while it is under way, it begins anew afterwards.
   */
  refresh(): Promise<void> {
    const mine = (this.#turn = this.#turn.catch(() => {}).then(() => this.#refresh()))
    return mine
  }

  async #refresh(): Promise<void> {
    try {
      let counting = await this.charges.counting()
      for (let tries = 0; ; tries++) {
        await this.#stage(counting)
        // what was replaced while it was read may not have been read whole
        if (tries === MOST_READINGS || (await this.charges.revision()) === counting.revision) break
        counting = await this.charges.counting()
      }
      const gone = [...this.#loads].flatMap(([key, period]) => (counting.periods.some(now => keyOf(now) === key) ? [] : [period]))
      for (const period of gone) this.#loads.delete(keyOf(period))
      await this.#change('update', {
        ...(this.#revision < 0 && { beside: await readBeside(this.database) }),
        revision: counting.revision,
        gone: gone.map(({ source, start }) => ({ source, billingPeriodStart: start })),
      })
      this.#revision = counting.revision
      this.#isStale = false
    } catch (error) {
      this.#isStale = true
      throw error
    }
  }

  async #stage({ newest, periods }: Counting): Promise<void> {
    for (const dictionary of dictionaryNames) if (newest[dictionary] > this.#knownIds.get(dictionary)!) await this.#enter(dictionary)
    for (const period of periods) {
      const key = keyOf(period)
      if (this.#loads.get(key)?.loadId === period.loadId) continue
      const segments = await this.charges.taken(period)
      const { source, start: billingPeriodStart, end: billingPeriodEnd, loadId, rows, deliveredAt } = period
      await this.#change('stage', { source, billingPeriodStart, billingPeriodEnd, loadId, rows, deliveredAt, segments }, [
        ...new Set(segments.map(segment => segment.buffer as ArrayBuffer)),
      ])
      this.#loads.set(key, period)
    }
  }

  /** Takes up the entries that a dictionary has got since it was last looked at. */
  async #enter(dictionary: DictionaryName): Promise<void> {
    for (;;) {
      const { count, last, text } = await this.charges.entries.after(dictionary, this.#knownIds.get(dictionary)!, ENTRIES_AT_ONCE)
      if (!count) return
      await this.#change('enter', { dictionary, text })
      this.#knownIds.set(dictionary, last)
      if (count < ENTRIES_AT_ONCE) return
    }
  }

  /**
   * Takes up what is known beside the charges: aliases, trees, inherited tags, what SKUs are charged for, rates; and tells other processes
   * to.
   */
  async refreshReference(): Promise<void> {
    await this.#refer()
    await this.database.notify('reference', this.#me)
  }

  async #refer(): Promise<void> {
    await this.#change('refer', await readBeside(this.database))
  }

  /** Takes up what was measured lately; tells other processes to. */
  async refreshMeasured(): Promise<void> {
    await this.#measure()
    await this.database.notify('measured', this.#me)
  }

  #measure(): Promise<void> {
    // one after the other: the last to be read is the last to be told
    return (this.#measuring = this.#measuring
      .catch(() => {})
      .then(async () => {
        const measured = await measuredLately(this.database.db)
        if (!this.#isClosed && (measured.resources.length || this.#isMeasured)) await this.#change('measure', measured)
        this.#isMeasured = measured.resources.length > 0
      }))
  }

  /** From now on takes up what other processes on the database change. */
  async follow(): Promise<void> {
    const failed = (error: Error) => console.error('the charges in memory could not be brought up to date; restart Rain Barrel', error)
    await this.database.listen('charges', told => {
      if (!(told && Number(told) <= this.#revision)) this.refresh().catch(failed)
    })
    await this.database.listen('reference', told => {
      if (told !== this.#me) this.#refer().catch(failed)
    })
    await this.database.listen('measured', told => {
      if (told !== this.#me) this.#measure().catch(failed)
    })
    this.#measure().catch(failed)
  }

  async close(): Promise<void> {
    this.#isClosed = true
    await this.#measuring.catch(() => {})
    await this.thread.end()
  }
}
