// Several savings that are acted on together: disks that change their class one after the other, some of which fail; asked too much,
// locked, changed meanwhile, stopped, and killed in the middle. Nothing is done twice, nothing is forgotten, and the bill follows.
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { addDays } from '../../core/time/day'
import { findPrice } from '../../core/ratecard/find-price'
import { brackwaterCard } from '../../demo/rate-cards'
import { brackwaterInventory, type CloudResource } from '../../demo/inventory'
import { TODAY } from '../../demo/calendar'
import { idleLoadBalancer } from '../../demo/planted'
import { actsPreview, savingsState, type OpportunityView } from '../../shared/contracts/savings'
import { daily, oldDisk } from '../support/brackwater-days'
import { focusCsv } from '../support/charges'
import { deliver } from '../support/imports'
import { dayText } from '../../shared/words/days'
import { listeningCloud, type ListeningCloud } from '../support/listening-cloud'
import { post, put, remove, startServer, type Running } from '../support/server'

const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-acts-'))
let cloud: ListeningCloud
let server: Running
/** Changes that the cloud was told, by resource and key. */
const told: string[] = []
/** How the cloud is to behave to the next of them. */
let onPut: object | null = null
/** Disks of an old class, of which nothing is measured on these bills. */
const disks = brackwaterInventory().filter(({ use, until }) => use.kind === 'disk' && use.variant === 'plain, old' && until === null)

/** Measured: one passes nothing, one is larger than its use, one is used by day only. */
const named = (name: string) => brackwaterInventory().find(one => one.name === name)!
const [balancer, database, sleeper] = [named(idleLoadBalancer), named('roster-db'), named('rehearsal-booking-db')]
/** Another size of it is chosen. */
const solver = named('data-lake-query-01')
const measured = [
  ...daily(solver, 'server-hour', 'heron-8x64', 24),
  ...daily(balancer, 'load-balancer-hour', null, 24),
  ...daily(database, 'database-hour', 'heron-4x32', 24),
  ...daily(sleeper, 'database-hour', 'heron-2x16', 24),
]

beforeAll(async () => {
  cloud = await listeningCloud(folder, ({ method, url, headers }) => {
    if (method !== 'PUT') return null
    told.push(`${url!.split('/').at(-1)} ${String(headers['request-key'])}`)
    const how = onPut
    onPut = null
    return how
  })
  server = await startServer({ folder, env: { BRACKWATER_URL: cloud.base } })
  await server.json('rate-cards', post(brackwaterCard))
  expect(await deliver(server, 'Brackwater Cloud', focusCsv([...disks.flatMap(oldDisk), ...measured]))).toMatchObject({ state: 'loaded' })
})
afterAll(async () => {
  await server.stop()
  cloud.close()
  remove(folder)
})

const behave = (how: object) => cloud.behave(how)
const old = async () => savingsState.parse(await server.json('savings')).opportunities.filter(({ detector }) => detector === 'better-class')
const act = (ids: string[], who = 'Ines%20Moldal') => server.call('savings/acts', post({ ids }, { cookie: `rain-barrel-person=${who}` }))
const isOpen = ({ action }: OpportunityView) => action !== null && ['waiting', 'approved', 'sent', 'not known'].includes(action.state)
/** Waits until nothing is under way any more. */
const ended = async () => {
  await expect.poll(async () => (await old()).filter(isOpen).length, { timeout: 60_000, interval: 300 }).toBe(0)
  return old()
}
const classOf = async (id: string) =>
  ((await (await fetch(`${cloud.base}/v1/resources/${encodeURIComponent(id)}`)).json()) as { settings: { class: string } }).settings.class
const keysOf = (id: string) => told.filter(one => one.startsWith(encodeURIComponent(id)))

