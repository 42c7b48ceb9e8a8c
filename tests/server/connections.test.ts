// Connections are rows: made, tested, changed and taken out over the interface, each with what its kind can do.
import { mkdtempSync, writeFileSync } from 'node:fs'
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { connectionState, connectionTested, connectorKindList } from '../../shared/contracts/connections'
import { jobList } from '../../shared/contracts/jobs'
import { makers } from '../../shared/contracts/resources'
import { larkfieldCard } from '../../demo/rate-cards'
import { cloudServer } from '../../stand-ins/cloud/server'
import { ended } from '../support/imports'
import { cloud as cloudKind } from '../../server/connectors/kinds/cloud'
import { freePort, post, put, remove, startServer, type Running } from '../support/server'

const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-connections-'))
const secretFile = join(folder, 'secret')
const TOKEN = 'open sesame, 47'
let cloud: Server
let prices: Server
let cloudBase: string
let pricesUrl: string
let server: Running
const listen = async (one: Server) => {
  await new Promise<void>(resolve => one.listen(0, '127.0.0.1', resolve))
  return `http://127.0.0.1:${(one.address() as AddressInfo).port}`
}

beforeAll(async () => {
  cloud = cloudServer(join(folder, 'cloud.json'), TOKEN)
  cloudBase = await listen(cloud)
  prices = createServer((request, response) =>
    response.writeHead(request.url === '/prices.json' ? 200 : 404).end(JSON.stringify(larkfieldCard)),
  )
  pricesUrl = `${await listen(prices)}/prices.json`
  writeFileSync(secretFile, `${TOKEN}\n`)
  server = await startServer({ env: { CLOUD_TOKEN: TOKEN, WRONG_TOKEN: 'no' } })
})
afterAll(async () => {
  await server.stop()
  cloud.close()
  prices.close()
  remove(server.folder)
  remove(folder)
})

const who = { cookie: 'rain-barrel-person=Ines%20Moldal' }
const list = async () => connectionState.parse(await server.json('connections')).connections
const test = async (more: object) =>
  connectionTested.parse(await server.json('connections/test', post({ name: 'x', kind: 'cloud', address: cloudBase, ...more })))
const make = (input: object) => server.call('connections', post(input, who))
const detail = async (reply: Response) => ((await reply.json()) as { detail: string }).detail

it('starts with none, and knows what each kind can do', async () => {
  expect(await list()).toEqual([])
  const { kinds } = connectorKindList.parse(await server.json('connections/kinds'))
  expect(kinds.map(({ kind, can }) => [kind, can])).toEqual([
    ['cloud', ['bill', 'rate card', 'inventory', 'measurements', 'events', 'actions']],
    ['work-orders', ['bill', 'inventory', 'measurements', 'events', 'actions']],
    ['published-rate-card', ['rate card']],
    ['register', ['register']],
  ])
})

it('tests a service before anything is kept, and never shows a secret', async () => {
  expect(await test({ secret: 'env:CLOUD_TOKEN' })).toEqual({ provider: 'Brackwater Cloud', now: '2026-11-24T09:00:00Z', problem: null })
  expect(await test({ secret: `file:${secretFile}` })).toMatchObject({ provider: 'Brackwater Cloud', problem: null })
  expect((await test({})).problem).toBe('x refused: the secret is missing or wrong')
  expect((await test({ secret: 'env:WRONG_TOKEN' })).problem).toBe('x refused: the secret is missing or wrong')
  expect((await test({ secret: 'env:NO_SUCH' })).problem).toContain('The environment has no secret NO_SUCH')
  expect((await test({ secret: 'file:/no/such/file' })).problem).toContain('/no/such/file cannot be read (ENOENT)')
  expect((await test({ address: `http://127.0.0.1:${await freePort()}` })).problem).toContain('could not be reached')
  expect((await test({ kind: 'published-rate-card' })).problem).toContain('x refused')
  expect(await list()).toEqual([])
  for (const wrong of [{ secret: TOKEN }, { address: 'ftp://x.example' }, { address: 'nowhere' }, { name: '' }, { name: '../x' }])
    expect((await server.call('connections/test', post({ name: 'x', kind: 'cloud', address: cloudBase, ...wrong }))).status).toBe(422)
  expect((await server.call('connections/test', post({ name: 'x', kind: 'toString', address: cloudBase }))).status).toBe(422)
})

