// What is measured of resources, by file: taken row by row, kept over a start, looked at by what finds savings, and taken away again.
import { gzipSync } from 'node:zlib'
import { beforeAll, expect, it } from 'vitest'
import { addDays, daysBetween } from '../../core/time/day'
import { measurementsState, measurementsTaken, type MeasurementsTaken } from '../../shared/contracts/measurements'
import { savingsState } from '../../shared/contracts/savings'
import { charge, focusCsv } from '../support/charges'
import { cardOf, priceLine } from '../support/daily-charges'
import { deliver } from '../support/imports'
import { ownServer } from '../support/own-server'
import { openKept, post, startServer } from '../support/server'
import { figuresOf } from '../../server/stores/measured'

const server = ownServer()
const END = '2026-10-29'
const [big, mid] = [priceLine('server-hour', 'big', '0.4'), priceLine('server-hour', 'mid', '0.2')] as const
const card = cardOf([big, mid], {
  provider: 'Testcloud',
  serverSizes: [
    { size: 'big', vcpu: 8, memoryGb: 32 },
    { size: 'mid', vcpu: 4, memoryGb: 16 },
  ],
})
const daily = (name: string) =>
  Array.from({ length: 40 }, (_, i) => {
    const day = addDays(END, i - 40)
    return charge({
      ...{
        BillingPeriodStart: `${day.slice(0, 7)}-01T00:00:00Z`,
        BillingPeriodEnd: `${addDays(`${day.slice(0, 7)}-28`, 4).slice(0, 7)}-01T00:00:00Z`,
      },
      ...{ ChargePeriodStart: `${day}T00:00:00Z`, ChargePeriodEnd: `${addDays(day, 1)}T00:00:00Z` },
      ...{
        ResourceId: `id-${name}`,
        ResourceName: name,
        RegionId: 'here',
        SkuId: big.sku,
        SkuPriceId: `${big.sku}/1`,
        ServiceName: big.service,
      },
      ...{
        SkuMeter: big.meter,
        PricingUnit: big.unit,
        PricingQuantity: '24',
        ConsumedUnit: big.unit,
        ConsumedQuantity: '24',
        BilledCost: '9.6',
      },
    })
  })

const HEAD = 'resource,metric,unit,time,value'
/** Rows of every hour of some days before a day (exclusive). */
const hours = (resource: string, metric: string, value: number, { days = 30, end = END } = {}) =>
  Array.from({ length: days * 24 }, (_, i) => {
    const day = addDays(end, Math.floor(i / 24) - days)
    return `${resource},${metric},%,${day}T${String(i % 24).padStart(2, '0')}:00:00Z,${value}`
  })
const send = (rows: string[] | Uint8Array, file = 'measured.csv') =>
  server.call(`measurements?${new URLSearchParams({ file })}`, {
    method: 'PUT',
    headers: { 'content-type': 'application/octet-stream' },
    body: rows instanceof Uint8Array ? Buffer.from(rows) : [HEAD, ...rows].join('\n'),
  })
const taken = async (rows: string[] | Uint8Array): Promise<MeasurementsTaken> => {
  const reply = await send(rows)
  expect(reply.status).toBe(200)
  return measurementsTaken.parse(await reply.json())
}
const finder = async (detector: string, running = server) => {
  const { finders, opportunities } = savingsState.parse(await running.json('savings'))
  const found = opportunities.filter(one => one.detector === detector)
  return {
    ...finders.find(one => one.detector === detector)!,
    savings: found.map(one => [one.resourceName, one.monthlySaving, one.confidence]),
  }
}

beforeAll(async () => {
  await server.json('rate-cards', post(card))
  expect(await deliver(server, 'bill', focusCsv([...daily('m'), ...daily('n')]))).toMatchObject({ state: 'loaded' })
})

it('says what lacks before anything is measured', async () => {
  expect(await finder('machine-too-large')).toMatchObject({
    ...{ from: 'measured', found: 0, coverage: { measured: 0, unmeasured: 2, dearest: ['m', 'n'] } },
    lacks:
      'No machines are measured: it needs «cpu» (processor used, %) and «memory» (memory used, %) by the hour for 14 days. Connect a cloud that has them under Sources, or drop a file of measurements here.',
  })
  expect((await finder('idle-load-balancer')).lacks).toBe('No load balancers that it could look at are on the bill.')
})

