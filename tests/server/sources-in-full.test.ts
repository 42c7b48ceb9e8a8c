import { mkdirSync, mkdtempSync, readFileSync, rmSync, utimesSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { DuckDBInstance } from '@duckdb/node-api'
import { parquetWriteBuffer } from 'hyparquet-writer'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { suggestMapping } from '../../core/focus/mapping/suggest-mapping'
import { invoiceViews } from '../../shared/contracts/invoices'
import { importStatus, movedLines, sourcesOverview, type ImportStatus } from '../../shared/contracts/imports'
import { mappingPreview } from '../../shared/contracts/mappings'
import { watchList } from '../../shared/contracts/watches'
import { dimensionList, spendAnswer } from '../../shared/contracts/spend'
import { foreignBill } from '../../demo/beside-the-bill'
import { brackwaterCard } from '../../demo/rate-cards'
import { fileColumns, type FileCharge } from '../../demo/focus-file'
import { charge, focusCsv } from '../support/charges'
import { deliver, ended } from '../support/imports'
import { post, put, remove, startServer, type Running, openKept } from '../support/server'

let server: Running
beforeAll(async () => {
  server = await startServer()
})
afterAll(async () => {
  await server.stop()
  remove(server.folder)
})

const october = { splitBy: [], grain: null, start: '2026-10-01', end: '2026-11-01', measure: 'billedCost' }
const total = async (more: object = {}) => spendAnswer.parse(await server.json('spend/answer', post({ ...october, ...more }))).totals
const account = (BillingAccountId: string, more: FileCharge) => charge({ BillingAccountId, ...more })
const status = async (id: string) => importStatus.parse(await server.json(`imports/${id}`))

it('reports every rule on relations, and warnings do not stop a load', async () => {
  const loaded = await deliver(
    server,
    'rules',
    focusCsv([
      account('r', { BilledCost: '3' }),
      account('r', { BilledCost: '2', ListCost: '1' }),
      account('r', { BilledCost: '1', SkuId: '', SkuPriceId: '' }),
    ]),
  )
  expect(loaded.state).toBe('loaded')
  const broken = loaded.conformance!.rules.filter(rule => rule.rows)
  expect(broken.map(rule => [rule.id, rule.severity, rule.rows, rule.examples[0]!.row])).toEqual([
    ['list-at-least-contracted', 'warning', 1, 2],
    ['sku-of-usage', 'warning', 1, 3],
  ])
  expect(loaded.conformance!.columns.own).toEqual(['x_Container', 'x_CreatedBy', 'x_ProjectCode', 'x_Protects'])
})

it('stops at a rule that keeps money from meaning two things, naming it', async () => {
  const refused = await deliver(server, 'rules', focusCsv([account('r', { BilledCost: '3', ChargeCategory: 'Tax' })]))
  expect(refused.state).toBe('refused')
  expect(refused.errors.map(e => [e.row, e.column])).toEqual([
    [1, 'PricingQuantity'],
    [1, 'PricingCategory'],
  ])
  expect(refused.errors[0]!.reason).toContain('tax has no pricing quantity')
})

it('shows on which lines a restatement moved, and undoes it', async () => {
  await deliver(
    server,
    'moves',
    focusCsv([account('m', { BilledCost: '10' }), account('m', { BilledCost: '4', ServiceName: 'Disks', SkuId: 'D' })]),
  )
  const before = await total()
  const { id } = await deliver(
    server,
    'moves',
    focusCsv([
      account('m', { BilledCost: '12' }),
      account('m', { BilledCost: '4', ServiceName: 'Disks', SkuId: 'D' }),
      account('m', { BilledCost: '-1', ChargeClass: 'Correction', SkuId: 'C' }),
    ]),
  )
  const now = await status(id)
  expect(now.canUndo).toBe(true)
  expect(now.corrections).toEqual([
    { billingPeriodStart: '2026-10-01T00:00:00Z', currency: 'EUR', rows: 1, billedCost: '-1', effectiveCost: '-1' },
  ])
  const { lines } = movedLines.parse(await server.json(`imports/${id}/moved`))
  expect(lines.map(line => [line.service, line.before, line.after, line.difference])).toEqual([
    ['Servers', '10', '12', '2'],
    ['Servers', '0', '-1', '-1'],
  ])
  expect(await total()).not.toEqual(before)
  expect((await server.call(`imports/${id}/undo`, { method: 'POST', body: '{}' })).status).toBe(200)
  expect(await total()).toEqual(before)
  expect((await status(id)).state).toBe('undone')
  expect((await server.call(`imports/${id}/undo`, { method: 'POST', body: '{}' })).status).toBe(409)
})

it('undoing the first load of a period takes the period away, once that is confirmed', async () => {
  const before = await total()
  const { id } = await deliver(server, 'once', focusCsv([account('o', { BilledCost: '77' })]))
  expect(await total()).not.toEqual(before)
  const asks = await server.call(`imports/${id}/undo`, post({}))
  expect(asks.status).toBe(409)
  expect(await asks.json()).toMatchObject({ code: 'would-empty', detail: expect.stringContaining('once, 2026-10 without any charges') })
  expect(await total()).not.toEqual(before)
  expect((await server.call(`imports/${id}/undo`, post({ empty: true }))).status).toBe(200)
  expect(await total()).toEqual(before)
  expect(sourcesOverview.parse(await server.json('sources')).sources.map(s => s.source)).not.toContain('once')
})

it('points out two sources of one billing account and period, and loads the one that is chosen', async () => {
  await deliver(server, 'first', focusCsv([account('shared', { BilledCost: '20' })]))
  const before = await total()
  const waiting = await deliver(server, 'second', focusCsv([account('shared', { BilledCost: '30' })]))
  expect(waiting).toMatchObject({ state: 'choosing', overlaps: [{ source: 'first', billingAccountIds: ['shared'], others: [] }] })
  expect(await total()).toEqual(before)
  await server.call(`imports/${waiting.id}/choose`, post({ use: 'other' }))
  expect((await status(waiting.id)).state).toBe('stopped')
  expect(await total()).toEqual(before)
  const again = await deliver(server, 'second', focusCsv([account('shared', { BilledCost: '30' })]))
  await server.call(`imports/${again.id}/choose`, post({ use: 'this' }))
  expect((await status(again.id)).state).toBe('loaded')
  const amount = (totals: { amount: string }[]) => Number(totals[0]!.amount)
  expect(amount(await total()) - amount(before)).toBe(10)
  expect((await server.call(`imports/${again.id}/choose`, post({ use: 'this' }))).status).toBe(409)
})

it('undoing what was chosen brings back what it was chosen instead of', async () => {
  const own = { keep: { BillingAccountId: ['either'] } }
  const amounts = async () => (await total(own)).map(t => t.amount)
  const sources = async () =>
    sourcesOverview
      .parse(await server.json('sources'))
      .sources.filter(s => s.source.startsWith('either'))
      .map(s => s.source)
  await deliver(server, 'either one', focusCsv([account('either', { BilledCost: '20' })]))
  const other = await deliver(server, 'either two', focusCsv([account('either', { BilledCost: '30' })]))
  await server.call(`imports/${other.id}/choose`, post({ use: 'this' }))
  const restated = await deliver(server, 'either two', focusCsv([account('either', { BilledCost: '31' })]))
  expect(await amounts()).toEqual(['31'])
  expect(await sources()).toEqual(['either two'])
  for (const [id, left] of [
    [restated.id, '30'],
    [other.id, '20'],
  ] as const) {
    expect((await server.call(`imports/${id}/undo`, post({}))).status).toBe(200)
    expect(await amounts()).toEqual([left])
  }
  expect(await sources()).toEqual(['either one'])
  // put away and restated twice, what was put away is gone for good
  const again = await deliver(server, 'either two', focusCsv([account('either', { BilledCost: '40' })]))
  await server.call(`imports/${again.id}/choose`, post({ use: 'this' }))
  for (const amount of ['41', '42']) await deliver(server, 'either two', focusCsv([account('either', { BilledCost: amount })]))
  expect((await status(again.id)).canUndo).toBe(false)
  expect(await amounts()).toEqual(['42'])
})

it('reads Parquet as it reads CSV: the same charges give the same sums, decimals in full', async () => {
  const rows = [
    account('p', { BilledCost: '0.000000000000001', ResourceId: 'pq-1', Tags: '{"team":"a"}' }),
    account('p', { BilledCost: '1234.5', ResourceId: 'pq-2' }),
  ]
  const columns = fileColumns.filter(column => !column.startsWith('x_'))
  const amounts = ['BilledCost', 'EffectiveCost', 'ListCost', 'ContractedCost', 'PricingQuantity', 'ConsumedQuantity']
  const bytes = parquetWriteBuffer({
    schema: [
      { name: 'root', num_children: columns.length },
      ...columns.map(name =>
        amounts.includes(name)
          ? {
              name,
              type: 'FIXED_LEN_BYTE_ARRAY' as const,
              type_length: 16,
              converted_type: 'DECIMAL' as const,
              scale: 15,
              precision: 38,
              repetition_type: 'OPTIONAL' as const,
            }
          : { name, type: 'BYTE_ARRAY' as const, converted_type: 'UTF8' as const, repetition_type: 'OPTIONAL' as const },
      ),
    ],
    columnData: columns.map(name => ({
      name,
      data: rows.map(row => (amounts.includes(name) ? BigInt(Math.round(Number(row[name] || 0) * 1e15)) : row[name] || null)),
    })),
  })
  const loaded = await deliver(server, 'parquet', Buffer.from(bytes))
  expect(loaded).toMatchObject({ state: 'loaded', rows: 2 })
  expect(loaded.periods[0]!.billedCost).toBe('1234.500000000000001')
  expect(await total({ keep: { ResourceId: ['pq-1'] } })).toEqual([{ currency: 'EUR', amount: '0.000000000000001' }])
  const broken = await deliver(
    server,
    'parquet',
    Buffer.concat([Buffer.from('PAR1'), Buffer.from('nonsense'.repeat(20)), Buffer.from('PAR1')]),
  )
  expect(broken.state).toBe('refused')
  expect(broken.errors[0]!.reason).toContain('Parquet')
})

it.each(['snappy', 'gzip', 'zstd'])('reads Parquet that another engine has written with %s', async codec => {
  const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-parquet-'))
  const [from, to] = [join(folder, 'bill.csv'), join(folder, 'bill.parquet')]
  writeFileSync(
    from,
    focusCsv([
      account('q', { BilledCost: '12.000000000000001', ResourceId: `codec-${codec}` }),
      account('q', { BilledCost: '-2', ResourceId: `codec-${codec}` }),
    ]),
  )
  const duck = await (await DuckDBInstance.create(':memory:')).connect()
  await duck.run(
    `copy (select * replace (BilledCost::decimal(38,15) as BilledCost) from read_csv('${from}', all_varchar = true, nullstr = '')) to '${to}' (format parquet, codec '${codec}')`,
  )
  const loaded = await deliver(server, 'codecs', readFileSync(to))
  rmSync(folder, { recursive: true })
  expect(loaded).toMatchObject({ state: 'loaded', rows: 2 })
  expect(await total({ keep: { ResourceId: [`codec-${codec}`] } })).toEqual([{ currency: 'EUR', amount: '10.000000000000001' }])
})

it('of several who undo at once one does it, and loads that wait behind go on', async () => {
  const files = (BilledCost: string) => focusCsv([account('u', { BilledCost })])
  await deliver(server, 'undone', files('1'))
  const { id } = await deliver(server, 'undone', files('2'))
  const undo = () => server.call(`imports/${id}/undo`, { method: 'POST', body: '{}' }).then(reply => reply.status)
  const [first, second, next] = await Promise.all([undo(), undo(), deliver(server, 'undone', files('3'))])
  // either undo comes first of all, or the load does, and then both are too late
  expect([first, second].sort()).toEqual(first === 200 || second === 200 ? [200, 409] : [409, 409])
  expect(next.state).toBe('loaded')
  expect(await undo()).toBe(409)
  expect((await total({ keep: { BillingAccountId: ['u'] } })).map(t => t.amount)).toEqual(['3'])
})

it('reads another CSV through a mapping: previewed, kept, and applied to the next file', async () => {
  const text = foreignBill()
  const ask = async (mapping: object | null) =>
    mappingPreview.parse(await server.json('mappings/preview', post({ source: 'quayside', name: 'q.csv', text, mapping })))
  const suggested = await ask(null)
  expect(suggested.problems).toEqual([])
  expect(suggested.saved).toBe(false)
  expect(suggested.mapping).toMatchObject({
    delimiter: ';',
    decimal: ',',
    dateFormat: 'DD.MM.YYYY',
    lasts: 'day',
    leaveOutRows: [{ column: 'Datum', is: 'Summe' }],
    texts: { BillingCurrency: { constant: 'EUR' }, ServiceName: { column: 'Plan' }, SubAccountName: { column: 'Site' } },
  })
  expect(suggested.rows[0]![suggested.columns.indexOf('ChargePeriodEnd')]).toBe('2026-10-02T00:00:00Z')
  expect((await server.call('imports?source=quayside&mapped=true', { method: 'POST', body: text })).status).toBe(409)
  expect((await server.call('mappings/quayside', put(suggested.mapping))).status).toBe(200)
  expect((await ask(null)).saved).toBe(true)
  const { id } = await server.json<{ id: string }>('imports?source=quayside&mapped=true', { method: 'POST', body: text })
  const loaded = await ended(server, id)
  expect(loaded).toMatchObject({ state: 'loaded', rows: 94, mapped: true })
  const sum = /Summe;;;;;([\d,]+)/.exec(text)![1]!.replace(',', '.')
  expect(Number(loaded.periods[0]!.billedCost)).toBeCloseTo(Number(sum), 10)
  expect(await total({ keep: { ProviderName: ['quayside'] } })).toEqual([{ currency: 'EUR', amount: loaded.periods[0]!.billedCost }])
  // the next file is wrong in one cell: row, column and value are told, and nothing is loaded
  const { id: next } = await server.json<{ id: string }>('imports?source=quayside&mapped=true', {
    method: 'POST',
    body: text.replace('02.10.2026', '32.10.2026'),
  })
  const refused = await ended(server, next)
  expect(refused).toMatchObject({ state: 'refused', errors: [{ row: 4, column: 'Datum', value: '32.10.2026' }] })
})

it('keeps a mapping that cannot work from being guessed silently', () => {
  expect(suggestMapping(['a', 'b'], [['1', '2']], ',')).toMatchObject({ times: {}, numbers: {} })
})

it('looks into a watched folder and takes each file once', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-watch-'))
  const file = join(folder, 'bill.csv')
  writeFileSync(file, focusCsv([account('w', { BilledCost: '6' })]))
  utimesSync(file, new Date(Date.now() - 60_000), new Date(Date.now() - 60_000))
  const { id, said } = await server.json<{ id: number; said: string }>(
    'watches',
    post({ source: 'watched', kind: 'folder', place: folder, everyMinutes: 5 }),
  )
  expect(said).toBe('took bill.csv')
  let loads: Pick<ImportStatus, 'source' | 'state'>[] = []
  while (!loads.some(load => load.source === 'watched' && load.state === 'loaded'))
    loads = sourcesOverview.parse(await server.json('sources')).loads
  expect((await server.json<{ said: string }>(`watches/${id}/look`, post({}))).said).toBe('nothing new')
  writeFileSync(join(folder, 'fresh.csv'), 'half a fi')
  expect((await server.json<{ said: string }>(`watches/${id}/look`, post({}))).said).toContain('1 still being written')
  expect((await server.call(`watches/${id}`, { method: 'DELETE', body: '{}' })).status).toBe(200)
  expect(watchList.parse(await server.json('watches')).watches).toEqual([])
  remove(folder)
})

