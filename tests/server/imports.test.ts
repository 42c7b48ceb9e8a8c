import { gzipSync } from 'node:zlib'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { importStatus, sourcesOverview, type ImportStatus } from '../../shared/contracts/imports'
import type { SpendAnswer } from '../../shared/contracts/spend'
import { charge, focusCsv } from '../support/charges'
import { deliver, ended } from '../support/imports'
import { post, remove, startServer, type Running } from '../support/server'

let server: Running
beforeAll(async () => {
  server = await startServer()
})
afterAll(async () => {
  await server.stop()
  remove(server.folder)
})

const october = { splitBy: [], grain: null, start: '2026-10-01', end: '2026-11-01' }
const total = async (measure = 'billedCost') => (await server.json<SpendAnswer>('spend/answer', post({ ...october, measure }))).totals

it('loads a plain and a compressed file and shows equal sums from file and database', async () => {
  const csv = focusCsv([
    charge({ BilledCost: '10.000000000000001' }),
    charge({ BilledCost: '2.5E-1' }),
    charge({ BilledCost: '7', BillingCurrency: 'USD' }),
  ])
  for (const bytes of [csv, gzipSync(csv)]) {
    const status = importStatus.parse(await deliver(server, 'one', bytes))
    expect(status).toMatchObject({ state: 'loaded', rows: 3, errorCount: 0, source: 'one' })
    expect(status.periods).toEqual([
      {
        billingPeriodStart: '2026-10-01T00:00:00Z',
        currency: 'EUR',
        rows: 2,
        billedCost: '10.250000000000001',
        effectiveCost: expect.any(String),
      },
      { billingPeriodStart: '2026-10-01T00:00:00Z', currency: 'USD', rows: 1, billedCost: '7', effectiveCost: expect.any(String) },
    ])
    expect(status.inDatabase).toEqual(status.periods)
    expect(status.bytesDone).toBe(status.bytesTotal)
    expect(await total()).toEqual([
      { currency: 'EUR', amount: '10.250000000000001' },
      { currency: 'USD', amount: '7' },
    ])
  }
})

it('loading the same again changes nothing, and says so', async () => {
  const before = await total()
  const csv = focusCsv([
    charge({ BilledCost: '10.000000000000001' }),
    charge({ BilledCost: '2.5E-1' }),
    charge({ BilledCost: '7', BillingCurrency: 'USD' }),
  ])
  const status = await deliver(server, 'one', csv)
  expect(status.changes.map(c => c.difference)).toEqual(['0', '0'])
  expect(await total()).toEqual(before)
})

it('a restated period replaces what was there and says what changed, per currency', async () => {
  const status = await deliver(server, 'one', focusCsv([charge({ BilledCost: '12' })]))
  expect(status.changes).toEqual([
    {
      billingPeriodStart: '2026-10-01T00:00:00Z',
      currency: 'EUR',
      before: '10.250000000000001',
      after: '12',
      difference: '1.749999999999999',
    },
    { billingPeriodStart: '2026-10-01T00:00:00Z', currency: 'USD', before: '7', after: '0', difference: '-7' },
  ])
  expect(await total()).toEqual([{ currency: 'EUR', amount: '12' }])
})

it('another source stands beside it; another period of the source too', async () => {
  await deliver(server, 'two', focusCsv([charge({ BilledCost: '5', BillingAccountId: 'acct-2' })]))
  await deliver(
    server,
    'one',
    focusCsv([
      charge({
        BilledCost: '3',
        BillingPeriodStart: '2026-11-01T00:00:00Z',
        BillingPeriodEnd: '2026-12-01T00:00:00Z',
        ChargePeriodStart: '2026-11-02T00:00:00Z',
        ChargePeriodEnd: '2026-11-03T00:00:00Z',
      }),
    ]),
  )
  expect(await total()).toEqual([{ currency: 'EUR', amount: '17' }])
  const { sources } = sourcesOverview.parse(await server.json('sources'))
  expect(sources.map(s => [s.source, s.lastDay, s.periods.length])).toEqual([
    ['one', '2026-11-02', 2],
    ['two', '2026-10-05', 1],
  ])
})