it('takes what fits, refuses each row that does not, and names what is on no bill', async () => {
  const wrong = ['id-m,cpu,GB,2026-10-01T00:00:00Z,3', 'id-m,cpu,%,yesterday,3']
  expect(await taken([...hours('id-m', 'cpu', 30), ...wrong, ...hours('id-m', 'memory', 38), 'id-x,cpu,%,2026-10-28T00:00:00Z,3'])).toEqual(
    {
      ...{ file: 'measured.csv', rows: 1443, refused: 2, days: 30, resources: 2, unknown: 1, unknownNames: ['id-x'] },
      wrong: [
        { line: 722, why: 'cpu is told in «%», not in «GB»' },
        { line: 723, why: '«yesterday» is no time: write a day, a time and its zone, such as 2026-11-03T14:00:00Z' },
      ],
    },
  )
  // 292 less 146: 8 × 30 % × 1.3 vCPU and 32 × 38 % × 1.3 GB fit into the half
  expect(await finder('machine-too-large')).toMatchObject({
    ...{ lacks: null, found: 1, coverage: { measured: 1, unmeasured: 1, dearest: ['n'] } },
    savings: [['m', '146', 'measured']],
  })
  const { metrics, filed } = measurementsState.parse(await server.json('measurements'))
  expect(metrics.map(one => one.metric)).toEqual(['cpu', 'memory', 'operations', 'throughput', 'passed', 'attached'])
  expect(filed).toEqual([
    { metric: 'cpu', days: 30, first: '2026-09-29', last: '2026-10-28', resources: 2 },
    { metric: 'memory', days: 30, first: '2026-09-29', last: '2026-10-28', resources: 1 },
  ])
})

it('lets hours that are told anew hold, and leaves the others', async () => {
  // two days at 90: 48 of 720 hours are more than 5 in 100
  await taken(gzipSync([HEAD, ...hours('id-m', 'cpu', 90, { days: 2 })].join('\n')))
  expect((await finder('machine-too-large')).savings).toEqual([])
  await taken(hours('id-m', 'cpu', 30, { days: 1 }))
  expect((await finder('machine-too-large')).savings).toEqual([['m', '146', 'measured']])
})

it.each([
  ['no such columns', Buffer.from('a,b\n1,2'), 'unreadable', 'there is no column «resource», «metric», «unit», «time», «value»'],
  ['no rows', Buffer.from(HEAD), 'nothing-fits', 'Below the names of the columns there is nothing.'],
  [
    'only wrong rows',
    Buffer.from(`${HEAD}\nid-m,cpu,GB,2026-10-01T00:00:00Z,3`),
    'nothing-fits',
    'line 2: cpu is told in «%», not in «GB»',
  ],
  ['damaged gzip', gzipSync(`${HEAD}\n${hours('id-m', 'cpu', 5).join('\n')}`).subarray(0, 900), 'unreadable', 'damaged'],
  ['a quote without end', Buffer.from(`${HEAD}\n"id-m,cpu`), 'unreadable', 'quote'],
  ['other bytes than UTF-8', Buffer.from([0xff, 0xfe, 0x00]), 'unreadable', ''],
])('refuses a file with %s, and keeps what was', async (_, bytes, code, said) => {
  const reply = await send(bytes, 'mine.csv')
  const problem = (await reply.json()) as { code: string; detail: string; title: string }
  expect([reply.status, problem.code]).toEqual([422, code])
  expect(problem.detail).toContain(said)
  expect((await finder('machine-too-large')).savings).toEqual([['m', '146', 'measured']])
})

it('keeps them over a start, hours and figures of each day', async () => {
  await server.stop()
  const kept = await openKept(server.folder)
  try {
    const figures = await figuresOf(kept.db, 'id-m')
    expect(figures).toHaveLength(60)
    expect(figures[0]).toEqual({ metric: 'cpu', day: '2026-09-29', figures: { least: 30, mean: 30, p95: 30, most: 30, hours: 24 } })
    expect(figures.filter(({ figures: own }) => own.most === 90).map(({ day }) => day)).toEqual(['2026-10-27'])
    expect(await figuresOf(kept.db, 'id-n')).toEqual([])
  } finally {
    await kept.close()
  }
  const again = await startServer({ folder: server.folder })
  try {
    await expect
      .poll(async () => (await finder('machine-too-large', again)).savings, { timeout: 60_000 })
      .toEqual([['m', '146', 'measured']])
    expect(await again.json('measurements', { method: 'DELETE' })).toEqual({ days: 30 })
    expect((await finder('machine-too-large', again)).savings).toEqual([])
    expect(measurementsState.parse(await again.json('measurements')).filed).toEqual([])
    expect(daysBetween('2026-09-29', END)).toBe(30)
  } finally {
    await again.stop()
  }
})
