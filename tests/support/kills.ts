// Kills a server with signal 9 in the middle of what it does, starts it again on the same folder, and holds what is there against what
// was confirmed: nothing confirmed is lost, nothing stands half, nothing is done twice.
import { randomUUID } from 'node:crypto'
import { mkdtempSync } from 'node:fs'
import type { Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { expect } from 'vitest'
import { newEstimate, type Estimate } from '../../core/estimate/estimate'
import type { AllocationPlan } from '../../core/allocation/plan'
import { allocationPlan, people } from '../../demo/organisation'
import { brackwaterCard } from '../../demo/rate-cards'
import type { PlanState } from '../../shared/contracts/allocation'
import type { SavedEstimate } from '../../shared/contracts/estimates'
import { savingsState } from '../../shared/contracts/savings'
import type { SpendAnswer } from '../../shared/contracts/spend'
import { cloudServer } from '../../stand-ins/cloud/server'
import { charge, focusCsv } from './charges'
import { deliver } from './imports'
import { post, put, remove, startServer, type Running } from './server'

export const killKinds = ['an estimate is saved', 'rules are saved', 'periods change', 'an action is approved'] as const
export type KillKind = (typeof killKinds)[number]

/** Something that is done again and again until the server is killed, and what has to hold afterwards. */
type Work = { go: (server: Running) => Promise<void>; holds: (server: Running) => Promise<void> }
type Setting = { prepare: (server: Running) => Promise<Work>; env: Record<string, string>; end: () => void }

/** A server on a folder of its own, which is started again after each kill. */
export class Killed {
  readonly #folder = mkdtempSync(join(tmpdir(), 'rain-barrel-kill-'))
  #server: Running | null = null
  constructor(private readonly env: Record<string, string> = {}) {}

  async start(): Promise<Running> {
    this.#server ??= await startServer({ folder: this.#folder, env: this.env })
    return this.#server
  }
  async kill(): Promise<void> {
    await this.#server!.stop('SIGKILL')
    this.#server = null
  }
  async end(): Promise<void> {
    await this.#server?.stop()
    remove(this.#folder)
  }
}

const nothingBeside = { env: {}, end: () => {} }

/** Kills once while something is done. @param after so many milliseconds. @param shared for what needs no server of its own. */
export async function kill(kind: KillKind, after: number, shared: Killed): Promise<void> {
  const { prepare, env, end } = await settings[kind]()
  const isOwn = Object.keys(env).length > 0
  const killed = isOwn ? new Killed(env) : shared
  try {
    let server = await killed.start()
    const work = await prepare(server)
    const going = work.go(server).then(
      () => null,
      (error: unknown) => error,
    )
    await wait(after)
    await killed.kill()
    const error = await going
    if (error) expect(String(error)).toMatch(/^TypeError: (fetch failed|terminated)$/) // it broke off with the server, and for nothing else
    server = await killed.start()
    await work.holds(server)
  } finally {
    if (isOwn) await killed.end()
    end()
  }
}

/** States that follow one another: the one that was confirmed last, and the one that was under way. */
class Steps<T> {
  confirmed: T
  trying: T
  constructor(first: T) {
    this.confirmed = this.trying = first
  }
  async take(next: T, work: () => Promise<Response>): Promise<void> {
    this.trying = next
    const reply = await work()
    expect(reply.status).toBe(200)
    await reply.arrayBuffer()
    this.confirmed = next
  }
}

const settings: Record<KillKind, () => Promise<Setting>> = {
  'an estimate is saved': async () => ({
    ...nothingBeside,
    async prepare() {
      const id = randomUUID()
      const body = (version: number): Estimate => ({
        ...newEstimate('killed', brackwaterCard, 'low-coast'),
        name: `as of ${version}`,
        note: 'x'.repeat(version * 50),
      })
      const steps = new Steps(0)
      return {
        async go(server) {
          for (let version = 1; ; version++)
            await steps.take(version, () => server.call(`estimates/${id}`, put({ basedOn: version - 1 || null, estimate: body(version) })))
        },
        async holds(server) {
          const { versions } = await server.json<{ versions: { version: number }[] }>(`estimates/${id}/versions`)
          const newest = versions[0]?.version ?? 0
          expect([steps.confirmed, steps.trying]).toContain(newest)
          expect(versions.map(({ version }) => version)).toEqual(Array.from({ length: newest }, (_, i) => newest - i))
          for (const { version } of versions)
            expect((await server.json<SavedEstimate>(`estimates/${id}?version=${version}`)).estimate).toMatchObject({
              name: `as of ${version}`,
              note: 'x'.repeat(version * 50),
            })
        },
      }
    },
  }),

  'rules are saved': async () => ({
    ...nothingBeside,
    async prepare(server) {
      const { version: before } = await server.json<{ version?: number }>('organisation')
      await server.json('organisation', post({ people, plan: allocationPlan, basedOn: before }))
      const first = (await server.json<PlanState>('allocation/plan')).version
      const plan = (version: number): AllocationPlan => {
        const { rules } = allocationPlan
        const turn = (version - first) % rules.length
        return { ...allocationPlan, rules: [...rules.slice(turn), ...rules.slice(0, turn)] }
      }
      const steps = new Steps(first)
      return {
        async go(server) {
          for (let version = first + 1; ; version++)
            await steps.take(version, () => server.call('allocation/plan', put({ basedOn: version - 1, plan: plan(version) })))
        },
        async holds(server) {
          const saved = await server.json<PlanState>('allocation/plan')
          expect([steps.confirmed, steps.trying]).toContain(saved.version)
          expect(saved.plan).toEqual(plan(saved.version))
        },
      }
    },
  }),

  'periods change': async () => ({
    ...nothingBeside,
    async prepare(server) {
      const own = randomUUID() // a source and an account that nothing meets
      const bill = (cost: string) =>
        focusCsv(Array.from({ length: 3000 }, (_, i) => charge({ BilledCost: cost, ResourceId: `r${i}`, BillingAccountId: own })))
      await deliver(server, own, bill('1'))
      const { id } = await deliver(server, own, bill('2'))
      const steps = new Steps('6000')
      return {
        async go(server) {
          for (;;) {
            await steps.take('3000', () => server.call(`imports/${id}/undo`, post({})))
            await steps.take('6000', () => server.call(`imports/${id}/redo`, post({})))
          }
        },
        async holds(server) {
          const question = {
            measure: 'billedCost',
            splitBy: [],
            grain: null,
            start: '2026-10-01',
            end: '2026-11-01',
            keep: { BillingAccountId: [own] },
          }
          const { totals, rows } = await server.json<SpendAnswer>('spend/answer', post(question))
          expect([steps.confirmed, steps.trying]).toContain(totals[0]!.amount)
          expect(rows.map(row => row.amount)).toEqual([totals[0]!.amount])
          const size = await server.json<{ rows: number }>('spend/lines-size', post({ question, columns: ['BilledCost'], format: 'csv' }))
          expect(size.rows).toBe(3000)
        },
      }
    },
  }),

  'an action is approved': async () => {
    const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-cloud-'))
    const cloud: Server = cloudServer(join(folder, 'state.json'))
    await new Promise<void>(resolve => cloud.listen(0, '127.0.0.1', resolve))
    const base = `http://127.0.0.1:${(cloud.address() as AddressInfo).port}`
    let told = 0
    cloud.prependListener('request', ({ method }: { method?: string }) => (told += method === 'DELETE' ? 1 : 0))
    const name = 'gw-sandbox-trial'
    const isThere = async () =>
      ((await (await fetch(`${base}/v1/inventory/gateway`)).json()) as { resources: { name: string }[] }).resources.some(
        g => g.name === name,
      )
    const find = async (server: Running) =>
      savingsState.parse(await server.json('savings')).opportunities.find(o => o.resourceName === name)!
    return {
      env: { BRACKWATER_URL: base },
      end: () => {
        cloud.closeAllConnections()
        cloud.close()
        remove(folder)
      },
      async prepare(server) {
        await server.json('rate-cards', post(brackwaterCard))
        await server.json('savings/look', post({}))
        const { id } = await find(server)
        const approve = (server: Running) => server.call('savings/approve', post({ id }, { cookie: 'rain-barrel-person=Ines%20Moldal' }))
        return {
          async go(server) {
            await approve(server)
          },
          async holds(server) {
            await wait(50) // what the cloud had begun has ended
            await server.json('savings/look', post({}))
            const { state } = await find(server)
            expect([await isThere(), state === 'done']).toEqual(state === 'done' ? [false, true] : [true, false])
            const before = told
            expect((await approve(server)).status).toBe(200)
            expect(told).toBe(state === 'done' ? before : before + 1)
            expect([await isThere(), (await find(server)).state]).toEqual([false, 'done'])
          },
        }
      },
    }
  },
}