it('says what would be done to each, what it saves, and does nothing', async () => {
  const found = await old()
  expect(found).toHaveLength(disks.length)
  expect(disks.length).toBeGreaterThanOrEqual(20)
  const preview = actsPreview.parse(await server.json('savings/acts/preview', post({ ids: found.map(({ id }) => id) })))
  expect(
    preview.items.every(
      ({ does, why, undo }) =>
        does === 'change its class from «plain, old» to «plain»' && why === null && undo === 'It can be changed back to «plain, old».',
    ),
  ).toBe(true)
  const sum = found.reduce((n, { monthlySaving }) => n + Number(monthlySaving), 0)
  expect(Number(preview.total)).toBeCloseTo(sum, 6)
  expect(told).toEqual([])
})

it('waits for a second person where it saves more than one may approve alone', async () => {
  const [first, second] = (await old()).slice(-2) as [OpportunityView, OpportunityView]
  const ids = [first.id, second.id]
  const limit = (above: string | null) => server.call('savings/acts/limit', put({ above }, { cookie: 'rain-barrel-person=Ines%20Moldal' }))
  const together = Number(first.monthlySaving) + Number(second.monthlySaving)
  expect((await limit('-1')).status).toBe(422)
  // as much as the limit is not above it
  await limit(together.toFixed(4).replace(/0+$/, ''))
  await limit((together - 0.01).toFixed(4))
  const preview = async () => actsPreview.parse(await server.json('savings/acts/preview', post({ ids })))
  expect((await preview()).needsSecond).toBe(true)
  expect((await act(ids)).status).toBe(200)
  const states = async () => (await old()).filter(({ id }) => ids.includes(id)).map(({ action, state }) => [action?.state, state])
  expect(await states()).toEqual([
    ['waiting', 'under way'],
    ['waiting', 'under way'],
  ])
  const again = await act(ids)
  expect([again.status, ((await again.json()) as { title: string }).title]).toEqual([409, 'It waits for a second person'])
  // one of them alone saves less, and still waits for another person
  expect((await act([first.id])).status).toBe(200)
  expect((await states())[0]).toEqual(['waiting', 'under way'])
  expect(told).toEqual([])
  expect((await act(ids, 'Runa%20Torvik')).status).toBe(200)
  await ended()
  expect(await states()).toEqual([
    ['done', 'done'],
    ['done', 'done'],
  ])
  const { steps } = (await old()).find(({ id }) => id === first.id)!.action!
  expect(steps.slice(0, 2).map(({ who, what }) => [who, what])).toEqual([
    ['Ines Moldal', `approved: change class ${first.resourceName}`],
    ['Runa Torvik', `approved: change class ${first.resourceName}`],
  ])
  await limit(null)
  expect(savingsState.parse(await server.json('savings')).secondPersonAbove).toBeNull()
  told.length = 0
})

it('changes them one after the other; what is locked, fails or was changed is told, and keeps nothing else back', async () => {
  const found = (await old()).slice(0, 8)
  const [locked, failing, moved] = found.map(({ resourceId }) => resourceId) as [string, string, string]
  // two in a row are taken, then one has to wait
  await behave({ locked: [locked], failing: { [failing]: 1 }, inARow: 2, changes: { [moved]: [{ day: TODAY, to: 'steady' }] } })
  expect((await act(found.map(({ id }) => id))).status).toBe(200)
  const after = await ended()
  const of = (resourceId: string) => after.find(one => one.resourceId === resourceId)!.action!
  expect(after.filter(({ id, action }) => found.some(one => one.id === id) && action?.state === 'done')).toHaveLength(5)
  expect([of(locked).state, of(locked).steps.at(-1)!.outcome]).toEqual([
    'lapsed',
    `not sent: platform has locked it against changes since ${dayText(TODAY)}: it is looked into first`,
  ])
  expect([of(failing).state, of(failing).steps.at(-1)!.outcome]).toEqual(['failed', expect.stringContaining('is being moved, try later')])
  expect([of(moved).state, of(moved).steps.at(-1)!.outcome]).toEqual(['lapsed', 'not sent: it is «steady» now, not «plain, old»'])
  for (const { resourceId } of found.slice(3)) expect(await classOf(resourceId)).toBe('plain')
  expect([await classOf(locked), await classOf(failing), await classOf(moved)]).toEqual(['plain, old', 'plain, old', 'steady'])
  expect([keysOf(locked), keysOf(moved)]).toEqual([[], []])
  expect(after.some(({ action }) => action?.steps.some(({ outcome }) => outcome.includes('too many at once')))).toBe(true)
  await behave({ locked: [], inARow: 0, changes: {} })
})

