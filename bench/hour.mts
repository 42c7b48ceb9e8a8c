// `npx tsx bench/hour.mts [minutes] [users]`: so many people at one server on the demo company's data, with loads, exports and edits, and
// what becomes of its memory. Build first, and load the demo data (`npm run demo`, then stop it): a copy of `.data` is used.
import { randomUUID } from 'node:crypto'
import { cpSync, mkdtempSync, readFileSync, readdirSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { charge, focusCsv } from '../tests/support/charges'
import { deliver } from '../tests/support/imports'
import { post, put, remove, startServer } from '../tests/support/server'
import { questions } from './questions'

const minutes = Number(process.argv[2] ?? 60)
const users = Number(process.argv[3] ?? 50)
const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-hour-'))
cpSync('.data', folder, { recursive: true })
const delays = join(folder, 'delays.json')
const server = await startServer({
  folder,
  env: { MAIN_THREAD_DELAYS: delays, NODE_OPTIONS: `--import ${join(process.cwd(), 'bench/delays.mjs')}` },
})

server.process.kill('SIGUSR2')
const end = Date.now() + minutes * 60_000
const times = new Map<string, number[]>()
const wrong = new Map<string, number>()
const pick = <T,>(list: readonly T[]): T => list[Math.floor(Math.random() * list.length)]!

/** Does one thing, times it, and notes what is not answered as it should be. */
async function timed(what: string, path: string, init: RequestInit = {}, good = [200, 202]): Promise<Response | null> {
  const began = performance.now()
  try {
    const reply = await server.call(path, init)
    await reply.clone().arrayBuffer()
    ;(times.get(what) ?? times.set(what, []).get(what)!).push(performance.now() - began)
    if (!good.includes(reply.status)) wrong.set(`${what} ${reply.status}`, (wrong.get(`${what} ${reply.status}`) ?? 0) + 1)
    return reply
  } catch (error) {
    const said = `${what} ${(error as Error).message}`
    wrong.set(said, (wrong.get(said) ?? 0) + 1)
    return null
  }
}

const { estimates } = await server.json<{ estimates: { id: string; estimate: { name: string } | null }[] }>('estimates')
const template = estimates.find(e => e.estimate)?.estimate ?? null
const resources = (
  await server.json<{ rows: { values: { ResourceId: string | null } }[] }>('spend/answer', post({ ...questions[4]!.question, limit: 200 }))
).rows.flatMap(row => row.values.ResourceId ?? [])

/** What a person does, and how often of a hundred times. */
const deeds: [times: number, deed: (user: number, turn: number) => Promise<unknown>][] = [
  [50, () => timed('answers', 'spend/answers', post({ questions: [pick(questions).question, pick(questions).question], packed: true }))],
  [8, () => timed('compare', 'spend/compare', post(compared))],
  [8, () => timed('resource', `resources?id=${encodeURIComponent(pick(resources))}`)],
  [6, () => timed('jump', `jump?q=${pick(['book', 'db', 'live', 'gate', 'crew'])}`)],
  [6, () => timed('sources', 'sources')],
  [
    4,
    () =>
      timed(
        'table',
        'spend/table',
        post({ question: pick(questions).question, format: pick(['csv', 'xlsx', 'json', 'parquet']), currency: 'EUR' }),
      ),
  ],
  [
    3,
    () =>
      timed(
        'lines',
        'spend/lines',
        post({
          question: { ...questions[10]!.question, limit: undefined },
          format: pick(['csv', 'xlsx']),
          columns: ['ResourceId', 'SkuId', 'BilledCost', 'ChargePeriodStart'],
        }),
      ),
  ],
  [2, () => timed('savings', 'savings')],
  [2, () => timed('settlement', 'allocation/settlement?month=2026-10&measure=effectiveCost')],
  [1, () => timed('bad request', 'spend/answer', post({ measure: 'free' }), [422])],
  [10, edit],
]
const compared = {
  measure: 'effectiveCost',
  splitBy: ['ServiceName'],
  now: { start: '2026-10-01', end: '2026-11-01' },
  before: { start: '2026-09-01', end: '2026-10-01' },
  keep: {},
  leaveOut: {},
}

async function edit(user: number, turn: number): Promise<void> {
  if (!template) return
  const id = ids[user]!
  const basedOn = versions.get(id) ?? null
  const reply = await timed(
    'estimate saved',
    `estimates/${id}`,
    put({ basedOn, estimate: { ...template, name: `of ${user}, turn ${turn}` } }),
  )
  if (reply?.ok) versions.set(id, ((await reply.json()) as { version: number }).version)
  if (turn % 5 === 0 && versions.has(id))
    await timed(
      'estimate exported',
      `estimates/${id}/export`,
      post({ format: pick(['csv', 'xlsx', 'pdf']), audience: pick(['own', 'customer']), version: versions.get(id) }),
    )
}
const versions = new Map<string, number>()
const ids = Array.from({ length: users }, () => randomUUID())

async function person(user: number): Promise<void> {
  await wait(Math.random() * 3000)
  for (let turn = 0; Date.now() < end; turn++) {
    let left = Math.random() * 100
    const [, deed] = deeds.find(([share]) => (left -= share) < 0) ?? deeds[0]!
    await deed(user, turn)
    await wait(1000 + Math.random() * 4000)
  }
}

/** A bill of 20,000 charges every half minute, in turn of ten sources: each replaces what it delivered before. */
async function loads(): Promise<void> {
  for (let turn = 0; Date.now() < end; turn++) {
    const account = `hour-${turn % 10}`
    const file = focusCsv(
      Array.from({ length: 20_000 }, (_, i) =>
        charge({
          BilledCost: `0.${(turn % 89) + 10}`,
          BillingAccountId: account,
          SubAccountId: account,
          ResourceId: `${account}-${i % 4000}`,
        }),
      ),
    )
    const began = performance.now()
    const { state, rows } = await deliver(server, account, file)
    ;(times.get('load') ?? times.set('load', []).get('load')!).push(performance.now() - began)
    if (state !== 'loaded' || rows !== 20_000) wrong.set(`load ${state}`, (wrong.get(`load ${state}`) ?? 0) + 1)
    await wait(30_000)
  }
}

/** Megabytes of memory of the server, and of all that it has begun. */
function memory(): { server: number; others: number } {
  const megabytes = (pid: string) => (Number(readFileSync(`/proc/${pid}/statm`, 'utf8').split(' ')[1]) * 4096) / 1024 / 1024
  const pid = String(server.process.pid)
  let others = 0
  for (const name of readdirSync('/proc')) {
    try {
      if (/^\d+$/.test(name) && readFileSync(`/proc/${name}/stat`, 'utf8').split(') ')[1]!.split(' ')[1] === pid) others += megabytes(name)
    } catch {
      // it has ended meanwhile
    }
  }
  return { server: Math.round(megabytes(pid)), others: Math.round(others) }
}

async function watch(): Promise<void> {
  const began = Date.now()
  while (Date.now() < end) {
    const { server: own, others } = memory()
    console.log(
      `${String(Math.round((Date.now() - began) / 60_000)).padStart(3)} min  server ${own} MB, reading ${others} MB, ${[...times.values()].reduce((n, list) => n + list.length, 0)} requests, ${[...wrong.values()].reduce((a, b) => a + b, 0)} wrong`,
    )
    await wait(Math.min(120_000, Math.max(0, end - Date.now())))
  }
}

await Promise.all([watch(), loads(), ...Array.from({ length: users }, (_, user) => person(user))])
console.log(memory())
for (const [what, list] of [...times].sort()) {
  list.sort((a, b) => a - b)
  const at = (share: number) => `${Math.round(list[Math.floor(list.length * share)] ?? list.at(-1)!)}`
  console.log(
    `${what.padEnd(20)} ${String(list.length).padStart(6)} times, half within ${at(0.5)} ms, 99 of 100 within ${at(0.99)} ms, longest ${Math.round(list.at(-1)!)} ms`,
  )
}
console.log('wrong:', Object.fromEntries(wrong))
console.log('delays of the main thread:', readFileSync(delays, 'utf8'))
console.log(
  'said in the log:',
  server
    .log()
    .split('\n')
    .filter(line => /fault|error|warn/i.test(line))
    .slice(0, 20),
)
await server.stop()
remove(folder)
