// Folders that are watched: only where they may be, never further than is said, and nothing odd in them keeps the rest back.
import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, symlinkSync, utimesSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { job } from '../../server/db/schema'
import { jobList } from '../../shared/contracts/jobs'
import { charge, focusCsv } from '../support/charges'
import { ended } from '../support/imports'
import { openKept, post, remove, startServer, type Running } from '../support/server'
import { sourcesOverview } from '../../shared/contracts/imports'

const root = mkdtempSync(join(tmpdir(), 'rain-barrel-folders-'))
const allowed = join(root, 'bills')
const other = join(root, 'elsewhere')
let server: Running
beforeAll(async () => {
  mkdirSync(allowed)
  mkdirSync(other)
  server = await startServer({ env: { RAIN_BARREL_FOLDERS: allowed } })
})
afterAll(async () => {
  await server.stop()
  remove(server.folder)
  remove(root)
})

const watch = (place: string, source = 'w', together = 'file') =>
  server.call('watches', post({ source, kind: 'folder', place, together, everyMinutes: 60 }))
const said = async (reply: Response) => ((await reply.json()) as { said: string }).said
const look = async (id: number) => said(await server.call(`watches/${id}/look`, post({})))
/** A bill that was written long ago. */
function settled(path: string, account: string, cost = '6') {
  mkdirSync(dirname(path), { recursive: true })
  writeFileSync(path, focusCsv([charge({ BillingAccountId: account, BilledCost: cost })]))
  utimesSync(path, 1, 1)
}

it('refuses what is no folder inside those that may be watched, and keeps nothing of it', async () => {
  symlinkSync(other, join(allowed, 'leads-out'))
  for (const [place, why] of [
    ['relative/path', 'not a full path'],
    [other, `outside the folders that may be watched (${allowed})`],
    [`${allowed}/../elsewhere`, 'outside the folders that may be watched'],
    [`${allowed}-too`, 'outside the folders that may be watched'],
    [join(allowed, 'leads-out'), 'outside the folders that may be watched'],
    ['/', 'outside the folders that may be watched'],
    [join(allowed, 'no-such'), 'is not there. Create it, or name another.'],
  ] as const) {
    const reply = await watch(place)
    const problem = (await reply.json()) as { code: string; detail: string }
    expect([place, reply.status, problem.code]).toEqual([place, 422, 'not-watchable'])
    expect(problem.detail).toContain(why)
  }
  expect(await server.json('watches')).toEqual({ watches: [], folders: [allowed] })
  expect(jobList.parse(await server.json('jobs')).jobs).toEqual([])
})

it('passes over links, loops, pipes and what is too deep, says so, and takes the rest', async () => {
  const place = join(allowed, 'odd')
  settled(join(place, 'good.csv'), 'good')
  settled(join(place, '1/2/3/4/5/6/7/eighth.csv'), 'eighth')
  settled(join(place, '1/2/3/4/5/6/7/8/ninth.csv'), 'ninth')
  settled(join(other, 'linked.csv'), 'linked')
  symlinkSync(place, join(place, 'loop'))
  symlinkSync(join(place, 'gone'), join(place, 'dangling.csv'))
  symlinkSync(join(other, 'linked.csv'), join(place, 'linked.csv'))
  mkdirSync(join(place, 'a-folder.csv'))
  execFileSync('mkfifo', [join(place, 'pipe.csv')])
  const reply = await watch(place, 'odd')
  expect(await said(reply)).toBe('took 1/2/3/4/5/6/7/eighth.csv, good.csv; 3 links not followed; 1 folder deeper than 8 not looked into')
})

it('takes nothing of a folder with more entries than the limit, and says so at once', async () => {
  const place = join(allowed, 'many')
  settled(join(place, 'good.csv'), 'good')
  mkdirSync(join(place, 'more'))
  execFileSync('sh', ['-c', `cd ${join(place, 'more')} && seq -f %g.txt 20000 | xargs touch`])
  expect(await said(await watch(place, 'many'))).toContain('has more than 20000 entries, too many to look through: nothing of it was taken')
  const { state, outcome } = jobList.parse(await server.json('jobs')).jobs.find(({ about }) => about.includes('many'))!
  expect([state, outcome]).toEqual(['failed', expect.stringContaining('20000 entries')])
})

it('tells a person of what was refused three times: the job fails, and says of which file', async () => {
  const place = join(allowed, 'bad')
  settled(join(place, 'bad.csv'), 'bad', 'twelve')
  const { id, said } = (await (await watch(place, 'bad')).json()) as { id: number; said: string }
  const refused = async () => {
    const own = sourcesOverview.parse(await server.json('sources')).loads.filter(({ source }) => source === 'bad')
    for (const load of own) expect((await ended(server, load.id)).state).toBe('refused')
    return own
  }
  expect([said, (await refused()).length]).toEqual(['took bad.csv', 1])
  for (const tries of [2, 3]) expect([await look(id), (await refused()).length]).toEqual(['took bad.csv', tries])
  const [newest] = await refused()
  const found = await scheduled(`watch ${id}`)
  expect(found).toMatchObject({ state: 'failed', paused: false })
  expect(found.outcome).toBe(`bad.csv was refused 3 times (load ${newest!.id}): mend the file, or press “check now” to try again`)
})

it('pauses one that was made before its folder was outside those that may be watched, with the reason', async () => {
  const place = join(allowed, 'odd')
  const { id } = (await (await watch(place, 'moved')).json()) as { id: number }
  const found = await scheduled(`watch ${id}`, { RAIN_BARREL_FOLDERS: other })
  expect(found).toMatchObject({ state: 'failed', paused: true })
  expect(found.outcome).toContain(`${place} is outside the folders that may be watched (${other})`)
})

it('ends a look at everything there is within seconds', async () => {
  await restart({ RAIN_BARREL_FOLDERS: '/' })
  const began = Date.now()
  expect(await said(await watch('/', 'all'))).toContain('too many to look through')
  expect(Date.now() - began).toBeLessThan(20_000)
})

it('takes so many deliveries at a look, and the rest at the next', async () => {
  const place = join(allowed, 'queue')
  for (let i = 0; i < 103; i++) settled(join(place, `${i}.csv`), 'queue', String(i))
  const reply = await watch(place, 'queue')
  const { id, said } = (await reply.json()) as { id: number; said: string }
  expect(said).toMatch(/took 0\.csv, 1\.csv, 2\.csv, .*, 99\.csv; 3 more are taken at the next look$/)
  expect(await look(id)).toBe('took 100.csv, 101.csv, 102.csv')
  await server.call(`watches/${id}`, { method: 'DELETE', body: '{}' })
})

async function restart(env: Record<string, string>) {
  await server.stop()
  server = await startServer({ folder: server.folder, env })
}
/** Starts the server anew with a job due. @returns the job once it has run by itself. */
async function scheduled(name: string, env: Record<string, string> = { RAIN_BARREL_FOLDERS: allowed }) {
  await server.stop()
  const database = await openKept(server.folder)
  const [row] = await database.db
    .update(job)
    .set({ due: new Date(0).toISOString(), endedAt: null })
    .where(eq(job.name, name))
    .returning({ id: job.id })
  await database.close()
  server = await startServer({ folder: server.folder, env })
  for (;;) {
    const found = jobList.parse(await server.json('jobs')).jobs.find(({ id }) => id === row!.id)!
    if (found.endedAt) return found
    await new Promise(resolve => setTimeout(resolve, 50))
  }
}