it('does what was chosen to be had otherwise, like what was found', async () => {
  const sku = { provider: 'Brackwater Cloud', sku: findPrice(brackwaterCard, 'server-hour', solver.region, 'heron-8x64')!.sku }
  const found = async () =>
    savingsState.parse(await server.json('savings')).opportunities.find(({ detector }) => detector === 'chosen-otherwise')!
  const choose = (way: string, isChosen = true) =>
    server.json('savings/otherwise/choices', post({ sku, way, resources: [solver.id], isChosen }))
  const limit = (above: string | null) => server.json('savings/acts/limit', put({ above }, { cookie: 'rain-barrel-person=Ines%20Moldal' }))
  await choose('variant/otter-8x32')
  const { id, canDo } = await found()
  expect(canDo).toEqual({ deed: 'change size' })
  const { items } = actsPreview.parse(await server.json('savings/acts/preview', post({ ids: [id] })))
  expect(items).toMatchObject([{ does: 'change its size from «heron-8x64» to «otter-8x32»', why: null }])
  const state = async () => (await found()).action!.state
  const lastOutcome = async () => (await found()).action!.steps.at(-1)!.outcome
  // what one has approved, and somebody chooses otherwise before a second does, is done in neither way
  await limit('1')
  expect((await act([id])).status).toBe(200)
  expect(await state()).toBe('waiting')
  await choose('variant/heron-4x32')
  expect((await act([id], 'Runa%20Torvik')).status).toBe(200)
  await expect.poll(state, { timeout: 60_000 }).toBe('lapsed')
  expect(await lastOutcome()).toBe('not sent: what is found now is to change its size from «heron-8x64» to «heron-4x32»')
  // nor is what is not chosen any more
  await choose('variant/otter-8x32')
  expect((await act([id])).status).toBe(200)
  await choose('variant/otter-8x32', false)
  expect((await act([id], 'Runa%20Torvik')).status).toBe(200)
  await expect.poll(state, { timeout: 60_000 }).toBe('lapsed')
  expect(await lastOutcome()).toBe('not sent: it is not found any more: the bill, prices, thresholds or choices have changed')
  expect(keysOf(solver.id)).toEqual([])
  await limit(null)
  await choose('variant/otter-8x32')
  // who locks it keeps it as it is
  await behave({ locked: [solver.id] })
  expect((await act([id])).status).toBe(200)
  await expect.poll(state, { timeout: 60_000 }).toBe('lapsed')
  await behave({ locked: [] })
  expect((await act([id])).status).toBe(200)
  await expect.poll(state, { timeout: 60_000 }).toBe('done')
  const { settings } = (await (await fetch(`${cloud.base}/v1/resources/${encodeURIComponent(solver.id)}`)).json()) as {
    settings: { size: string }
  }
  expect(settings.size).toBe('otter-8x32')
  expect(keysOf(solver.id)).toHaveLength(1)
})

it('does what is done no second time, and what had failed once more', async () => {
  const done = (await old()).filter(({ state }) => state === 'done')
  const again = await act(done.map(({ id }) => id))
  expect([again.status, ((await again.json()) as { detail: string }).detail]).toEqual([409, expect.stringContaining('it is done')])
  const failed = (await old()).find(({ action }) => action?.state === 'failed')!
  await act([failed.id])
  expect((await ended()).find(({ id }) => id === failed.id)!.action!.state).toBe('done')
})