it('takes the parts of an export that lie in one folder together, when all are whole', async () => {
  const place = mkdtempSync(join(tmpdir(), 'rain-barrel-parts-'))
  const settled = (name: string, cost: string) => {
    const path = join(place, name)
    mkdirSync(dirname(path), { recursive: true })
    writeFileSync(path, focusCsv([account('parts', { BilledCost: cost })]))
    utimesSync(path, new Date(Date.now() - 60_000), new Date(Date.now() - 60_000))
  }
  const sum = async () => (await total({ keep: { BillingAccountId: ['parts'] } })).map(t => t.amount)
  const look = async (id: number) => (await server.json<{ said: string }>(`watches/${id}/look`, post({}))).said
  const loaded = async () => {
    const open = () =>
      server
        .json('sources')
        .then(list => sourcesOverview.parse(list).loads.some(load => load.source === 'parts' && load.state !== 'loaded'))
    while (await open()) await new Promise(resolve => setTimeout(resolve, 20))
  }
  settled('2026-10/a.csv', '6')
  settled('2026-10/b.csv', '7')
  const { id, said } = await server.json<{ id: number; said: string }>(
    'watches',
    post({ source: 'parts', kind: 'folder', place, together: 'folder', everyMinutes: 5 }),
  )
  expect(said).toBe('took 2 files of 2026-10')
  await loaded()
  expect(await sum()).toEqual(['13'])
  expect(await look(id)).toBe('nothing new')
  settled('2026-10/b.csv', '8') // one part is delivered again: the other stays
  writeFileSync(join(place, '2026-10/c.csv'), 'half a fi')
  expect(await look(id)).toBe('nothing new; 1 still being written')
  rmSync(join(place, '2026-10/c.csv'))
  expect(await look(id)).toBe('took 2 files of 2026-10')
  await loaded()
  expect(await sum()).toEqual(['14'])
  expect((await server.call(`watches/${id}`, { method: 'DELETE', body: '{}' })).status).toBe(200)
  remove(place)
})

