import { spawn } from 'node:child_process'
import { mkdtempSync, readdirSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, it } from 'vitest'
import type { ImportStatus } from '../../shared/contracts/imports'
import type { SpendAnswer } from '../../shared/contracts/spend'
import { charge, focusCsv } from '../support/charges'
import { deliver, ended } from '../support/imports'
import { BUILT, freePort, post, remove, startServer, type Running } from '../support/server'

const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-crash-'))
afterAll(() => remove(folder))

const totals = async (server: Running) =>
  (
    await server.json<SpendAnswer>(
      'spend/answer',
      post({ measure: 'billedCost', splitBy: [], grain: null, start: '2026-10-01', end: '2026-11-01' }),
    )
  ).totals
/** Each of an account of its own: they do not meet. */
const many = (account: number) =>
  focusCsv(
    Array.from({ length: 40_000 }, (_, i) =>
      charge({ BilledCost: '2', ResourceId: `r${i % 500}`, BillingAccountId: `account ${account}` }),
    ),
  )

it('kill -9 during a load loses nothing confirmed, leaves nothing half loaded, and the next process reads it again, once', async () => {
  let server = await startServer({ folder })
  expect((await deliver(server, 'bill', focusCsv([charge({ BilledCost: '41.5' })]))).state).toBe('loaded')
  const confirmed = await totals(server)

  // once early, while rows are staged; once late, when all have been read
  for (const [times, enough] of [10_000, 35_000].entries()) {
    const { id } = await server.json<{ id: string }>(`imports?source=bill${times}`, { method: 'POST', body: many(times) })
    for (;;) {
      const status = await server.json<ImportStatus>(`imports/${id}`)
      expect(status.state).not.toBe('loaded')
      if (status.rows >= enough) break
      await new Promise(resolve => setTimeout(resolve, 5))
    }
    await server.stop('SIGKILL')
    server = await startServer({ folder })
    const status = await ended(server, id)
    expect(status).toMatchObject({ state: 'loaded', rows: 40_000, errorCount: 0 })
    expect(status.inDatabase).toEqual(status.periods)
    expect(readdirSync(join(folder, 'inbox'))).toEqual([])
  }
  expect(await totals(server)).toEqual([{ currency: 'EUR', amount: String(Number(confirmed[0]!.amount) + 2 * 80_000) }])

  // files that had not all arrived are nobody's: they go, and nothing shows them
  const { id } = await server.json<{ id: string }>(
    'deliveries',
    post({
      source: 'bill',
      files: [
        { name: 'a.csv', bytes: 1 },
        { name: 'b.csv', bytes: 1 },
      ],
    }),
  )
  await server.json(`deliveries/${id}/files/0`, { method: 'PUT', body: focusCsv([charge()]) })
  expect(readdirSync(join(folder, 'inbox'))).toEqual([id])
  await server.stop('SIGKILL')
  server = await startServer({ folder })
  expect(readdirSync(join(folder, 'inbox'))).toEqual([])
  expect((await server.call(`imports/${id}`)).status).toBe(404)

  const again = await deliver(server, 'bill', many(2))
  expect(again).toMatchObject({ state: 'loaded', rows: 40_000 })
  expect(again.inDatabase).toEqual(again.periods)
  expect(await totals(server)).toEqual([{ currency: 'EUR', amount: '240000' }])
  await server.stop()
})

it('refuses a second process on the same folder and says what to do', async () => {
  const server = await startServer({ folder })
  const second = spawn(process.execPath, [BUILT], {
    env: { ...process.env, PORT: String(await freePort()), HOST: '127.0.0.1', RAIN_BARREL_DATA: folder },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let output = ''
  second.stderr.on('data', (chunk: Buffer) => {
    output += chunk
  })
  const code = await new Promise(resolve => second.on('exit', resolve))
  expect(code).toBe(1)
  expect(output).toContain('is in use by another Rain Barrel')
  expect(output).toContain('RAIN_BARREL_DATA')
  expect(await totals(server)).toEqual([{ currency: 'EUR', amount: '240000' }])
  await server.stop()
})
