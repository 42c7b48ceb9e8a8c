// What is known of the business: lookups and measures, by file and from a register; pools and unit costs that go by them.
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import Papa from 'papaparse'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { AllocationPlan } from '../../core/allocation/plan'
import type { Lookup } from '../../core/spend/lookup'
import { scaled, scaledText } from '../../core/money/scaled'
import { movedCharges, planState, settlement, statementsBeside, type Settlement } from '../../shared/contracts/allocation'
import { jobList, type JobView } from '../../shared/contracts/jobs'
import { measureList, measureState, unitCosts, type UnitCosts } from '../../shared/contracts/measures'
import { lookupState, unmatched } from '../../shared/contracts/spend-settings'
import { spendAnswer } from '../../shared/contracts/spend'
import { charge, focusCsv } from '../support/charges'
import { deliver } from '../support/imports'
import { ownServer } from '../support/own-server'
import { post, put, remove, startServer } from '../support/server'

const server = ownServer()
const centre = (id: string, parent: string | null = 'root') => ({ id, name: `Centre ${id}`, parent, owner: null })
const plan: AllocationPlan = {
  centres: [centre('root', null), centre('ferry'), centre('deck', 'ferry'), centre('freight')],
  pools: [{ id: 'network', name: 'Network', method: 'measure', measure: 'crossings' }],
  rules: [
    { id: 'deck', conditions: [{ dimension: 'Lookup/register/team', values: ['deck'] }], target: 'deck' },
    { id: 'ferry', conditions: [{ dimension: 'Tags/team', values: ['ferry'] }], target: 'ferry' },
    { id: 'freight', conditions: [{ dimension: 'Tags/team', values: ['freight'] }], target: 'freight' },
    { id: 'network', conditions: [{ dimension: 'ServiceName', values: ['Lines'] }], target: 'network' },
  ],
}
const line = (month: string, team: string, cost: string, more = {}) => {
  const next = month === '2025-12' ? '2026-01' : `2025-${String(Number(month.slice(5)) + 1).padStart(2, '0')}`
  return charge({
    ...{ BillingPeriodStart: `${month}-01T00:00:00Z`, BillingPeriodEnd: `${next}-01T00:00:00Z` },
    ...{ ChargePeriodStart: `${month}-28T00:00:00Z`, ChargePeriodEnd: `${month}-29T00:00:00Z` },
    ...{ BilledCost: cost, EffectiveCost: cost, Tags: JSON.stringify({ team }), ...more },
  })
}
const ask = async (month: string, more = ''): Promise<Settlement> =>
  settlement.parse(await server.json(`allocation/settlement?measure=billedCost&month=${month}${more}`))
const borne = ({ statements }: Settlement) => statements.map(one => [one.centre, one.currency, one.direct, one.shared])
const detail = async (reply: Response) => [reply.status, ((await reply.json()) as { detail: string }).detail] as const
const register: Lookup = {
  by: 'SubAccountName',
  fields: ['team'],
  entries: [
    { key: 'acc-*', match: 'pattern', from: null, until: null, values: { team: 'deck' } },
    { key: 'acc-9', from: null, until: null, values: { team: 'nobody' } },
    { key: 'gone', from: null, until: null, values: { team: 'deck' } },
  ],
}
const save = (name: string, more: object) => server.call('measures', put({ measures: [{ name, ...more }] }))
const saved = async (name: string, more: object) => (await (await save(name, more)).json()) as unknown
const counted = (centre: string, date: string, value: string) => ({ centre, date, value })

