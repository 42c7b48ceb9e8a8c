// Everything that is kept, as one file: made of a running server or a folder, restored on either database, across kills; damage is named.
import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { createWriteStream, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs'
import { get, type IncomingMessage } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { PassThrough } from 'node:stream'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newEstimate, newRow } from '../../core/estimate/estimate'
import { ChargeStore } from '../../server/charges/charge-store'
import { holderOf } from '../../server/db/folder-lock'
import { openEmbedded } from '../../server/db/embedded'
import { migrateTo, migrationsOf, openPlain } from '../../server/db/open-database'
import { writeBackup } from '../../server/maintenance/backup'
import { brackwaterCard } from '../../demo/rate-cards'
import { allocationPlan, people } from '../../demo/organisation'
import { charge, focusCsv } from '../support/charges'
import { deliver } from '../support/imports'
import { databaseUrl, onServer } from '../support/postgres'
import { post, put, remove, startServer, type Running } from '../support/server'

const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-backup-'))
const file = join(folder, 'whole.tar')
const who = { cookie: 'rain-barrel-person=Ines%20Moldal' }
let server: Running

type Ended = { code: number | null; said: string }
/** Runs a command of maintenance; `kill` ends it as soon as it says so, by what the command has done so far. */
function run(
  name: 'backup' | 'restore' | 'check',
  args: string[],
  env: Record<string, string | undefined>,
  kill?: () => boolean | Promise<boolean>,
): Promise<Ended> {
  const child = spawn(process.execPath, ['scripts/maintain.mjs', name, ...args], {
    env: { ...process.env, ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let said = ''
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk: Buffer) => (said += chunk))
  const ended = new Promise<Ended>(resolve => child.on('close', code => resolve({ code, said })))
  if (kill) void watch(child, kill)
  return ended
}
async function watch(child: ChildProcess, kill: () => boolean | Promise<boolean>): Promise<void> {
  while (child.exitCode === null && child.signalCode === null) {
    if (await kill()) {
      child.kill('SIGKILL')
      return
    }
    await new Promise(resolve => setTimeout(resolve, 2))
  }
}
/** Whether something that was begun in a database has written and is not committed yet. */
const isWriting = async (url: string) =>
  (await onServer(`select 1 from pg_stat_activity where datname = '${new URL(url).pathname.slice(1)}' and backend_xid is not null`))
    .rowCount! > 0
const embedded = (dataDir: string) => ({ RAIN_BARREL_DATA: dataDir, DATABASE_URL: '' })
let databases = 0
/** Somewhere with nothing in it. */
async function emptyPlace(onPostgres: boolean): Promise<{ RAIN_BARREL_DATA: string; DATABASE_URL: string }> {
  const RAIN_BARREL_DATA = join(folder, `empty-${++databases}`)
  if (!onPostgres) return embedded(RAIN_BARREL_DATA)
  const name = `restored_${process.pid}_${databases}`
  await onServer(`create database ${name} template template0`)
  return { RAIN_BARREL_DATA, DATABASE_URL: databaseUrl(name) }
}

const question = { measure: 'billedCost', splitBy: ['SubAccountName', 'Tags/team'], grain: 'month', start: '2026-01-01', end: '2027-01-01' }
const asked: [string, unknown?][] = [
  ['spend/answer', question],
  ['imports/1'],
  ['imports/2'],
  ['imports/2/moved'],
  ['estimates'],
  ['rate-cards'],
  ['allocation/settlement?month=2026-10&measure=billedCost'],
  ['people'],
  ['spend/reference'],
  ['watches'],
  ['jobs'],
]
const replies = async (of: Running) =>
  Promise.all(asked.map(async ([path, body]) => [path, await of.json<unknown>(path, body ? post(body) : undefined)]))

beforeAll(async () => {
  server = await startServer({ env: { DATABASE_URL: '' } })
  const tags = JSON.stringify({ team: 'ä "harbour" \\ tab\there' })
  const rows = [
    charge({ BilledCost: '123.456789012345678', Tags: tags }),
    charge({ BilledCost: '-0.000000000000001', BillingCurrency: 'SEK', SubAccountName: 'constructor' }),
  ]
  await deliver(server, 'one', focusCsv(rows))
  await deliver(server, 'one', focusCsv([...rows, charge({ BilledCost: '7', ResourceId: 'more' })]))
  await deliver(
    server,
    'large',
    focusCsv(
      Array.from({ length: 70_000 }, (_, i) => charge({ BilledCost: '0.01', BillingAccountId: 'large', ResourceId: `r${i % 900}` })),
    ),
  )
  await server.json('rate-cards', post(brackwaterCard, who))
  await server.json('organisation', post({ people, plan: allocationPlan }, who))
  const estimate = {
    ...newEstimate('Kept', brackwaterCard, 'low-coast'),
    components: [newRow('a', 'p', 'disk', { class: 'plain', storageGb: '1000' })],
  }
  await server.json('estimates/00000000-0000-4000-8000-000000000001', put({ basedOn: null, estimate }, who))
  await server.json('spend/aliases', post({ dimension: 'SubAccountName', spellings: ['constructor'], as: 'live' }, who))
  await server.json('watches', post({ source: 'x', kind: 'folder', place: folder, everyMinutes: 44_640 }, who))
})
afterAll(async () => {
  await server.stop()
  remove(server.folder)
  remove(folder)
})

it('is made while the server runs, by asking it, and holds every part to its hash', async () => {
  const made = await run('backup', [file], embedded(server.folder))
  expect(made.said).toContain('read back and whole')
  expect(made.code).toBe(0)
  expect(await run('backup', [file], embedded(server.folder))).toMatchObject({ code: 1, said: expect.stringContaining('is there already') })
  // whoever cannot read the folder gets nothing
  for (const headers of [{}, { 'x-rain-barrel-token': 'guess' }] as Record<string, string>[]) {
    expect((await server.call('maintenance/backup', { headers })).status).toBe(403)
    expect((await server.call('maintenance/check', { headers })).status).toBe(403)
  }
  expect(await run('check', [], embedded(server.folder))).toMatchObject({ code: 0, said: expect.stringContaining('everything is whole') })
})

describe.each([
  ['the embedded database', false],
  ['a PostgreSQL server', true],
] as const)('restored on %s', (_, onPostgres) => {
  it('says everything that it said, and goes on from there', async () => {
    const place = await emptyPlace(onPostgres)
    expect(await run('restore', [file], place)).toMatchObject({ code: 0, said: expect.stringContaining('Restored') })
    expect(await run('check', [], place)).toMatchObject({ code: 0, said: expect.stringContaining('70005 charges') })
    const restored = await startServer({ folder: place.RAIN_BARREL_DATA, env: { DATABASE_URL: place.DATABASE_URL } })
    expect(await replies(restored)).toEqual(await replies(server))
    const next = await deliver(restored, 'next', focusCsv([charge({ BilledCost: '5', BillingAccountId: 'next', ResourceId: 'a new one' })]))
    expect(next).toMatchObject({ id: '4', state: 'loaded' })
    expect((await restored.call('imports/2/undo', post({}))).ok).toBe(true)
    await restored.stop()
    // not into what is not empty any more
    expect(await run('restore', [file], place)).toMatchObject({ code: 1, said: expect.stringContaining('not empty') })
  })

  it('a kill while it is restored leaves nothing: it is restored again', async () => {
    const place = await emptyPlace(onPostgres)
    let seen = 0
    const killed = await run('restore', [file], place, () =>
      onPostgres
        ? isWriting(place.DATABASE_URL)
        : existsSync(join(place.RAIN_BARREL_DATA, 'database.restoring', 'PG_VERSION')) && ++seen > 100,
    )
    expect(killed.code).toBeNull()
    expect(existsSync(join(place.RAIN_BARREL_DATA, 'database'))).toBe(false)
    expect(await run('restore', [file], place)).toMatchObject({ code: 0 })
    expect(await run('check', [], place)).toMatchObject({ code: 0 })
  })
})

it('made before the schema was changed, it is restored and brought to what it is today', async () => {
  const changes = migrationsOf('.output/server').length
  const before = join(folder, 'before')
  const database = await openPlain({ dataDir: before, serverDir: '.output/server' })
  await database.close()
  rmSync(join(before, 'database'), { recursive: true })
  const bare = await openEmbedded(join(before, 'database'), '.output/server', { bare: true })
  await migrateTo(bare, migrationsOf('.output/server').slice(0, changes - 1))
  await bare.query(`insert into person (id, name, role) values ('ines', 'Ines', 'lead')`)
  const earlier = join(folder, 'earlier.tar')
  const out = createWriteStream(earlier)
  await Promise.all([writeBackup(bare, out), once(out, 'close')])
  await bare.close()
  const place = await emptyPlace(false)
  expect(await run('restore', [earlier], place)).toMatchObject({ code: 0, said: expect.stringContaining('Restored') })
  const restored = await openPlain({ dataDir: place.RAIN_BARREL_DATA, serverDir: '.output/server' })
  expect(await restored.query('select name from person')).toEqual([['Ines']])
  expect(await restored.query('select count(*)::int from drizzle.__drizzle_migrations')).toEqual([[changes]])
  await restored.close()
})

it('of a PostgreSQL server is restored in a folder: the way back', async () => {
  const [there, back] = [await emptyPlace(true), await emptyPlace(false)]
  expect(await run('restore', [file], there)).toMatchObject({ code: 0 })
  const again = join(folder, 'again.tar')
  expect(await run('backup', [again], there)).toMatchObject({ code: 0 })
  expect(await run('restore', [again], back)).toMatchObject({ code: 0 })
  const restored = await startServer({ folder: back.RAIN_BARREL_DATA, env: { DATABASE_URL: '' } })
  expect(await replies(restored)).toEqual(await replies(server))
  await restored.stop()
})

it('a kill while it is made leaves no backup; the next one is whole', async () => {
  const target = join(folder, 'killed.tar')
  const killed = await run('backup', [target], embedded(server.folder), () => existsSync(`${target}.part`))
  expect(killed.code).toBeNull()
  expect(existsSync(target)).toBe(false)
  expect((await run('backup', [target], embedded(server.folder))).code).toBe(0)
  expect(readdirSync(folder).filter(name => name.endsWith('.part'))).toEqual([])
})

it('whoever takes it slowly holds up nothing, and may leave in the middle', async () => {
  const token = holderOf(server.folder)!.token!
  const taken = await new Promise<IncomingMessage>(resolve =>
    get(`${server.base}/api/v1/maintenance/backup`, { headers: { 'x-rain-barrel-token': token } }, resolve),
  )
  await new Promise(resolve => taken.once('readable', resolve)) // and no byte more is taken: its connection is full
  const next = await deliver(server, 'beside', focusCsv([charge({ BilledCost: '3', BillingAccountId: 'beside' })]))
  expect(next).toMatchObject({ state: 'loaded' })
  taken.destroy()
  const whole = join(folder, 'after-one-left.tar')
  expect((await run('backup', [whole], embedded(server.folder))).code).toBe(0)
  expect(server.log()).not.toContain('cut off')
})

it('refuses a file that is cut off, changed or none, before anything is written', async () => {
  const bytes = readFileSync(file)
  const wrong = async (name: string, make: (path: string) => void, says: string) => {
    const path = join(folder, name)
    writeFileSync(path, bytes)
    make(path)
    const place = await emptyPlace(false)
    expect(await run('restore', [path], place), name).toMatchObject({ code: 1, said: expect.stringContaining(says) })
    expect(existsSync(join(place.RAIN_BARREL_DATA, 'database'))).toBe(false)
  }
  await wrong('cut.tar', path => truncateSync(path, bytes.length >> 1), 'cut.tar')
  await wrong('no-end.tar', path => truncateSync(path, 512), 'no-end.tar')
  const at = bytes.indexOf('large')
  await wrong(
    'changed.tar',
    path => writeFileSync(path, Buffer.concat([bytes.subarray(0, at), Buffer.from('LARGE'), bytes.subarray(at + 5)])),
    'is damaged',
  )
  await wrong('other.tar', path => writeFileSync(path, 'no archive at all'), 'other.tar')
  expect(await run('restore', [join(folder, 'no such file')], embedded(server.folder))).toMatchObject({
    code: 1,
    said: expect.stringContaining('There is no file'),
  })
})

it('is made of a folder that no server has, and names what is damaged in it', async () => {
  await server.stop()
  const place = embedded(server.folder)
  expect((await run('backup', [join(folder, 'still.tar')], place)).code).toBe(0)
  const database = await openPlain({ dataDir: server.folder, serverDir: '.output/server' })
  // deliveries that take charges away while they are copied: what is written is of one moment all the same
  const out = new PassThrough()
  out.resume()
  let once = true
  const moving = {
    ...database,
    transaction: async (...args: Parameters<typeof database.transaction>) => {
      const result = await database.transaction(...args)
      if (once) {
        once = false
        await database.query('delete from billing_period where source = $1', ['large'])
        await new ChargeStore(database).drop(3)
      }
      return result
    },
  } as typeof database
  const manifest = await writeBackup(moving, out)
  expect([...new Set(manifest.segments.map(({ loadId }) => loadId))]).toEqual([1, 2, 4])
  expect(manifest.tables.every(({ part }) => part.startsWith('tables-2/'))).toBe(true)
  await database.query(`update charge_segment set bytes = set_byte(bytes, 300, 255 - get_byte(bytes, 300)) where load_id = 2`)
  await database.query(`update focus_resource set resource_name = 'other' where resource_id = 'res-1'`)
  await database.query(`update estimate_version set body = '{"name": 1}'`)
  await database.query(`insert into job (kind, argument, name, tell) values ('no such kind', '{}', 'x', 'nobody')`)
  await database.close()
  const { code, said } = await run('check', [], place)
  expect(code).toBe(1)
  const damaged = said
    .split('\n')
    .filter(line => line.startsWith('DAMAGED'))
    .map(line => line.replace(/\. .*/, ''))
  expect(damaged).toEqual([
    expect.stringMatching(/^DAMAGED: entry \d+ of resource$/),
    'DAMAGED: segment 0 (one, 2026-10)',
    'DAMAGED: estimate 00000000-0000-4000-8000-000000000001, version 1',
    'DAMAGED: job x',
  ])
  expect(said).toContain('4 damaged')
})