it('is a row whatever its name, and gets the jobs that its kind is for', async () => {
  expect((await make({ name: 'constructor', kind: 'cloud', address: cloudBase, secret: 'env:CLOUD_TOKEN' })).status).toBe(200)
  expect((await make({ name: '__proto__', kind: 'cloud', address: cloudBase })).status).toBe(422)
  expect((await make({ name: 'pier prices', kind: 'published-rate-card', address: pricesUrl })).status).toBe(200)
  expect((await make({ name: 'constructor', kind: 'cloud', address: cloudBase })).status).toBe(409)
  const [first, second] = await list()
  expect(first).toMatchObject({
    name: 'constructor',
    provider: 'Brackwater Cloud',
    now: '2026-11-24T09:00:00Z',
    problem: null,
    secret: 'env:CLOUD_TOKEN',
    played: true,
    who: 'Ines Moldal',
  })
  expect(second).toMatchObject({
    name: 'pier prices',
    provider: larkfieldCard.provider,
    now: larkfieldCard.validFrom,
    can: ['rate card'],
    played: false,
  })
  expect(JSON.stringify(await server.json('connections'))).not.toContain(TOKEN)
  const jobs = async () =>
    jobList.parse(await server.json('jobs')).jobs.map(({ kind, about, every, tell }) => [kind, about, every?.unit ?? null, tell])
  expect(await jobs()).toEqual([
    ['bill', 'constructor', null, 'Ines Moldal'],
    ['rate-card', 'constructor', null, 'Ines Moldal'],
    ['events', 'constructor', 'day', 'Ines Moldal'],
    ['look-for-savings', 'constructor', 'day', 'Ines Moldal'],
    ['rate-card', 'pier prices', null, 'Ines Moldal'],
  ])
})

it('does through each what it can do, and says of others that they cannot', async () => {
  expect(await server.json('connections/pier%20prices/rate-card', post({}, who))).toMatchObject({
    provider: larkfieldCard.provider,
    validFrom: larkfieldCard.validFrom,
  })
  const { importIds } = await server.json<{ importIds: string[] }>('connections/constructor/fetch', post({}, who))
  expect((await ended(server, importIds[0]!)).state).toBe('loaded')
  const bill = await server.call('connections/pier%20prices/fetch', post({}, who))
  expect([bill.status, await detail(bill)]).toEqual([409, '«pier prices» has no bill.'])
  const day = await server.call('connections/pier%20prices/next-day', post({}, who))
  expect(day.status).toBe(409)
  expect(await detail(await server.call('connections/toString/rate-card', post({}, who)))).toContain(
    'Nothing is connected under «toString»',
  )
  for (const name of ['hasOwnProperty', 'valueOf']) expect((await server.call(`connections/${name}/fetch`, post({}, who))).status).toBe(404)
})

it('tells what has happened there', async () => {
  const connector = cloudKind.connect({ name: 'x', provider: 'Brackwater Cloud', address: cloudBase, secret: `file:${secretFile}` })
  const made = await connector.can.events!.since('2026-11-22')
  expect(new Set(made.map(({ what, by }) => `${what} by ${by}`))).toEqual(new Set(['created by release pipeline']))
  expect(made.every(({ at }) => at >= '2026-11-22')).toBe(true)
  const [gateway] = await connector.can.inventory!.resources('gateway')
  expect(await connector.can.inventory!.resources('constructor')).toEqual([])
  expect(await connector.can.measurements!.metrics('server')).toEqual([
    { metric: 'cpu', what: 'processor used', unit: '%' },
    { metric: 'memory', what: 'memory used', unit: '%' },
  ])
  expect(await connector.can.measurements!.metrics('constructor')).toEqual([])
  expect(await connector.can.actions!.of('disk')).toEqual(['delete', 'snapshot and delete', 'change class', 'tag'])
  expect(await connector.can.actions!.of('constructor')).toEqual([])
  expect(await connector.can.measurements!.metrics('gateway')).toEqual([{ metric: 'passed', what: 'passed through', unit: 'GB' }])
  await connector.can.actions!.carryOut({ type: 'gateway', deed: 'delete' }, gateway!.id, 'a key')
  const since = async (day: string) => (await connector.can.events!.since(day)).filter(({ what }) => what !== 'created')
  expect(await since('2026-11-24')).toEqual([
    { id: `${gateway!.id}/deleted`, at: '2026-11-24T09:00:00Z', resourceId: gateway!.id, what: 'deleted', by: 'Rain Barrel' },
  ])
  expect(await since('2026-11-25')).toEqual([])
})