it('a lookup is not overwritten unseen: whoever sends one names the version that it was held against', async () => {
  await server.json('organisation', post({ people: [], plan }))
  await deliver(
    server,
    'bill',
    focusCsv([
      line('2025-10', 'ferry', '60'),
      line('2025-10', 'freight', '40'),
      line('2025-10', 'x', '10.01', { ServiceName: 'Lines' }),
      line('2025-10', 'x', '5', { SubAccountName: 'acc-1' }),
      line('2025-10', 'x', '2', { SubAccountName: 'acc-9' }),
      line('2025-10', 'ferry', '7', { BillingCurrency: 'USD' }),
      line('2025-11', 'ferry', '30'),
      line('2025-12', 'ferry', '3', { BillingCurrency: 'USD' }),
    ]),
  )
  await server.json('lookups/register', put(register))
  const first = lookupState.parse(await server.json('lookups/register'))
  const changed = { ...register, entries: register.entries.slice(1) }
  expect(await detail(await server.call('lookups/register', put(changed)))).toEqual([
    409,
    expect.stringContaining(
      `Beside it this one means: 1 entry removed. Nothing was taken; to take it all the same, send it with basedOn ${first.version}.`,
    ),
  ])
  expect(lookupState.parse(await server.json('lookups/register')).lookup).toEqual(register)
  // the pattern catches acc-1, and leaves acc-9 to the key that names it; nothing is told of crossings: 10.01 evenly, the odd cent first
  expect(borne(await ask('2025-10'))).toEqual(expect.arrayContaining([['deck', 'EUR', '5', '5.01']]))
})

it('what a lookup would move is previewed before it is saved, of every month', async () => {
  const lookups = { register: { ...register, entries: [{ ...register.entries[1]!, values: { team: 'deck' } }] } }
  const of = async (body: object) =>
    borne(settlement.parse(await server.json('allocation/preview', post({ month: '2025-10', measure: 'billedCost', ...body }))))
  // acc-9 alone is on the deck now
  expect((await of({ lookups })).find(([id]) => id === 'deck')![2]).toBe('2')
  expect((await of({ lookups: { register: null } })).find(([id]) => id === 'deck')![2]).toBe('0')
  expect(borne(await ask('2025-10')).find(([id]) => id === 'deck')![2]).toBe('5')
})

it('which charges a lookup, or a rule, would move is told before it is saved', async () => {
  const lookups = { register: { ...register, entries: [{ ...register.entries[1]!, values: { team: 'deck' } }] } }
  const of = async (body: object) =>
    movedCharges.parse(await server.json('allocation/moved', post({ month: '2025-10', measure: 'billedCost', ...body })))
  const moved = await of({ lookups })
  expect(moved.ways).toEqual([
    { from: 'deck', to: null, currency: 'EUR', amount: '5', count: 1 },
    { from: null, to: 'deck', currency: 'EUR', amount: '2', count: 1 },
  ])
  expect(moved.charges.map(({ values, from, to }) => [values.SubAccountName, values.ServiceName, from, to])).toEqual([
    ['acc-1', 'Servers', 'deck', null],
    ['acc-9', 'Servers', null, 'deck'],
  ])
  const { plan } = planState.parse(await server.json('allocation/plan'))
  expect((await of({ plan: { ...plan, rules: [] } })).ways.find(({ from }) => from === 'ferry')).toMatchObject({ to: null })
  expect(await of({ plan })).toMatchObject({ ways: [], charges: [], more: 0 })
  expect((await server.call('allocation/moved', post({ month: '2025-13', measure: 'billedCost' }))).status).toBe(422)
})

it('lists where charges and a lookup do not meet, with their money', async () => {
  const found = unmatched.parse(await server.json('lookups/register/unmatched?month=2025-10&measure=billedCost'))
  expect(found).toMatchObject({ more: 0, without: [], unused: [{ key: 'gone', match: null }], moreUnused: 0 })
  expect(found.unknown.map(({ currency, amount }) => [currency, amount])).toEqual([
    ['EUR', '110.01'],
    ['USD', '7'],
  ])
  expect((await server.call('lookups/nothing/unmatched?month=2025-10&measure=billedCost')).status).toBe(404)
})