it('refuses a delivery with errors whole, and lists each with where and how to mend it', async () => {
  const before = await total()
  const status = await deliver(
    server,
    'one',
    focusCsv([charge({ BilledCost: '99' }), charge({ BilledCost: 'x' }), charge({ BillingCurrency: 'EURO', ServiceName: '' })]),
  )
  expect(status).toMatchObject({ state: 'refused', errorCount: 3, periods: [], inDatabase: [] })
  expect(status.errors.map(e => [e.row, e.column, e.value])).toEqual(
    expect.arrayContaining([
      [2, 'BilledCost', 'x'],
      [3, 'BillingCurrency', 'EURO'],
      [3, 'ServiceName', ''],
    ]),
  )
  expect(status.errors.every(e => e.reason && e.mend)).toBe(true)
  expect(await total()).toEqual(before)
})

it('lists a thousand errors and counts them all', async () => {
  const status = await deliver(server, 'one', focusCsv(Array.from({ length: 1300 }, () => charge({ ChargeCategory: 'Fee' }))))
  expect(status.errorCount).toBe(1300)
  expect(status.errors).toHaveLength(1000)
  expect(status.errors[999]!.row).toBe(1000)
})

it.each([
  ['an empty file', '', 'the file is empty'],
  ['a header alone', focusCsv([]), 'no charges'],
  ['something else', 'a,b\n1,2\n', 'no FOCUS file'],
  ['a picture', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0xff, 0xfe, 0x00]), 'not UTF-8'],
  ['a cut compressed file', gzipSync(focusCsv([charge()])).subarray(0, 60), 'cut short'],
  ['an open quote', focusCsv([charge()]) + '"never closed', 'not closed'],
])('refuses %s as a whole', async (_, bytes, reason) => {
  const status = await deliver(server, 'one', bytes)
  expect(status.state).toBe('refused')
  expect(status.errors.some(e => e.reason.includes(reason))).toBe(true)
  expect(status.errors.every(e => e.row === null || e.reason.includes('quote'))).toBe(true)
})

it('files dropped together are one delivery', async () => {
  const files = [['1'], ['2', '4']].map(amounts => focusCsv(amounts.map(BilledCost => charge({ BilledCost, BillingAccountId: 'acct-3' }))))
  const { id } = await server.json<{ id: string }>(
    'deliveries',
    post({ source: 'three', files: files.map((f, i) => ({ name: `part-${i}.csv`, bytes: f.length })) }),
  )
  const sent = []
  for (const [i, body] of files.entries())
    sent.push(await server.json<{ importId: string | null }>(`deliveries/${id}/files/${i}`, { method: 'PUT', body }))
  expect(sent[0]!.importId).toBeNull()
  const status = await ended(server, sent[1]!.importId!)
  expect(status).toMatchObject({ state: 'loaded', rows: 3 })
  expect(status.periods[0]!.billedCost).toBe('7')
  expect(status.files.map(f => [f.name, f.rows])).toEqual([
    ['part-0.csv', 1],
    ['part-1.csv', 2],
  ])
})

it('an error in one file refuses all that came with it, naming the file', async () => {
  const files = [focusCsv([charge({ BilledCost: '100' })]), focusCsv([charge({ BilledCost: 'no' })])]
  const { id } = await server.json<{ id: string }>(
    'deliveries',
    post({ source: 'three', files: files.map((f, i) => ({ name: `part-${i}.csv`, bytes: f.length })) }),
  )
  let importId: string | null = null
  for (const [i, body] of files.entries())
    ({ importId } = await server.json<{ importId: string | null }>(`deliveries/${id}/files/${i}`, { method: 'PUT', body }))
  const status = await ended(server, importId!)
  expect(status.state).toBe('refused')
  expect(status.errors).toEqual([
    { file: 'part-1.csv', row: 1, column: 'BilledCost', value: 'no', reason: 'not a number', mend: expect.any(String) },
  ])
})

it('keeps columns it does not know, and tags of every kind', async () => {
  await deliver(
    server,
    'four',
    focusCsv([
      charge({
        BilledCost: '8',
        BillingAccountId: 'acct-4',
        ChargePeriodStart: '2026-10-20T00:00:00Z',
        ChargePeriodEnd: '2026-10-21T00:00:00Z',
        Tags: '{"team":"x","level":3,"on":true,"gone":null}',
        x_ProjectCode: 'SK-7',
      }),
    ]),
  )
  const { rows } = await server.json<SpendAnswer>(
    'spend/answer',
    post({ ...october, measure: 'billedCost', start: '2026-10-20', splitBy: ['Tags/team', 'Tags/level', 'Tags/on', 'Tags/gone'] }),
  )
  expect(rows).toEqual([
    { values: { 'Tags/team': 'x', 'Tags/level': '3', 'Tags/on': 'true', 'Tags/gone': null }, start: null, currency: 'EUR', amount: '8' },
  ])
})