it('approves all or none', async () => {
  const [one] = (await old()).filter(({ action }) => action === null)
  const reply = await act([one!.id, 'nothing/of/this/name'])
  expect(reply.status).toBe(404)
  expect((await old()).find(({ id }) => id === one!.id)!.action).toBeNull()
})

it('is killed in the middle: nothing is done twice, what was not begun waits for somebody, who goes on', async () => {
  const before = told.length
  const open = (await old()).filter(({ state, action }) => state === 'spotted' && action === null).slice(0, 10)
  const ids = open.map(({ id }) => id)
  await act(ids)
  await expect.poll(() => told.length, { timeout: 120_000, interval: 5 }).toBeGreaterThan(before + 2)
  await server.stop('SIGKILL')
  server = await startServer({ folder, env: { BRACKWATER_URL: cloud.base } })
  // what was under way is found out; the rest is approved, and not begun
  await expect
    .poll(async () => (await old()).filter(({ action }) => action && ['sent', 'not known'].includes(action.state)).length, {
      timeout: 60_000,
    })
    .toBe(0)
  const left = (await old()).filter(({ id, action }) => ids.includes(id) && action?.state === 'approved')
  expect(left.length).toBeGreaterThan(0)
  await act(left.map(({ id }) => id))
  const after = (await ended()).filter(({ id }) => ids.includes(id))
  expect(after.map(({ action }) => action!.state)).toEqual(ids.map(() => 'done'))
  for (const { resourceId } of open) expect([await classOf(resourceId), new Set(keysOf(resourceId)).size]).toEqual(['plain', 1])
})

it('ends with the server in the middle: what was not begun is not taken back, and waits for somebody', async () => {
  const open = (await old()).filter(({ state, action }) => state === 'spotted' && (action === null || action.state === 'lapsed'))
  expect(open.length).toBeGreaterThan(1)
  await behave({ inARow: 1 })
  await act(open.map(({ id }) => id))
  const before = told.length
  await expect.poll(() => told.length, { timeout: 120_000, interval: 5 }).toBeGreaterThan(before)
  await server.stop()
  server = await startServer({ folder, env: { BRACKWATER_URL: cloud.base } })
  const mine = async () => (await old()).filter(({ id }) => open.some(one => one.id === id))
  await expect.poll(async () => (await mine()).filter(({ action }) => action!.state === 'sent').length, { timeout: 60_000 }).toBe(0)
  expect((await mine()).filter(({ action }) => action!.state === 'lapsed')).toEqual([])
  expect((await mine()).filter(({ action }) => action!.state === 'approved').length).toBeGreaterThan(0)
})

it('is stopped: what was not begun is not begun', async () => {
  const open = (await old()).filter(({ action }) => action?.state === 'approved')
  await behave({ inARow: 1 })
  await act(open.map(({ id }) => id))
  await server.json('savings/acts/stop', post({}))
  const after = (await ended()).filter(({ id }) => open.some(one => one.id === id))
  const lapsed = after.filter(({ action }) => action!.state === 'lapsed')
  expect(lapsed.length).toBeGreaterThan(0)
  expect(lapsed.every(({ action, state }) => state === 'spotted' && action!.steps.at(-1)!.outcome === 'not begun, and not to be')).toBe(
    true,
  )
  await behave({ inARow: 0 })
})

it('is seen on the bill of the days after, SKU by SKU', async () => {
  for (let i = 0; i < 3; i++) await fetch(`${cloud.base}/v1/clock/next-day`, { method: 'POST' })
  const month = TODAY.slice(0, 7)
  const { gunzipSync } = await import('node:zlib')
  const bill = gunzipSync(Buffer.from(await (await fetch(`${cloud.base}/v1/bills/${month}`)).arrayBuffer())).toString()
  const [first] = (await old()).filter(({ state }) => state === 'done' || state === 'measured')
  const ofDisk = bill.split('\n').filter(line => line.includes(first!.resourceId))
  expect(ofDisk.filter(line => line.includes('PLAINOLD')).length).toBeGreaterThan(0)
  expect(ofDisk.filter(line => !line.includes('PLAINOLD'))).toHaveLength(2) // the day of the change still at the old price, two days since
})

