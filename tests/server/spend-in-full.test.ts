import { DuckDBInstance } from '@duckdb/node-api'
import ExcelJS from 'exceljs'
import { mkdtempSync, writeFileSync } from 'node:fs'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Papa from 'papaparse'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { effectNames } from '../../core/spend/compare'
import { scaled, scaledText } from '../../core/money/scaled'
import { jumpReply } from '../../shared/contracts/jump'
import { resourceReport, resourceView } from '../../shared/contracts/resources'
import { dimensionList, spendAnswer, spendAnswers, spendComparison } from '../../shared/contracts/spend'
import { savedSentenceList } from '../../shared/contracts/spend-settings'
import { mailServer } from '../../stand-ins/mail/server'
import type { FileCharge } from '../../demo/focus-file'
import { charge, focusCsv } from '../support/charges'
import { deliver } from '../support/imports'
import { post, put, remove, startServer, type Running } from '../support/server'

let server: Running
const mail = mailServer()
const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-files-'))
const on = (day: string): FileCharge => ({
  ChargePeriodStart: `${day}T00:00:00Z`,
  ChargePeriodEnd: `${day.slice(0, 8)}${String(Number(day.slice(8)) + 1).padStart(2, '0')}T00:00:00Z`,
  BillingPeriodStart: `${day.slice(0, 7)}-01T00:00:00Z`,
  BillingPeriodEnd: day.startsWith('2026-09') ? '2026-10-01T00:00:00Z' : '2026-11-01T00:00:00Z',
})

beforeAll(async () => {
  await new Promise<void>(resolve => mail.smtp.listen(0, '127.0.0.1', () => resolve()))
  const port = (mail.smtp.server.address() as AddressInfo).port
  server = await startServer({ env: { RAIN_BARREL_SMTP: `smtp://127.0.0.1:${port}`, RAIN_BARREL_URL: 'https://barrel.skerry.example' } })
  const usage = (more: FileCharge) => charge({ ListUnitPrice: '', ContractedUnitPrice: '', ...more })
  await deliver(
    server,
    'cloud',
    focusCsv([
      usage({
        ...on('2026-09-05'),
        BilledCost: '10',
        PricingQuantity: '100',
        Tags: '{"team":"booking"}',
        SkuPriceDetails: '{"InstanceType":"otter-4x16"}',
        x_Container: 'passenger/booking/live',
      }),
      usage({
        ...on('2026-10-05'),
        BilledCost: '15',
        PricingQuantity: '120',
        Tags: '{"team":"Booking"}',
        SkuPriceDetails: '{"InstanceType":"otter-4x16"}',
        x_Container: 'passenger/booking/live',
      }),
      usage({
        ...on('2026-10-06'),
        BilledCost: '5',
        PricingQuantity: '50',
        ResourceId: 'vault',
        ResourceName: '=HYPERLINK("x")',
        ServiceName: 'Recovery',
        SkuId: 'REC',
        x_Container: 'passenger',
      }),
      usage({
        ...on('2026-10-06'),
        BilledCost: '7',
        PricingQuantity: '7',
        PricingUnit: 'GB',
        ResourceId: 'copy',
        ResourceName: 'copy',
        ServiceName: 'Snapshots',
        SkuId: 'SNAP',
        x_CreatedBy: 'vault',
        x_Protects: 'res-1',
      }),
    ]),
  )
  await deliver(
    server,
    'abroad',
    focusCsv([
      charge({
        ...on('2026-10-07'),
        BillingAccountId: 'usd',
        BilledCost: '100',
        BillingCurrency: 'USD',
        SubAccountId: 'abroad',
        SubAccountName: 'abroad',
      }),
    ]),
  )
})
afterAll(async () => {
  await server.stop()
  mail.smtp.close(() => {})
  remove(server.folder)
  remove(folder)
})

const october = { measure: 'billedCost', splitBy: [], grain: null, start: '2026-10-01', end: '2026-11-01' }
const ask = async (more: object) => spendAnswer.parse(await server.json('spend/answer', post({ ...october, ...more })))
const pairs = (answer: { rows: { values: Record<string, string | null>; amount: string; currency: string }[] }, dimension: string) =>
  Object.fromEntries(answer.rows.filter(r => r.currency !== 'USD').map(r => [String(r.values[dimension]), r.amount]))

