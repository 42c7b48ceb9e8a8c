// A clock that was wrong for a while: nothing that is kept depends on it, and what runs by itself goes on once it is right again.
import { mkdtempSync, utimesSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { afterAll, expect, it } from 'vitest'
import type { JobView } from '../../shared/contracts/jobs'
import type { SpendAnswer } from '../../shared/contracts/spend'
import { charge, focusCsv } from '../support/charges'
import { deliver } from '../support/imports'
import { post, put, remove, startServer, type Running } from '../support/server'

const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-clock-'))
const watched = mkdtempSync(join(tmpdir(), 'rain-barrel-clock-watched-'))
afterAll(() => [folder, watched].forEach(remove))

const YEAR_MS = 365 * 86_400_000
/** The server with its clock, and its database's, so many years ahead: the embedded one, since a server has a clock of its own. */
const at = (years: number) =>
  startServer({
    folder,
    env: {
      DATABASE_URL: '',
      CLOCK_OFFSET_MS: String(years * YEAR_MS),
      NODE_OPTIONS: `--import ${resolve('tests/support/shifted-clock.mjs')}`,
    },
  })
const bill = (cost: string) => focusCsv([charge({ BilledCost: cost })])
const total = async (server: Running) =>
  (
    await server.json<SpendAnswer>(
      'spend/answer',
      post({ measure: 'billedCost', splitBy: [], grain: null, start: '2026-10-01', end: '2026-11-01' }),
    )
  ).totals
const jobs = async (server: Running) =>
  (await server.json<{ jobs: JobView[] }>('jobs')).jobs.map(({ does, due, endedAt }) => ({ does, due, endedAt }))
/** Waits for what comes by itself. */
const until = (holds: () => Promise<boolean>) => expect.poll(holds, { timeout: 120_000, interval: 100 }).toBe(true)

it('a clock ten years ahead, then right, then two years behind', async () => {
  let server = await at(10)
  const year = new Date().getFullYear()
  expect((await deliver(server, 'bill', bill('1'))).state).toBe('loaded')
  expect(await total(server)).toEqual([{ currency: 'EUR', amount: '1' }])
  await server.json('watches', post({ source: 'watched', kind: 'folder', place: watched, everyMinutes: 60 }))
  await until(async () => (await jobs(server)).every(job => job.endedAt !== null))
  const [far] = await jobs(server)
  expect(Number(far!.due!.slice(0, 4))).toBeGreaterThanOrEqual(year + 9)
  await server.stop()

  const file = join(watched, 'bill.csv')
  writeFileSync(file, focusCsv([charge({ BilledCost: '5', BillingAccountId: 'watched' })]))
  utimesSync(file, new Date(Date.now() - 600_000), new Date(Date.now() - 600_000)) // nobody writes it any more

  // right again: what was to run in ten years runs now, and then within its hour
  server = await at(0)
  expect(await total(server)).toEqual([{ currency: 'EUR', amount: '1' }])
  await until(async () => Date.parse((await jobs(server))[0]!.due!) < Date.now() + 3_700_000)
  await until(async () => (await total(server))[0]!.amount === '6')
  // what comes now replaces what came under the wrong clock: the newer delivery of a source counts
  expect((await deliver(server, 'bill', bill('2'))).state).toBe('loaded')
  expect(await total(server)).toEqual([{ currency: 'EUR', amount: '7' }])
  await server.stop()

  server = await at(-2)
  expect((await deliver(server, 'bill', bill('3'))).state).toBe('loaded')
  expect(await total(server)).toEqual([{ currency: 'EUR', amount: '8' }])
  const id = '00000000-0000-4000-8000-000000000001'
  expect((await server.call(`sentences/${id}`, put({ name: 'kept', body: { query: {} } }))).status).toBe(200)
  await server.stop()
  server = await at(0)
  expect(await total(server)).toEqual([{ currency: 'EUR', amount: '8' }])
  expect(server.log()).not.toMatch(/fault|error/i)
  await server.stop()
})
