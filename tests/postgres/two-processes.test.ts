// Two processes on one PostgreSQL server: what one changes the other hears; what one leaves behind when it is killed the other takes up,
// once.
import { mkdtempSync } from 'node:fs'
import type { Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { sourcesOverview } from '../../shared/contracts/imports'
import { jobList, type JobView } from '../../shared/contracts/jobs'
import { EntryStore } from '../../server/charges/entry-store'
import { digestOf, entryTexts, idsFrom } from '../../server/charges/entry-ids'
import { cloudServer } from '../../stand-ins/cloud/server'
import { charge, focusCsv } from '../support/charges'
import { deliver, ended } from '../support/imports'
import { openKept, post, remove, startServer, type Running } from '../support/server'
import { databaseOf, emptyDatabaseOf } from '../support/postgres'

const who = { cookie: 'rain-barrel-person=Ines%20Moldal' }
const LEASE_SECONDS = 3

describe('two processes', () => {
  const folders = ['a', 'b'].map(name => mkdtempSync(join(tmpdir(), `rain-barrel-two-${name}-`)))
  let cloud: Server
  let cloudBase: string
  let a: Running
  let b: Running
  const start = async (folder: string) =>
    startServer({
      folder,
      env: { DATABASE_URL: (await databaseOf(folders[0]!))!, BRACKWATER_URL: cloudBase, RAIN_BARREL_LEASE_SECONDS: String(LEASE_SECONDS) },
    })
  const misbehave = (next: string | null) => fetch(`${cloudBase}/v1/behaviour`, { method: 'POST', body: JSON.stringify({ next }) })
  const job = async (server: Running, kind: string) => jobList.parse(await server.json('jobs')).jobs.find(one => one.kind === kind)!
  async function until<T>(look: () => Promise<T>, fits: (seen: T) => boolean): Promise<T> {
    let seen = await look()
    for (let tries = 0; tries < 600 && !fits(seen); tries++) {
      await new Promise(resolve => setTimeout(resolve, 25))
      seen = await look()
    }
    expect(fits(seen), JSON.stringify(seen)).toBe(true)
    return seen
  }
  const question = { measure: 'billedCost', splitBy: ['SubAccountName'], grain: null, start: '2026-01-01', end: '2027-01-01' }
  const answer = (server: Running) =>
    server.json<{ rows: { values: Record<string, string>; amount: string }[]; revision: number }>('spend/answer', post(question))

  beforeAll(async () => {
    cloud = cloudServer(join(folders[0]!, 'cloud.json'))
    await new Promise<void>(resolve => cloud.listen(0, '127.0.0.1', resolve))
    cloudBase = `http://127.0.0.1:${(cloud.address() as AddressInfo).port}`
    ;[a, b] = await Promise.all([start(folders[0]!), start(folders[1]!)])
  })
  afterAll(async () => {
    await Promise.all([a.stop(), b.stop()])
    cloud.closeAllConnections()
    cloud.close()
    folders.forEach(remove)
  })

  it('what one loads, takes back and renames the other answers with', async () => {
    const load = await deliver(
      a,
      'one',
      focusCsv([charge({ BilledCost: '12.5', SubAccountName: 'live' }), charge({ BilledCost: '2', SubAccountName: 'Live' })]),
    )
    expect(load.state).toBe('loaded')
    await until(
      () => answer(b),
      ({ rows }) => rows.length === 2,
    )
    expect(await answer(b)).toEqual(await answer(a))
    expect(await b.json(`imports/${load.id}`)).toMatchObject({ state: 'loaded', inDatabase: load.inDatabase })
    await a.json('spend/aliases', post({ dimension: 'SubAccountName', spellings: ['Live'], as: 'live' }, who))
    const { rows } = await until(
      () => answer(b),
      ({ rows }) => rows.length === 1,
    )
    expect(rows[0]).toMatchObject({ values: { SubAccountName: 'live' }, amount: '14.5' })
    await b.json(`imports/${load.id}/undo`, post({ empty: true }, who))
    await until(
      () => answer(a),
      ({ rows }) => rows.length === 0,
    )
  })

  it('both load at once, the same new entries among them: every charge counts once and every entry is one', async () => {
    const bill = (account: string) =>
      focusCsv(
        Array.from({ length: 3000 }, (_, i) =>
          charge({ BilledCost: '0.1', BillingAccountId: account, ResourceId: `r${i % 700}`, ResourceName: `r${i % 700}` }),
        ),
      )
    const loads = await Promise.all(Array.from({ length: 6 }, (_, i) => deliver(i % 2 ? a : b, `at once ${i}`, bill(`account ${i}`))))
    expect(loads.map(({ state }) => state)).toEqual(Array<string>(6).fill('loaded'))
    for (const server of [a, b]) {
      const { rows } = await until(
        () => answer(server),
        ({ revision }) => revision >= 8,
      )
      expect(rows.map(({ amount }) => amount)).toEqual(['1800'])
    }
    const database = await openKept(folders[0]!)
    const [row] = await database.query(
      `select count(*)::int, count(distinct resource_id)::int from focus_resource where resource_id ~ '^r[0-9]+$'`,
    )
    expect(row).toEqual([700, 700])
    await database.close()
  })

  it('two that deliver the same billing account at once: one waits for a choice, whoever read it', async () => {
    const bill = focusCsv([charge({ BilledCost: '77', BillingAccountId: 'contested' })])
    const states = (await Promise.all([deliver(a, 'left', bill), deliver(b, 'right', bill)])).map(({ state }) => state).sort()
    expect(states).toEqual(['choosing', 'loaded'])
  })

  it('a process is killed at its work: the other takes it up when its lease has ended, not before, and once', async () => {
    const bill = await job(a, 'bill')
    await misbehave('take long')
    await a.json(`jobs/${bill.id}/run`, post({}, who))
    await until(
      () => job(a, 'bill'),
      ({ state }) => state === 'running',
    )
    await a.stop('SIGKILL')
    const killed = Date.now()
    const seen: JobView = await until(
      () => job(b, 'bill'),
      ({ state }) => state !== 'running',
    )
    expect(seen).toMatchObject({ state: 'done', outcome: expect.stringContaining('asked for the bill') })
    expect(Date.now() - killed).toBeGreaterThan((LEASE_SECONDS * 1000) / 2)
    const loads = sourcesOverview.parse(await b.json('sources')).loads.filter(({ source }) => source === 'Brackwater Cloud')
    expect(loads.length).toBe(1)
    expect((await ended(b, loads[0]!.id)).state).toBe('loaded')
  })

  it('a load is read again by the process that has its files, and can be stopped from the other', async () => {
    a = await start(folders[0]!)
    const many = focusCsv(
      Array.from({ length: 150_000 }, (_, i) => charge({ BilledCost: '1', BillingAccountId: 'killed', ResourceId: `k${i % 50}` })),
    )
    const { id } = await a.json<{ id: string }>('imports?source=killed', { method: 'POST', body: many })
    await until(
      () => a.json<{ rows: number }>(`imports/${id}`),
      ({ rows }) => rows > 20_000,
    )
    await a.stop('SIGKILL')
    // its files lie with the other: nobody here can go on
    await new Promise(resolve => setTimeout(resolve, (LEASE_SECONDS + 1) * 1000))
    expect(await b.json(`imports/${id}`)).toMatchObject({ state: 'checking' })
    a = await start(folders[0]!)
    expect(await ended(b, id)).toMatchObject({ state: 'loaded', rows: 150_000 })
    const next = await a.json<{ id: string }>('imports?source=stopped', { method: 'POST', body: many.replaceAll('killed', 'stopped') })
    await until(
      () => a.json<{ rows: number }>(`imports/${next.id}`),
      ({ rows }) => rows > 5000,
    )
    expect((await b.call(`imports/${next.id}/stop`, post({}, who))).ok).toBe(true)
    expect(await ended(b, next.id)).toMatchObject({ state: 'stopped' })
  })

  it('two that start at once on a database with nothing in it make it ready once', async () => {
    const empty = ['c', 'd'].map(name => mkdtempSync(join(tmpdir(), `rain-barrel-empty-${name}-`)))
    const url = (await emptyDatabaseOf(join(folders[0]!, 'empty')))!
    const [c, d] = await Promise.all(empty.map(folder => startServer({ folder, env: { DATABASE_URL: url, BRACKWATER_URL: cloudBase } })))
    expect((await deliver(c!, 'one', focusCsv([charge({ BilledCost: '3' })]))).state).toBe('loaded')
    await until(
      () => answer(d!),
      ({ rows }) => rows.length === 1,
    )
    expect((await d!.json<{ connections: unknown[] }>('connections')).connections.length).toBe(1)
    await Promise.all([c!.stop(), d!.stop()])
    expect([c!.log(), d!.log()].join('')).not.toMatch(/error/i)
    empty.forEach(remove)
  })

  it('gives entries their ids, whatever they hold and however often they are asked for', async () => {
    const [one, two] = await Promise.all([openKept(folders[0]!), openKept(folders[0]!)])
    const texts = ['', 'NULL', '\\N', '"', "'", '\\', ',', '{}', '{"a":1}', 'a\nb\tc', 'ä→🛢', '%s $1', null]
    const entries = texts.map((text, i) => ({ digest: digestOf([text, `nasty ${i}`]), values: [text, `nasty ${i}`, null] }))
    const [first, second] = await Promise.all(
      [one, two].map(database => new EntryStore(database).enter(entryTexts({ subAccount: entries, tagSet: [] })).then(idsFrom)),
    )
    expect(first!.subAccount).toEqual(second!.subAccount)
    expect(new Set(first!.subAccount).size).toBe(texts.length)
    const kept = await new EntryStore(one).among('subAccount', first!.subAccount!)
    expect(kept.sort((x, y) => x[0] - y[0]).map(([, ...values]) => values)).toEqual(
      [...entries]
        .sort((x, y) => first!.subAccount![entries.indexOf(x)]! - first!.subAccount![entries.indexOf(y)]!)
        .map(({ values }) => values),
    )
    await Promise.all([one.close(), two.close()])
  })
})