it('gives charge lines as they were delivered: times to the second, no quantity told from zero, every digit, in the order of time', async () => {
  const at = (start: string, end: string) => ({ ChargePeriodStart: `2026-10-${start}Z`, ChargePeriodEnd: `2026-10-${end}Z` })
  await deliver(
    server,
    'lines',
    focusCsv([
      account('lines', { ...at('09T10:30:15', '09T10:45:00'), BilledCost: '-0.000000000000001', PricingQuantity: '0' }),
      account('lines', { ...at('08T00:00:00', '09T00:00:00'), BilledCost: '4503599626.999999999999999', PricingQuantity: '2.5' }),
      account('lines', {
        ...at('09T10:30:14', '09T10:30:15'),
        BilledCost: '3',
        ChargeCategory: 'Credit',
        PricingQuantity: '',
        PricingUnit: '',
        ConsumedQuantity: '',
        ConsumedUnit: '',
      }),
    ]),
  )
  const columns = ['ChargePeriodStart', 'ChargePeriodEnd', 'BilledCost', 'PricingQuantity', 'ChargeCategory']
  const file = await server.call(
    'spend/lines',
    post({ question: { ...october, keep: { BillingAccountId: ['lines'] } }, columns, format: 'json' }),
  )
  expect(((await file.json()) as { rows: Record<string, string | null>[] }).rows.map(row => columns.map(column => row[column]))).toEqual([
    ['2026-10-08T00:00:00Z', '2026-10-09T00:00:00Z', '4503599626.999999999999999', '2.5', 'Usage'],
    ['2026-10-09T10:30:14Z', '2026-10-09T10:30:15Z', '3', null, 'Credit'],
    ['2026-10-09T10:30:15Z', '2026-10-09T10:45:00Z', '-0.000000000000001', '0', 'Usage'],
  ])
})