it('answers several questions from one state of the data', async () => {
  const { answers } = spendAnswers.parse(
    await server.json('spend/answers', post({ questions: [october, { ...october, splitBy: ['ServiceName'] }] })),
  )
  expect(answers[0]!.totals).toEqual(answers[1]!.totals)
})

it('knows price details, containers rolled up, services whole and own columns as dimensions', async () => {
  const { found } = dimensionList.parse(await server.json('spend/dimensions'))
  expect(found).toEqual(
    expect.arrayContaining([
      'Tags/team',
      'SkuPriceDetails/InstanceType',
      'Container/1',
      'Container/2',
      'Container/3',
      'ServiceWhole',
      'x_CreatedBy',
    ]),
  )
  expect(pairs(await ask({ splitBy: ['SkuPriceDetails/InstanceType'] }), 'SkuPriceDetails/InstanceType')).toEqual({
    'otter-4x16': '15',
    null: '12',
  })
  expect(pairs(await ask({ splitBy: ['Container/2'] }), 'Container/2')).toEqual({ 'passenger/booking': '15', passenger: '5', null: '7' })
  expect(pairs(await ask({ splitBy: ['Container/1'] }), 'Container/1')).toEqual({ passenger: '20', null: '7' })
  expect(pairs(await ask({ splitBy: ['ServiceWhole'] }), 'ServiceWhole')).toEqual({ Servers: '15', Recovery: '12' })
})

it('measures: quantities by unit, what was saved, unit prices', async () => {
  expect((await ask({ measure: 'pricingQuantity' })).totals).toEqual([
    { currency: 'GB', amount: '7' },
    { currency: 'Hours', amount: '194' },
  ])
  expect((await ask({ measure: 'unitPrice', keep: { ServiceName: ['Servers'] }, splitBy: ['ServiceName'] })).totals).toEqual([
    { currency: 'EUR per Hours', amount: '0.125' },
    { currency: 'USD per Hours', amount: '4.166666666667' },
  ])
  expect((await ask({ measure: 'savedAgainstList' })).totals.map(t => t.amount)).toEqual(['0', '0'])
})

it('further conditions: text contains, cost above', async () => {
  expect((await ask({ conditions: [{ dimension: 'ServiceName', keep: true, contains: 'SNAP' }] })).totals).toEqual([
    { currency: 'EUR', amount: '7' },
  ])
  expect(
    (await ask({ conditions: [{ dimension: 'ServiceName', keep: false, contains: 'snap' }], keep: { BillingAccountId: ['acct-1'] } }))
      .totals,
  ).toEqual([{ currency: 'EUR', amount: '20' }])
  expect(
    (await ask({ conditions: [{ dimension: 'ResourceId', keep: true, above: '6' }], keep: { BillingAccountId: ['acct-1'] } })).totals,
  ).toEqual([{ currency: 'EUR', amount: '22' }])
})

it('spellings count as one, over the past too, and that can be taken back', async () => {
  const both = { start: '2026-09-01', splitBy: ['Tags/team'], keep: { ServiceName: ['Servers'], BillingAccountId: ['acct-1'] } }
  expect(pairs(await ask(both), 'Tags/team')).toEqual({ booking: '10', Booking: '15' })
  await server.json('spend/aliases', post({ dimension: 'Tags/team', spellings: ['Booking'], as: 'booking' }))
  expect(pairs(await ask(both), 'Tags/team')).toEqual({ booking: '25' })
  expect((await ask({ ...both, keep: { 'Tags/team': ['booking'] } })).totals).toEqual([{ currency: 'EUR', amount: '25' }])
  await server.json('spend/aliases', post({ dimension: 'Tags/team', spellings: ['Booking'], as: null }))
  expect(pairs(await ask(both), 'Tags/team')).toEqual({ booking: '10', Booking: '15' })
})

