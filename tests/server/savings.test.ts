import { existsSync, mkdtempSync, readFileSync } from 'node:fs'
import type { AddressInfo } from 'node:net'
import type { Server } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { writeFocusFile } from '../../demo/focus-file'
import { demoDeliveries } from '../../demo/deliveries'
import { allocationPlan, people } from '../../demo/organisation'
import { brackwaterInventory } from '../../demo/inventory'
import { nightPlan } from '../../demo/planted'
import { brackwaterCard } from '../../demo/rate-cards'
import { cloudServer } from '../../stand-ins/cloud/server'
import { resourceReport } from '../../shared/contracts/resources'
import { savingsState, type SavingsState } from '../../shared/contracts/savings'
import { deliver, ended } from '../support/imports'
import { post, put, remove, startServer, type Running } from '../support/server'

const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-cloud-'))
const stateFile = join(folder, 'state.json')
let cloud: Server
let cloudBase: string
let server: Running

const startCloud = async (port = 0) => {
  cloud = cloudServer(stateFile)
  await new Promise<void>(resolve => cloud.listen(port, '127.0.0.1', resolve))
  cloudBase = `http://127.0.0.1:${(cloud.address() as AddressInfo).port}`
}
const stopCloud = () =>
  new Promise(resolve => {
    cloud.closeAllConnections()
    cloud.close(resolve)
  })

beforeAll(async () => {
  await startCloud()
  server = await startServer({ env: { BRACKWATER_URL: cloudBase } })
  await server.json('organisation', post({ people, plan: allocationPlan }))
  await server.json('rate-cards', post(brackwaterCard))
  const delivery = demoDeliveries().find(d => d.file === 'brackwater-2026-11.csv.gz')!
  await writeFocusFile(join(folder, 'november.csv.gz'), delivery.charges())
  expect((await deliver(server, 'Brackwater Cloud', readFileSync(join(folder, 'november.csv.gz')))).state).toBe('loaded')
})
afterAll(async () => {
  await server.stop()
  await stopCloud()
  remove(server.folder)
  remove(folder)
})

const state = async () => savingsState.parse(await server.json('savings'))
const misbehave = (next: string | null) => fetch(`${cloudBase}/v1/behaviour`, { method: 'POST', body: JSON.stringify({ next }) })
const approve = (id: string) => server.call('savings/approve', post({ id }, { cookie: 'rain-barrel-person=Ines%20Moldal' }))
const named = (s: SavingsState, name: string) => s.opportunities.find(o => o.resourceName === name && o.confidence === 'measured')!
const gatewaysThere = async () =>
  ((await (await fetch(`${cloudBase}/v1/inventory/gateway`)).json()) as { resources: { name: string }[] }).resources.map(g => g.name)

it('finds the three gateways that pass nothing, priced, measured and owned', async () => {
  const found = savingsState.parse(await server.json('savings/look', post({})))
  expect(found.opportunities.map(o => [o.resourceName, o.monthlySaving, o.owner, o.centre, o.state])).toEqual(
    expect.arrayContaining([
      ['gw-test-rig-alder', '36.792', 'Petra Holm', 'Vessel telemetry', 'spotted'],
      ['gw-sandbox-trial', '38.325', null, null, 'spotted'],
      ['gw-old-build-net', '36.792', null, 'Platform', 'spotted'],
    ]),
  )
  const measured = found.opportunities.filter(({ detector }) => detector === 'idle-gateway')
  expect(measured).toHaveLength(3)
  expect(measured.every(o => o.evidence.series[0]!.days.length === 30 && o.evidence.series[0]!.said.startsWith('Nothing passed'))).toBe(
    true,
  )
})

