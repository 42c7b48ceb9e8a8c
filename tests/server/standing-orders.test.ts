// Standing orders against a cloud that fails, is asked too much, loses answers and tells of things late or twice: a dry run comes first and
// does nothing; a run does each thing once, whatever becomes of it; events start it; people are written to once about each.
import { mkdtempSync } from 'node:fs'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { simpleParser, type ParsedMail } from 'mailparser'
import { SMTPServer } from 'smtp-server'
import { afterAll, beforeAll, expect, it, vi } from 'vitest'
import { addDays, monthEnd, monthStart } from '../../core/time/day'
import { TODAY } from '../../demo/calendar'
import { brackwaterInventory, makerOf, runsOn, type CloudResource } from '../../demo/inventory'
import { allocationPlan, people } from '../../demo/organisation'
import { brackwaterCard } from '../../demo/rate-cards'
import { standingOrders as demoOrders } from '../../demo/standing-orders'
import { savingsState } from '../../shared/contracts/savings'
import { jobList } from '../../shared/contracts/jobs'
import {
  orderRunWhole,
  standingOrders,
  type OrderDefinition,
  type OrderRunWhole,
  type RunItem,
} from '../../shared/contracts/standing-orders'
import { chatServer } from '../../stand-ins/chat/server'
import { oldDisk } from '../support/brackwater-days'
import { charge, focusCsv } from '../support/charges'
import { deliver } from '../support/imports'
import { listeningCloud, type ListeningCloud } from '../support/listening-cloud'
import { post, put, remove, startServer, type Running } from '../support/server'

const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-orders-'))
let cloud: ListeningCloud
let server: Running
/** Tags that the cloud was told to set, in order: resource and key of the request. */
const told: string[][] = []
/** How the cloud is to behave to the next of them. */
let onTag: object | null = null
/** With how many of them the server is killed. */
let killAt = 0
const mails: ParsedMail[] = []
/** How many mails the mail server refuses before it takes one. */
let refuses = 0
const smtp = new SMTPServer({
  disabledCommands: ['AUTH', 'STARTTLS'],
  onRcptTo: (_address, _session, done) => done(refuses-- > 0 ? Object.assign(new Error('no room'), { responseCode: 452 }) : null),
  onData(stream, _session, done) {
    void simpleParser(stream).then(mail => {
      mails.push(mail)
      done()
    })
  },
})

const chat = chatServer()
/** What the chat answers with, without taking it. */
let onChat: number | null = null
const chatHook = createServer((request, response) => {
  if (onChat === null) chat.http.emit('request', request, response)
  else response.writeHead(onChat).end('{}')
})

const LAST = addDays(TODAY, -1)
/** Made since the beginning of last month in three accounts, and there on the last day. */
const made = brackwaterInventory().filter(
  one => one.since >= '2026-10-01' && ['sandbox', 'rehearsal', 'build'].includes(one.account) && runsOn(one, LAST),
)
/** One of them is taken out on the day that is not charged yet. */
const present = made.filter(one => runsOn(one, TODAY))
const by = (actor: string) => present.filter(one => makerOf(one) === actor)
/** A resource charged once a day since it was made, up to a day. */
const charged = ({
  id,
  name,
  account,
  region,
  type,
  tags,
  since,
}: Pick<CloudResource, 'id' | 'name' | 'account' | 'region' | 'type' | 'tags' | 'since'>) =>
  [since, LAST].map(day =>
    charge({
      ...{ ProviderName: 'Brackwater Cloud', ResourceId: id, ResourceName: name, ResourceType: type, RegionId: region, RegionName: region },
      ...{ SubAccountId: `acc-${account}`, SubAccountName: account, Tags: JSON.stringify(tags), BilledCost: '1.5' },
      ...{ BillingPeriodStart: `${monthStart(day.slice(0, 7))}T00:00:00Z`, BillingPeriodEnd: `${monthEnd(day.slice(0, 7))}T00:00:00Z` },
      ...{ ChargePeriodStart: `${day}T00:00:00Z`, ChargePeriodEnd: `${addDays(day, 1)}T00:00:00Z` },
    }),
  )

const ines = { cookie: 'rain-barrel-person=ines-moldal' }
const state = async (init?: RequestInit, path = '') =>
  standingOrders.parse(await server.json(`standing-orders${path}`, init ?? { headers: ines }))