it('is left alone where what was measured since speaks against it, and done where nothing does', async () => {
  await server.json('savings/look', post({}))
  const of = async (detector: string) =>
    savingsState.parse(await server.json('savings')).opportunities.find(one => one.detector === detector)!
  const outcome = async (detector: string) => {
    await act([(await of(detector)).id])
    await expect.poll(async () => isOpen(await of(detector)), { timeout: 120_000, interval: 200 }).toBe(false)
    const { action } = await of(detector)
    return [action!.state, action!.steps.at(-1)!.outcome]
  }
  // something passes it since this morning; the database is busier than the smaller size could be
  await behave({ passes: { [balancer.id]: 2, [database.id]: 70, [sleeper.id]: 70 } })
  expect(await outcome('idle-load-balancer')).toEqual([
    'lapsed',
    expect.stringMatching(/^not sent: [\d.]+ GB passed through since yesterday, /),
  ])
  expect(await outcome('database-too-large')).toEqual([
    'lapsed',
    expect.stringMatching(/^not sent: [\d.]+ % processor used since yesterday, all of «heron-2x16» is 50$/),
  ])
  // used by day is as it was found; used this morning before 7 is not
  expect(await outcome('can-sleep')).toEqual([
    'lapsed',
    expect.stringMatching(/^not sent: 7[01](\.\d+)? % processor used since yesterday, below the line an hour is quiet is 5$/),
  ])
  await behave({ passes: {} })
  const stopIn = (stopped: object[]) =>
    fetch(`${cloud.base}/v1/inventory/database/${encodeURIComponent(sleeper.id)}`, { method: 'PUT', body: JSON.stringify({ stopped }) })
  await stopIn([{ begin: 22, hours: 4 }])
  expect(await outcome('can-sleep')).toEqual(['lapsed', 'not sent: it has hours of its own: stop every week Mon 22:00 to 02:00 (UTC)'])
  expect((await stopIn([{ begin: 168, hours: 4 }])).status).toBe(400)
  await stopIn([])
  expect((await outcome('can-sleep'))[0]).toBe('done')
  expect((await outcome('idle-load-balancer'))[0]).toBe('done')
  expect((await outcome('database-too-large'))[0]).toBe('done')
  const there = (id: string) => fetch(`${cloud.base}/v1/resources/${encodeURIComponent(id)}`)
  expect((await there(balancer.id)).status).toBe(404)
  expect(((await (await there(database.id)).json()) as { settings: object }).settings).toEqual({ size: 'heron-2x16' })
  // Tuesday, 9:00: awake; from 19:00 on it stands still
  expect(await (await there(sleeper.id)).json()).toMatchObject({
    status: 'running',
    plan: [{ does: 'stop', when: 'every week Mon, Tue, Wed, Thu 19:00 to 07:00; Fri 19:00 to Mon 07:00 (UTC)' }],
  })
})