it('knows what a refused load was the first to name, when the next load names it again', async () => {
  const named = { ResourceId: 'fresh-resource', ResourceName: 'Fresh', SkuId: 'FRESH', ServiceName: 'Fresh service' }
  const refused = await deliver(
    server,
    'entries',
    focusCsv([account('entries', { ...named, BilledCost: '1' }), account('entries', { ...named, BilledCost: 'nothing' })]),
  )
  expect(refused.state).toBe('refused')
  expect((await deliver(server, 'entries', focusCsv([account('entries', { ...named, BilledCost: '4' })]))).state).toBe('loaded')
  const { rows } = spendAnswer.parse(
    await server.json(
      'spend/answer',
      post({ ...october, splitBy: ['ResourceName', 'ServiceName'], keep: { BillingAccountId: ['entries'] } }),
    ),
  )
  expect(rows.map(row => [row.values.ResourceName, row.values.ServiceName, row.amount])).toEqual([['Fresh', 'Fresh service', '4']])
})

it('a rate card that comes after the charges says at once what they are charged for', async () => {
  const { sku } = brackwaterCard.prices.find(price => price.meter === 'gateway-hour')!
  await deliver(server, 'card', focusCsv([account('card', { SkuId: sku, BilledCost: '2' })]))
  const charged = async () =>
    spendAnswer
      .parse(await server.json('spend/answer', post({ ...october, splitBy: ['ChargedFor'], keep: { BillingAccountId: ['card'] } })))
      .rows.map(row => row.values.ChargedFor)
  expect(await charged()).toEqual([null])
  await server.json('rate-cards', post(brackwaterCard))
  expect(await charged()).toEqual(['existing'])
})