const orderOf = async (id: string) => (await state()).orders.find(one => one.id === id)!
const make = async (definition: OrderDefinition) =>
  (await state(post(definition, ines))).orders.find(one => one.definition.name === definition.name)!.id
/** Waits until an order has another run that has ended. @returns it whole. */
async function nextRun(id: string, before: number, within = 120_000): Promise<OrderRunWhole> {
  const newest = async () => (await orderOf(id)).runs[0]
  await expect
    .poll(async () => (((await newest())?.id ?? 0) > before ? (await newest())!.state : 'none'), { timeout: within, interval: 200 })
    .not.toMatch(/none|running/)
  return orderRunWhole.parse(await server.json(`standing-orders/runs/${(await newest())!.id}`, { headers: ines }))
}
async function run(id: string, isDry: boolean, beyondBrake = false): Promise<OrderRunWhole> {
  const before = (await orderOf(id)).runs[0]?.id ?? 0
  const reply = await server.call(`standing-orders/${id}/runs`, post({ isDry, beyondBrake }, ines))
  expect(reply.status).toBe(200)
  return nextRun(id, before)
}
const countsOf = ({ items }: OrderRunWhole) => {
  const counts: Record<string, number> = {}
  for (const one of items) counts[one.state] = (counts[one.state] ?? 0) + 1
  return counts
}
const itemOf = ({ items }: OrderRunWhole, name: string): RunItem => items.find(one => one.found.name === name)!
const behave = (how: object) => cloud.behave(how)
const tagsAt = async (id: string) =>
  ((await (await fetch(`${cloud.base}/v1/resources/${encodeURIComponent(id)}`)).json()) as { tags: Record<string, string> }).tags
const refused = async (path: string, init: RequestInit) => {
  const reply = await server.call(`standing-orders${path}`, init)
  const { title, errors } = (await reply.json()) as { title: string; errors?: { field: string }[] }
  return [reply.status, title, ...(errors ?? []).map(({ field }) => field)]
}

const start = () =>
  startServer({
    folder,
    env: {
      BRACKWATER_URL: cloud.base,
      RAIN_BARREL_SMTP: `smtp://127.0.0.1:${(smtp.server.address() as AddressInfo).port}`,
      RAIN_BARREL_CHAT: `http://127.0.0.1:${(chatHook.address() as AddressInfo).port}/hook`,
      RAIN_BARREL_URL: 'https://barrel.example',
    },
  })
/** Lets the connection be asked for events now, and waits for that. */
async function fetchEvents(): Promise<void> {
  const job = async () => jobList.parse(await server.json('jobs', { headers: ines })).jobs.find(({ kind }) => kind === 'events')!
  const { id, doneAt } = await job()
  await server.call(`jobs/${id}/run`, post({}, ines))
  await vi.waitFor(async () => expect((await job()).doneAt).not.toBe(doneAt), { timeout: 60_000, interval: 100 })
}

beforeAll(async () => {
  await new Promise<void>(resolve => smtp.listen(0, '127.0.0.1', resolve))
  await new Promise<void>(resolve => chatHook.listen(0, '127.0.0.1', resolve))
  cloud = await listeningCloud(folder, request => {
    if (request.method !== 'PUT') return null
    told.push([decodeURIComponent(request.url!.split('/').at(-1)!), String(request.headers['request-key'])])
    if (told.length === killAt) server.process.kill('SIGKILL')
    const how = onTag
    onTag = null
    return how
  })
  server = await start()
  await server.json('organisation', post({ people, plan: allocationPlan }))
  const old = { ...made[0]!, id: 'old', name: 'old', since: '2026-08-01' }
  const gone = { ...made[0]!, id: 'gone', name: 'gone', since: '2026-10-02' }
  const csv = focusCsv([...[...made, old].flatMap(charged), charged(gone)[0]!])
  expect(await deliver(server, 'Brackwater Cloud', csv)).toMatchObject({ state: 'loaded' })
  await fetchEvents()
})
afterAll(async () => {
  await server.stop()
  cloud.close()
  smtp.close()
  chatHook.close()
  remove(folder)
})

const [ownerOrder, productOrder] = demoOrders as [OrderDefinition, OrderDefinition]
let owner = ''

