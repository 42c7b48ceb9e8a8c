// What is done outside, with a cloud that changes its mind between tries: every try finds out what became of the one before, and looks
// whether what was approved still holds.
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { brackwaterCard } from '../../demo/rate-cards'
import { savingsState } from '../../shared/contracts/savings'
import { sql } from 'drizzle-orm'
import { putJob } from '../../server/stores/jobs'
import { actJob } from '../../server/use-cases/act'
import { listeningCloud, type ListeningCloud } from '../support/listening-cloud'
import { openKept, post, remove, startServer, type Running } from '../support/server'

const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-acts-'))
let cloud: ListeningCloud
let server: Running
/** How often the cloud was told to delete, and what the next deletion and the next question of what became of one meet. */
let told = 0
const next: { deletion: string | null; outcome: string | null } = { deletion: null, outcome: null }

beforeAll(async () => {
  cloud = await listeningCloud(folder, ({ method, url }) => {
    const isDeletion = method === 'DELETE'
    if (isDeletion) told++
    const behaviour = isDeletion ? next.deletion : url?.startsWith('/v1/requests') ? next.outcome : null
    if (isDeletion && behaviour !== null) next.deletion = null
    return behaviour === null ? null : { next: behaviour }
  })
  server = await startServer({ folder, env: { BRACKWATER_URL: cloud.base } })
  await server.json('rate-cards', post(brackwaterCard))
  await server.json('savings/look', post({}))
})
afterAll(async () => {
  await server.stop()
  cloud.close()
  remove(folder)
})

const change = (how: object) => cloud.behave(how)
const find = async (name: string) => savingsState.parse(await server.json('savings')).opportunities.find(o => o.resourceName === name)!
const isThere = async (name: string) =>
  ((await (await fetch(`${cloud.base}/v1/inventory/gateway`)).json()) as { resources: { name: string }[] }).resources.some(
    g => g.name === name,
  )
/** Approves. @returns the status, and why it was not done. */
async function approve(name: string) {
  const { id } = await find(name)
  const reply = await server.call('savings/approve', post({ id }, { cookie: 'rain-barrel-person=Ines%20Moldal' }))
  return [reply.status, ((await reply.json()) as { detail?: string }).detail]
}
const lastOf = async (name: string) => (await find(name)).action!.steps.at(-1)!.outcome

it('a refused deletion is tried again only while its reasons hold', async () => {
  const name = 'gw-test-rig-alder'
  const { resourceId } = await find(name)
  // the look before it is not answered: nothing was sent, and that is said
  await change({ next: 'time out' })
  expect(await approve(name)).toEqual([502, expect.stringContaining('Nothing was done')])
  expect([told, await lastOf(name)]).toEqual([0, expect.stringContaining('not sent: ')])
  next.deletion = 'fail'
  expect(await approve(name)).toEqual([502, expect.stringContaining('being repaired. Nothing was done')])
  expect(await find(name)).toMatchObject({ state: 'spotted', action: { state: 'failed', tries: 1 } })

  // nine hours of today are over: 9 × 50 GB
  await change({ passes: { [resourceId]: 50 } })
  const inUse = '450 GB passed it in the last 30 days, 450 GB of them today'
  expect(await approve(name)).toEqual([409, expect.stringContaining(`${name} was left alone: ${inUse}`)])
  expect([told, await isThere(name)]).toEqual([1, true])
  expect(await find(name)).toMatchObject({ state: 'gone', action: { state: 'lapsed' } })
  expect(await lastOf(name)).toBe(`not sent: ${inUse}`)
  // a look sees the same: what passes today speaks against it, though every day that is over was without
  await server.json('savings/look', post({}))
  expect((await find(name)).state).toBe('gone')
  expect(await approve(name)).toEqual([409, expect.stringContaining(inUse)])

  await change({ passes: {}, locked: [resourceId] })
  expect(await approve(name)).toEqual([409, expect.stringContaining('platform has locked it against deletion since 24 Nov 2026')])
  expect([told, await isThere(name)]).toEqual([1, true])

  // lost before the cloud has read it: it says that nothing came, so nothing was done
  await change({ locked: [] })
  next.deletion = 'lose'
  expect(await approve(name)).toEqual([502, expect.stringContaining('Nothing was done')])
  expect(await find(name)).toMatchObject({ state: 'spotted', action: { state: 'failed', tries: 1 } })
  expect(await lastOf(name)).toBe('it was never received')

  expect((await approve(name))[0]).toBe(200)
  expect([told, await isThere(name)]).toEqual([3, false])
  expect(await find(name)).toMatchObject({
    state: 'done',
    action: { state: 'done', approvedBy: 'Ines Moldal', doneAt: expect.stringContaining('2026-11-24') },
  })
})

