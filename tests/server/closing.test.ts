// A month is closed: what its statements say never changes, and what comes late or is ruled otherwise arrives in the next open month.
import { expect, it } from 'vitest'
import { adjustmentsLeft } from '../../core/allocation/closing/adjustments'
import type { AllocationPlan } from '../../core/allocation/plan'
import {
  closedState,
  closings,
  closingOutlook,
  planState,
  planVersions,
  settlement,
  type Settlement,
} from '../../shared/contracts/allocation'
import { movedLines } from '../../shared/contracts/imports'
import { spendAnswer } from '../../shared/contracts/spend'
import { charge, focusCsv } from '../support/charges'
import { deliver } from '../support/imports'
import { ownServer } from '../support/own-server'
import { pdfText } from '../support/pdf-text'
import { openKept, post, put, startServer } from '../support/server'

const server = ownServer()
const centre = (id: string, parent: string | null = 'root', owner: string | null = null) => ({ id, name: `Centre ${id}`, parent, owner })
const plan: AllocationPlan = {
  centres: [centre('root', null), centre('ferry', 'root', 'fenna'), centre('freight')],
  pools: [{ id: 'network', name: 'Network', method: 'direct cost' }],
  rules: [
    { id: 'ferry', conditions: [{ dimension: 'Tags/team', values: ['ferry'] }], target: 'ferry' },
    { id: 'freight', conditions: [{ dimension: 'Tags/team', values: ['freight'] }], target: 'freight' },
    { id: 'network', conditions: [{ dimension: 'ServiceName', values: ['Lines'] }], target: 'network' },
  ],
  trees: [
    {
      id: 'products',
      name: 'Products',
      centres: [centre('app', null)],
      pools: [],
      rules: [{ id: 'all', conditions: [{ dimension: 'Tags/team', pattern: 'f*' }], target: 'app' }],
    },
  ],
}
const people = [
  { id: 'ines', name: 'Ines Moldal', role: 'lead', bound: null },
  { id: 'fenna', name: 'Fenna Ruys', role: 'lead', bound: ['ferry'], seesPools: false },
]
const as = (name: string) => ({ cookie: `rain-barrel-person=${encodeURIComponent(name)}` })
const month = (start: string) => {
  const [year, number] = start.split('-').map(Number) as [number, number]
  const end = new Date(Date.UTC(year, number, 1)).toISOString().slice(0, 10)
  return {
    ...{ BillingPeriodStart: `${start}-01T00:00:00Z`, BillingPeriodEnd: `${end}T00:00:00Z` },
    ...{ ChargePeriodStart: `${start}-05T00:00:00Z`, ChargePeriodEnd: `${start}-06T00:00:00Z` },
  }
}
const line = (start: string, team: string, cost: string, more = {}) =>
  charge({ ...month(start), BilledCost: cost, EffectiveCost: cost, Tags: JSON.stringify({ team }), ...more })
const october = [
  line('2025-10', 'ferry', '60'),
  line('2025-10', 'freight', '40'),
  line('2025-10', 'constructor', '10.01', { ServiceName: 'Lines' }),
  line('2025-10', 'nobody', '5.005'),
  line('2025-10', 'ferry', '7', { BillingCurrency: 'USD' }),
]
const ask = async (asked: string, who = 'Ines Moldal'): Promise<Settlement> =>
  settlement.parse(await server.json(`allocation/settlement?measure=billedCost&month=${asked}`, { headers: as(who) }))
const borne = ({ statements }: Settlement) => statements.map(one => [one.centre, one.currency, one.total])
const adjusted = ({ adjustments }: Settlement) => adjustments.map(one => [one.month, one.centre, one.currency, one.cause, one.amount])
const looked = ({ revision, version, basis }: Settlement) => ({ revision, version, basis })
const close = (asked: string, of: Settlement, more = {}) =>
  server.call('allocation/closings', post({ month: asked, measure: 'billedCost', ...looked(of), ...more }, as('Ines Moldal')))