it('does nothing before it was tried, and nothing in a dry run', async () => {
  owner = await make(ownerOrder)
  expect(await refused(`/${owner}/runs`, post({ isDry: false }, ines))).toEqual([409, 'A dry run comes first'])
  expect(await refused(`/${owner}/on`, put({ isOn: true }, ines))).toEqual([409, 'A dry run comes first'])
  const dry = await run(owner, true)
  expect(dry).toMatchObject({ state: 'done', isDry: true, who: 'Ines Moldal', cause: 'person' })
  // what was made before, is charged no more, or is in another account is not among them
  expect(dry.items.map(one => one.found.name).sort()).toEqual(made.map(({ name }) => name).sort())
  expect(told).toEqual([])
  const [jon] = by('jon.aske@skerry-lines.example')
  expect(itemOf(dry, jon!.name)).toMatchObject({
    state: 'would do',
    does: 'set its tag owner to «jon.aske@skerry-lines.example»',
    found: { makings: [{ by: 'jon.aske@skerry-lines.example', at: `${jon!.since}T08:00:00.000Z` }], firstDay: jon!.since },
  })
  expect(itemOf(dry, jon!.name).found.makings[0]!.raw).toContain('"actor":"jon.aske@skerry-lines.example"')
  expect(itemOf(dry, by('release pipeline')[0]!.name)).toMatchObject({ state: 'would ask', because: '«release pipeline» is a machine' })
  expect((await orderOf(owner)).isTried).toBe(true)
})

it('sets every owner that is certain, once, whatever the cloud does meanwhile', async () => {
  const certain = present.filter(one => /jon|petra|runa|brenne, mikal|oda/i.test(makerOf(one)!))
  const [locked, failing] = [by('SKERRY\\petra.holm')[0]!, by('Jon Aske')[0]!]
  // one in a row is taken, then one is asked to wait; one is locked, one fails once
  await behave({ locked: [locked.id], failing: { [failing.id]: 1 }, inARow: 3 })
  const first = await run(owner, false)
  expect(countsOf(first)).toEqual({ done: certain.length - 2, failed: 1, 'left alone': 2, asked: present.length - certain.length })
  expect(itemOf(first, locked.name)).toMatchObject({
    state: 'left alone',
    because: expect.stringContaining('locked it against changes') as string,
  })
  expect(itemOf(first, failing.name)).toMatchObject({ state: 'failed', said: expect.stringContaining('being moved') as string })
  expect(await tagsAt(by('Oda Lunde (on call)')[0]!.id)).toMatchObject({ owner: 'oda.lunde@skerry-lines.example' })
  // the bill does not show it yet: what is tagged by now is left alone, the rest is done, and the answer to that is lost
  await behave({ locked: [], inARow: 0 })
  const before = told.length
  onTag = { next: 'time out' }
  const second = await run(owner, false)
  const again = told.slice(before)
  expect(again.map(([id]) => id).sort()).toEqual([failing.id, locked.id].sort())
  expect(countsOf(second)).toEqual({ 'done before': certain.length - 2, done: 2, asked: present.length - certain.length, 'left alone': 1 })
  expect(await tagsAt(failing.id)).toMatchObject({ owner: 'jon.aske@skerry-lines.example' })
  const third = await run(owner, false)
  expect(countsOf(third)).toEqual({ 'done before': certain.length, asked: present.length - certain.length, 'left alone': 1 })
  expect(told).toHaveLength(before + 2)
})

it('sets the tag that a person chooses among the candidates, once; nobody else can be chosen', async () => {
  const asked = by('m.brenne')[0]!
  const choose = (person: string, resourceId = asked.id) => refused(`/${owner}/choices`, post({ resourceId, person }, ines))
  expect(await choose('nobody')).toEqual([409, 'That person cannot be chosen'])
  expect(await choose('mikal-brenne', 'elsewhere')).toEqual([409, 'Nothing is asked about that'])
  const runBefore = orderRunWhole.parse(await server.json(`standing-orders/runs/${(await orderOf(owner)).runs[0]!.id}`, { headers: ines }))
  expect(itemOf(runBefore, asked.name)).toMatchObject({
    ...{ state: 'asked', key: 'owner', candidates: [{ person: 'mikal-brenne', value: 'mikal.brenne@skerry-lines.example' }] },
  })
  const before = told.length
  for (let i = 0; i < 2; i++)
    expect(
      (await server.call(`standing-orders/${owner}/choices`, post({ resourceId: asked.id, person: 'mikal-brenne' }, ines))).status,
    ).toBe(200)
  expect(told).toHaveLength(before + 1)
  expect(await tagsAt(asked.id)).toMatchObject({ owner: 'mikal.brenne@skerry-lines.example' })
  const after = orderRunWhole.parse(await server.json(`standing-orders/runs/${runBefore.id}`, { headers: ines }))
  expect(itemOf(after, asked.name)).toMatchObject({ state: 'done', said: 'chosen by Ines Moldal' })
  // and what somebody has tagged there meanwhile is not overwritten
  const other = by('svc-rollout')[0]!
  await behave({ tags: { [other.id]: [{ day: TODAY, key: 'owner', value: 'theirs' }] } })
  expect(await refused(`/${owner}/choices`, post({ resourceId: other.id, person: 'jon-aske' }, ines))).toEqual([409, 'The tag was not set'])
})