it('says what rounding to fifteen decimals does', async () => {
  const status = await deliver(server, 'five', focusCsv([charge({ BilledCost: '0.1234567890123456', BillingAccountId: 'acct-5' })]))
  expect(status.state).toBe('loaded')
  expect(status.warnings.find(w => w.startsWith('BilledCost'))).toContain('changes the total by 0.0000000000000004')
})

it('stops a load on request and leaves nothing of it', async () => {
  const before = await total()
  const large = gzipSync(focusCsv(Array.from({ length: 60_000 }, (_, i) => charge({ BilledCost: '1', ResourceId: `r${i}` }))))
  const { id } = await server.json<{ id: string }>('imports?source=six', { method: 'POST', body: large })
  const stop = await server.call(`imports/${id}/stop`, { method: 'POST' })
  expect(stop.status).toBe(200)
  const status = await ended(server, id)
  expect(status).toMatchObject({ state: 'stopped', message: expect.stringContaining('Nothing of it was loaded') })
  expect(await total()).toEqual(before)
  expect((await server.call(`imports/${id}/stop`, { method: 'POST' })).status).toBe(409)
})

it('loads what waits in the order in which it came, whatever becomes of the others', async () => {
  const own = (amount: string, account = 'acct-7') => focusCsv([charge({ BilledCost: amount, BillingAccountId: account })])
  const many = (amount: string) =>
    gzipSync(
      focusCsv(Array.from({ length: 20_000 }, (_, i) => charge({ BilledCost: amount, BillingAccountId: 'acct-7', ResourceId: `q${i}` }))),
    )
  const sent: string[] = []
  for (const [source, body] of [
    ['seven', many('2')],
    ['seven', many('1')],
    ['seven', own('x')],
    ['seven', own('12')],
    ['eight', own('5')],
    ['seven', own('13')],
  ] as const) {
    sent.push(
      (
        await server.json<{ id: string }>(`imports?source=${source}`, {
          method: 'POST',
          body: typeof body === 'string' ? body : new Uint8Array(body),
        })
      ).id,
    )
  }
  expect((await server.call(`imports/${sent[1]}/stop`, { method: 'POST' })).status).toBe(200)
  const ends: ImportStatus[] = []
  for (const id of sent) ends.push(await ended(server, id))
  expect(ends.map(end => end.state)).toEqual(['loaded', 'stopped', 'refused', 'loaded', 'choosing', 'loaded'])
  expect([ends[0]!, ends[3]!, ends[5]!].map(end => end.changes.map(change => [change.before, change.after]))).toEqual([
    [[null, '40000']],
    [['40000', '12']],
    [['12', '13']],
  ])
  expect(
    (await server.json<SpendAnswer>('spend/answer', post({ ...october, measure: 'billedCost', keep: { BillingAccountId: ['acct-7'] } })))
      .totals,
  ).toEqual([{ currency: 'EUR', amount: '13' }])
  await server.call(`imports/${sent[4]}/choose`, post({ use: 'other' }))
})

it('answers with problem details where something is wrong with the request', async () => {
  for (const [path, init, status] of [
    ['imports', { method: 'POST', body: 'x' }, 422],
    ['imports/999999', {}, 404],
    ['imports/abc', {}, 404],
    ['imports/999999/stop', { method: 'POST' }, 404],
    ['nothing/here', {}, 404],
    ['deliveries', post({ source: '', files: [] }), 422],
    ['deliveries/none/files/0', { method: 'PUT', body: 'x' }, 404],
  ] as const) {
    const response = await server.call(path, init)
    expect([path, response.status]).toEqual([path, status])
    expect(response.headers.get('content-type')).toBe('application/problem+json')
    expect(await response.json()).toMatchObject({ type: expect.any(String), title: expect.any(String), status, detail: expect.any(String) })
  }
})

it('keeps everything over a restart', async () => {
  const before = await total('effectiveCost')
  const { folder } = server
  await server.stop()
  server = await startServer({ folder })
  expect(await total('effectiveCost')).toEqual(before)
  expect(server.log()).not.toMatch(/error/i)
  const status = await server.json<ImportStatus>('imports/1')
  expect(status).toMatchObject({ state: 'loaded', source: 'one' })
})