it('inherited tags count and are shown as inherited', async () => {
  await server.json(
    'spend/account-tree',
    put({
      accounts: { 'sub-1': { path: ['Company', 'Live'], tags: { division: 'passenger', team: 'fallback' } } },
      containerTags: { 'passenger/booking': { division: 'booking' } },
    }),
  )
  expect(pairs(await ask({ splitBy: ['Tags/division'] }), 'Tags/division')).toEqual({ booking: '15', passenger: '12' })
  expect(pairs(await ask({ splitBy: ['TagsFrom/division'] }), 'TagsFrom/division')).toEqual({ container: '15', account: '12' })
  expect(pairs(await ask({ splitBy: ['TagsFrom/team'] }), 'TagsFrom/team')).toEqual({ own: '15', account: '12' })
  expect((await ask({ keep: { 'Tags/division': ['booking'] } })).totals).toEqual([{ currency: 'EUR', amount: '15' }])
  expect(pairs(await ask({ splitBy: ['AccountTree/2'] }), 'AccountTree/2')).toEqual({ 'Company/Live': '27' })
})

it('one currency for all: at each day’s rate, the original beside it, a missing rate said', async () => {
  const before = await ask({ reportCurrency: 'EUR' })
  expect(before.totals).toEqual([
    { currency: 'EUR', amount: '27' },
    { currency: 'USD', amount: '100' },
  ])
  expect(before.unconverted).toEqual([{ currency: 'USD', from: '2026-10-01', to: '2026-11-01', amount: '100' }])
  expect(
    await server.json(
      'rates/table',
      post({
        lines: [
          { from: 'USD', to: 'EUR', 'valid from': '2026-10-01', rate: '0.9' },
          { from: 'USD', to: 'EUR', 'valid from': '2026-10-07', rate: '0.95' },
        ],
      }),
    ),
  ).toEqual({ rates: 2, changed: 2 })
  const now = await ask({ reportCurrency: 'EUR' })
  expect(
    spendComparison.parse(
      await server.json(
        'spend/compare',
        post({
          measure: 'billedCost',
          splitBy: ['ServiceName'],
          now: { start: '2026-10-01', end: '2026-11-01' },
          before: { start: '2026-09-01', end: '2026-10-01' },
          reportCurrency: 'EUR',
        }),
      ),
    ).totals,
  ).toMatchObject([{ currency: 'EUR', now: '122' }])
  expect(now).toMatchObject({
    totals: [{ currency: 'EUR', amount: '122' }],
    original: [
      { currency: 'EUR', amount: '27' },
      { currency: 'USD', amount: '100' },
    ],
    unconverted: [],
  })
  expect((await server.call('rates/table', post({ lines: [{ from: 'USD', to: 'XXQ', rate: '-1' }] }))).status).toBe(422)
})

const none = Object.fromEntries(effectNames.map(name => [name, '0']))

it('compares two periods: quantity, price, new; the effects add up to the change', async () => {
  const comparison = spendComparison.parse(
    await server.json(
      'spend/compare',
      post({
        measure: 'billedCost',
        splitBy: ['ServiceName'],
        now: { start: '2026-10-01', end: '2026-11-01' },
        before: { start: '2026-09-01', end: '2026-10-01' },
        keep: { BillingAccountId: ['acct-1'] },
      }),
    ),
  )
  expect(comparison.contributions.map(c => [c.values.ServiceName, c.kind, c.difference])).toEqual([
    ['Snapshots', 'new', '7'],
    ['Recovery', 'new', '5'],
    ['Servers', 'both', '5'],
  ])
  // 100 × 0.1 = 10 before, 120 × 0.125 = 15 now: 20 × 0.1 + 0.025 × 100 + 0.025 × 20
  expect(comparison.contributions[2]!.effects).toEqual({ ...none, quantity: '2', price: '2.5', both: '0.5' })
  expect(comparison.totals).toEqual([
    {
      currency: 'EUR',
      now: '27',
      before: '10',
      difference: '17',
      perDay: '0.537634408602151', // 27 / 31 − 10 / 30, each to fifteen digits
      effects: { ...none, quantity: '2', price: '2.5', both: '0.5', newAndGone: '12' },
    },
  ])
})