it('runs on an event as soon as it is told: repeats are ignored, what is told late is taken, also after a restart', async () => {
  expect((await server.call(`standing-orders/${owner}/on`, put({ isOn: true }, ines))).status).toBe(200)
  const events = async () => jobList.parse(await server.json('jobs', { headers: ines })).jobs.find(({ kind }) => kind === 'events')!
  expect((await events()).every).toMatchObject({ count: 1, unit: 'minute' })
  // what is connected meanwhile is asked as often
  const away = { name: 'second', kind: 'cloud', address: 'http://127.0.0.1:9', secret: null, provider: 'Elsewhere' }
  expect((await server.call('connections', post(away, ines))).status).toBe(200)
  const rhythms = async () =>
    jobList.parse(await server.json('jobs', { headers: ines })).jobs.flatMap(({ kind, every }) => (kind === 'events' ? [every] : []))
  expect(await rhythms()).toMatchObject([{ unit: 'minute' }, { unit: 'minute' }])
  await server.call('connections/second', { method: 'DELETE', headers: ines })
  const seen = (await orderOf(owner)).runs[0]!.id
  const quay = { name: 'quay', by: 'SKERRY\\runa.torvik', size: 'reed-2x4', at: `${TODAY}T08:30:00Z` }
  await behave({ made: [quay] })
  await fetchEvents()
  const run = await nextRun(owner, seen)
  expect(run).toMatchObject({ cause: 'event', who: 'the schedule' })
  // not charged yet: its cloud says what it is
  expect(run.items).toMatchObject([
    {
      state: 'done',
      does: 'set its tag owner to «runa.torvik@skerry-lines.example»',
      found: { name: 'quay', firstDay: null, costSoFar: [] },
    },
  ])
  const tagged = told.length
  await fetchEvents()
  await fetchEvents()
  expect((await orderOf(owner)).runs[0]!.id).toBe(run.id)
  // told late, while nobody listened, of a time before the one that was dealt with; and the first once more
  await server.stop()
  await behave({ made: [quay, { name: 'late', by: 'Petra Holm', size: 'reed-2x4', at: `${TODAY}T07:10:00Z` }] })
  server = await start()
  await fetchEvents()
  const late = await nextRun(owner, run.id)
  expect(late.items.map(({ found, state }) => [found.name, state])).toEqual([['late', 'done']])
  expect(told).toHaveLength(tagged + 1)
  // off, nothing starts it, and events are asked for once a day again
  await state(put({ isOn: false }, ines), `/${owner}/on`)
  expect((await events()).every).toMatchObject({ count: 1, unit: 'day' })
})

it('does nothing more to what is excepted, or by what it is no more, while a run is under way', async () => {
  const id = await make({ ...ownerOrder, name: 'changed', does: { deed: 'tag', key: 'later', value: { from: 'text', text: 'yes' } } })
  const [, second, third] = (await run(id, true)).items.filter(one => one.state === 'would do').map(({ found }) => found)
  const before = (await orderOf(id)).runs[0]!.id
  onTag = { next: 'take long' } // the first takes three seconds
  expect((await server.call(`standing-orders/${id}/runs`, post({ isDry: false }, ines))).status).toBe(200)
  await vi.waitFor(() => expect(onTag).toBeNull(), { timeout: 60_000 })
  await state(post({ resourceId: second!.resourceId, reason: 'not this one', until: null }, ines), `/${id}/exceptions`)
  const first = await nextRun(id, before)
  expect(itemOf(first, second!.name)).toMatchObject({ state: 'left alone', said: 'excepted for good: not this one' })
  expect(itemOf(first, third!.name).state).toBe('done')
  expect(await tagsAt(second!.resourceId)).not.toHaveProperty('later')
  // another order by the time the second comes
  const other = await make({
    ...ownerOrder,
    name: 'changed too',
    does: { deed: 'tag', key: 'never', value: { from: 'text', text: 'yes' } },
  })
  const last = (await run(other, true)).id
  onTag = { next: 'take long' }
  await server.call(`standing-orders/${other}/runs`, post({ isDry: false }, ines))
  await vi.waitFor(() => expect(onTag).toBeNull(), { timeout: 60_000 })
  await state(put({ ...(await orderOf(other)).definition, waitDays: 30 }, ines), `/${other}`)
  const broken = await nextRun(other, last)
  expect(countsOf(broken)).toEqual({ done: 1, 'left alone': present.length })
  expect(itemOf(broken, third!.name).said).toBe('the order was changed or deleted meanwhile')
  for (const one of [id, other]) await state({ method: 'DELETE', headers: ines }, `/${one}`)
})