const uplifted = ({ uplifts }: Settlement) => uplifts.map(one => [one.centre, one.amount, one.times?.quantity, one.pool?.name ?? null])
/** What the charges' SKU is, and what the organisation takes for each machine. */
const card = {
  ...{ provider: 'Testcloud', currency: 'EUR', validFrom: '2025-01-01' },
  regions: [{ id: 'r1', name: 'Region one' }],
  serverSizes: [{ size: 'small', vcpu: 2, memoryGb: 4 }],
  prices: [
    {
      ...{ meter: 'server-hour', service: 'Servers', region: 'r1', variant: 'small', sku: 'SKU-1', unit: 'Hours', tiering: 'graduated' },
      tiers: [{ from: '0', price: '0.1' }],
    },
  ],
}
const care = {
  ...{ id: 'care', name: 'Care', currency: 'EUR', interval: 'month', validFrom: '2025-01-01' },
  charges: [{ by: 'flat', label: 'on-call', amount: '10' }],
  attached: [{ to: 'kind', key: 'server', variant: null }],
}

it('closes a month as it was looked at, and no other', async () => {
  await server.json('organisation', post({ people, plan }))
  await deliver(server, 'bill', focusCsv([...october, line('2025-09', 'ferry', '1')]))
  const seen = await ask('2025-10')
  // 10.01 of the network by direct cost, 60 + 7 USD against 40: without a rate only EUR counts, 6.006 and 4.004; the cent goes to ferry
  expect(borne(seen)).toEqual([
    ['ferry', 'EUR', '66.01'],
    ['freight', 'EUR', '44'],
    ['ferry', 'USD', '7'],
  ])
  expect(closingOutlook.parse(await server.json('allocation/closings/2025-10'))).toEqual({
    ...{ month: '2025-10', barrier: null },
    warnings: ['bill has delivered until 5 Oct 2025: what it still brings of October 2025 will be an adjustment'],
  })
  expect(await server.json('allocation/closings/2025-08')).toMatchObject({ barrier: 'no charges of it are loaded' })
  // a rate that came since: who closes has not seen what it does
  await server.json('rates/table', post({ lines: [{ from: 'USD', to: 'EUR', 'valid from': '2025-10-01', rate: '0.5' }] }))
  await server.json('spend/report-currency', put({ reportCurrency: 'EUR' }))
  const outdated = await close('2025-10', seen)
  expect(outdated.status).toBe(409)
  expect(await outdated.text()).toContain('Rates, lookups or what else')
  const before = await ask('2025-10')
  // uplifts on what ran are closed with it: who closes has not seen these
  await server.json('rate-cards', post(card))
  await server.json('uplifts', post(care))
  const unseen = await close('2025-10', before)
  expect([unseen.status, await unseen.text()]).toEqual([409, expect.stringContaining('Rates, lookups or what else')])
  const now = await ask('2025-10')
  // one machine for 120 hours: 48 of ferry, 24 each of freight, the network, and nobody; 2.00 of the network by 63.5 against 40
  expect(uplifted(now)).toEqual([
    ['ferry', '4', '0.4', null],
    ['ferry', '1.23', undefined, 'Network'],
    ['freight', '2', '0.2', null],
    ['freight', '0.77', undefined, 'Network'],
    [null, '2', '0.2', null],
  ])
  // who does not look at them is not kept waiting for them
  expect(await ask('2025-10&uplifts=none')).toEqual({ ...now, uplifts: [] })
  // in no sum of the bill
  expect([borne(now), now.proof]).toEqual([borne(before), before.proof])
  const wrong = await close('2025-10', { ...now, version: now.version + 1 })
  expect([wrong.status, await wrong.text()]).toEqual([409, expect.stringContaining('The rules have changed')])
  const stale = await close('2025-10', { ...now, revision: now.revision - 1 })
  expect([stale.status, await stale.text()]).toEqual([409, expect.stringContaining('The charges have changed')])
  expect(closings.parse(await server.json('allocation/closings'))).toEqual({ closed: [], firstOpen: null })
  // a month that lasts is not closed
  const lasting = await close(new Date().toISOString().slice(0, 7), now)
  expect(lasting.status).toBe(409)

  const reply = await close('2025-10', now)
  expect(reply.status).toBe(200)
  expect(closedState.parse(await reply.json())).toMatchObject({ month: '2025-10', measure: 'billedCost', who: 'Ines Moldal', version: 1 })
  expect(await server.json('allocation/closings')).toMatchObject({
    ...{ closed: [{ month: '2025-10', purpose: 'chargeback' }], firstOpen: '2025-11' },
  })
  // a set that is taken away since was borne all the same
  await server.json('uplifts/care', { method: 'DELETE' })
  const kept = { ...(await ask('2025-10')), basis: now.basis }
  expect(uplifted(await ask('2025-10&as=today'))).toEqual([])
  expect({ ...kept, closed: null }).toEqual(now)
  expect(kept.closed).toMatchObject({ month: '2025-10', who: 'Ines Moldal' })
  expect((await close('2025-10', kept)).status).toBe(409)
  expect(await (await close('2025-09', await ask('2025-09'))).text()).toContain('closing began with 2025-10')
})