const table = {
  question: {
    ...october,
    splitBy: ['ServiceName', 'ResourceId'],
    grain: 'month',
    start: '2026-09-01',
    keep: { BillingAccountId: ['acct-1'] },
  },
  currency: 'EUR',
  across: 'start',
  title: 'Bill',
}
const bytesOf = async (path: string, body: object) => {
  const response = await server.call(path, post(body))
  expect([response.status, path]).toEqual([200, path])
  return Buffer.from(await response.arrayBuffer())
}

it('takes the pivot away as CSV, XLSX, Parquet and JSON; each sums to the same', async () => {
  const csv = Papa.parse<string[]>((await bytesOf('spend/table', { ...table, format: 'csv' })).toString().trim()).data
  expect(csv[0]).toEqual(['service', 'resource', 'resource name', '2026-09-01', '2026-10-01', 'billed, EUR'])
  // no line for the total, which a pivot over the rows would count twice
  expect(csv.slice(1).every(row => row[0] !== 'total')).toBe(true)
  expect([3, 4, 5].map(i => csv.slice(1).reduce((n, row) => n + Number(row[i]), 0))).toEqual([10, 27, 37])
  expect(csv.find(row => row[1] === 'vault')![2]).toBe('\'=HYPERLINK("x")')
  const book = new ExcelJS.Workbook()
  await book.xlsx.load((await bytesOf('spend/table', { ...table, format: 'xlsx' })) as never)
  const sheet = book.worksheets[0]!
  expect(sheet.getRow(3).getCell(6).value).toMatchObject({ formula: `SUM(F5:F${sheet.lastRow!.number})`, result: 37 })
  const parquet = join(folder, 'table.parquet')
  writeFileSync(parquet, await bytesOf('spend/table', { ...table, format: 'parquet' }))
  const duck = await (await DuckDBInstance.create()).connect()
  const read = await duck.runAndReadAll(`select sum("billed, EUR")::varchar, sum("2026-09-01")::varchar, count(*)::int from '${parquet}'`)
  expect(read.getRowsJson()[0]).toEqual(['37.000000000000000', '10.000000000000000', 3])
  const json = JSON.parse((await bytesOf('spend/table', { ...table, format: 'json' })).toString()) as {
    rows: Record<string, string>[]
    total: Record<string, string>
  }
  expect(scaledText(json.rows.reduce((n, row) => n + scaled(row['billed, EUR']!), 0n))).toBe(json.total['billed, EUR'])
})

it('takes the charge lines away with chosen columns, under the same conditions as the figures; their size is said first', async () => {
  const question = { ...october, keep: { 'Tags/division': ['passenger'] } }
  const columns = ['ChargePeriodStart', 'ResourceId', 'ResourceName', 'BilledCost', 'x_CreatedBy', 'BillingPeriodEnd']
  expect(await server.json('spend/lines-size', post({ question, columns, format: 'csv' }))).toMatchObject({ rows: 2 })
  const csv = Papa.parse<string[]>((await bytesOf('spend/lines', { question, columns, format: 'csv' })).toString().trim()).data
  expect(csv).toEqual([
    columns,
    ['2026-10-06T00:00:00Z', 'vault', '\'=HYPERLINK("x")', '5', '', '2026-11-01T00:00:00Z'],
    ['2026-10-06T00:00:00Z', 'copy', 'copy', '7', 'vault', '2026-11-01T00:00:00Z'],
  ])
  for (const keep of [
    { 'Tags/division': ['booking', null] },
    { 'Tags/team': ['fallback'] },
    { 'TagsFrom/team': ['own'] },
    { ServiceWhole: ['Recovery'] },
    { 'Container/1': [null] },
  ]) {
    const lines = JSON.parse(
      (
        await bytesOf('spend/lines', { question: { ...october, keep }, columns: ['BilledCost', 'BillingCurrency'], format: 'json' })
      ).toString(),
    ) as { rows: { BilledCost: string; BillingCurrency: string }[] }
    const sum = scaledText(lines.rows.filter(r => r.BillingCurrency === 'EUR').reduce((n, r) => n + scaled(r.BilledCost), 0n))
    expect([keep, sum]).toEqual([keep, (await ask({ keep })).totals.find(t => t.currency === 'EUR')?.amount ?? '0'])
  }
  expect((await server.call('spend/lines', post({ question, columns: ['no column'], format: 'csv' }))).status).toBe(422)
})