it('ends with its process in the middle, and the next run does what was left, nothing twice', async () => {
  const id = await make({ ...ownerOrder, name: 'killed', does: { deed: 'tag', key: 'checked', value: { from: 'text', text: 'yes' } } })
  expect(countsOf(await run(id, true))['would do']).toBe(present.length)
  const before = told.length
  killAt = before + 7 // over a tag that the cloud is setting, whose answer nobody gets
  expect((await server.call(`standing-orders/${id}/runs`, post({ isDry: false }, ines))).status).toBe(200)
  await vi.waitFor(() => expect(server.process.signalCode).toBe('SIGKILL'), { timeout: 60_000 })
  server = await start()
  const after = await run(id, false)
  expect((await orderOf(id)).runs.map(({ state: of }) => of)).toEqual(['done', 'not whole', 'done'])
  const counts = countsOf(after)
  expect([counts['done before']! + counts.done!, counts.failed, counts['not known']]).toEqual([present.length, undefined, undefined])
  for (const one of present) {
    expect(await tagsAt(one.id)).toMatchObject({ checked: 'yes' })
    const keys = new Set(told.slice(before).flatMap(([resource, key]) => (resource === one.id ? [key] : [])))
    expect(keys.size).toBe(1)
  }
  await state({ method: 'DELETE', headers: ines }, `/${id}`)
})

it('does nothing above its brake until a person lets it once; excepts what is excepted; has to be tried anew when it is another', async () => {
  const narrow = { ...ownerOrder, name: 'narrow', does: { deed: 'tag', key: 'seen', value: { from: 'text', text: 'yes' } } } as const
  const id = await make({ ...narrow, brake: { resources: present.length - 1, monthlyCost: null } })
  const dry = await run(id, true)
  expect([dry.state, dry.said]).toEqual([
    'braked',
    `It would touch ${present.length} resources; its brake is at ${present.length - 1}. Nothing was done.`,
  ])
  const before = told.length
  expect((await run(id, false)).state).toBe('braked')
  expect(told).toHaveLength(before)
  // one less, and it is not above it
  const excepted = present[3]!
  expect(await refused(`/${id}/exceptions`, post({ resourceId: excepted.id, reason: ' ', until: null }, ines))).toEqual([
    422,
    expect.any(String),
    'reason',
  ])
  await state(post({ resourceId: excepted.id, reason: 'its owner objects', until: '2027-01-01' }, ines), `/${id}/exceptions`)
  const done = await run(id, false)
  expect(countsOf(done)).toEqual({ done: present.length - 1, 'left alone': 2 })
  expect(itemOf(done, excepted.name).because).toBe('excepted until 1 Jan 2027: its owner objects')
  expect(await tagsAt(excepted.id)).not.toHaveProperty('seen')
  await state({ method: 'DELETE', headers: ines }, `/${id}/exceptions?resource=${encodeURIComponent(excepted.id)}`)
  // each costs three a month or one and a half: a brake by money, and once beyond it
  await state(
    put({ ...narrow, does: { ...narrow.does, value: { from: 'text', text: 'no' } }, brake: { resources: 99, monthlyCost: '0.5' } }, ines),
    `/${id}`,
  )
  expect(await refused(`/${id}/runs`, post({ isDry: false }, ines))).toEqual([409, 'A dry run comes first'])
  // what it has set is a tag that it finds no more, at its cloud
  const costly = await run(id, true)
  expect([costly.state, costly.said]).toMatchObject([
    'braked',
    expect.stringMatching(/^It would touch what costs \d+(\.\d)? EUR a month; its brake is at 0\.5\./),
  ])
  expect(countsOf(costly)).toEqual({ 'would do': 1, 'left alone': present.length })
  expect(countsOf(await run(id, false, true))).toEqual({ done: 1, 'left alone': present.length })
})