it('holds invoices against their charges: equal, rounding, tax, missing', async () => {
  const october = { InvoiceIssuerName: 'Testvendor', BillingAccountId: 'inv' }
  const tax: FileCharge = {
    ChargeCategory: 'Tax',
    PricingQuantity: '',
    PricingUnit: '',
    PricingCategory: '',
    SkuId: '',
    SkuPriceId: '',
    SkuMeter: '',
    ConsumedQuantity: '',
    ConsumedUnit: '',
  }
  await deliver(
    server,
    'Testvendor',
    focusCsv([
      charge({ ...october, InvoiceId: 'A', BilledCost: '10.004' }),
      charge({ ...october, InvoiceId: 'B', BilledCost: '20' }),
      charge({ ...october, ...tax, InvoiceId: 'B', BilledCost: '4' }),
    ]),
  )
  const invoices = [
    ['A', '10.00', ''],
    ['B', '24.50', '4.50'],
    ['C', '5.00', ''],
  ].map(([invoice, total, tax]) => ({ issuer: 'Testvendor', invoice, month: '2026-10', currency: 'EUR', total, tax }))
  expect(await server.json('invoices/table', post({ lines: invoices }))).toEqual({ invoices: 3 })
  const views = new Map(invoiceViews.parse(await server.json('invoices')).invoices.map(view => [view.invoiceId, view]))
  expect(views.get('A')).toMatchObject({ state: 'rounding', difference: '-0.004', parts: [{ what: 'rounding', amount: '-0.004' }] })
  expect(views.get('B')).toMatchObject({ state: 'differs', loadedTax: '4', parts: [{ what: 'tax', amount: '0.5' }] })
  expect(views.get('C')!.state).toBe('nothing loaded')
  expect(views.get('C')!.missing.join(' ')).toContain('they name A, B')
  const refused = await server.call(
    'invoices/table',
    post({ lines: [{ issuer: '', invoice: 'D', month: 'October', currency: 'EUR', total: '1,50' }] }),
  )
  expect(refused.status).toBe(422)
  expect(JSON.stringify(await refused.json())).toContain('row 1, month')
})