it('undoes what was done, once, while it is still as it was made; what it had saved stays in the ledger until that day', async () => {
  const state = async () => savingsState.parse(await server.json('savings'))
  const ledgerOf = async (id: string) => (await state()).ledger.filter(({ opportunity }) => opportunity === id)
  const undo = async (id: string) => {
    const reply = await server.call('savings/undo', post({ id }, { cookie: 'rain-barrel-person=Ines%20Moldal' }))
    return [reply.status, ((await reply.json()) as { title?: string; detail?: string }).detail ?? null] as const
  }
  const isDone = ({ action }: OpportunityView) => action?.state === 'done'
  const plain: OpportunityView[] = []
  for (const one of (await old()).filter(isDone)) if ((await classOf(one.resourceId)) === 'plain') plain.push(one)
  const [disk, other] = plain as [OpportunityView, OpportunityView]
  expect(disk.action!.undo).toBe('change its class from «plain» to «plain, old»')
  // somebody has changed it since, or locks it: it is left as it is
  await behave({ locked: [disk.resourceId] })
  expect(await undo(disk.id)).toEqual([409, expect.stringContaining('has locked it against changes')])
  const [changed] = brackwaterInventory().filter(({ id }) => id === other.resourceId)
  const turn = (from: string, to: string) =>
    fetch(`${cloud.base}/v1/inventory/disk/${encodeURIComponent(changed!.id)}`, {
      method: 'PUT',
      body: JSON.stringify({ from, class: to }),
    })
  await turn('plain', 'steady')
  expect(await undo(other.id)).toEqual([409, expect.stringContaining('it is «steady» now, not «plain»')])
  await behave({ locked: [] })
  // its answer is lost: what became of it is found out, and it is told once
  const before = keysOf(disk.resourceId).length
  onPut = { next: 'time out' }
  expect((await undo(disk.id))[0]).toBe(200)
  expect(keysOf(disk.resourceId)).toHaveLength(before + 1)
  expect(await classOf(disk.resourceId)).toBe('plain, old')
  const [line, ...more] = await ledgerOf(disk.id)
  expect([more, line!.doneAt, line!.promisedMonthly]).toEqual([[], '2026-11-24T09:00:00Z', '0'])
  expect(line!.undoneAt! > line!.doneAt).toBe(true)
  // the bill comes to the days after it was undone: what it saved until then is seen, and no more was promised. Changed on 24 November, it
  // is charged as the other class from the day after on, and again as the old one from the day on which it was undone, the 27th
  const found = named(disk.resourceName)
  const { gb } = found.use as Extract<CloudResource['use'], { kind: 'disk' }>
  const as = (variant: string, from: number, to: number) =>
    daily(found, 'disk-gb-month', variant, gb / 30, addDays(TODAY, from), addDays(TODAY, to))
  const since = [...as('plain, old', 0, 1), ...as('plain', 1, 3), ...as('plain, old', 3, 6)]
  const anew = focusCsv([...disks.flatMap(oldDisk), ...measured, ...since])
  expect(await deliver(server, 'Brackwater Cloud', anew)).toMatchObject({ state: 'loaded' })
  const price = (variant: string) => Number(findPrice(brackwaterCard, 'disk-gb-month', found.region, variant)!.tiers[0]!.price)
  const units = Number((gb / 30).toFixed(6))
  const [shown] = await ledgerOf(disk.id)
  expect([shown!.undoneAt!.slice(0, 10), shown!.seenTo, shown!.daysSince]).toEqual([addDays(TODAY, 3), addDays(TODAY, 2), 3])
  expect(Number(shown!.seen)).toBeCloseTo(2 * units * (price('plain, old') - price('plain')), 7)
  // three days but nine hours of an average month
  expect(Number(shown!.promised)).toBeCloseTo((Number(disk.monthlySaving) * (3 * 24 - 9)) / 730, 7)
  expect(await undo(disk.id)).toEqual([409, 'Only what was done from here and can be changed back is undone.'])
  // what was deleted is not offered to be undone
  const gone = (await state()).opportunities.find(one => one.detector === 'idle-load-balancer')!
  expect([gone.action!.state, gone.action!.undo]).toEqual(['done', null])
  expect((await undo(gone.id))[0]).toBe(409)
  // hours are taken out again
  const asleep = (await state()).opportunities.find(one => one.detector === 'can-sleep' && isDone(one))!
  expect((await undo(asleep.id))[0]).toBe(200)
  expect(await (await fetch(`${cloud.base}/v1/resources/${encodeURIComponent(sleeper.id)}`)).json()).toMatchObject({ plan: [] })
  expect(server.log()).not.toMatch(/fault/)
})