it('shows on a resource’s page what its cloud says of it, or why that is not known', async () => {
  const { resources: gateways } = (await (await fetch(`${cloudBase}/v1/inventory/gateway`)).json()) as {
    resources: { id: string; name: string }[]
  }
  const id = (name: string) => encodeURIComponent(gateways.find(g => g.name === name)!.id)
  const said = async (of: string) => resourceReport.parse(await server.json(`resources/reported?id=${of}`))
  const report = async (of: string) => (await said(of)).report
  const measured = async (name: string) => (await said(id(name))).measured[0]!
  expect((await measured('gw-test-rig-alder')).days).toHaveLength(31)
  expect((await measured('gw-test-rig-alder')).days.every(day => day.amount === 0)).toBe(true)
  const busy = await measured('gw-live-passenger-low-coast')
  expect(busy).toMatchObject({ what: 'passed through', unit: 'GB', ofHour: 'sum' })
  const solver = brackwaterInventory().find(r => r.name.startsWith(nightPlan.namesBegin))!
  expect(await report(encodeURIComponent(solver.id))).toMatchObject({
    by: 'Brackwater Cloud',
    status: 'running',
    locks: [{ against: 'changes', by: 'crew-roster', since: '2026-10-19' }],
    plan: [
      {
        does: 'stop',
        when: 'every day at 20:00',
        last: { at: '2026-11-23T20:00:00Z', outcome: 'refused', why: 'it is locked against changes' },
      },
      { does: 'start', last: { at: '2026-11-24T06:00:00Z', outcome: 'nothing to do' } },
    ],
  })
  expect((await report(encodeURIComponent(brackwaterInventory().find(r => r.name === 'booking-db')!.id)))!.locks).toMatchObject([
    { against: 'deletion' },
  ])
  expect(await report('nobody-has-it')).toBeNull()
  // the last is today, as far as it is over
  expect(busy.days.slice(0, -1).every(day => day.amount > 100)).toBe(true)
  const port = Number(new URL(cloudBase).port)
  await stopCloud()
  expect((await server.call(`resources/reported?id=${id('gw-test-rig-alder')}`)).status).toBe(502)
  await startCloud(port)
})

it('an alias, a rule and a lookup say whose an opportunity is, as they do for its charges', async () => {
  const whose = async (name: string) => named(await state(), name).centre
  expect(await whose('gw-test-rig-alder')).toBe('Vessel telemetry')
  const alias = (as: string | null) => server.json('spend/aliases', post({ dimension: 'Tags/team', spellings: ['vessel-telemetry'], as }))
  await alias('booking')
  expect(await whose('gw-test-rig-alder')).toBe('Booking')
  await alias(null)
  expect(await whose('gw-test-rig-alder')).toBe('Vessel telemetry')
  const { subAccountName, tags } = named(await state(), 'gw-sandbox-trial')
  expect([subAccountName, tags.team]).toEqual(['sandbox', undefined])
  const lookup = { by: 'SubAccountName', fields: ['kept for'], entries: [{ key: subAccountName, values: { 'kept for': 'tests' } }] }
  await server.json('lookups/accounts', put(lookup))
  const rule = { id: 'tests', conditions: [{ dimension: 'Lookup/accounts/kept for', values: ['tests'] }], target: 'security' }
  await server.json('organisation', post({ people, plan: { ...allocationPlan, rules: [rule, ...allocationPlan.rules] }, basedOn: 1 }))
  expect(await whose('gw-sandbox-trial')).toBe('Security')
  await server.json('organisation', post({ people, plan: allocationPlan, basedOn: 2 }))
  expect(await whose('gw-sandbox-trial')).toBeNull()
})

it('a preview does nothing', async () => {
  const { id } = named(await state(), 'gw-test-rig-alder')
  expect(await server.json('savings/preview', post({ id }))).toMatchObject({
    why: null,
    steps: expect.arrayContaining([expect.stringContaining('delete the gateway')]),
  })
  expect(await gatewaysThere()).toContain('gw-test-rig-alder')
  expect(named(await state(), 'gw-test-rig-alder')).toMatchObject({ state: 'spotted', action: null })
  expect((await server.call('savings/preview', post({ id: 'none' }))).status).toBe(404)
})

it('a failure leaves it as it was, with the reason', async () => {
  const { id } = named(await state(), 'gw-test-rig-alder')
  await misbehave('fail')
  const response = await approve(id)
  expect(response.status).toBe(502)
  expect(await response.json()).toMatchObject({ detail: expect.stringContaining('being repaired') })
  const after = named(await state(), 'gw-test-rig-alder')
  expect(after).toMatchObject({ state: 'spotted', action: { state: 'failed', approvedBy: 'Ines Moldal' } })
  expect(after.action!.steps.at(-1)!.outcome).toContain('being repaired')
  expect(await gatewaysThere()).toContain('gw-test-rig-alder')
  expect((await state()).ledger).toEqual([])
})