it('a late correction leaves it as it was, and arrives in the first open month, each line of it', async () => {
  // nobody has closed it by another cost: there are no statements of that
  const otherwise = await server.call('allocation/statements/journal?month=2025-10&measure=effectiveCost', { headers: as('Ines Moldal') })
  expect([otherwise.status, await otherwise.text()]).toEqual([409, expect.stringContaining('was closed by billed cost')])
  const before = await ask('2025-10')
  const late = [
    ...october,
    line('2025-10', 'ferry', '-12.50', { ServiceName: 'Disks', ChargeClass: 'Correction' }),
    line('2025-10', 'nobody', '0.995'),
  ]
  await deliver(server, 'bill', focusCsv([...late, line('2025-09', 'ferry', '1')]))
  await deliver(server, 'bill', focusCsv([line('2025-11', 'freight', '3')]))
  const kept = await ask('2025-10')
  expect({ ...kept, revision: 0, basis: '' }).toEqual({ ...before, revision: 0, basis: '' })
  const today = await ask('2025-10&as=today')
  expect(today.closed).toBeNull()
  // by the rate of then: 60 - 12.5 + 3.5 = 51 against 40 of 91: 5.61 and 4.40 of 10.01. Before: 63.5 against 40 of 103.5: 6.14, 3.87
  expect(borne(kept)).toEqual([
    ['ferry', 'EUR', '66.14'],
    ['freight', 'EUR', '43.87'],
    ['ferry', 'USD', '7'],
  ])
  expect(borne(today)).toEqual([
    ['ferry', 'EUR', '53.11'],
    ['freight', 'EUR', '44.4'],
    ['ferry', 'USD', '7'],
  ])
  const november = await ask('2025-11')
  expect(adjusted(november)).toEqual([
    ['2025-10', 'ferry', 'EUR', 'charges', '-13.03'],
    ['2025-10', null, 'EUR', 'charges', '0.995'],
    ['2025-10', 'freight', 'EUR', 'charges', '0.53'],
  ])
  expect(november.adjustments[0]!.lines).toEqual([
    { kind: 'direct', service: 'Disks', amount: '-12.5' },
    { kind: 'share', pool: 'Network', poolId: 'network', amount: '-0.53' },
  ])
  // never inside the sum of the bill
  expect(november.proof).toMatchObject([{ bill: '3', direct: '3', shared: '0', unallocated: '0', equal: true }])
  // its charges: what was closed beside what is there now
  const { lines: changed, rest } = movedLines.parse(await server.json('allocation/closings/2025-10/changes'))
  expect([rest, changed.map(line => [line.service, line.before, line.after])]).toEqual([
    0,
    [
      ['Disks', '0', '-12.5'],
      [october[3]!.ServiceName, '105.005', '106'],
    ],
  ])
  expect((await server.call('allocation/closings/2025-09/changes')).status).toBe(404)
  // a lead sees what is theirs
  expect(adjusted(await ask('2025-11', 'Fenna Ruys'))).toEqual([['2025-10', 'ferry', 'EUR', 'charges', '-13.03']])
  expect(borne(await ask('2025-10', 'Fenna Ruys'))).toEqual([
    ['ferry', 'EUR', '66.14'],
    ['ferry', 'USD', '7'],
  ])
  expect((await server.call('allocation/closings/2025-11', { headers: as('Fenna Ruys') })).status).toBe(403)
  expect((await ask('2025-09')).adjustments).toEqual([])
  expect(uplifted(await ask('2025-10', 'Fenna Ruys')).map(([centre, amount]) => [centre, amount])).toEqual([
    ['ferry', '4'],
    ['ferry', '1.23'],
  ])
  // as files: the same, with what is on none, for whoever may see it
  const file = async (format: string, who: string, more = '') => {
    const asked = `allocation/statements/${format}?month=2025-11&measure=billedCost${more}`
    const reply = await server.call(asked, { headers: as(who) })
    return { status: reply.status, type: reply.headers.get('content-type'), bytes: Buffer.from(await reply.arrayBuffer()) }
  }
  const lines = async (format: string, who: string, more?: string) =>
    (await file(format, who, more)).bytes.toString('utf8').trim().split('\r\n').slice(1)
  expect(await lines('csv', 'Ines Moldal')).toEqual([
    '2025-11,Centre ferry,,Fenna Ruys,EUR,adjustment,Disks,2025-10: late or corrected charges,,-12.5,',
    '2025-11,Centre ferry,,Fenna Ruys,EUR,adjustment,share of Network,2025-10: late or corrected charges,,-0.53,',
    expect.stringMatching(/^2025-11,Centre freight,,,EUR,direct,.*,,,3,$/),
    '2025-11,Centre freight,,,EUR,adjustment,share of Network,2025-10: late or corrected charges,,0.53,',
    '2025-11,unallocated,,,EUR,adjustment,,2025-10: late or corrected charges,,0.995,',
  ])
  // -13.03, 3.53 and 0.995 come to -8.505, rounded half away -8.51: cut to cents they do already
  expect(await lines('journal', 'Ines Moldal')).toEqual([
    '2025-11,ferry,Centre ferry,EUR,,13.03',
    '2025-11,freight,Centre freight,EUR,3.53,',
    '2025-11,unallocated,Unallocated,EUR,0.99,',
    '2025-11,clearing,Cloud cost to be allocated,EUR,8.51,',
  ])
  expect((await lines('csv', 'Fenna Ruys')).map(row => row.split(',')[1])).toEqual(['Centre ferry', 'Centre ferry'])
  expect(await lines('csv', 'Ines Moldal', '&centre=freight')).toHaveLength(2)
  expect((await file('csv', 'Fenna Ruys', '&centre=freight')).status).toBe(404)
  expect((await file('docx', 'Ines Moldal')).status).toBe(422)
  const pdf = await pdfText((await file('pdf', 'Fenna Ruys')).bytes)
  expect(pdf).toContain('Centre ferry')
  expect(pdf).toContain('−13.03')
  expect(pdf).not.toContain('freight')
  expect((await file('xlsx', 'Ines Moldal')).type).toContain('spreadsheet')
  // in another tree over the same money
  expect(adjusted(await ask('2025-11&tree=products'))).toEqual([
    ['2025-10', 'app', 'EUR', 'charges', '-12.5'],
    ['2025-10', null, 'EUR', 'charges', '0.995'],
  ])
})