it('writes to each owner once about each, in one mail with the facts and how to object, also where it failed first', async () => {
  const notify: OrderDefinition = {
    ...productOrder,
    name: 'trials',
    finds: {
      what: 'resources',
      conditions: [{ dimension: 'SubAccountName', values: ['sandbox', 'build'] }],
      made: { when: 'before', days: 14 },
      costAtLeast: null,
    },
  }
  const id = await make(notify)
  const due = made
    .concat({ ...made[0]!, name: 'old', account: made[0]!.account })
    .filter(one => one.account !== 'rehearsal' && (one.name === 'old' || one.since < addDays(TODAY, -14)))
  const dry = await run(id, true)
  expect(dry.items.map(({ found }) => found.name).sort()).toEqual(due.map(({ name }) => name).sort())
  expect(mails).toEqual([])
  refuses = 1
  const first = await run(id, false)
  expect(countsOf(first)).toMatchObject({ failed: expect.any(Number) })
  const whole = await run(id, false)
  expect(countsOf(whole).failed).toBeUndefined()
  expect(mails.flatMap(({ to }) => (Array.isArray(to) ? to : [to!]).map(({ text }) => text)).sort()).toEqual(
    [...new Set(mails.flatMap(({ to }) => (Array.isArray(to) ? to : [to!]).map(({ text }) => text)))].sort(),
  )
  const text = mails.map(one => one.text!).join('\n')
  for (const one of due) expect(text.split(`- ${one.name}, Server`).length + text.split(`- ${one.name}, Disk`).length).toBe(3)
  const trial = due.find(one => one.account === 'sandbox' && one.type === 'Disk')!
  expect(text).toContain(`account sandbox, region north-fjord, ${daysOld(trial.since)} days old (made on ${trial.since})`)
  expect(text).toContain(`event ${trial.id}/created: made by «${makerOf(trial)}» at ${trial.since}T08:00:00.000Z`)
  expect(text).toContain('cost in the last 30 days: ')
  expect(text).toContain(
    `To object, answer Ines Moldal with the reason: each can be excepted, until a day or for good, at https://barrel.example/savings/orders?one=${id}.`,
  )
  const written = mails.length
  await server.stop()
  server = await start()
  expect(countsOf(await run(id, false))).toEqual({ 'done before': due.length })
  expect(mails).toHaveLength(written)
})
const daysOld = (since: string) => Math.round((Date.parse(TODAY) - Date.parse(since)) / 86_400_000)

it('writes to the chat as well: what surely did not come is written in the next run, what may have come is not', async () => {
  const id = await make({
    ...productOrder,
    name: 'chatty',
    finds: {
      what: 'resources',
      conditions: [{ dimension: 'SubAccountName', values: ['sandbox'] }],
      made: { when: 'before', days: 14 },
      costAtLeast: null,
    },
    does: { deed: 'notify', by: 'chat', otherwise: 'siri-vaage', message: 'until when is it needed?' },
  })
  const due = (await run(id, true)).items.length
  expect(due).toBe(made.filter(one => one.account === 'sandbox' && one.since < addDays(TODAY, -14)).length + 1)
  onChat = 503
  expect(countsOf(await run(id, false))).toEqual({ failed: due })
  onChat = 500
  expect(countsOf(await run(id, false))).toEqual({ 'not known': due })
  onChat = null
  expect(countsOf(await run(id, false))).toEqual({ 'not known': due })
  expect(chat.received).toEqual([])
  // another order is another message: one of all
  const other = await make({ ...(await orderOf(id)).definition, name: 'chatty too' })
  await run(other, true)
  expect(countsOf(await run(other, false))).toEqual({ done: due })
  expect(countsOf(await run(other, false))).toEqual({ 'done before': due })
  expect(chat.received).toHaveLength(1)
  expect(chat.received[0]!.text).toMatch(/^chatty too: \d+ resources\n\nSiri Vaage, the standing order «chatty too» has found/)
  expect(chat.received[0]!.text).toContain('until when is it needed?')
  for (const one of [id, other]) await state({ method: 'DELETE', headers: ines }, `/${one}`)
})