it('keeps sentences: own and shared, changed by their owner alone', async () => {
  const as = (who: string) => ({ cookie: `rain-barrel-person=${encodeURIComponent(who)}` })
  const body = { name: 'Servers', folder: 'Mine', shared: false, body: { query: { keep: 'ServiceName=Servers', period: 'all' } } }
  expect((await server.call('sentences/s1', put(body, as('Ada')))).status).toBe(200)
  const list = async (who: string) => savedSentenceList.parse(await server.json('sentences', { headers: as(who) })).sentences.map(s => s.id)
  expect([await list('Ada'), await list('Ben')]).toEqual([['s1'], []])
  expect((await server.call('sentences/s1', put({ ...body, name: 'x' }, as('Ben')))).status).toBe(403)
  await server.call('sentences/s1', put({ ...body, shared: true }, as('Ada')))
  expect(await list('Ben')).toEqual(['s1'])
  expect((await server.call('sentences/s1', put({ ...body, name: ' ' }, as('Ada')))).status).toBe(422)
})

it('sends a sentence as a file by mail', async () => {
  const schedule = { to: ['finance@skerry.example'], every: 'month', format: 'csv' }
  await server.call(
    'sentences/s2',
    put({
      name: 'All of it',
      description: 'The whole bill.',
      shared: true,
      body: { query: { by: 'ServiceName', period: 'all', cost: 'billed' } },
      schedule,
    }),
  )
  expect(await server.json('sentences/s2/send', post({}))).toEqual({ said: 'sent to finance@skerry.example' })
  const [message] = mail.received
  expect(message).toMatchObject({
    to: ['finance@skerry.example'],
    subject: expect.stringContaining('All of it'),
    text: expect.stringContaining('The whole bill.'),
  })
  // what was asked in words, amounts as they are shown, and the way back
  expect(message!.text).toContain('Billed cost by service, all that is loaded')
  expect(message!.text).toMatch(/Total: [\d,]+\.\d\d EUR, 100\.00 USD\./)
  expect(message!.text).toContain('https://barrel.skerry.example/spend?by=ServiceName&cost=billed&period=all')
  const csv = Buffer.from(message!.attachments[0]!.content, 'base64').toString()
  expect(csv).toContain('Servers,100')
  // CSV holds nothing but its rows: the period, and what is missing, come beside it
  expect(message!.attachments.map(({ name }) => name)).toEqual(['All-of-it.csv', 'All-of-it notes.txt'])
  const notes = Buffer.from(message!.attachments[1]!.content, 'base64').toString()
  expect(notes).toContain('2026-09-05')
  const [kept] = savedSentenceList.parse(await server.json('sentences')).sentences.filter(({ id }) => id === 's2')
  expect(kept!.nextAt).toMatch(/^\d{4}-\d\d-\d\d/)
  expect(
    (await server.call('sentences/s2', put({ name: 'x', body: { query: {} }, schedule: { ...schedule, to: ['nobody'] } }))).status,
  ).toBe(422)
})

it('jumps to anything by name or id', async () => {
  const jump = async (q: string) =>
    jumpReply.parse(await server.json(`jump?q=${encodeURIComponent(q)}`)).found.map(f => [f.kind, f.dimension, f.name])
  expect(await jump('reco')).toEqual([['value', 'ServiceName', 'Recovery']])
  expect(await jump('copy')).toEqual([['value', 'ResourceId', 'copy']])
  expect(await jump('abroad')).toEqual([['value', 'SubAccountName', 'abroad']])
  expect((await server.call('jump?q=')).status).toBe(422)
})