it('a measure is told once for a day: a later load replaces its days, and no other', async () => {
  const october = Array.from({ length: 31 }, (_, i) => `2025-10-${String(i + 1).padStart(2, '0')}`)
  const load = { unit: 'crossing', grain: 'day', values: october.map(day => counted('ferry', day, '2')) }
  expect(await saved('crossings', load)).toEqual({ saved: [{ name: 'crossings', added: 31, changed: 0, unknown: [] }] })
  const more = {
    ...load,
    values: [counted('ferry', '2025-10-01', '3.5'), counted('freight', '2025-10-31', '30'), counted('ferry', '2025-10-02', '2.0')],
  }
  expect(await detail(await save('crossings', more))).toEqual([409, expect.stringContaining('1 value added, 1 changed')])
  expect(await saved('crossings', { ...more, basedOn: 1 })).toEqual({ saved: [{ name: 'crossings', added: 1, changed: 1, unknown: [] }] })
  // said again, it changes nothing
  expect(await saved('crossings', { ...more, basedOn: 2 })).toEqual({ saved: [{ name: 'crossings', added: 0, changed: 0, unknown: [] }] })
  const state = measureState.parse(await server.json('measures/crossings'))
  expect([state.saved?.version, state.values.length, state.values[0], state.values[1]]).toEqual([
    ...[2, 32, counted('ferry', '2025-10-01', '3.5')],
    counted('ferry', '2025-10-02', '2'),
  ])
  expect(measureList.parse(await server.json('measures')).measures).toMatchObject([
    { name: 'crossings', unit: 'crossing', centres: 2, first: '2025-10-01', last: '2025-10-31', values: 32 },
  ])
})

it.each([
  [{ values: [counted('ferry', '2025-10-01', '-1')] }, 422, '-1 is below zero'],
  [{ values: [counted('ferry', '2025-10-01', 'two')] }, 422, '«two» is no number'],
  [{ values: [counted('ferry', '2025-10', '1')] }, 422, '«2025-10» is no day'],
  [{ values: [counted('ferry', '2025-10-01', '1'), counted('ferry', '2025-10-01', '2')] }, 422, 'appears twice'],
  [{ unit: 'ship', basedOn: 2, values: [] }, 409, 'Its unit is crossing, not ship'],
])('refuses %j of a measure, and takes nothing of it', async (more, status, why) => {
  const reply = await detail(await save('crossings', { unit: 'crossing', grain: 'day', ...more }))
  expect(reply).toEqual([status, expect.stringContaining(why)])
  expect(measureState.parse(await server.json('measures/crossings')).values).toHaveLength(32)
})

it('names cost centres that are not there', async () => {
  const values = [counted('constructor', '2025-10', '1'), counted('ferry', '2025-10', '1'), counted('constructor', '2025-11', '1')]
  expect(await saved('seats', { unit: 'seat', grain: 'month', values })).toMatchObject({
    saved: [{ name: 'seats', unknown: ['constructor'] }],
  })
  expect((await server.call('measures/seats', { method: 'DELETE' })).status).toBe(200)
})

it('of several measures sent together all are taken or none', async () => {
  const one = { unit: 'seat', grain: 'month', values: [counted('ferry', '2025-10', '1')] }
  const send = (...measures: object[]) => server.call('measures', put({ measures }))
  expect((await send({ ...one, name: 'seats' }, { ...one, name: 'crossings' })).status).toBe(409)
  expect(await detail(await send({ ...one, name: 'seats' }, { ...one, name: 'seats' }))).toEqual([
    422,
    expect.stringContaining('«seats» appears twice'),
  ])
  expect((await server.call('measures/seats')).status).toBe(404)
})

it('divides a pool by what a measure counted in the month, and says for which days it is not told', async () => {
  // 10.01 by 63.5 crossings of the ferry and 30 of freight: 6.798235… and 3.211764…, cut to 6.80 and 3.21
  const found = await ask('2025-10')
  expect(borne(found)).toEqual([
    ['ferry', 'EUR', '60', '6.8'],
    ['freight', 'EUR', '40', '3.21'],
    ['deck', 'EUR', '5', '0'],
    ['ferry', 'USD', '7', '0'],
  ])
  expect(found.statements[0]!.lines.at(-1)).toMatchObject({
    ...{ label: 'in proportion to crossings', ofPool: '10.01', note: 'crossings is not told for 30 days of freight' },
  })
  // with another count in its place
  const measures = [
    { name: 'crossings', unit: 'crossing', grain: 'day', tree: null, months: { '2025-10': { freight: { sum: '1', told: 31 } } } },
  ]
  const previewed = await server.json('allocation/preview', post({ month: '2025-10', measure: 'billedCost', measures }))
  expect(borne(settlement.parse(previewed)).map(([id, , , shared]) => [id, shared])).toEqual([
    ['ferry', '0'],
    ['freight', '10.01'],
    ['deck', '0'],
    ['ferry', '0'],
  ])
})