it('says what days a source lacks', async () => {
  const on = (day: string) =>
    account('gaps', {
      BilledCost: '1',
      ChargePeriodStart: `2026-10-${day}T00:00:00Z`,
      ChargePeriodEnd: `2026-10-${String(Number(day) + 1).padStart(2, '0')}T00:00:00Z`,
    })
  await deliver(server, 'gaps', focusCsv(['05', '06', '09'].map(on)))
  const { sources } = sourcesOverview.parse(await server.json('sources'))
  expect(sources.find(s => s.source === 'gaps')).toMatchObject({
    lastDay: '2026-10-09',
    missingCount: 2,
    missingDays: [['2026-10-07', '2026-10-08']],
  })
})

it('starts again from its kept charges; damaged ones are in no figure, named, and mended by loading them again', async () => {
  const before = await total({ splitBy: ['ServiceName'] })
  const { folder } = server
  await server.stop()
  server = await startServer({ folder })
  expect(await total({ splitBy: ['ServiceName'] })).toEqual(before)
  const files = focusCsv(['1', '2'].map(BilledCost => account('damage', { BilledCost })))
  await deliver(server, 'damage', files)
  const whole = await total()
  await server.stop()
  const database = await openKept(folder)
  await database.query(
    `update charge_segment set bytes = overlay(bytes placing '\\x00ff00ff'::bytea from 200) where load_id = (select load_id from billing_period where source = 'damage')`,
  )
  await database.close()
  server = await startServer({ folder })
  const damaged = async () => dimensionList.parse(await server.json('spend/dimensions')).damaged
  expect(await damaged()).toEqual([{ source: 'damage', billingPeriodStart: '2026-10-01T00:00:00Z' }])
  expect(await total()).not.toEqual(whole)
  expect((await deliver(server, 'damage', files)).state).toBe('loaded')
  expect(await damaged()).toEqual([])
  expect(await total()).toEqual(whole)
})