it('is asked for what has happened once it is connected, and knows who made what and what else they made', async () => {
  const events = async () =>
    jobList.parse(await server.json('jobs')).jobs.find(({ kind, about }) => kind === 'events' && about === 'constructor')!
  while (!(await events()).outcome) await new Promise(resolve => setTimeout(resolve, 50))
  expect((await events()).outcome).toMatch(/^\d,\d{3} new events since 20 Oct 2025$/)
  const connector = cloudKind.connect({ name: 'x', provider: 'Brackwater Cloud', address: cloudBase, secret: `file:${secretFile}` })
  const made = (await connector.can.events!.since('2025-11-01')).filter(({ what }) => what === 'created')
  const [first, second] = made.filter(({ by }) => by === 'Petra Holm')
  const ids = [first!.resourceId, second!.resourceId, 'nobody knows it']
  const asked = makers.parse(await server.json('resources/makers', post({ ids })))
  expect(asked.makers.map(({ by, ids }) => [by, ids])).toEqual([['Petra Holm', ids.slice(0, 2).sort()]])
  const others = made.filter(({ by, resourceId }) => by === 'Petra Holm' && !ids.includes(resourceId)).map(({ resourceId }) => resourceId)
  expect([...asked.makers[0]!.others].sort()).toEqual([...new Set(others)].sort())
  expect(makers.parse(await server.json('resources/makers', post({ ids: ['nobody knows it'] })))).toEqual({ makers: [] })
})

it('is changed without losing its jobs, kept while the service is away, and taken out with them', async () => {
  const gone = `http://127.0.0.1:${await freePort()}`
  const away = await server.call('connections/constructor', put({ kind: 'cloud', address: gone, secret: null }, who))
  expect(away.status).toBe(422)
  expect(await detail(away)).toContain('could not be reached')
  expect((await list())[0]!.address).toBe(cloudBase)
  expect((await server.call('connections/constructor', put({ kind: 'cloud', address: gone, provider: 'Brackwater Cloud' }, who))).ok).toBe(
    true,
  )
  expect((await list())[0]).toMatchObject({
    address: gone,
    secret: null,
    now: null,
    problem: expect.stringContaining('could not be reached'),
  })
  await server.json('watches', post({ source: 'Brackwater Cloud', kind: 'connection', place: 'constructor', everyMinutes: 60 }, who))
  expect((await server.call('connections/constructor', { method: 'DELETE', headers: who })).ok).toBe(true)
  expect((await list()).map(({ name }) => name)).toEqual(['pier prices'])
  expect(jobList.parse(await server.json('jobs')).jobs.map(({ about }) => about)).toEqual(['pier prices'])
  expect(await server.json('watches')).toMatchObject({ watches: [] })
  expect((await server.call('connections/constructor', { method: 'DELETE' })).status).toBe(404)
})

it('is made of the environment where none of that name is there, and stays what people have made of it', async () => {
  await server.stop()
  const env = { BRACKWATER_URL: cloudBase, CLOUD_TOKEN: TOKEN }
  server = await startServer({ folder: server.folder, env })
  expect((await list()).map(({ name, address, who }) => [name, address, who])).toEqual([
    ['brackwater', cloudBase, 'the environment'],
    ['pier prices', pricesUrl, 'Ines Moldal'],
  ])
  await server.json('connections/brackwater', put({ kind: 'cloud', address: cloudBase, secret: 'env:CLOUD_TOKEN' }, who))
  await server.stop()
  server = await startServer({ folder: server.folder, env: { ...env, BRACKWATER_URL: 'http://127.0.0.1:1' } })
  expect((await list())[0]).toMatchObject({
    name: 'brackwater',
    address: cloudBase,
    secret: 'env:CLOUD_TOKEN',
    who: 'Ines Moldal',
    problem: null,
  })
})