it('every charge line with whose it is adds up to the bill, and to each statement; and it can be loaded again', async () => {
  const month = 'measure=billedCost&month=2025-10'
  const text = await (await server.call(`allocation/charges?${month}`)).text()
  const rows = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true }).data
  const sums = new Map<string, bigint>()
  for (const row of rows) {
    const key = [
      row.x_Allocation === 'direct' || row.x_Allocation === 'share of pool' ? row.x_CostCentreId : 'nobody',
      row.BillingCurrency,
    ].join(' ')
    sums.set(key, (sums.get(key) ?? 0n) + scaled(row.BilledCost!))
  }
  expect(Object.fromEntries([...sums].map(([key, sum]) => [key, scaledText(sum)]))).toEqual({
    ...{ 'ferry EUR': '66.8', 'freight EUR': '43.21', 'deck EUR': '5', 'ferry USD': '7' },
    // 2 of an account that nobody has; what was on the pool is taken off it again
    'nobody EUR': '2',
  })
  const of = (kind: string) =>
    rows.filter(row => row.x_Allocation === kind).map(row => [row.x_PoolName, row.x_CostCentreName, row.BilledCost])
  expect(of('pool')).toEqual([['Network', '', '10.01']])
  expect(of('pool shared out')).toEqual([['Network', '', '-10.01']])
  expect(of('share of pool')).toEqual([
    ['Network', 'Centre ferry', '6.8'],
    ['Network', 'Centre freight', '3.21'],
  ])
  // what the product prints it takes back
  const again = await startServer()
  try {
    expect((await deliver(again, 'allocated', text)).state).toBe('loaded')
    const asked = {
      measure: 'billedCost',
      splitBy: ['x_CostCentreId'],
      grain: null,
      start: '2025-01-01',
      end: '2026-01-01',
      keep: {},
      leaveOut: {},
    }
    const { totals } = spendAnswer.parse(await again.json('spend/answer', post(asked)))
    expect(totals.map(({ currency, amount }) => [currency, amount])).toEqual([['EUR', '117.01'], ['USD', '7']]) // prettier-ignore
  } finally {
    await again.stop()
    remove(again.folder)
  }
})

const costs = async (more: string): Promise<UnitCosts> =>
  unitCosts.parse(await server.json(`unit-costs?measure=crossings&cost=billedCost&${more}`))

it('tells what one costs by month: direct or full, in one currency, not defined where something is missing', async () => {
  await server.json('spend/report-currency', put({ reportCurrency: 'EUR' }))
  await server.json('rates/table', post({ lines: [{ from: 'USD', to: 'EUR', 'valid from': '2025-10-31', rate: '0.5' }] }))
  const direct = await costs('of=direct&until=2025-12&months=4')
  const ferry = direct.products.find(({ centre }) => centre === 'ferry')!
  // of September nothing is loaded; the ferry with its deck: 60 + 5 + 7 × 0.5 = 68.5, by 63.5
  expect(ferry.months.map(({ month, cost, quantity, missing, unitCost }) => [month, cost, quantity, missing, unitCost])).toEqual([
    ['2025-10', '68.5', '63.5', 0, '1.07874015748'],
    ['2025-11', '30', null, 30, null],
    ['2025-12', '1.5', null, 28, null],
  ])
  expect(ferry).toMatchObject({ name: 'Centre ferry', whole: '1.07874015748', behaviour: { why: 'too few points', points: 1 } })
  expect(direct.products.find(({ centre }) => centre === 'freight')!.months[0]).toMatchObject({
    unitCost: null,
    missing: 30,
    quantity: '30',
  })
  const full = await costs('of=full&until=2025-10&months=1')
  expect([full.currency, full.products[0]!.months[0]!.cost]).toEqual(['EUR', '75.3'])
  expect((await server.call('unit-costs?measure=nothing&cost=billedCost&of=full&until=2025-10')).status).toBe(404)
})

