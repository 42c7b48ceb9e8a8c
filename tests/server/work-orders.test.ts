// A second cloud of another shape, through the same port: parts of lists, other units, orders that are finished later.
import type { AddressInfo } from 'node:net'
import { gunzipSync } from 'node:zlib'
import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest'
import { allocationPlan, people } from '../../demo/organisation'
import { demoDeliveries } from '../../demo/deliveries'
import { larkfieldInventory, makerOf, runsOn } from '../../demo/inventory'
import { larkfieldCard } from '../../demo/rate-cards'
import { TODAY } from '../../demo/calendar'
import { chargeLine, headerLine } from '../../demo/focus-file'
import { measuredOn } from '../../demo/measured'
import { addDays } from '../../core/time/day'
import { workOrders } from '../../server/connectors/kinds/work-orders'
import type { Connector, ConnectorFailed } from '../../server/connectors/connector'
import { savingsState } from '../../shared/contracts/savings'
import { deskServer } from '../../stand-ins/desk/server'
import { deliver } from '../support/imports'
import { ownServer } from '../support/own-server'
import { post } from '../support/server'

const desk = deskServer()
const server = ownServer()
let address: string
let cloud: Connector
const there = larkfieldInventory().filter(one => runsOn(one, TODAY))
const ofKind = (kind: string) => there.filter(({ use }) => use.kind === kind)
const [machine, other, third] = ofKind('server') as [(typeof there)[number], (typeof there)[number], (typeof there)[number]]
const november = () => demoDeliveries().find(({ file, month }) => file.startsWith('larkfield') && month === '2026-11')!
const can = () => cloud.can as Required<Connector['can']>

beforeAll(async () => {
  await new Promise<void>(resolve => desk.listen(0, '127.0.0.1', resolve))
  address = `http://127.0.0.1:${(desk.address() as AddressInfo).port}`
  const settings = { name: 'larkfield', address, secret: null }
  cloud = workOrders.connect({ ...settings, provider: await workOrders.whose(settings) })
})
afterAll(() => {
  desk.closeAllConnections()
  desk.close()
})

beforeEach(() => {
  Object.assign(desk.state, { orders: {}, removed: {}, settings: {}, labels: {}, holds: {}, loses: 0, waits: 2 })
})

it('lists what there is, whole, though it comes in parts', async () => {
  expect(cloud.provider).toBe('Larkfield Compute')
  expect(await cloud.now()).toBe(`${TODAY}T09:00:00Z`)
  // more than one part
  expect(ofKind('server').length).toBeGreaterThan(10)
  const listed = await can().inventory.resources('server')
  expect(listed.map(({ id }) => id)).toEqual(ofKind('server').map(({ id }) => id))
  expect(listed[0]).toEqual({
    ...{ id: machine.id, name: machine.name, type: 'server', region: machine.region, subAccountName: machine.account },
    ...{ createdAt: `${machine.since}T00:00:00Z`, tags: machine.tags },
  })
  expect(await can().inventory.resources('constructor')).toEqual([])
})

it('tells measurements in the units that are known here', async () => {
  expect((await can().measurements.metrics('server')).map(({ metric, unit }) => [metric, unit])).toEqual([
    ['cpu', '%'],
    ['memory', '%'],
  ])
  const day = addDays(TODAY, -1)
  const cpu = measuredOn(machine, 'cpu', day)!
  const readings = await can().measurements.readings({ type: 'server', id: machine.id }, 'cpu', day, TODAY)
  expect(readings.map(({ at }) => at.slice(11, 13)).join()).toBe(cpu.map((_, hour) => String(hour).padStart(2, '0')).join())
  readings.forEach(({ value }, hour) => expect(value).toBeCloseTo(cpu[hour]!, 9))
  const all = await can().measurements.ofDay('server', 'memory', TODAY)
  expect(all).toHaveLength(ofKind('server').length)
  const own = all.find(({ id }) => id === machine.id)!
  measuredOn(machine, 'memory', TODAY)!.forEach((value, hour) =>
    hour < 9 ? expect(own.hours[hour]).toBeCloseTo(value, 9) : expect(own.hours[hour]).toBeNull(),
  )
})

it('tells how a thing is, and nothing of one that is not there', async () => {
  desk.state.holds[machine.id] = [{ against: 'removal', reason: 'an audit', person: 'platform', since: 1_793_000_000 }]
  expect(await can().inventory.condition(machine.id)).toMatchObject({
    ...{ type: 'server', name: machine.name, settings: { size: (machine.use as { size: string }).size }, status: 'running', plan: [] },
    locks: [{ against: 'deletion', why: 'an audit', by: 'platform', since: '2026-10-26' }],
  })
  expect(await can().inventory.condition('constructor')).toBeNull()
})