it('acts on savings as somebody does in Savings: what takes a second person or cannot be undone is asked, in every run', async () => {
  await server.json('rate-cards', post(brackwaterCard))
  const disks = brackwaterInventory()
    .filter(({ use, until }) => use.kind === 'disk' && use.variant === 'plain, old' && until === null)
    .slice(0, 3)
  const csv = focusCsv(disks.flatMap(oldDisk).map(one => ({ ...one, BillingAccountId: 'disks' })))
  expect(await deliver(server, 'Disks', csv)).toMatchObject({ state: 'loaded' })
  expect((await server.call('savings/look', post({}, ines))).status).toBe(200)
  const acting = (name: string, detector: string, resources: number): OrderDefinition => ({
    ...{ name, finds: { what: 'savings', detectors: [detector], conditions: [] }, waitDays: 0, does: { deed: 'act' } },
    ...{ starts: { by: 'person' }, brake: { resources, monthlyCost: null } },
  })
  const limit = (above: string | null) => server.json('savings/acts/limit', put({ above }, ines))
  const classes = async () =>
    Promise.all(
      disks.map(async ({ id }) => {
        const reply = await fetch(`${cloud.base}/v1/resources/${encodeURIComponent(id)}`)
        return ((await reply.json()) as { settings: { class: string } }).settings.class
      }),
    )
  const id = await make(acting('newer disks', 'better-class', 2))
  expect((await run(id, true)).said).toBe('It would touch 3 resources; its brake is at 2. Nothing was done.')
  await state(put(acting('newer disks', 'better-class', 3), ines), `/${id}`)
  expect(countsOf(await run(id, true))).toEqual({ 'would do': 3 })
  await limit('0')
  for (let i = 0; i < 2; i++) expect(countsOf(await run(id, false))).toEqual({ asked: 3 })
  expect(await classes()).toEqual(['plain, old', 'plain, old', 'plain, old'])
  await limit(null)
  // somebody else has approved one of them; the others still wait for a person
  const { opportunities } = savingsState.parse(await server.json('savings'))
  const waiting = opportunities.filter(({ detector }) => detector === 'better-class')
  expect(waiting.map(({ action }) => action?.state)).toEqual(['waiting', 'waiting', 'waiting'])
  expect((await server.call('savings/approve', post({ id: waiting[0]!.id }, ines))).status).toBe(200)
  expect(countsOf(await run(id, false))).toEqual({ asked: 2 })
  expect((await classes()).filter(one => one === 'plain')).toHaveLength(1)
  // alone, without a limit, it is done at once
  const gateways = await make(acting('gateways', 'idle-gateway', 9))
  await run(gateways, true)
  const asked = await run(gateways, false)
  expect(asked.items.map(({ state: of, said }) => [of, said])).toEqual(
    asked.items.map(() => ['asked', 'what deletes something is approved by a person: look at it in Savings']),
  )
  expect(asked.items).toHaveLength(3)
  for (const one of [id, gateways]) await state({ method: 'DELETE', headers: ines }, `/${one}`)
})

it('refuses what does not hold, and says what and why', async () => {
  const asked = (more: object) => refused('', post({ ...ownerOrder, name: 'another', ...more }, ines))
  expect(await asked({ name: 'OWNER from whoever made it' })).toEqual([409, 'There is such an order already'])
  expect(await asked({ does: { deed: 'act' } })).toEqual([422, expect.any(String), 'does.deed'])
  expect(
    await asked({
      finds: { what: 'savings', detectors: ['constructor'], conditions: [] },
      does: { deed: 'act' },
      starts: { by: 'person' },
    }),
  ).toEqual([...[422, 'The order does not hold', 'finds.detectors']])
  expect(await asked({ does: { deed: 'notify', by: 'mail', otherwise: 'nobody', message: null } })).toEqual([
    422,
    'The order does not hold',
    'does.otherwise',
  ])
  for (const path of ['/elsewhere', '/00000000-0000-4000-8000-000000000000'])
    expect((await refused(path, { method: 'DELETE', headers: ines }))[0]).toBe(404)
  expect((await refused('/runs/999999', { headers: ines }))[0]).toBe(404)
  const { orders } = await state({ method: 'DELETE', headers: ines }, `/${owner}`)
  expect(orders.map(({ definition }) => definition.name)).toEqual(['narrow', 'trials'])
  expect(server.log()).not.toMatch(/fault/)
})