it('stands a statement beside the month before and its unit costs, and says where a month is not over', async () => {
  const of = async (month: string) => statementsBeside.parse(await server.json(`allocation/beside?month=${month}&measure=billedCost`))
  const october = await of('2025-10')
  // nothing of September is loaded; the ferry with its deck, full: 66.8 + 5 + 7 × 0.5 by 63.5
  expect([october.to, october.before]).toEqual([null, null])
  expect(
    october.unitCosts.map(({ centre, currency, unit, unitCost, missing, before }) => [centre, currency, unit, unitCost, missing, before]),
  ).toEqual([
    ['ferry', 'EUR', 'crossing', '1.185826771654', 0, null],
    ['freight', 'EUR', 'crossing', null, 30, null],
  ])
  const november = await of('2025-11')
  expect(november.before).toEqual({
    month: '2025-10',
    totals: [
      { centre: 'ferry', currency: 'EUR', total: '66.8' },
      { centre: 'freight', currency: 'EUR', total: '43.21' },
      { centre: 'deck', currency: 'EUR', total: '5' },
      { centre: 'ferry', currency: 'USD', total: '7' },
    ],
  })
  expect(november.unitCosts.find(({ centre }) => centre === 'ferry')).toMatchObject({ unitCost: null, before: '1.185826771654' })
  // charges end on 28 December
  expect((await of('2025-12')).to).toBe('2025-12-28')
})

it('names the currencies without a rate, and defines nothing of what lacks something', async () => {
  await server.json('spend/report-currency', put({ reportCurrency: 'NOK' }))
  const { products } = await costs('of=direct&until=2025-10&months=1')
  expect(products[0]!.months[0]).toMatchObject({ cost: null, unitCost: null, noRate: ['EUR', 'USD'] })
  await server.json('spend/report-currency', put({ reportCurrency: null }))
})

/** What a register tells: answers by path. */
const told: Record<string, unknown> = {
  '/v1/clock': { now: '2025-12-01T00:00:00Z', company: 'Skerry' },
  '/v1/lookups': {
    lookups: [
      { name: 'register', lookup: register },
      { name: 'sites', lookup: { ...register, fields: ['site'], entries: [] } },
    ],
  },
  '/v1/measures': { measures: [{ name: 'bookings' }] },
}
let outside: Server
let asked: string[] = []
let address = ''
beforeAll(async () => {
  outside = createServer((request, response) => {
    asked.push(request.url!)
    const found = told[request.url!.split('?')[0]!]
    response.writeHead(found === undefined ? 404 : 200).end(JSON.stringify(found ?? { error: 'no such thing' }))
  })
  await new Promise<void>(resolve => outside.listen(0, '127.0.0.1', resolve))
  address = `http://127.0.0.1:${(outside.address() as AddressInfo).port}`
})
afterAll(() => outside.close())
async function fetched(): Promise<JobView> {
  const find = async () => jobList.parse(await server.json('jobs')).jobs.find(({ kind }) => kind === 'register')!
  const { id, endedAt } = await find()
  await server.json(`jobs/${id}/run`, { method: 'POST' })
  for (;;) {
    const job = await find()
    if (job.endedAt !== null && job.endedAt !== endedAt && job.state !== 'running') return job
    await new Promise(resolve => setTimeout(resolve, 50))
  }
}

it('takes from a register what is new, and asks again for the days before', async () => {
  told['/v1/measures/bookings'] = { unit: 'booking', grain: 'day', values: [counted('ferry', '2025-10-31', '5')] }
  await server.json('connections', post({ name: 'register', kind: 'register', address }))
  let job = await fetched()
  // connecting asks for it once by itself: what came of it is said by whichever came first
  expect(lookupState.parse(await server.json('lookups/sites')).lookup.fields).toEqual(['site'])
  expect(measureState.parse(await server.json('measures/bookings')).values).toEqual([counted('ferry', '2025-10-31', '5')])
  const before = lookupState.parse(await server.json('lookups/register')).version
  asked = []
  job = await fetched()
  expect(job.outcome).toBe('nothing new')
  expect(asked.find(path => path.startsWith('/v1/measures/bookings'))).toBe('/v1/measures/bookings?since=2025-09-21')
  // what says the same makes no further version
  expect(lookupState.parse(await server.json('lookups/register')).version).toBe(before)
  told['/v1/measures/bookings'] = {
    unit: 'booking',
    grain: 'day',
    values: [counted('ferry', '2025-10-31', '6'), counted('ferry', '2025-11-01', '1')],
  }
  told['/v1/lookups'] = { lookups: [{ name: 'sites', lookup: { ...register, fields: ['site', 'pier'], entries: [] } }] }
  job = await fetched()
  expect(job.outcome).toBe('lookup «sites»: field «pier» added; bookings: 1 value added, 1 changed')
})

