// Deliveries of the same money: what meets waits for a person, and after every choice and step back exactly what was chosen counts.
import { mkdtempSync, rmSync, utimesSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { importStatus, sourcesOverview, type ImportStatus } from '../../shared/contracts/imports'
import { spendAnswer } from '../../shared/contracts/spend'
import type { FileCharge } from '../../demo/focus-file'
import { charge, focusCsv } from '../support/charges'
import { deliver, ended } from '../support/imports'
import { ownServer } from '../support/own-server'
import { post } from '../support/server'

const server = ownServer()

/** What counts of a billing account, over all time. */
const counted = async (account: string) => {
  const asked = {
    measure: 'billedCost',
    splitBy: [],
    grain: null,
    start: '2000-01-01',
    end: '2100-01-01',
    keep: { BillingAccountId: [account] },
  }
  return spendAnswer.parse(await server.json('spend/answer', post(asked))).totals.map(({ amount }) => amount)
}
const one = (BillingAccountId: string, BilledCost: string, more: FileCharge = {}) =>
  focusCsv([charge({ BillingAccountId, BilledCost, ...more })])
const status = async (id: string) => importStatus.parse(await server.json(`imports/${id}`))
const choose = (id: string, use: 'this' | 'other' | 'both') => server.call(`imports/${id}/choose`, post({ use }))
const undo = (id: string, empty = false) => server.call(`imports/${id}/undo`, post({ empty }))
const redo = (id: string) => server.call(`imports/${id}/redo`, { method: 'POST' })
const period = (BillingPeriodStart: string, BillingPeriodEnd: string) => ({ BillingPeriodStart, BillingPeriodEnd })

it.each([
  ['another source, equal starts', 'b', '2026-10-01T00:00:00Z'],
  ['another source, a day apart', 'b', '2026-10-02T00:00:00Z'],
  ['another source, two hours apart', 'b', '2026-09-30T22:00:00Z'],
  ['the same source, a day apart', 'a', '2026-10-02T00:00:00Z'],
  ['the same source, two hours apart', 'a', '2026-09-30T22:00:00Z'],
])('the same billing account for the same time waits: %s', async (says, other, start) => {
  const source = (name: string) => `${says} ${name}`
  await deliver(server, source('a'), one(says, '100'))
  const second = await deliver(server, source(other), one(says, '30', period(start, '2026-11-01T00:00:00Z')))
  expect(second).toMatchObject({ state: 'choosing', options: { meets: [{ source: source('a'), billingAccountIds: [says] }], both: false } })
  expect(await counted(says)).toEqual(['100'])
  expect((await choose(second.id, 'both')).status).toBe(409)
  expect((await choose(second.id, 'this')).status).toBe(200)
  expect(await counted(says)).toEqual(['30'])
  expect((await undo(second.id)).status).toBe(200)
  expect(await counted(says)).toEqual(['100'])
  expect((await redo(second.id)).status).toBe(200)
  expect(await counted(says)).toEqual(['30'])
})

it('the months beside, in another time zone, are not the same time', async () => {
  await deliver(server, 'zone a', one('zones', '100'))
  const november = period('2026-10-30T14:00:00Z', '2026-11-30T14:00:00Z')
  expect(await deliver(server, 'zone b', one('zones', '30', november))).toMatchObject({ state: 'loaded' })
  expect(await counted('zones')).toEqual(['130'])
})

it('what waits is judged when it is chosen: the last chosen counts, alone', async () => {
  await deliver(server, 'many a', one('many', '1'))
  const [b, c, d] = [
    await deliver(server, 'many b', one('many', '20')),
    await deliver(server, 'many c', one('many', '300', period('2026-10-02T00:00:00Z', '2026-11-02T00:00:00Z'))),
    await deliver(server, 'many d', one('many', '4000')),
  ]
  expect(c.options!.waiting.map(({ source }) => source)).toEqual(['many b'])
  for (const [load, amount, meets] of [
    [b, '20', 'many a'],
    [c, '300', 'many b'],
    [d, '4000', 'many c'],
  ] as const) {
    expect((await status(load.id)).options!.meets.map(({ source }) => source)).toEqual([meets])
    expect((await choose(load.id, 'this')).status).toBe(200)
    expect(await counted('many')).toEqual([amount])
  }
  for (const [load, amount] of [
    [d, '300'],
    [c, '20'],
    [b, '1'],
  ] as const) {
    expect((await undo(load.id)).status).toBe(200)
    expect(await counted('many')).toEqual([amount])
  }
})

it('a choice names the days that would have no charges, and takes a billing period whole', async () => {
  const on = (account: string, day: string, BilledCost: string) =>
    charge({ BillingAccountId: account, BilledCost, ChargePeriodStart: `${day}T00:00:00Z`, ChargePeriodEnd: `${day}T12:00:00Z` })
  await deliver(
    server,
    'days a',
    focusCsv([
      on('days', '2026-10-01', '1'),
      on('days', '2026-10-02', '1'),
      on('days', '2026-10-09', '1'),
      on('days beside', '2026-10-03', '7'),
    ]),
  )
  const b = await deliver(
    server,
    'days b',
    focusCsv([on('days', '2026-10-02', '10'), on('days', '2026-10-20', '10'), on('days', '2026-10-21', '10')]),
  )
  expect(b.options).toMatchObject({
    meets: [{ source: 'days a', billingAccountIds: ['days'], others: ['days beside'] }],
    emptyWithThis: [
      ['2026-10-01', '2026-10-01'],
      ['2026-10-03', '2026-10-03'],
      ['2026-10-09', '2026-10-09'],
    ],
    emptyWithOther: [['2026-10-20', '2026-10-21']],
  })
  await choose(b.id, 'this')
  expect([await counted('days'), await counted('days beside')]).toEqual([['30'], []])
  await undo(b.id)
  expect([await counted('days'), await counted('days beside')]).toEqual([['3'], ['7']])
})

it('sources that deliver different sub accounts can both count, from then on, until they share one', async () => {
  await deliver(server, 'side a', one('side', '100', { SubAccountId: 'x' }))
  const b = await deliver(server, 'side b', one('side', '30', { SubAccountId: 'y' }))
  expect(b).toMatchObject({ state: 'choosing', options: { both: true } })
  expect((await choose(b.id, 'both')).status).toBe(200)
  expect(await counted('side')).toEqual(['130'])
  expect(await deliver(server, 'side b', one('side', '40', { SubAccountId: 'y' }))).toMatchObject({ state: 'loaded' })
  expect(await counted('side')).toEqual(['140'])
  expect(await deliver(server, 'side b', one('side', '50', { SubAccountId: 'x' }))).toMatchObject({
    state: 'choosing',
    options: { both: false },
  })
  expect(await counted('side')).toEqual(['140'])
})

it('of two deliveries of one source the newer counts, unless the older is chosen by name', async () => {
  const send = async (amount: string, deliveredAt: string) => {
    const { id } = await server.json<{ id: string }>(`imports?source=clock&deliveredAt=${encodeURIComponent(deliveredAt)}`, {
      method: 'POST',
      body: one('clock', amount),
    })
    return ended(server, id)
  }
  expect(await send('20', '2026-10-20T06:00:00Z')).toMatchObject({ state: 'loaded', deliveredAt: expect.stringContaining('2026-10-20') })
  const older = await send('10', '2026-10-10T08:00:00+02:00')
  expect(older).toMatchObject({ state: 'choosing', options: { meets: [{ source: 'clock', because: 'newer' }], both: false } })
  expect(await counted('clock')).toEqual(['20'])
  expect(await send('30', '2026-10-21T06:00:00Z')).toMatchObject({ state: 'loaded' })
  expect(await counted('clock')).toEqual(['30'])
  expect((await choose(older.id, 'this')).status).toBe(200)
  expect(await counted('clock')).toEqual(['10'])
  expect((await server.call('imports?source=clock&deliveredAt=yesterday', { method: 'POST', body: 'x' })).status).toBe(422)
})

it('the same bytes twice in one delivery count once, and that is said', async () => {
  const bytes = [one('twice', '5'), one('twice', '5'), one('twice', '8')]
  const files = bytes.map((text, i) => ({ name: `part ${i}.csv`, bytes: text.length }))
  const { id } = await server.json<{ id: string }>('deliveries', post({ source: 'twice', files }))
  for (const [i, body] of bytes.entries()) expect((await server.call(`deliveries/${id}/files/${i}`, { method: 'PUT', body })).ok).toBe(true)
  const load = await ended(server, id)
  expect(load.warnings).toContain('part 1.csv holds the same bytes as part 0.csv: its charges count once')
  expect(load.files.map(({ rows }) => rows)).toEqual([1, 0, 1])
  expect(await counted('twice')).toEqual(['13'])
})

it('goes back one load at a time over the last three, and forth again', async () => {
  const loads: ImportStatus[] = []
  for (const amount of ['1', '2', '3', '4', '5']) loads.push(await deliver(server, 'steps', one('steps', amount)))
  const [, two, three, four, five] = loads.map(({ id }) => id) as [string, string, string, string, string]
  const step = async (how: (id: string) => Promise<Response>, id: string, code: number) => {
    expect((await how(id)).status).toBe(code)
    return counted('steps')
  }
  expect(await step(undo, three, 409)).toEqual(['5'])
  expect(await step(undo, five, 200)).toEqual(['4'])
  expect(await step(undo, four, 200)).toEqual(['3'])
  expect(await step(undo, three, 200)).toEqual(['2'])
  expect(await status(two)).toMatchObject({ canUndo: true, wouldEmpty: [{ source: 'steps', billingPeriodStart: '2026-10-01T00:00:00Z' }] })
  expect(await step(undo, two, 409)).toEqual(['2'])
  expect(await step(redo, four, 409)).toEqual(['2'])
  expect(await step(redo, three, 200)).toEqual(['3'])
  expect(await step(redo, four, 200)).toEqual(['4'])
  expect(await step(redo, five, 200)).toEqual(['5'])
  expect(await step(undo, five, 200)).toEqual(['4'])
  // what comes new ends what could come forth
  await deliver(server, 'steps', one('steps', '6'))
  expect(await step(redo, five, 409)).toEqual(['6'])
})

it('a source is taken out whole, and comes back whole', async () => {
  const november = {
    ...period('2026-11-01T00:00:00Z', '2026-12-01T00:00:00Z'),
    ChargePeriodStart: '2026-11-05T00:00:00Z',
    ChargePeriodEnd: '2026-11-06T00:00:00Z',
  }
  await deliver(server, 'whole', one('whole', '1'))
  await deliver(server, 'whole', one('whole', '2', november))
  const { id } = await server.json<{ id: string }>('sources/whole', { method: 'DELETE' })
  expect(await counted('whole')).toEqual([])
  expect(sourcesOverview.parse(await server.json('sources')).loads[0]).toMatchObject({
    id,
    source: 'whole',
    message: expect.stringContaining('2 billing periods'),
  })
  expect((await server.call('sources/whole', { method: 'DELETE' })).status).toBe(404)
  expect((await undo(id)).status).toBe(200)
  expect(await counted('whole')).toEqual(['3'])
  expect((await redo(id)).status).toBe(200)
  expect(await counted('whole')).toEqual([])
})

it('whatever is delivered, chosen, taken back and forth: each step back is the state before, each step forth the one after', async () => {
  const starts = ['2026-10-01T00:00:00Z', '2026-10-01T22:00:00Z', '2026-10-02T00:00:00Z']
  const command = fc.record({
    source: fc.constantFrom('p', 'q', 'r'),
    start: fc.constantFrom(...starts),
    back: fc.integer({ min: 0, max: 3 }),
  })
  let run = 0
  await fc.assert(
    fc.asyncProperty(fc.array(command, { minLength: 1, maxLength: 5 }), async commands => {
      const account = `model ${++run}`
      let amount = 0
      for (const { source, start, back } of commands) {
        const before = await counted(account)
        const load = await deliver(server, `${account} ${source}`, one(account, String(++amount), period(start, '2026-11-01T00:00:00Z')))
        if (load.state === 'choosing') {
          expect(await counted(account)).toEqual(before)
          expect((await choose(load.id, 'this')).status).toBe(200)
        }
        expect(await counted(account)).toEqual([String(amount)])
        for (let i = 0; i < back; i++) {
          expect((await undo(load.id, true)).status).toBe(200)
          expect(await counted(account)).toEqual(before)
          expect((await redo(load.id)).status).toBe(200)
          expect(await counted(account)).toEqual([String(amount)])
        }
      }
    }),
    { numRuns: 6 },
  )
})

it('holds a delivery’s announced sizes against what arrives', async () => {
  const body = one('announced', '5')
  const { id } = await server.json<{ id: string }>(
    'deliveries',
    post({ source: 'announced', files: [{ name: 'a.csv', bytes: body.length }] }),
  )
  const put = (text: string) => server.call(`deliveries/${id}/files/0`, { method: 'PUT', body: text })
  const short = await put(body.slice(0, -10))
  expect(short.status).toBe(422)
  expect(await short.json()).toMatchObject({
    code: 'other-size',
    detail: expect.stringContaining(`announced with ${body.length} bytes, and ${body.length - 10} came`),
  })
  expect((await server.call(`deliveries/${id}/files/1`, { method: 'PUT', body })).status).toBe(404)
  expect((await put(body)).status).toBe(200)
  expect(await ended(server, id)).toMatchObject({ state: 'loaded' })
})

it('a watched folder goes by content and outcome: 100, 999, 100 ends at 100, and what was refused is said to be', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-watched-'))
  const write = (name: string, text: string, hour: number) => {
    writeFileSync(join(folder, name), text)
    utimesSync(join(folder, name), new Date(), new Date(Date.UTC(2026, 10, 1, hour)))
  }
  write('z-first.csv', one('watch', '100'), 1)
  write('a-second.csv', one('watch', '999'), 2)
  write('m-third.csv', one('watch', '100'), 3)
  const { id } = await server.json<{ id: number }>('watches', post({ source: 'watch', kind: 'folder', place: folder, everyMinutes: 60 }))
  const look = async () => {
    const { said } = await server.json<{ said: string }>(`watches/${id}/look`, post({}))
    const { loads } = sourcesOverview.parse(await server.json('sources'))
    for (const load of loads.filter(({ source }) => source === 'watch')) await ended(server, load.id)
    return said
  }
  await look()
  expect(await counted('watch')).toEqual(['100'])
  expect(await look()).toBe('nothing new')
  write('m-third.csv', one('watch', '999'), 4)
  expect(await look()).toBe('took m-third.csv')
  write('m-third.csv', one('watch', '100'), 5)
  expect(await look()).toBe('took m-third.csv')
  expect(await counted('watch')).toEqual(['100'])
  // what was refused is said to be, is not loaded in vain each minute, and is tried when a person looks
  write('bad.csv', one('watch', 'twelve'), 6)
  expect(await look()).toBe('took bad.csv')
  const { loads } = sourcesOverview.parse(await server.json('sources'))
  expect(loads[0]).toMatchObject({ source: 'watch', state: 'refused' })
  expect(await look()).toBe('took bad.csv')
  write('bad.csv', one('watch', '12'), 6)
  expect(await look()).toBe('took bad.csv')
  expect(await counted('watch')).toEqual(['12'])
  rmSync(folder, { recursive: true })
})

it('answers a wrong method on a path of the API with 405 and problem details, and an unknown path with 404', async () => {
  for (const [method, path, allowed] of [
    ['PUT', 'imports/1', 'GET'],
    ['GET', 'spend/answer', 'POST'],
    ['DELETE', 'sources', 'GET'],
    ['PATCH', 'people', 'GET'],
  ] as const) {
    const reply = await server.call(path, { method })
    expect([path, reply.status, reply.headers.get('content-type')]).toEqual([path, 405, 'application/problem+json'])
    expect(reply.headers.get('allow')).toContain(allowed)
    expect(await reply.json()).toMatchObject({ status: 405, code: 'wrong-method' })
  }
  const none = await server.call('constructor')
  expect([none.status, ((await none.json()) as { code: string }).code]).toEqual([404, 'not-found'])
  expect((await fetch(`${server.base}/api/v1/people`, { method: 'HEAD' })).status).toBe(200)
})
