// What connections report is kept: asked for once, in blocks that show their damage, and forgotten in time.
import { sql } from 'drizzle-orm'
import { beforeEach, expect, it } from 'vitest'
import type { Needs } from '../../core/opportunity/detector'
import type { OutsideEvent, Reading, Resource } from '../../core/opportunity/opportunity'
import { addDays } from '../../core/time/day'
import type { Connector } from '../../server/connectors/connector'
import type { ChargesSeen } from '../../server/charges/charges-seen'
import { measuredDays } from '../../server/stores/measured'
import { dropObserved, findInventory, listEvents } from '../../server/stores/observed'
import { factsKept } from '../../server/use-cases/detector-facts'
import { observe } from '../../server/use-cases/observe'
import { ownDatabase } from '../support/own-server'

const own = ownDatabase()

const disk = (id: string): Resource => ({
  ...{ id, name: id, type: 'disk', region: 'r', subAccountName: 's', createdAt: '2026-01-01T00:00:00Z', tags: {} },
})
/** A service that has disks, of which 0.1 × the day of the month is read in each of two hours, and that tells what it was asked. */
let disks: Resource[]
let events: OutsideEvent[]
let asked: string[]
const service: Connector = {
  name: 'a cloud',
  provider: 'P',
  now: async () => '2026-11-24T09:00:00Z',
  can: {
    inventory: { resources: async () => disks, condition: async () => null },
    measurements: {
      metrics: async () => [],
      ofDay: async () => [],
      readings: async ({ id }, metric, from, to) => {
        asked.push(`${id} ${metric} ${from} to ${to}`)
        const readings: Reading[] = []
        for (let day = from; day < to; day = addDays(day, 1))
          for (const hour of ['00', '13']) readings.push({ at: `${day}T${hour}:00:00Z`, value: Number(day.slice(8)) / 10 })
        return readings
      },
    },
    events: { since: async day => events.filter(({ at }) => at >= day) },
  },
}
const needs: Needs = { inventory: 'disk', measurements: [{ metric: 'read', days: 5 }], events: { days: 3 } }
const of = { connection: 'a cloud', type: 'disk', metric: 'read' }
const collect = async <T>(list: AsyncIterable<T>) => {
  const all: T[] = []
  for await (const one of list) all.push(one)
  return all
}
const noCharges = {} as ChargesSeen
const look = (today: string) => observe(own.database.db, service, [needs], today)
beforeEach(async () => {
  await dropObserved(own.database.db, 'a cloud')
  disks = [disk('one'), disk('constructor')]
  events = []
  asked = []
})

it('days that are over are asked for once; the last one and today again; what is new or damaged from its first day on', async () => {
  await look('2026-11-24')
  expect(asked).toEqual(['one read 2026-11-19 to 2026-11-25', 'constructor read 2026-11-19 to 2026-11-25'])
  asked = []
  await look('2026-11-24')
  expect(asked).toEqual(['one read 2026-11-23 to 2026-11-25', 'constructor read 2026-11-23 to 2026-11-25'])
  asked = []
  disks.push(disk('two'))
  await look('2026-11-25')
  expect(asked).toEqual([
    'one read 2026-11-24 to 2026-11-26',
    'constructor read 2026-11-24 to 2026-11-26',
    'two read 2026-11-20 to 2026-11-26',
  ])
  const known = await measuredDays(own.database.db, of, '2026-11-19', '2026-11-25')
  expect([...known].map(([day, measured]) => `${day} ${[...measured.keys()]}`)).toEqual([
    '2026-11-19 one,constructor',
    ...['20', '21', '22', '23', '24', '25'].map(day => `2026-11-${day} one,constructor,two`),
  ])
  await own.database.db.execute(sql`update measured_block set bytes = set_byte(bytes, 9, 77) where day = '2026-11-22'`)
  expect([...(await measuredDays(own.database.db, of, '2026-11-21', '2026-11-23')).keys()]).toEqual(['2026-11-21', '2026-11-23'])
  asked = []
  await look('2026-11-25')
  expect(asked).toEqual(['one', 'constructor', 'two'].map(id => `${id} read 2026-11-22 to 2026-11-26`))
  expect(await measuredDays(own.database.db, of, '2026-11-19', '2026-11-25')).toEqual(known)
})

it('a detector gets what is there today, with what was measured in its days and has happened to it', async () => {
  const event = (id: string, at: string, resourceId: string) => ({ id, at, resourceId, what: 'attached', by: 'Siri' })
  events = [event('e1', '2026-11-20T08:00:00Z', 'one'), event('e2', '2026-11-22T08:00:00Z', 'one')]
  await look('2026-11-24')
  events.push(event('e2', '2026-11-22T08:00:00Z', 'told otherwise'), event('e3', '2026-11-24T08:00:00Z', 'constructor'))
  disks = [disk('constructor'), disk('one')]
  await look('2026-11-24')
  const facts = await collect(factsKept({ db: own.database.db, charges: noCharges }, service, needs, '2026-11-24'))
  expect(facts.map(({ resource, events }) => [resource.id, events.map(({ id }) => id)])).toEqual([
    ['constructor', ['e3']],
    ['one', ['e2']],
  ])
  const readings = facts[1]!.readings.get('read')!
  expect(readings).toHaveLength(2 * 6) // the five days before and today
  expect(readings.slice(0, 3)).toEqual([
    { at: '2026-11-19T00:00:00Z', value: 1.9 },
    { at: '2026-11-19T13:00:00Z', value: 1.9 },
    { at: '2026-11-20T00:00:00Z', value: 2 },
  ])
  expect(await collect(factsKept({ db: own.database.db, charges: noCharges }, service, needs, '2026-11-25'))).toEqual([])
})

it('keeps what was there by day, forgets it in time, and all of it with its connection', async () => {
  await look('2025-01-10')
  disks = [disk('one')]
  await look('2026-11-23')
  events = [{ id: 'e1', at: '2026-11-23T10:00:00Z', resourceId: 'one', what: 'deleted', by: 'Siri', raw: '{ "as": "written" }' }]
  disks = []
  await look('2026-11-24')
  const there = (day: string) => findInventory(own.database.db, { connection: 'a cloud', type: 'disk', day })
  expect([await there('2025-01-10'), await there('2026-11-23'), await there('2026-11-24')]).toEqual([null, [disk('one')], []])
  expect([...(await measuredDays(own.database.db, of, '2025-01-01', '2026-11-24')).keys()][0]).toBe('2026-11-18')
  expect(await listEvents(own.database.db, 'a cloud', '2026-11-23')).toEqual([{ ...events[0]!, at: '2026-11-23T10:00:00.000Z' }])
  await dropObserved(own.database.db, 'another')
  expect(await there('2026-11-23')).toEqual([disk('one')])
  await dropObserved(own.database.db, 'a cloud')
  expect([await there('2026-11-23'), await listEvents(own.database.db, 'a cloud', '2025-01-01')]).toEqual([null, []])
  expect((await measuredDays(own.database.db, of, '2025-01-01', '2026-11-24')).size).toBe(0)
})