it('knows a resource: meters, tags and where they come from, what belongs together, what happened', async () => {
  const view = resourceView.parse(await server.json('resources?id=res-1'))
  expect(view).toMatchObject({
    names: ['one'],
    firstDay: '2026-09-05',
    lastDay: '2026-10-07',
    details: { 'SkuPriceDetails/InstanceType': 'otter-4x16' },
  })
  expect(view.tags).toEqual(
    expect.arrayContaining([
      expect.objectContaining({ key: 'team', value: 'Booking', from: 'own' }),
      expect.objectContaining({ key: 'division', value: 'booking', from: 'container' }),
    ]),
  )
  // on 6 October its provider charged for others, and not for its hours
  expect(view.events.map(e => `${e.day} ${e.what}`).slice(1)).toEqual([
    `${view.events[1]!.day} tag team changed from booking to Booking`,
    '2026-10-06 stopped: no running hours from this day on',
    '2026-10-07 started again after 1 day',
  ])
  expect(view.runs).toMatchObject({ still: [{ from: '2026-10-06', to: '2026-10-06' }] })
  const vault = resourceView.parse(await server.json('resources?id=vault'))
  expect(vault.created.map(made => made.id)).toEqual(['copy'])
  expect(resourceView.parse(await server.json('resources?id=copy'))).toMatchObject({
    createdBy: { id: 'vault' },
    protects: { id: 'res-1' },
    protectedBy: [],
  })
  expect(view.protectedBy.map(copy => copy.id)).toEqual(['copy'])
  expect(resourceReport.parse(await server.json('resources/reported?id=res-1')).report).toBeNull()
  await server.json('resources/note', put({ id: 'vault', body: 'Ask **Jon** first' }))
  expect(resourceView.parse(await server.json('resources?id=vault')).note).toMatchObject({ body: 'Ask **Jon** first' })
  expect((await server.call('resources?id=nothing')).status).toBe(404)
})

it('own words for a SKU come before the rate card’s, and can be taken back', async () => {
  const words = async () =>
    (await server.json<{ skus: Record<string, { words: string }> }>('rate-cards/describe', post({ skus: ['REC'] }))).skus.REC?.words
  expect(await words()).toBeUndefined()
  await server.json('spend/skus', post({ sku: 'REC', entry: { words: 'Keeping copies', charged: 'existing' } }))
  expect(await words()).toBe('Keeping copies')
  expect(pairs(await ask({ splitBy: ['ChargedFor'], keep: { BillingAccountId: ['acct-1'] } }), 'ChargedFor')).toEqual({
    existing: '5',
    null: '22',
  })
  await server.json('spend/skus', post({ sku: 'REC', entry: null }))
  expect(await words()).toBeUndefined()
})

it('a Sentence of five thousand kept values lives under a short id, the same for the same', async () => {
  const keep = Array.from({ length: 5000 }, (_, i) => `ResourceId=resource-${i}`)
  const { id } = await server.json<{ id: string }>('sentences/long', post({ query: { keep, period: 'all' } }))
  expect(id).toMatch(/^[\w-]{20}$/)
  expect(await server.json('sentences/long', post({ query: { period: 'all', keep } }))).toEqual({ id })
  expect(await server.json(`sentences/long/${id}`)).toEqual({ query: { keep, period: 'all' } })
  expect((await server.call('sentences/long/constructor')).status).toBe(404)
  const asked = { ...october, keep: { ResourceId: ['copy', ...Array.from({ length: 5000 }, (_, i) => `resource-${i}`)] } }
  expect((await server.call('spend/answer', post(asked))).status).toBe(200)
})

it('any number of tags is asked for at once', async () => {
  const keys = Array.from({ length: 400 }, (_, i) => `key ${i}`)
  expect(await server.json('spend/tags/first-seen', post({ keys: ['team', ...keys] }))).toMatchObject({ tags: [{ key: 'team' }] })
  const questions = keys.map(key => ({ ...october, splitBy: [`Tags/${key}`] }))
  const { answers } = await server.json<{ answers: unknown[] }>('spend/answers', post({ questions }))
  expect(answers).toHaveLength(400)
})
