// What runs by itself: a process is killed in the middle of each kind of job, and the next does it once, or says that nobody knows.
import { mkdirSync, mkdtempSync, utimesSync, writeFileSync } from 'node:fs'
import type { Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { SMTPServer } from 'smtp-server'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { jobList, type JobView } from '../../shared/contracts/jobs'
import { sourcesOverview } from '../../shared/contracts/imports'
import { rateCardList } from '../../shared/contracts/reference-data'
import { brackwaterCard } from '../../demo/rate-cards'
import { cloudServer } from '../../stand-ins/cloud/server'
import { charge, focusCsv } from '../support/charges'
import { ended } from '../support/imports'
import { post, put, remove, startServer, type Running } from '../support/server'

const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-jobs-'))
const watched = join(folder, 'watched')
let cloud: Server
let cloudBase: string
let server: Running
/** Mails as they were handed over whole, and whether the server takes its time to say that it has them. */
const mails: string[] = []
let hangs = false
const smtp = new SMTPServer({
  authOptional: true,
  disabledCommands: ['STARTTLS'],
  onData(stream, _session, done) {
    const chunks: Buffer[] = []
    stream.on('data', (chunk: Buffer) => chunks.push(chunk))
    stream.on('end', () => {
      mails.push(Buffer.concat(chunks).toString())
      if (!hangs) done()
    })
  },
})

const start = async () => {
  const smtpPort = (smtp.server.address() as AddressInfo).port
  server = await startServer({
    folder: join(folder, 'data'),
    env: { BRACKWATER_URL: cloudBase, RAIN_BARREL_SMTP: `smtp://127.0.0.1:${smtpPort}` },
  })
}
const restart = async () => {
  await server.stop('SIGKILL')
  await start()
}
const who = { cookie: 'rain-barrel-person=Ines%20Moldal' }
const misbehave = (next: string | null) => fetch(`${cloudBase}/v1/behaviour`, { method: 'POST', body: JSON.stringify({ next }) })
const all = async () => jobList.parse(await server.json('jobs')).jobs
const find = async (kind: string, about = '') => (await all()).find(job => job.kind === kind && job.about.includes(about))!
const runNow = (job: JobView) => server.call(`jobs/${job.id}/run`, post({}, who))
async function until(kind: string, fits: (job: JobView) => boolean, about = ''): Promise<JobView> {
  for (let tries = 0; tries < 400; tries++) {
    const job = await find(kind, about)
    if (job && fits(job)) return job
    await new Promise(resolve => setTimeout(resolve, 25))
  }
  throw new Error(`the job ${kind} did not come to that: ${JSON.stringify(await find(kind, about))}`)
}
const isRunning = ({ state }: JobView) => state === 'running'
const hasEnded = ({ state }: JobView) => state !== 'running' && state !== 'waiting'
const loads = async () => sourcesOverview.parse(await server.json('sources')).loads

beforeAll(async () => {
  mkdirSync(watched)
  cloud = cloudServer(join(folder, 'cloud.json'))
  await new Promise<void>(resolve => cloud.listen(0, '127.0.0.1', resolve))
  cloudBase = `http://127.0.0.1:${(cloud.address() as AddressInfo).port}`
  await new Promise<void>(resolve => smtp.listen(0, '127.0.0.1', resolve))
  await start()
  await server.json('rate-cards', post(brackwaterCard, who))
})
afterAll(async () => {
  await server.stop()
  cloud.closeAllConnections()
  cloud.close()
  smtp.close(() => {})
  remove(folder)
})

it('a kill while a bill is fetched: it is fetched once', async () => {
  // the first answer is the clock, the second the bill
  await runNow(await find('bill'))
  await until('bill', hasEnded)
  const before = (await loads()).length
  await misbehave('take long')
  expect((await runNow(await find('bill'))).ok).toBe(true)
  await until('bill', isRunning)
  expect((await runNow(await find('bill'))).status).toBe(409)
  await restart()
  const job = await until('bill', hasEnded)
  expect(job).toMatchObject({ state: 'done', attempts: 0, outcome: expect.stringContaining('asked for the bill to 2026-11-24: load') })
  const now = await loads()
  expect(now.length).toBe(before + 1)
  expect(job.outcome).toContain(`load ${now[0]!.id}`)
  expect((await ended(server, now[0]!.id)).state).toBe('loaded')
})

it('a kill while a rate card is fetched: it is kept once', async () => {
  await misbehave('take long')
  await runNow(await find('rate-card'))
  await until('rate-card', isRunning)
  await restart()
  expect(await until('rate-card', hasEnded)).toMatchObject({
    state: 'done',
    outcome: expect.stringMatching(/^the card of 1 Dec 2026, \d+ prices/),
  })
  const { cards } = rateCardList.parse(await server.json('rate-cards'))
  expect(cards.map(({ validFrom, revision }) => [validFrom, revision])).toEqual([
    ['2026-12-01', 1],
    [brackwaterCard.validFrom, 1],
  ])
})

it('a job over which three processes have ended is left alone, and says so', async () => {
  await misbehave('take long')
  await runNow(await find('rate-card'))
  for (let kills = 0; kills < 3; kills++) {
    await until('rate-card', isRunning)
    await server.stop('SIGKILL')
    await misbehave('take long')
    await start()
  }
  const job = await until('rate-card', hasEnded)
  expect(job).toMatchObject({
    state: 'failed',
    outcome: 'Rain Barrel ended 3 times while doing this. It is not tried again automatically.',
  })
  await misbehave(null)
  await runNow(job) // a person may
  expect(await until('rate-card', ({ state }) => state === 'done')).toMatchObject({ outcome: expect.stringContaining('nothing new') })
})

it('a kill while it is looked for savings: each is found once', async () => {
  await misbehave('take long')
  await runNow(await find('look-for-savings'))
  await until('look-for-savings', isRunning)
  await restart()
  expect(await until('look-for-savings', hasEnded)).toMatchObject({ state: 'done', outcome: '3 opportunities' })
  const { opportunities: all } = await server.json<{ opportunities: { id: string; detector: string }[] }>('savings')
  const opportunities = all.filter(({ detector }) => detector === 'idle-gateway')
  expect(new Set(opportunities.map(o => o.id)).size).toBe(3)
  expect(opportunities.length).toBe(3)
})

it('a kill while a watched folder is taken: every file is loaded once', async () => {
  const FILES = 60
  for (let i = 0; i < FILES; i++) {
    const file = join(watched, `${String(i).padStart(2, '0')}.csv`)
    const month = `20${String(26 + Math.floor(i / 12)).padStart(2, '0')}-${String((i % 12) + 1).padStart(2, '0')}`
    const period = { BillingPeriodStart: `${month}-01T00:00:00Z`, BillingPeriodEnd: `${month}-28T00:00:00Z` }
    const day = { ChargePeriodStart: `${month}-05T00:00:00Z`, ChargePeriodEnd: `${month}-06T00:00:00Z` }
    writeFileSync(file, focusCsv([charge({ BilledCost: '1.5', BillingAccountId: 'watched', ...period, ...day })]))
    utimesSync(file, 1, 1) // long settled
  }
  const reply = server.call('watches', post({ source: 'watched', kind: 'folder', place: watched, everyMinutes: 60 }, who)).catch(() => null)
  for (;;) if ((await loads()).filter(({ source }) => source === 'watched').length > 8) break
  await restart()
  await reply
  await until('watched-folder', hasEnded)
  const { sources } = sourcesOverview.parse(await server.json('sources'))
  const found = (await loads()).filter(({ source }) => source === 'watched')
  // the sixty that are listed are these, none twice
  for (const { id } of found) expect((await ended(server, id)).state).toBe('loaded')
  expect(new Set(found.map(({ files }) => files[0]!.sha256)).size).toBe(found.length)
  const own = sourcesOverview.parse(await server.json('sources')).sources.find(({ source }) => source === 'watched')!
  expect(own.periods.length).toBe(FILES)
  expect(sources.length).toBeGreaterThan(0)
  expect((await find('watched-folder')).state).toBe('done')
})

it('a kill while a mail is handed over: nobody knows, it says so, and it is not sent again automatically', async () => {
  const schedule = { to: ['finance@skerry.example'], every: 'week', format: 'csv' }
  await server.json('sentences/m', put({ name: 'Weekly', shared: true, body: { query: { period: 'all' } }, schedule }, who))
  hangs = true
  const sending = server.call('sentences/m/send', post({}, who)).catch(() => null)
  await until('mail', job => isRunning(job) && job.step !== null && mails.length === 1)
  await server.stop('SIGKILL')
  await sending
  hangs = false
  await start()
  const job = await until('mail', hasEnded)
  expect(job.state).toBe('not known')
  expect(job.outcome).toContain('It is not known whether the mail to finance@skerry.example was sent')
  // due again in its rhythm, not now
  expect(Date.parse(job.due!)).toBeGreaterThan(Date.now() + 5 * 86_400_000)
  await new Promise(resolve => setTimeout(resolve, 500))
  expect(mails.length).toBe(1)
  expect(await server.json('sentences/m/send', post({}, who))).toEqual({ said: 'sent to finance@skerry.example' })
  expect(mails.length).toBe(2)
  const id = (mail: string) => /^Message-ID: (.*)$/im.exec(mail)![1]
  expect(id(mails[0]!)).not.toBe(id(mails[1]!))
})

it('a mail that breaks off while it is handed over is not known either; one that was refused is, and is tried again', async () => {
  // the server grows silent after the mail: longer than is waited for
  hangs = true
  const reply = await server.call('sentences/m/send', post({}, who))
  expect(reply.status).toBe(502)
  expect(await reply.json()).toMatchObject({ code: 'not-known', detail: expect.stringContaining('It is not known whether') })
  hangs = false
  expect(await find('mail')).toMatchObject({ state: 'not known', attempts: 0, outcome: expect.stringContaining('It is not known whether') })
  const schedule = { to: ['finance@skerry.example'], every: 'week', format: 'csv' }
  await server.json('sentences/n', put({ name: 'No server', shared: true, body: { query: { period: 'all' } }, schedule }, who))
  const { port } = smtp.server.address() as AddressInfo
  await new Promise<void>(resolve => smtp.server.close(() => resolve()))
  expect((await server.call('sentences/n/send', post({}, who))).status).toBe(502)
  const failed = await find('mail', 'No server')
  expect(failed).toMatchObject({ state: 'failed', attempts: 1, step: null })
  // its first round, a minute after it got its schedule, is still to come
  expect(Date.parse(failed.due!) - Date.now()).toBeLessThan(60_000)
  await new Promise<void>(resolve => smtp.server.listen(port, '127.0.0.1', () => resolve()))
}, 60_000)

it('is paused, goes on, and comes round as often as it is told', async () => {
  const job = await find('look-for-savings')
  await server.json(`jobs/${job.id}`, put({ paused: true, every: { count: 2, unit: 'hour' }, pauseSeconds: 600, tell: 'Petra Holm' }))
  const changed = await find('look-for-savings')
  expect(changed).toMatchObject({ paused: true, every: { count: 2, unit: 'hour' }, pauseSeconds: 600, tell: 'Petra Holm' })
  expect(Math.abs(Date.parse(changed.due!) - Date.now() - 7_200_000)).toBeLessThan(60_000)
  expect((await runNow(changed)).ok).toBe(true) // also a paused one is run by hand
  await until('look-for-savings', hasEnded)
  await server.json(`jobs/${job.id}`, put({ paused: false, every: null }))
  expect(await find('look-for-savings')).toMatchObject({ paused: false, every: null, due: null })
  for (const wrong of [{ every: { count: 0, unit: 'day' } }, { every: { count: 25, unit: 'month' } }, { pauseSeconds: 1 }, { tell: ' ' }])
    expect((await server.call(`jobs/${job.id}`, put(wrong))).status, JSON.stringify(wrong)).toBe(422)
  expect((await server.call('jobs/999999', put({ paused: true }))).status).toBe(404)
  expect((await server.call('jobs/999999/run', post({}))).status).toBe(404)
  expect((await server.call(`jobs/${job.id}/stop`, post({}))).status).toBe(409)
})
