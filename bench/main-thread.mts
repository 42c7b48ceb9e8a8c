// `npm run bench:main-thread [seconds] [which]`: how late the thread that answers everybody comes to its work while the worst bodies that are
// allowed, exports of all charge lines, and imports run beside each other. Build first, and load the demo data (`npm run demo`, then stop
// it): a copy of `.data` is used.
import { cpSync, mkdtempSync, readFileSync } from 'node:fs'
import { setPriority, tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { brackwaterCard } from '../demo/rate-cards'
import { charge, focusCsv } from '../tests/support/charges'
import { deliver } from '../tests/support/imports'
import { post, remove, startServer } from '../tests/support/server'

const seconds = Number(process.argv[2] ?? 120)
/** Only one of them, by its name. */
const only = process.argv[3]
const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-main-thread-'))
cpSync('.data', folder, { recursive: true })
const delays = join(folder, 'delays.json')
const server = await startServer({ folder, env: { MAIN_THREAD_DELAYS: delays, NODE_OPTIONS: `--import ${resolve('bench/delays.mjs')}` } })

const MB = 1024 * 1024
const MOST_BYTES = 63 * MB
const day = (i: number) => new Date(Date.UTC(2000, 0, 1) + i * 86_400_000).toISOString().slice(0, 10)
const filled = <T,>(count: number, line: (i: number) => T): string => JSON.stringify(Array.from({ length: count }, (_, i) => line(i)))

/** 63 MB of exchange rates: as many lines as are taken, and notes that nobody reads. */
const rates = `{"lines":${filled(30_000, i => ({ from: i % 2 ? 'USD' : 'CHF', to: 'EUR', 'valid from': day(i >> 1), rate: `0.9${i}`, note: 'x'.repeat(2080) }))}}`
/** 63 MB of a rate card. */
const disk = brackwaterCard.prices.find(price => price.meter.startsWith('disk'))!
const card = JSON.stringify({
  ...brackwaterCard,
  provider: 'Bench',
  prices: Array.from({ length: 100_000 }, (_, i) => ({ ...disk, sku: `BENCH-${i}`, variant: `class ${i}`, excludes: 'y'.repeat(280) })),
})
console.log(`bodies of ${Math.round(rates.length / MB)} and ${Math.round(card.length / MB)} MB`)
if (Math.max(rates.length, card.length) > MOST_BYTES + MB) throw new Error('larger than what is taken')

const bill = focusCsv(
  Array.from({ length: 150_000 }, (_, i) => charge({ BilledCost: '1', BillingAccountId: 'bench', ResourceId: `r${i % 50_000}` })),
)
const question = { measure: 'effectiveCost', splitBy: [], grain: null, start: '2025-11-01', end: '2026-12-01', keep: {}, leaveOut: {} }
const columns = ['ResourceId', 'ResourceName', 'SkuId', 'ServiceName', 'BilledCost', 'EffectiveCost', 'ChargePeriodStart', 'Tags']
setPriority(10) // those who ask are elsewhere: they do not take the server's processors
server.process.kill('SIGUSR2')
const end = Date.now() + seconds * 1000
const done = new Map<string, number>()

async function again(what: string, work: () => Promise<number>): Promise<void> {
  while (Date.now() < end && (!only || what === only)) {
    const status = await work()
    done.set(`${what} ${status}`, (done.get(`${what} ${status}`) ?? 0) + 1)
  }
}
const sent = async (path: string, init: RequestInit) => {
  const reply = await server.call(path, init)
  for await (const _ of reply.body!); // taken as it comes
  return reply.status
}
const body = (text: string): RequestInit => ({ method: 'POST', body: text, headers: { 'content-type': 'application/json' } })
await Promise.all([
  again('rates', () => sent('rates/table', body(rates))),
  again('rate card', () => sent('rate-cards', body(card))),
  again('lines as CSV', () => sent('spend/lines', post({ question, format: 'csv', columns }))),
  again('lines as XLSX', () => sent('spend/lines', post({ question, format: 'xlsx', columns }))),
  again('table', () =>
    sent(
      'spend/table',
      post({ question: { ...question, splitBy: ['ResourceId'], grain: 'month' }, format: 'xlsx', currency: 'EUR', across: 'start' }),
    ),
  ),
  again('import', async () => ((await deliver(server, 'bench', bill)).state === 'loaded' ? 200 : 500)),
])
await new Promise(resolve => setTimeout(resolve, 1500))
console.log('done:', Object.fromEntries(done))
console.log('delays of the main thread in ms:', readFileSync(delays, 'utf8'))
await server.stop()
remove(folder)
