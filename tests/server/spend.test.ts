import { beforeAll, expect, it } from 'vitest'
import { priceParts, spendAnswer } from '../../shared/contracts/spend'
import { charge, focusCsv } from '../support/charges'
import { deliver } from '../support/imports'
import { ownServer } from '../support/own-server'
import { post } from '../support/server'

const server = ownServer()
const day = (n: number) => ({
  ChargePeriodStart: `2026-10-${String(n).padStart(2, '0')}T00:00:00Z`,
  ChargePeriodEnd: `2026-10-${String(n + 1).padStart(2, '0')}T00:00:00Z`,
})
beforeAll(async () => {
  await deliver(
    server,
    'bill',
    focusCsv([
      charge({
        ...day(1),
        BilledCost: '10',
        EffectiveCost: '11',
        ServiceName: 'Servers',
        Tags: '{"team":"a"}',
        PricingQuantity: '100',
        ContractedUnitPrice: '0.1',
      }),
      charge({
        ...day(2),
        BilledCost: '20',
        EffectiveCost: '22',
        ServiceName: 'Servers',
        Tags: '{"team":"b"}',
        PricingQuantity: '200',
        ContractedUnitPrice: '0.1',
      }),
      charge({ ...day(2), BilledCost: '5.000000000000001', EffectiveCost: '5', ServiceName: 'Disks', RegionId: '' }),
      charge({
        ...day(3),
        BilledCost: '-4',
        EffectiveCost: '-4',
        ServiceName: 'Credits',
        ChargeCategory: 'Credit',
        BillingCurrency: 'USD',
      }),
    ]),
  )
})
const base = { measure: 'billedCost', splitBy: ['ServiceName'], grain: null, start: '2026-10-01', end: '2026-11-01' }
const ask = async (more: object = {}) => spendAnswer.parse(await server.json('spend/answer', post({ ...base, ...more })))

it('answers with every digit, largest first', async () => {
  expect(await ask()).toEqual({
    totals: [
      { currency: 'EUR', amount: '35.000000000000001' },
      { currency: 'USD', amount: '-4' },
    ],
    rows: [
      { values: { ServiceName: 'Servers' }, start: null, currency: 'EUR', amount: '30' },
      { values: { ServiceName: 'Disks' }, start: null, currency: 'EUR', amount: '5.000000000000001' },
      { values: { ServiceName: 'Credits' }, start: null, currency: 'USD', amount: '-4' },
    ],
    rest: null,
    revision: 1,
  })
})

it('narrows by values, by what is left out and by having none; the end is exclusive', async () => {
  expect((await ask({ keep: { 'Tags/team': ['a', null] } })).totals).toEqual([
    { currency: 'EUR', amount: '15.000000000000001' },
    { currency: 'USD', amount: '-4' },
  ])
  expect((await ask({ leaveOut: { 'Tags/team': [null] } })).totals).toEqual([{ currency: 'EUR', amount: '30' }])
  expect((await ask({ keep: { RegionId: [null] } })).totals).toEqual([{ currency: 'EUR', amount: '5.000000000000001' }])
  expect((await ask({ end: '2026-10-02' })).totals).toEqual([{ currency: 'EUR', amount: '10' }])
  expect((await ask({ measure: 'effectiveCost', splitBy: [], grain: 'day' })).rows.map(r => [r.start, r.amount])).toEqual([
    ['2026-10-01', '11'],
    ['2026-10-02', '27'],
    ['2026-10-03', '-4'],
  ])
  expect((await ask({ limit: 1 })).rest).toEqual({ count: 1, amounts: [{ currency: 'EUR', amount: '5.000000000000001' }] })
  expect(await ask({ keep: { ServiceName: ['nowhere'] } })).toMatchObject({ totals: [], rows: [], rest: null })
})

it.each([
  [{ splitBy: ['CostCentre/'] }, 'not a dimension'],
  [{ splitBy: ['Lookup/a'] }, 'Lookup/NAME/FIELD'],
  [{ splitBy: ['BilledCost'] }, 'not a dimension'],
  [{ keep: { Nonsense: ['x'] } }, 'not a dimension'],
  [{ measure: 'netCost' }, ''],
  [{ conditions: [{ dimension: 'Nonsense', keep: true, contains: 'x' }] }, 'not a dimension'],
  [{ reportCurrency: 'euro' }, 'three-letter'],
  [{ end: '2026-10-01' }, 'after start'],
  [{ start: '2026-02-30' }, ''],
  [{ splitBy: ['ServiceName', 'ServiceName'] }, 'once'],
  [{ limit: 0 }, ''],
])('refuses %j', async (wrong, reason) => {
  const response = await server.call('spend/answer', post({ ...base, ...wrong }))
  expect(response.status).toBe(422)
  expect(JSON.stringify(await response.json())).toContain(reason)
})

it('refuses a body that is not JSON', async () => {
  const response = await server.call('spend/answer', { method: 'POST', body: '{' })
  expect([response.status, response.headers.get('content-type')]).toEqual([400, 'application/problem+json'])
})

it('takes a narrowing apart into quantity × unit price', async () => {
  const { parts, rest } = priceParts.parse(await server.json('spend/price-parts', post({ ...base, keep: { ServiceName: ['Servers'] } })))
  expect(rest).toBeNull()
  expect(parts).toEqual([
    expect.objectContaining({
      unitPrice: '0.1',
      quantity: '300',
      amount: '30',
      charges: 2,
      firstDay: '2026-10-01',
      lastDay: '2026-10-02',
      pricingUnit: 'Hours',
    }),
  ])
})

it('counts the parts beyond the largest, so that all of them add up', async () => {
  const charges = Array.from({ length: 250 }, (_, i) =>
    charge({ BilledCost: '0.01', BillingAccountId: 'many', ServiceName: 'Many', SkuPriceId: `P${i}`, ...day(9) }),
  )
  await deliver(server, 'many', focusCsv(charges))
  const { parts, rest } = priceParts.parse(await server.json('spend/price-parts', post({ ...base, keep: { ServiceName: ['Many'] } })))
  expect(parts).toHaveLength(200)
  expect(rest).toEqual({ count: 50, amounts: [{ currency: 'EUR', amount: '0.5' }] })
})

it('takes writes only from its own pages', async () => {
  expect((await server.call('spend/answer', post(base, { origin: 'http://elsewhere.example' }))).status).toBe(403)
  expect((await server.call('spend/answer', post(base, { origin: 'null' }))).status).toBe(403)
  expect((await server.call('spend/answer', post(base, { origin: server.base }))).status).toBe(200)
})