it('tells what has happened, in parts and in the words that are known here, and the bill to date', async () => {
  const made = larkfieldInventory().filter(one => makerOf(one) !== null && one.since <= TODAY)
  expect(made.length).toBeGreaterThan(10)
  const told = await can().events.since('2025-01-01')
  expect(told.map(({ id }) => id).sort()).toEqual(made.map(({ id }) => `made-${id}`).sort())
  expect(told.find(({ resourceId }) => resourceId === made[0]!.id)).toEqual({
    ...{ id: `made-${made[0]!.id}`, at: `${made[0]!.since}T08:00:00Z`, resourceId: made[0]!.id, what: 'created' },
    ...{ by: makerOf(made[0]!), raw: null },
  })
  desk.state.removed[machine.id] = Date.parse(`${TODAY}T09:00:00Z`) / 1000
  expect(await can().events.since(TODAY)).toEqual([
    { id: `removed-${machine.id}`, at: `${TODAY}T09:00:00Z`, resourceId: machine.id, what: 'deleted', by: 'the desk', raw: null },
  ])
  const lines = gunzipSync(await can().bill.month('2026-11'))
    .toString()
    .trimEnd()
    .split('\n')
  expect(lines[0]).toBe(headerLine.trimEnd())
  expect(lines).toHaveLength(1 + [...november().charges()].length)
  expect(await failureOf(can().bill.month('2031-01'))).toMatchObject({ sure: true, status: 404 })
})

const remove = { type: 'server', deed: 'delete' } as const

it('an order is placed, watched and done, once under its number', async () => {
  expect(await can().actions.of('server')).toEqual(['delete', 'change size', 'tag'])
  expect(await can().actions.outcomeOf('k1')).toEqual({ outcome: 'not received' })
  const { at } = await can().actions.carryOut(remove, machine.id, 'k1')
  expect(at).toBe(`${TODAY}T09:00:00Z`)
  expect(await can().actions.carryOut(remove, machine.id, 'k1')).toEqual({ at })
  expect(await can().actions.outcomeOf('k1')).toEqual({ outcome: 'done', at })
  expect(Object.keys(desk.state.orders)).toEqual(['k1'])
  expect(await can().inventory.condition(machine.id)).toBeNull()
})

const failureOf = (done: Promise<unknown>) =>
  done.then(
    () => null,
    (error: unknown) => error as ConnectorFailed,
  )

it('what is turned down was surely not done; what is lost is found out by its number', async () => {
  desk.state.holds[other.id] = [{ against: 'removal', reason: 'an audit', person: 'platform', since: 0 }]
  const refused = await failureOf(can().actions.carryOut(remove, other.id, 'k2'))
  expect(refused).toMatchObject({ sure: true, message: 'Larkfield Compute refused: platform holds it: an audit' })
  expect(await can().actions.outcomeOf('k2')).toEqual({ outcome: 'refused', why: 'platform holds it: an audit' })

  desk.state.loses = 1
  const lost = await failureOf(can().actions.carryOut(remove, third.id, 'k3'))
  expect(lost).toMatchObject({ sure: false })
  // it is there, and nobody has worked on it yet
  expect(await failureOf(can().actions.outcomeOf('k3'))).toMatchObject({ sure: false })
  await failureOf(can().actions.outcomeOf('k3'))
  expect(await can().actions.outcomeOf('k3')).toMatchObject({ outcome: 'done' })
  expect(Object.keys(desk.state.removed)).toEqual([third.id])

  const asleep = await failureOf(can().actions.carryOut({ type: 'server', deed: 'schedule', asleep: [] }, other.id, 'k4'))
  expect(asleep).toMatchObject({ sure: true, message: 'Larkfield Compute takes no order to schedule' })
  expect(Object.keys(desk.state.orders)).toEqual(['k2', 'k3'])
})

it('is connected, looked through and acted on like the other', async () => {
  const kinds = (await server.json<{ kinds: { kind: string }[] }>('connections/kinds')).kinds.map(({ kind }) => kind)
  expect(kinds).toContain('work-orders')
  const disk = ofKind('disk')[0]!
  desk.state.detached = [disk.id]
  await server.json('organisation', post({ people, plan: allocationPlan }))
  await server.json('rate-cards', post(larkfieldCard))
  const bill = november()
  let text = headerLine
  for (const charge of bill.charges()) text += chargeLine(charge)
  expect((await deliver(server, bill.source, text)).state).toBe('loaded')
  await server.json('connections', post({ kind: 'work-orders', name: 'larkfield', address }))
  const look = async () => savingsState.parse(await server.json('savings/look', post({})))
  const found = (await look()).opportunities.filter(({ provider }) => provider === 'Larkfield Compute')
  expect(found.map(({ detector, resourceName, canDo }) => [detector, resourceName, canDo?.deed])).toEqual([
    ['unattached-disk', disk.name, 'snapshot and delete'],
  ])
  const approved = async () => {
    const { opportunities } = savingsState.parse(await server.json('savings'))
    return opportunities.find(({ id }) => id === found[0]!.id)!
  }
  expect((await server.call('savings/approve', post({ id: found[0]!.id }))).status).toBe(200)
  await expect.poll(async () => (await approved()).action?.state, { timeout: 60_000 }).toBe('done')
  expect(Object.keys(desk.state.removed)).toEqual([disk.id])
  expect(Object.values(desk.state.orders).map(({ ref, verb, state }) => [ref, verb, state])).toEqual([
    [disk.id, 'copy and remove', 'finished'],
  ])
  expect(desk.state.copies).toEqual(desk.state.removed)
})
