// The page by which a person plays the simulated cloud.
import { mkdtempSync, rmSync } from 'node:fs'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { brackwaterInventory, runsOn } from '../../demo/inventory'
import { TODAY } from '../../demo/calendar'
import { addDays } from '../../core/time/day'
import { findPrice } from '../../core/ratecard/find-price'
import { brackwaterCard } from '../../demo/rate-cards'
import { cloudServer } from '../../stand-ins/cloud/server'

const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-control-'))
const cloud = cloudServer(join(folder, 'state.json'), 'secret')
let base: string
beforeAll(async () => {
  await new Promise<void>(resolve => cloud.listen(0, '127.0.0.1', resolve))
  base = `http://127.0.0.1:${(cloud.address() as AddressInfo).port}`
})
afterAll(() => {
  cloud.closeAllConnections()
  cloud.close()
  rmSync(folder, { recursive: true })
})

/** Sends a form of the page. @returns the page as it is then. */
const press = async (fields: Record<string, string>) =>
  (await fetch(`${base}/control`, { method: 'POST', body: new URLSearchParams(fields) })).text()
const ask = async (path: string) => {
  const reply = await fetch(`${base}${path}`, { headers: { authorization: 'Bearer secret' } })
  return { status: reply.status, body: (await reply.json()) as Record<string, unknown> }
}

it('moves its clock, goes wrong once, locks, lets somebody make something, and shows it', async () => {
  expect(await (await fetch(`${base}/control`)).text()).toContain(`It is ${TODAY}, 09:00 there.`)
  expect(await press({ clock: 'next-day' })).toContain(`It is ${addDays(TODAY, 1)}, 09:00 there.`)
  expect((await ask('/v1/clock')).body.now).toBe(`${addDays(TODAY, 1)}T09:00:00Z`)

  expect(await press({ next: 'fail' })).toContain('goes wrong: fail')
  expect((await ask('/v1/clock')).status).toBe(503)
  expect((await ask('/v1/clock')).status).toBe(200)
  expect(await press({ next: 'no such thing' })).toContain('comes as it should')

  const disk = brackwaterInventory().find(one => one.use.kind === 'disk' && runsOn(one, addDays(TODAY, 1)))!
  const locks = async () => ((await ask(`/v1/resources/${encodeURIComponent(disk.id)}`)).body.locks as unknown[]).length
  const before = await locks()
  expect(await press({ lock: disk.id })).toContain(disk.id)
  expect(await locks()).toBe(before + 2)
  await press({ lock: disk.id })
  expect(await locks()).toBe(before)

  const made = await press({ made: '<b>trial</b>', by: 'jon.aske' })
  expect(made).toContain('&lt;b&gt;trial&lt;/b&gt; made by jon.aske')
  expect(made).not.toContain('<b>')
  const { events } = (await ask(`/v1/events?since=${TODAY}`)).body as { events: { resourceId: string; by: string }[] }
  expect(events.at(-1)).toMatchObject({ resourceId: 'bw:north-fjord:server:made-<b>trial</b>', by: 'jon.aske' })
  // of what is deleted people make some again, in the days after, where that is let happen
  const gateways = brackwaterInventory().filter(one => one.use.kind === 'gateway' && runsOn(one, addDays(TODAY, 1)))
  const listed = async () => ((await ask('/v1/inventory/gateway')).body.resources as { id: string; name: string }[]).map(({ id }) => id)
  for (const { id } of gateways)
    await fetch(`${base}/v1/inventory/gateway/${encodeURIComponent(id)}`, { method: 'DELETE', headers: { authorization: 'Bearer secret' } })
  const locked = await listed()
  await press({ clock: 'next-week' })
  expect(await listed()).toEqual(locked)
  expect(await press({ again: 'yes' })).toContain('One in three of what is deleted is made again')
  await press({ clock: 'next-day' })
  const again = (await listed()).filter(id => !locked.includes(id))
  expect([...again].sort()).toEqual(['bw:low-coast:gateway:8rpaxj-again', 'bw:low-coast:gateway:xsd77d-again'])
  const since = `/v1/events?since=${addDays(TODAY, 2)}`
  const told = ((await ask(since)).body.events as { resourceId: string; what: string }[]).filter(({ what }) => what === 'created')
  expect(
    told
      .map(({ resourceId }) => resourceId)
      .filter(id => id.endsWith('-again'))
      .sort(),
  ).toEqual([...again].sort())
  await press({ clock: 'next-month' })
  expect((await listed()).filter(id => !locked.includes(id)).sort()).toEqual([...again].sort())
  // a disk goes after a snapshot of it, or at once; of what else there is no snapshot
  const there = brackwaterInventory().filter(one => one.use.kind === 'disk' && runsOn(one, '2027-01-02') && one.id !== disk.id)
  const [kept, gone] = [there[0]!, there[1]!]
  const away = (one: typeof kept, after: string) =>
    fetch(`${base}/v1/inventory/${one.use.kind}/${encodeURIComponent(one.id)}${after}`, {
      method: 'DELETE',
      headers: { authorization: 'Bearer secret' },
    })
  const server = brackwaterInventory().find(one => one.use.kind === 'server' && runsOn(one, '2027-01-02'))!
  expect([(await away(server, '?after=snapshot')).status, (await away(kept, '?after=all')).status]).toEqual([405, 400])
  expect([(await away(kept, '?after=snapshot')).status, (await away(gone, '')).status]).toEqual([200, 200])
  await press({ clock: 'next-day' })
  const bill = async () =>
    gunzipSync(
      Buffer.from(await (await fetch(`${base}/v1/bills/2027-01`, { headers: { authorization: 'Bearer secret' } })).arrayBuffer()),
    ).toString()
  expect(await bill()).not.toContain(`${gone.id}-snapshot`)
  const snapshots = (await bill()).split('\n').filter(line => line.includes(`${kept.id}-snapshot`))
  expect(snapshots).toHaveLength(1) // the day of the deed, which is over
  expect(snapshots[0]).toContain(findPrice(brackwaterCard, 'snapshot-gb-month', kept.region)!.sku)
  // what is no control changes nothing
  expect(await press({ nonsense: '1', inARow: '-4' })).toContain('as many as come')
  expect(await press({ inARow: '3' })).toContain('3 in a row, then one is asked to wait')
})
