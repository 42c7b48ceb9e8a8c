import { spawn } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, it } from 'vitest'
import type { ImportStatus } from '../../shared/contracts/imports'
import type { SpendAnswer } from '../../shared/contracts/spend'
import { charge, focusCsv } from '../support/charges'
import { deliver } from '../support/imports'
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
const many = focusCsv(Array.from({ length: 90_000 }, (_, i) => charge({ BilledCost: '2', ResourceId: `r${i % 500}` })))

it('kill -9 during a load loses nothing confirmed and leaves nothing half loaded', async () => {
  let server = await startServer({ folder })
  expect((await deliver(server, 'bill', focusCsv([charge({ BilledCost: '41.5' })]))).state).toBe('loaded')
  const confirmed = await totals(server)

  // once early, while rows are staged; once late, when all have been read
  for (const enough of [20_000, 80_000]) {
    const { id } = await server.json<{ id: string }>('imports?source=bill', { method: 'POST', body: many })
    for (;;) {
      const status = await server.json<ImportStatus>(`imports/${id}`)
      expect(status.state).not.toBe('loaded')
      if (status.rows >= enough) break
    }
    await server.stop('SIGKILL')
    server = await startServer({ folder })
    expect(await totals(server)).toEqual(confirmed)
    expect(await server.json<ImportStatus>(`imports/${id}`)).toMatchObject({
      state: 'stopped',
      message: expect.stringContaining('drop the files again'),
    })
  }

  const again = await deliver(server, 'bill', many)
  expect(again).toMatchObject({ state: 'loaded', rows: 90_000 })
  expect(again.inDatabase).toEqual(again.periods)
  expect(await totals(server)).toEqual([{ currency: 'EUR', amount: '180000' }])
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
  expect(await totals(server)).toEqual([{ currency: 'EUR', amount: '180000' }])
  await server.stop()
})
