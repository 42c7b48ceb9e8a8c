// What lies in the data folder when the server starts: what is not a whole database is refused, and left as it is.
import {
  chmodSync,
  cpSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { DATABASE_MAJOR } from '../../server/db/check-folder'
import { spendAnswer } from '../../shared/contracts/spend'
import { charge, focusCsv } from '../support/charges'
import { deliver } from '../support/imports'
import { post, startServer as start, type Running } from '../support/server'

/** On the embedded database, whichever the others run on. */
const startServer = ({ env = {}, ...more }: Parameters<typeof start>[0] = {}) => start({ ...more, env: { ...env, DATABASE_URL: '' } })
const root = mkdtempSync(join(tmpdir(), 'rain-barrel-folder-'))
const whole = join(root, 'whole')
const question = { measure: 'billedCost', splitBy: ['ServiceName'], grain: 'day', start: '2026-10-01', end: '2026-11-01' }
const answered = async (server: Running) => spendAnswer.parse(await server.json('spend/answer', post(question)))
let answer: Awaited<ReturnType<typeof answered>>

beforeAll(async () => {
  const server = await startServer({ folder: whole })
  await deliver(server, 'one', focusCsv([charge({ BilledCost: '12.5' }), charge({ ServiceName: 'İstanbul', BilledCost: '0.1' })]))
  answer = await answered(server)
  await server.stop()
})
afterAll(() => rmSync(root, { recursive: true, force: true }))

/** Everything below a folder with its size, but for what a start leaves by itself. */
const listing = (folder: string) =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter(name => !/^(lock\.json|watched|inbox)|postmaster|pg_internal/.test(name)) // what an engine that tries to open it leaves
    .map(name => `${name} ${statSync(join(folder, name)).isFile() ? statSync(join(folder, name)).size : ''}`)
    .sort()

let copies = 0
async function refused(damage: (database: string) => void): Promise<string> {
  const folder = join(root, `copy-${++copies}`)
  cpSync(whole, folder, { recursive: true })
  damage(join(folder, 'database'))
  const before = listing(folder)
  const said = await startServer({ folder }).then(
    async server => {
      await server.stop()
      return 'it started'
    },
    (error: Error) => error.message,
  )
  expect(listing(folder)).toEqual(before)
  return said
}

it('refuses a database that is not whole or of another version, and begins nothing over it', async () => {
  const file = (name: string) => (database: string) => join(database, name)
  expect(await refused(database => rmSync(join(database, 'PG_VERSION')))).toContain('has files of a database, but no PG_VERSION')
  expect(await refused(database => writeFileSync(join(database, 'PG_VERSION'), '17\n'))).toContain(
    `is of version «17», and this Rain Barrel reads ${DATABASE_MAJOR}`,
  )
  expect(await refused(database => writeFileSync(join(database, 'PG_VERSION'), ''))).toContain('is of version «»')
  const control = file('global/pg_control')
  for (const damage of [
    (database: string) => rmSync(control(database)),
    (database: string) => truncateSync(control(database), 100),
    (database: string) => writeFileSync(control(database), Buffer.alloc(8192)),
  ])
    expect(await refused(damage)).toContain('is not whole: global/pg_control is missing, cut off or empty')
  expect(await refused(database => rmSync(join(database, 'base'), { recursive: true }))).toContain('is not whole: base')
})

it('refuses a database whose catalogue cannot be read', async () => {
  const said = await refused(database => {
    for (const own of readdirSync(join(database, 'base'))) {
      const catalogue = join(database, 'base', own, '1259') // pg_class
      writeFileSync(catalogue, Buffer.alloc(statSync(catalogue).size, 0x5a))
    }
  }).catch((error: Error) => error.message)
  expect(said).toContain('cannot be opened: its catalogue or another of its files is damaged')
  expect(said).toContain('npm run restore')
})

it('begins anew what a kill has left of a first start', async () => {
  const folder = join(root, 'begun')
  mkdirSync(join(folder, 'database/base'), { recursive: true })
  writeFileSync(join(folder, 'database/base/half'), 'half')
  await expect(startServer({ folder })).rejects.toThrow('but no PG_VERSION')
  writeFileSync(join(folder, 'database.beginning'), '')
  const server = await startServer({ folder })
  expect(readdirSync(folder)).not.toContain('database.beginning')
  await server.stop()
})

it('refuses a folder that cannot be written', async () => {
  const folder = join(root, 'closed')
  cpSync(whole, folder, { recursive: true })
  chmodSync(root, 0o755)
  chmodSync(folder, 0o555)
  // whoever runs as root may write everywhere: then the server runs as somebody else
  const isRoot = process.getuid?.() === 0
  await expect(startServer({ folder, ...(isRoot && { uid: 65_534 }) })).rejects.toThrow(
    /The data folder .* cannot be written \(E(ACCES|ROFS|PERM)\)/,
  )
  chmodSync(folder, 0o755)
})

it('says the same in another time zone and language', async () => {
  for (const env of [
    { TZ: 'Pacific/Kiritimati', LANG: 'tr_TR.UTF-8', LC_ALL: 'tr_TR.UTF-8' },
    { TZ: 'America/St_Johns', LANG: 'de_DE.UTF-8', LC_ALL: 'C' },
  ]) {
    const server = await startServer({ folder: whole, env })
    expect({ ...(await answered(server)), revision: 0 }).toEqual({ ...answer, revision: 0 })
    await server.stop()
  }
})

it('knows which version of files the embedded database has', () => {
  expect(readFileSync(join(whole, 'database/PG_VERSION'), 'utf8').trim()).toBe(DATABASE_MAJOR)
})