it('deletes once, however often it is asked for', async () => {
  const { id } = named(await state(), 'gw-test-rig-alder')
  const replies = await Promise.all([approve(id), approve(id), approve(id)])
  expect(replies.map(r => r.status)).toEqual([200, 200, 200])
  expect((await approve(id)).status).toBe(200)
  const done = named(await state(), 'gw-test-rig-alder')
  expect(done).toMatchObject({ state: 'done', action: { state: 'done', doneAt: expect.stringContaining('2026-11-24') } })
  expect(done.action!.steps.filter(s => s.outcome.startsWith('deleted'))).toHaveLength(1)
  expect(await gatewaysThere()).not.toContain('gw-test-rig-alder')
})

it('where an answer never comes, the cloud is asked what became of it', async () => {
  const { id } = named(await state(), 'gw-old-build-net')
  // the last look before the deed reads what passed: from then on the next answer is lost
  const lose = async (request: { url?: string }) => {
    if (request.url?.includes('readings')) await misbehave('time out')
  }
  cloud.on('request', lose)
  const response = await approve(id)
  cloud.off('request', lose)
  expect(response.status).toBe(200)
  expect(await gatewaysThere()).not.toContain('gw-old-build-net')
  const done = named(await state(), 'gw-old-build-net')
  expect(done.state).toBe('done')
  expect(done.action!.steps.at(-2)!.outcome).toContain('whether it was deleted is not known')
  expect(done.action!.steps.filter(s => s.outcome.startsWith('deleted'))).toHaveLength(1)
})

it('survives an answer that comes twice', async () => {
  await misbehave('answer twice')
  const response = await server.call('savings/look', post({}))
  expect([200, 502]).toContain(response.status)
  expect((await server.call('savings/look', post({}))).status).toBe(200)
  expect(
    (await state()).opportunities.filter(o => o.detector === 'idle-gateway' && o.state === 'spotted').map(o => o.resourceName),
  ).toEqual(['gw-sandbox-trial'])
})

it('the stand-in remembers over a restart', async () => {
  const { port } = new URL(cloudBase)
  await stopCloud()
  expect(existsSync(stateFile)).toBe(true)
  expect((await server.call('savings/look', post({}))).status).toBe(502)
  await startCloud(Number(port))
  expect(await gatewaysThere()).not.toContain('gw-test-rig-alder')
})

it('after the next day the ledger sees on the bill what was promised, from the new charges only', async () => {
  const before = await state()
  expect(before.ledger).toHaveLength(2)
  expect(before.ledger.every(l => l.seen === null && l.seenTo === null)).toBe(true)
  const { importIds } = await server.json<{ importIds: string[] }>('connections/brackwater/next-day', post({}))
  const load = await ended(server, importIds[0]!)
  expect(load.state).toBe('loaded')
  const { ledger } = await state()
  const rig = ledger.find(l => l.resourceName === 'gw-test-rig-alder')!
  // deleted at 09:00 on the 24th: fifteen hours at 0.0504 are saved that day
  expect(rig).toMatchObject({
    seenTo: '2026-11-24',
    promised: '0.756',
    seen: '0.756',
    ...{ seenBilled: '0.756', daysBefore: 7, daysSince: 1 },
    workings: [
      {
        ...{ sku: 'BW-LOWCOAST-GATEWAYHOUR', words: 'Gateways in Low Coast: existing, hours', unit: 'Hours', how: 'gone' },
        ...{ unitsBefore: '168', costBefore: '8.4672', unitsElse: '24', counterfactual: '1.2096', actual: '0.4536' },
      },
    ],
  })
  const again = await server.json<{ importIds: string[] }>('connections/brackwater/next-day', post({}))
  await ended(server, again.importIds[0]!)
  expect((await state()).ledger.find(l => l.resourceName === 'gw-test-rig-alder')).toMatchObject({
    seenTo: '2026-11-25',
    promised: '1.9656',
    seen: '1.9656',
  })
})

it('the log stayed clean', () => {
  expect(server.log()).toBe(`Listening on ${server.base}\n`)
})
