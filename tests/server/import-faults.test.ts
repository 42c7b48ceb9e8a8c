import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { Readable } from 'node:stream'
import { afterAll, beforeAll, expect, it, vi } from 'vitest'
import { takeIn } from '../../server/imports/take-in'
import { deliver } from '../../server/imports/deliver'
import { fetchBill } from '../../server/imports/fetch-bill'
import { startServices, type Services } from '../../server/services'
import { charge, focusCsv } from '../support/charges'

const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-faults-'))
let services: Services
beforeAll(async () => {
  services = await startServices(join(folder, 'data'), resolve('.output/server'))
})
afterAll(async () => {
  await services.close()
  rmSync(folder, { recursive: true, force: true })
})

const send = (csv: string): Promise<string> =>
  deliver(
    services.importer.arrivals,
    { source: 'faulty', files: [{ name: 'file.csv', bytes: csv.length }], who: 'test', mapping: null },
    path => takeIn(Readable.from([Buffer.from(csv)]), 'file.csv', path),
  )
const csv = (resource: string, amount: string) => focusCsv([charge({ BilledCost: amount, ResourceId: resource, ResourceName: resource })])
const asked = {
  measure: 'billedCost' as const,
  splitBy: ['ResourceId'],
  grain: null,
  start: '2026-10-01',
  end: '2026-11-01',
  keep: {},
  leaveOut: {},
}

const ends = (ids: string[]) => Promise.all(ids.map(async id => (await services.importer.list.status(id))!))
const answered = async () =>
  (await services.cube.within(null).ask('answer', asked)).result.rows.map(row => [row.values.ResourceId, row.amount])

it.each([
  // its charges come late enough for the next delivery to have been read: that may name what only the first had told the database
  ['keep', ['stopped', 'stopped']],
  // without its entries' ids nothing more is read: the next begins anew
  ['enter', ['stopped', 'loaded']],
] as const)('a load whose charges cannot be kept (%s) fails, leaves nothing, and what comes after it is right', async (call, states) => {
  const said = vi.spyOn(console, 'error').mockImplementation(() => {})
  await send(csv(`r-before-${call}`, '1'))
  await services.importer.idle()
  const fails = () => new Promise<never>((_, reject) => setTimeout(() => reject(new Error('the disk is full')), 400))
  const { charges } = services
  const refusal = (call === 'keep' ? vi.spyOn(charges, call) : vi.spyOn(charges.entries, call)).mockImplementationOnce(fails)
  const ids = [await send(csv(`r-first-${call}`, '2')), await send(csv(`r-first-${call}`, '3'))]
  await services.importer.idle()
  const [first, second] = await ends(ids)
  expect(refusal).toHaveBeenCalled()
  expect([first!.state, second!.state]).toEqual(states)
  expect(first!.message).toContain('the disk is full')
  expect(await answered()).toEqual(states[1] === 'loaded' ? [[`r-first-${call}`, '3']] : [[`r-before-${call}`, '1']])
  const third = await send(csv(`r-first-${call}`, '4'))
  await services.importer.idle()
  expect((await services.importer.list.status(third))!.state).toBe('loaded')
  expect(await answered()).toEqual([[`r-first-${call}`, '4']])
  // of the failed ones nothing is kept: only what counts, and what counted before it
  const loaded = (await services.importer.list.recent(10)).filter(load => load.state === 'loaded').map(load => Number(load.id))
  const kept = (await services.database.query('select distinct load_id from charge_segment')).map(([id]) => id as number)
  expect(kept.filter(id => !loaded.includes(id))).toEqual([])
  said.mockRestore()
  refusal.mockRestore()
})

it('what is loaded reaches whoever asks without being read back from the database, which has it all the same', async () => {
  const read = vi.spyOn(services.charges, 'segments')
  const id = await send(csv('r-fresh', '7'))
  await services.importer.idle()
  expect(await answered()).toEqual([['r-fresh', '7']])
  expect(read).not.toHaveBeenCalled()
  expect((await services.importer.list.status(id))!.state).toBe('loaded')
  const [period] = (await services.charges.counting()).periods.filter(({ loadId }) => loadId === Number(id))
  expect((await services.charges.segments(period!.loadId, period!.start)).length).toBe(1)
  read.mockRestore()
})

it('a bill that is fetched under one key is one load, also where a process was killed before it had all of it', async () => {
  const asked: string[] = []
  const bill = {
    month: async (month: string) => {
      asked.push(month)
      return new Uint8Array(Buffer.from(csv('r-fetched', '9').replaceAll('acct-1', 'acct-fetched')))
    },
  }
  const connector = { name: 'cloud', provider: 'fetched', now: async () => '2026-11-24T09:00:00Z', can: { bill } }
  const left = { source: 'fetched', files: [{ name: 'x', bytes: 1 }], who: 'killed', mapping: null, fetchKey: 'one turn 2026-10' }
  const before = await services.importer.arrivals.announce(left)
  const turn = { now: '2026-11-01T09:00:00Z', lastDay: null, who: 'test', key: 'one turn' }
  const fetch = async () => (await fetchBill(services.importer.arrivals, connector, turn))[0]!
  const id = await fetch()
  expect(await fetch()).toBe(id) // taken up again after it had arrived
  await services.importer.idle()
  expect(await fetch()).toBe(id)
  expect(asked).toEqual(['2026-10']) // the day before the first belongs to the month before
  expect((await services.importer.list.status(id))!.state).toBe('loaded')
  expect(await services.importer.list.status(String(before))).toBeNull()
  expect((await services.importer.list.recent(99)).filter(({ source }) => source === 'fetched').length).toBe(1)
})

it('a load that lost its job is queued again by the next start', async () => {
  const id = await services.importer.arrivals.announce({ source: 'lost', files: [{ name: 'x', bytes: 1 }], who: 'test', mapping: null })
  const text = csv('r-lost', '11').replaceAll('acct-1', 'acct-lost')
  writeFileSync(services.importer.inbox.path(id, 0), text)
  await services.database.query(`update load set arrived = true where id = ${id}`)
  await services.close()
  services = await startServices(join(folder, 'data'), resolve('.output/server'))
  await services.importer.idle()
  expect(await services.importer.list.status(String(id))).toMatchObject({ state: 'loaded', rows: 1 })
})
