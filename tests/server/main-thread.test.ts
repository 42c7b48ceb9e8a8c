// Nothing that takes long runs on the thread that answers everybody: what it uses of the processor is held against all that is used.
import { expect, it } from 'vitest'
import { charge, focusCsv } from '../support/charges'
import { cpuOf } from '../support/cpu'
import { deliver } from '../support/imports'
import { ownServer } from '../support/own-server'
import { post } from '../support/server'

const server = ownServer()

/** The main thread's share of the processor time that a work takes. */
async function shareOfMain(work: () => Promise<unknown>): Promise<number> {
  const pid = server.process.pid!
  const before = cpuOf(pid)
  await work()
  const after = cpuOf(pid)
  const [main, all] = [after.main - before.main, after.all - before.all]
  expect(all).toBeGreaterThan(250) // else it was nothing heavy
  return main / all
}

const CHARGES = 30_000
/** Measured: 0.06 of a large body, less of the others; a body that is read on the main thread takes 0.25. */
const MOST = 0.2
const question = {
  measure: 'billedCost',
  splitBy: ['ResourceId', 'ChargeDescription'],
  grain: 'month',
  start: '2026-10-01',
  end: '2026-11-01',
}

it('an import is read elsewhere', async () => {
  const file = focusCsv(
    Array.from({ length: CHARGES }, (_, i) => charge({ BilledCost: '0.25', ResourceId: `r-${i}`, ChargeDescription: `what ${i % 997}` })),
  )
  expect(await shareOfMain(async () => expect((await deliver(server, 'one', file)).rows).toBe(CHARGES))).toBeLessThan(MOST)
})

it('a large body is read, checked and made ready to be kept elsewhere', async () => {
  const from = Date.UTC(2000, 0, 1)
  const lines = Array.from({ length: 12_000 }, (_, i) => ({
    from: i % 2 ? 'USD' : 'CHF',
    to: 'EUR',
    'valid from': new Date(from + Math.floor(i / 2) * 86_400_000).toISOString().slice(0, 10),
    rate: `0.9${i}`,
    note: 'x'.repeat(1500),
  }))
  const init = post({ lines })
  expect((init.body as string).length).toBeGreaterThan(16 * 1024 * 1024)
  const taken = async () => expect(await server.json('rates/table', init)).toEqual({ rates: 12_000, changed: 12_000 })
  expect(await shareOfMain(taken)).toBeLessThan(MOST)
})

it.each(['csv', 'xlsx', 'json', 'parquet'])('charge lines are written as %s elsewhere', async format => {
  const asked = {
    question: { ...question, splitBy: [] },
    format,
    columns: ['ResourceId', 'ChargeDescription', 'BilledCost', 'ChargePeriodStart'],
  }
  const taken = async () =>
    expect((await (await server.call('spend/lines', post(asked))).arrayBuffer()).byteLength).toBeGreaterThan(100_000)
  expect(await shareOfMain(taken)).toBeLessThan(MOST)
})

it.each(['csv', 'xlsx'])('a table is made and written as %s elsewhere', async format => {
  const asked = { question, format, currency: 'EUR', across: null, columns: ['share', 'perDay'] }
  const taken = async () =>
    expect((await (await server.call('spend/table', post(asked))).arrayBuffer()).byteLength).toBeGreaterThan(100_000)
  expect(await shareOfMain(taken)).toBeLessThan(MOST)
})

it('a large answer is written where it is made', async () => {
  const asked = { ...question, limit: 100_000 }
  const taken = async () => {
    const text = await (await server.call('spend/answer', post(asked))).text()
    expect(text.length).toBeGreaterThan(2_500_000)
    expect((JSON.parse(text) as { rows: unknown[] }).rows).toHaveLength(CHARGES)
  }
  expect(await shareOfMain(taken)).toBeLessThan(MOST)
})