it('where nobody knows whether it was done, nothing is sent before the cloud says so', async () => {
  const name = 'gw-sandbox-trial'
  const { resourceId } = await find(name)
  const before = told
  next.deletion = 'time out'
  next.outcome = 'fail'
  expect(await approve(name)).toEqual([502, expect.stringContaining('does not say what became of deleting gw-sandbox-trial')])
  expect(await find(name)).toMatchObject({ state: 'under way', action: { state: 'not known' } })
  await change({ passes: { [resourceId]: 50 } })
  expect((await approve(name))[0]).toBe(502)
  expect(told).toBe(before + 1)
  // neither does looking anew send anything, nor forget it
  await server.json('savings/look', post({}))
  expect([told, (await find(name)).action!.state]).toEqual([before + 1, 'not known'])
  next.outcome = null
  expect((await approve(name))[0]).toBe(200)
  expect(told).toBe(before + 1)
  expect(await find(name)).toMatchObject({ state: 'done', action: { state: 'done', tries: 1 } })
  await change({ passes: {} })
})

it('what somebody else has deleted is not deleted again; what a process was killed over is found out', async () => {
  const name = 'gw-old-build-net'
  const { resourceId } = await find(name)
  next.deletion = 'fail'
  expect((await approve(name))[0]).toBe(502)
  const before = told
  await change({ deletions: { [resourceId]: { day: '2026-11-24', hour: 8 } } })
  expect(await approve(name)).toEqual([409, expect.stringContaining('it is not there any more, somebody else has deleted it')])
  expect(told).toBe(before)
  // found no more: what was tried in vain is kept, and is no saving any more
  await server.json('savings/look', post({}))
  expect(await find(name)).toMatchObject({ state: 'gone', action: { state: 'lapsed' } })
  await change({ deletions: {} })
  await server.json('savings/look', post({}))
  expect((await find(name)).state).toBe('spotted')

  next.deletion = 'take long'
  const reply = approve(name).catch(() => null)
  while (told === before) await new Promise(resolve => setTimeout(resolve, 10))
  await server.stop('SIGKILL')
  await reply
  server = await startServer({ folder, env: { BRACKWATER_URL: cloud.base } })
  // the job that was left behind asks what became of it, and sends nothing
  await expect.poll(async () => (await find(name)).action!.state, { timeout: 120_000 }).toBe('done')
  expect([told, await isThere(name), (await find(name)).state]).toEqual([before + 1, false, 'done'])
  expect(await lastOf(name)).toMatch(/^deleted at 2026-11-24/)
  expect(((await server.json('jobs')) as { jobs: { kind: string }[] }).jobs.map(({ kind }) => kind)).not.toContain('act')
})

it('what is approved and was not begun when a process is killed is not sent by itself, nor by a job that nobody approved', async () => {
  const name = 'gw-sandbox-trial'
  // the one before is done: brought back, it is found no more, since what is done stays so
  const { id, resourceId } = await find(name)
  await change({ deletions: {}, passes: {} })
  const before = told
  const database = await (async () => {
    await server.stop()
    return openKept(folder)
  })()
  // as it is left where a process ends between the approval and the look before the deed
  await database.db.execute(
    sql`update action set state = 'approved', done_at = null, request_key = gen_random_uuid()::text where opportunity_id = ${id}`,
  )
  await database.db.execute(sql`update opportunity set state = 'under way' where id = ${id}`)
  await putJob(database.db, { kind: 'act', name: actJob(id), argument: { opportunity: id }, every: null, due: null, tell: 'ines' })
  await database.db.execute(
    sql`update job set claimed_by = 'gone/1', lease_until = now() - interval '1 minute', state = 'running', key = gen_random_uuid() where kind = 'act'`,
  )
  await database.close()
  server = await startServer({ folder, env: { BRACKWATER_URL: cloud.base } })
  const left = async () => (await server.json<{ jobs: { kind: string; id: number }[] }>('jobs')).jobs.filter(({ kind }) => kind === 'act')
  await expect.poll(async () => (await left()).length, { timeout: 120_000 }).toBe(0)
  expect([told, await isThere(name), (await find(name)).action!.state]).toEqual([before, true, 'approved'])

  // a person asks again: now it is done, once, by whom it was approved
  expect((await approve(name))[0]).toBe(200)
  expect([told, await isThere(name)]).toEqual([before + 1, false])
  expect(await find(name)).toMatchObject({ resourceId, state: 'done', action: { state: 'done', approvedBy: 'Ines Moldal' } })

  // a job alone does nothing
  const other = 'gw-test-rig-alder'
  const { id: lapsed } = await find(other)
  await server.stop()
  const again = await openKept(folder)
  await again.db.execute(sql`update action set state = 'lapsed' where opportunity_id = ${lapsed}`)
  await putJob(again.db, { kind: 'act', name: actJob(lapsed), argument: { opportunity: lapsed }, every: null, due: null, tell: 'ines' })
  await again.close()
  server = await startServer({ folder, env: { BRACKWATER_URL: cloud.base } })
  const [job] = await left()
  expect((await server.call(`jobs/${job!.id}/run`, post({}))).status).toBe(200)
  await expect.poll(async () => (await left()).length, { timeout: 120_000 }).toBe(0)
  expect([told, (await find(other)).action!.state]).toEqual([before + 1, 'lapsed'])
})