it('rules that reach into it adjust it too, unless whoever saves them leaves it alone; kept + adjustments = cost centre now', async () => {
  const changed = {
    ...plan,
    rules: [{ id: 'nobody', conditions: [{ dimension: 'Tags/team', values: ['nobody'] }], target: 'freight' }, ...plan.rules],
  }
  const { version } = planState.parse(await server.json('allocation/plan'))
  await server.json('allocation/plan', put({ basedOn: version, plan: changed, leaveClosed: true }))
  const before = adjusted(await ask('2025-11'))
  expect(before).toHaveLength(3)
  expect(before.every(([, , , cause]) => cause === 'charges')).toBe(true)
  // the dimension goes by the rules that hold for the month
  const byCentre = async () => {
    const question = { measure: 'billedCost', splitBy: ['CostCentre'], grain: null, start: '2025-10-01', end: '2025-11-01' }
    const { rows } = spendAnswer.parse(await server.json('spend/answer', post({ ...question, keep: {}, leaveOut: {} })))
    return rows.map(row => `${row.values.CostCentre} ${row.amount} ${row.currency}`).sort()
  }
  expect(await byCentre()).toContain('null 6 EUR')
  await server.json('allocation/plan', put({ basedOn: version + 1, plan: changed }))
  expect(await byCentre()).toContain('freight 46 EUR')
  // 6 EUR from none to freight, whose part of the network grows: 46 of 97 of 10.01 = 4.75
  expect(adjusted(await ask('2025-11'))).toEqual([
    ['2025-10', 'ferry', 'EUR', 'charges', '-13.03'],
    ['2025-10', 'freight', 'EUR', 'rules', '6.35'],
    ['2025-10', null, 'EUR', 'rules', '-6'],
    ['2025-10', null, 'EUR', 'charges', '0.995'],
    ['2025-10', 'freight', 'EUR', 'charges', '0.53'],
    ['2025-10', 'ferry', 'EUR', 'rules', '-0.35'],
  ])
  const [kept, now, { adjustments }] = [await ask('2025-10'), await ask('2025-10&as=today'), await ask('2025-11')]
  expect(
    adjustmentsLeft({ month: '2025-10', kept, charges: now, rules: null, posted: adjustments.map(one => ({ ...one, cause: 'charges' })) }),
  ).toEqual([])
})

