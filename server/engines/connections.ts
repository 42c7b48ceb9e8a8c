import { capabilityOf, findConnector, withConnector } from '../connectors/connect'
import { connectionViews, dropConnection, makeConnection, testConnection } from '../jobs/connections'
import { connectorKinds } from '../connectors/kinds'
import type { connections } from '../operations/connections'
import type { BodyOf } from '../operations/operation'
import { conflict, notFound } from '../problems/problem'
import { bill, billJob } from '../jobs/kinds/bill'
import { rateCard, rateCardJob } from '../jobs/kinds/rate-card'
import type { PlayedTime } from '../connectors/connector'
import { findConnection } from '../stores/connections'
import { changeJob, findJob, jobsOf } from '../stores/jobs'
import type { EngineWork } from './engine-work'

type Body<Name extends keyof typeof connections> = BodyOf<(typeof connections)[Name]>
const HOURS = { minute: 1 / 60, hour: 1, day: 24, week: 168, month: 720 }

/** Outside services, and what is asked of them. */
export class Connections {
  constructor(private readonly work: EngineWork) {}

  /** What is connected and whether it answers. */
  async list() {
    return { connections: await connectionViews(this.#db) }
  }

  /** The kinds of outside services that can be connected, and what each can do. */
  kinds() {
    return { kinds: connectorKinds.map(({ kind, label, help, can }) => ({ kind, label, help, can: [...can] })) }
  }

  async make(input: Body<'make'>) {
    if (await findConnection(this.#db, input.name))
      throw conflict('There is a connection of that name', 'Change that one, or choose another name.')
    await makeConnection(this.#db, input, this.#who)
    return { id: input.name }
  }

  /** Asks a service whose it is and what time it has; keeps nothing. */
  test(input: Body<'test'>) {
    return testConnection(input)
  }

  /** Changes how a connection is reached; its name stays. */
  async change(name: string, input: Body<'change'>) {
    if (!(await findConnection(this.#db, name))) throw notFound('connection', 'It may have been deleted already.')
    await makeConnection(this.#db, { ...input, name }, this.#who)
    return { id: name }
  }

  /** Takes a connection out with what runs through it by itself; what it has delivered stays. */
  async remove(name: string) {
    if (!(await dropConnection(this.#db, name))) throw notFound('connection', 'It may have been deleted already.')
    return { id: name }
  }

  /** How often connections are asked for rate cards, where one was asked or is to be. */
  async schedules() {
    const jobs = [...(await jobsOf(this.#db, rateCard.kind)).values()].filter(job => job.every || job.endedAt)
    return {
      schedules: jobs.map(({ argument, every, endedAt, outcome }) => ({
        connection: rateCard.argument.parse(argument).connection,
        everyHours: every ? every.count * HOURS[every.unit] : 0,
        lastAskedAt: endedAt,
        lastSaid: outcome,
      })),
    }
  }

  /** How often a connection is asked for its rate card; 0 for only when someone asks. */
  async schedule(name: string, { everyHours }: Body<'schedule'>) {
    await findConnector(this.#db, name)
    const job = await findJob(this.#db, rateCardJob(name))
    if (!job) throw notFound('rate card of this connection', 'A connection of this kind has none.')
    await changeJob(this.#db, job.id, { every: everyHours ? { count: everyHours, unit: 'hour' } : null })
    await this.work.jobs.tell()
    return { id: name }
  }

  /** Loads the bill to date as the cloud has it now: the billing periods that have charges since the last one. */
  async fetchBill(name: string) {
    capabilityOf(await findConnector(this.#db, name), 'bill')
    const { result } = await withConnector(() => this.work.jobs.runNow(bill, billJob(name), this.#who))
    return result
  }

  /** Lets time pass at a simulated cloud and loads the bill that it then delivers. */
  async pass(name: string, time: PlayedTime) {
    const { pass } = await findConnector(this.#db, name)
    if (!pass) throw conflict('Time passes on its own there', `Only a simulated cloud can be told to let a ${time} pass.`)
    return withConnector(async () => {
      await pass(time)
      const { result } = await this.work.jobs.runNow(bill, billJob(name), this.#who)
      return result
    })
  }

  /** Asks a connection for the rate card it publishes, now. */
  async fetchRateCard(name: string) {
    capabilityOf(await findConnector(this.#db, name), 'rate card')
    const { said, result } = await withConnector(() => this.work.jobs.runNow(rateCard, rateCardJob(name), this.#who))
    return { ...result, said }
  }

  get #db() {
    return this.work.database.db
  }

  get #who() {
    return this.work.asker.id
  }
}
