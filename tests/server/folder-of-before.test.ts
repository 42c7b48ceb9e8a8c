// A data folder as it was while timers, the environment and a thread did what rows do now: everything it said is said again.
import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { jobList } from '../../shared/contracts/jobs'
import { charge, focusCsv } from '../support/charges'
import { deliver } from '../support/imports'
import { openAsBefore } from '../support/kept'
import { dayNumber } from '../../core/time/day'
import { runsOf } from '../../core/time/day-runs'
import { sourcesOverview } from '../../shared/contracts/imports'
import { savingsState } from '../../shared/contracts/savings'
import { freePort, post, remove, startServer, type Running } from '../support/server'

type Shown = { path: string; body?: unknown; reply: Record<string, unknown> }
/** Written by the version before: its tables as copies, and what it replied. */
const before = JSON.parse(readFileSync('tests/fixtures/folder-of-before.json', 'utf8')) as {
  migrations: number
  watched: string
  tables: Record<string, string>
  shown: Record<string, Shown>
}
const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-before-'))
let server: Running

beforeAll(async () => {
  const database = await openAsBefore(folder, before.migrations)
  // what is pointed to comes before what points
  const names = Object.keys(before.tables).sort(
    (a, b) => Number(b === 'load' || b === 'opportunity') - Number(a === 'load' || a === 'opportunity'),
  )
  for (const name of names) await database.copyIn(name, 'format text', Buffer.from(before.tables[name]!))
  for (const [table, column] of [
    ['load', 'id'],
    ['source_watch', 'id'],
    ['invoice', 'id'],
    ['action', 'id'],
    ['allocation_version', 'version'],
  ])
    await database.query(
      `select setval(pg_get_serial_sequence('${table}', '${column}'), (select coalesce(max(${column}), 0) + 1 from ${table}), false)`,
    )
  await database.close()
  server = await startServer({ folder, env: { BRACKWATER_URL: `http://127.0.0.1:${await freePort()}` } })
})
afterAll(async () => {
  await server.stop()
  remove(folder)
})

/**
 * What came of what runs by itself may have come anew; what days lack charges is told in runs by now, what proves an opportunity in series,
 * and how an invoice is rounded.
 */
const changed = ['lastSaid', 'lastAskedAt', 'lastTriedAt', 'lastSentAt', 'missingDays', 'missing', 'lines', 'evidence']
const lasting = (reply: unknown): unknown =>
  JSON.parse(JSON.stringify(reply, (key, value: unknown) => (changed.includes(key) ? undefined : value)))

it.each(Object.entries(before.shown))('says of %s what it said', async (_, { path, body, reply }) => {
  expect(await server.json(path, body ? post(body) : undefined)).toMatchObject(lasting(reply) as object)
})

it('says in runs which days a source lacks', async () => {
  const { sources } = before.shown.sources!.reply as { sources: { source: string; missingDays: string[] }[] }
  const now = sourcesOverview.parse(await server.json('sources')).sources
  for (const { source, missingDays } of sources) {
    const own = now.find(state => state.source === source)!
    expect([own.missingCount, own.missingDays]).toEqual([missingDays.length, runsOf(missingDays.map(dayNumber))])
  }
})

it('says in series what proved an opportunity', async () => {
  type Proof = { from: string; to: string; dailyGb: { day: string; gb: number }[] }
  const { opportunities } = before.shown.savings!.reply as { opportunities: { id: string; evidence: Proof }[] }
  const now = savingsState.parse(await server.json('savings')).opportunities
  expect(opportunities.length).toBe(now.length)
  for (const { id, evidence } of opportunities) {
    const { series, ...period } = now.find(one => one.id === id)!.evidence
    expect(period).toEqual({ from: evidence.from, to: evidence.to })
    expect(series.map(({ unit, days }) => [unit, days])).toEqual([['GB', evidence.dailyGb.map(({ day, gb }) => ({ day, value: gb }))]])
  }
})

it('does by itself what it did, at the time at which it was due', async () => {
  const { jobs } = jobList.parse(await server.json('jobs'))
  const shown = jobs.map(({ kind, about, every, tell }) => [kind, about, every, tell])
  expect(shown).toEqual([
    ['watched-folder', `${before.watched}, for Harbour bills`, { count: 120, unit: 'minute' }, 'Ines Moldal'],
    ['rate-card', 'brackwater', { count: 24, unit: 'hour' }, 'nobody'],
    ['mail', 'October by account, to petra@example.org', { count: 1, unit: 'week' }, 'Ines Moldal'],
    ['bill', 'brackwater', null, 'nobody'],
    ['events', 'brackwater', { count: 1, unit: 'day' }, 'nobody'],
    ['look-for-savings', 'brackwater', { count: 1, unit: 'day' }, 'nobody'],
  ])
})

it('goes on from there: the next delivery replaces the one before, and can be taken back', async () => {
  const answer = before.shown.answer!
  const next = await deliver(server, 'Testcloud', focusCsv([charge({ BilledCost: '5', SubAccountName: 'new here' })]))
  expect(next).toMatchObject({ state: 'loaded', inDatabase: next.periods })
  const { rows } = await server.json<{ rows: { values: Record<string, string>; amount: string }[] }>('spend/answer', post(answer.body))
  expect(rows.find(row => row.values.SubAccountName === 'new here')?.amount).toBe('5')
  expect((await server.call(`imports/${next.id}/undo`, post({}))).ok).toBe(true)
  const { revision: _, ...figures } = answer.reply
  expect(await server.json('spend/answer', post(answer.body))).toMatchObject(figures)
  // what waited for a choice still does, and can be chosen
  expect((await server.call('imports/4/choose', post({ use: 'this' }))).ok).toBe(true)
  const chosen = await server.json<{ totals: unknown }>(
    'spend/answer',
    post({ measure: 'billedCost', splitBy: [], grain: null, start: '2026-10-01', end: '2026-11-01' }),
  )
  expect(chosen.totals).toEqual([{ currency: 'EUR', amount: '99' }])
})