it('what was carried is carried once: the month after brings only what came since', async () => {
  const november = await ask('2025-11')
  // a lookup that nothing looks at changes nothing but what is known
  expect((await close('2025-11', november, { purpose: 'showback' })).status).toBe(200)
  // cost centres are told, nothing is posted
  const journal = await server.call('allocation/statements/journal?month=2025-11&measure=billedCost', { headers: as('Ines Moldal') })
  expect([journal.status, await journal.text()]).toEqual([409, expect.stringContaining('closed for showback')])
  expect(adjusted(await ask('2025-11'))).toEqual(adjusted(november))
  await deliver(server, 'bill', focusCsv([line('2025-12', 'ferry', '1')]))
  expect(adjusted(await ask('2025-12'))).toEqual([])
  // the correction is withdrawn: what was carried is taken back. By the rules 5.005 moves instead of 6, and 45.005 of 108.505 of the
  // network (4.15, which is 0.28 more) instead of 46 of 97
  await deliver(server, 'bill', focusCsv([...october, line('2025-09', 'ferry', '1')]))
  expect(adjusted(await ask('2025-12'))).toEqual([
    ['2025-10', 'ferry', 'EUR', 'charges', '13.03'],
    ['2025-10', 'freight', 'EUR', 'rules', '-1.065'],
    ['2025-10', null, 'EUR', 'charges', '-0.995'],
    ['2025-10', null, 'EUR', 'rules', '0.995'],
    ['2025-10', 'freight', 'EUR', 'charges', '-0.53'],
    ['2025-10', 'ferry', 'EUR', 'rules', '0.07'],
  ])
})

it('keeps the charges that a closed month refers to, whatever is loaded since, and over a start', async () => {
  for (const cost of ['1', '2', '3', '4', '5']) await deliver(server, 'bill', focusCsv([line('2025-10', 'ferry', cost)]))
  const kept = await ask('2025-10')
  expect(borne(kept)[0]).toEqual(['ferry', 'EUR', '66.14'])
  const versions = planVersions.parse(await server.json('allocation/versions'))
  expect(versions.versions.map(one => one.version)).toEqual([3, 2, 1])
  expect(planState.parse(await server.json('allocation/plan?version=1')).plan).toEqual(plan)
  expect((await server.call('allocation/plan?version=9')).status).toBe(404)
  await server.stop()
  const database = await openKept(server.folder)
  const charges = await database.query(
    `select load_id, sum(rows)::int from charge_segment where billing_period_start = '2025-10-01' group by load_id order by load_id`,
  )
  await database.close()
  // the first load is that of the closed month; of the others as many as can be stepped back to, and what counts
  expect(charges.map(([, rows]) => rows)).toEqual([5, 1, 1, 1, 1])
  const again = await startServer({ folder: server.folder })
  try {
    const reread = settlement.parse(await again.json('allocation/settlement?measure=billedCost&month=2025-10'))
    expect({ ...reread, revision: 0 }).toEqual({ ...kept, revision: 0 })
  } finally {
    await again.stop()
  }
})