it('takes nothing of what a register says wrongly, and says where', async () => {
  told['/v1/lookups'] = { lookups: [{ name: 'sites', lookup: { ...register, by: 'Nonsense' } }] }
  const job = await fetched()
  expect(job.outcome).toContain('lookups, 0, lookup, by: a lookup goes by a column of the bill')
  expect(lookupState.parse(await server.json('lookups/sites')).lookup.by).toBe('SubAccountName')
})

it('keeps and counts what came before something wrong, and a day to come puts nothing off', async () => {
  const team = { ...register, entries: [{ ...register.entries[0]!, values: { team: 'nobody' } }] }
  told['/v1/lookups'] = { lookups: [{ name: 'register', lookup: team }] }
  told['/v1/measures/bookings'] = { unit: 'booking', grain: 'day', values: [counted('ferry', '2025-13-01', '1')] }
  expect((await fetched()).outcome).toContain('«2025-13-01» is no day')
  // the lookup says it of the charges at once: nothing is on the deck by it any more
  expect((await ask('2025-10')).statements.find(({ centre }) => centre === 'deck')).toBeUndefined()
  told['/v1/lookups'] = { lookups: [{ name: 'register', lookup: register }] }
  told['/v1/measures/bookings'] = { unit: 'booking', grain: 'day', values: [counted('ferry', '2099-01-01', '1')] }
  expect((await fetched()).outcome).toContain('bookings: 1 value added')
  asked = []
  await fetched()
  const since = asked.find(path => path.startsWith('/v1/measures/bookings'))!.split('since=')[1]!
  expect(since < new Date().toISOString().slice(0, 10)).toBe(true)
})

it('where not all sources have delivered a month as far, nothing is defined or compared in it', async () => {
  const until = (cost: string, day: string, end: string) => {
    const more = { BillingAccountId: 'another', ChargePeriodStart: `${day}T00:00:00Z`, ChargePeriodEnd: `${end}T00:00:00Z` }
    return deliver(server, 'other', focusCsv([line('2025-10', 'nobody', cost, more)]))
  }
  expect((await until('1', '2025-10-15', '2025-10-16')).state).toBe('loaded')
  const { late, products } = await costs('of=direct&until=2025-11&months=2')
  // of November it is no part: it ended before
  expect(late).toEqual([{ month: '2025-10', source: 'other', lastDay: '2025-10-15' }])
  expect(products[0]!.months.map(({ month, unitCost, missing }) => [month, unitCost, missing])).toEqual([
    ['2025-10', null, 0],
    ['2025-11', null, 30],
  ])
  const beside = statementsBeside.parse(await server.json('allocation/beside?month=2025-10&measure=billedCost'))
  expect(beside.to).toBe('2025-10-15')
  await until('0', '2025-10-31', '2025-11-01')
  expect((await costs('of=direct&until=2025-10&months=1')).late).toEqual([])
})

it('a measure that is deleted is gone, and its pool falls back and says so', async () => {
  expect((await server.call('measures/crossings', { method: 'DELETE' })).status).toBe(200)
  expect((await server.call('measures/crossings', { method: 'DELETE' })).status).toBe(404)
  const { statements } = await ask('2025-10')
  // evenly among those that have none below them: 10.01 by deck and freight, the odd cent to the first
  expect(statements.map(one => [one.centre, one.currency, one.shared])).toEqual([
    ...[
      ['ferry', 'EUR', '0'],
      ['freight', 'EUR', '5'],
      ['deck', 'EUR', '5.01'],
    ],
    ['ferry', 'USD', '0'],
  ])
  expect(statements.find(({ centre }) => centre === 'deck')!.lines.at(-1)).toMatchObject({
    note: expect.stringContaining('no crossings are told for 2025-10') as string,
  })
})
