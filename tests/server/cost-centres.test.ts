import { expect, it } from 'vitest'
import type { AllocationPlan } from '../../core/allocation/plan'
import type { Lookup } from '../../core/spend/lookup'
import { settlement } from '../../shared/contracts/allocation'
import { resourceView } from '../../shared/contracts/resources'
import { dimensionList, spendAnswer, type SpendAnswer } from '../../shared/contracts/spend'
import { lookupState } from '../../shared/contracts/spend-settings'
import { charge, focusCsv } from '../support/charges'
import { deliver } from '../support/imports'
import { ownServer } from '../support/own-server'
import { post, put } from '../support/server'

const server = ownServer()
const centre = (id: string, parent: string | null = 'root') => ({ id, name: `Centre ${id}`, parent, owner: null })
const plan: AllocationPlan = {
  centres: [centre('root', null), centre('ferry'), centre('freight'), centre('office')],
  pools: [
    { id: 'power', name: 'Power', method: 'shares', shares: { cooling: '1', office: '3' } },
    { id: 'cooling', name: 'Cooling', method: 'direct cost' },
  ],
  rules: [
    { id: 'large', conditions: [{ measure: 'billedCost', atLeast: '1000' }], target: 'power' },
    { id: 'ferry', conditions: [{ dimension: 'Tags/team', values: ['ferry'] }], target: 'ferry' },
    { id: 'freight', conditions: [{ dimension: 'Lookup/divisions/division', values: ['freight'] }], target: 'freight' },
  ],
  trees: [
    {
      id: 'products',
      name: 'Products',
      centres: [centre('app', null)],
      pools: [],
      rules: [{ id: 'app', conditions: [{ dimension: 'ServiceName', pattern: 'serv*' }], target: 'app' }],
    },
  ],
}
const isMade = (dimension: string) => /^(CostCentre|Lookup)/.test(dimension)
const everything = {
  measure: 'billedCost',
  splitBy: ['CostCentre'],
  grain: null,
  start: '2026-01-01',
  end: '2027-01-01',
  keep: {},
  leaveOut: {},
}
const ask = async (more: object): Promise<SpendAnswer> =>
  spendAnswer.parse(await server.json('spend/answer', post({ ...everything, ...more })))
const byCentre = async (dimension = 'CostCentre', more: object = {}) =>
  (await ask({ splitBy: [dimension], ...more })).rows.map(row => `${row.values[dimension]} ${row.amount} ${row.currency}`).sort()
const settled = async (more = '') => settlement.parse(await server.json(`allocation/settlement?month=2026-10&measure=billedCost${more}`))

it('has no cost centres before there is a plan, and says so', async () => {
  await deliver(
    server,
    'bill',
    focusCsv([
      charge({ BilledCost: '10', Tags: '{"team":"ferry"}' }),
      charge({ BilledCost: '20', Tags: '{"team":"ferries"}', ResourceId: 'boat' }),
      charge({ BilledCost: '30', SubAccountName: 'cargo' }),
      charge({ BilledCost: '1000.01', ServiceName: 'Power' }),
      charge({ BilledCost: '999.99', Tags: '{"team":"ferry"}', BillingCurrency: 'USD' }),
      charge({ BilledCost: '7', SubAccountName: 'constructor' }),
    ]),
  )
  expect(await byCentre()).toEqual(['null 1067.01 EUR', 'null 999.99 USD'])
  const { found } = dimensionList.parse(await server.json('spend/dimensions'))
  expect(found.filter(isMade)).toEqual([])
})

it('makes a dimension of each field of a lookup, as soon as it is saved', async () => {
  const lookup: Lookup = {
    by: 'SubAccountName',
    fields: ['division', 'constructor'],
    entries: [
      { key: 'cargo', from: null, until: '2026-10-05', values: { division: 'shipping' } },
      { key: 'cargo', from: '2026-10-05', until: null, values: { division: 'freight', constructor: 'yes' } },
    ],
  }
  expect(await server.json('lookups/divisions', put(lookup))).toEqual({ name: 'divisions', entries: 2 })
  expect(await byCentre('Lookup/divisions/division')).toEqual(['freight 30 EUR', 'null 1037.01 EUR', 'null 999.99 USD'])
  expect(await byCentre('Lookup/divisions/constructor', { keep: { 'Lookup/divisions/division': ['freight'] } })).toEqual(['yes 30 EUR'])
  // what the product gives it takes back
  const kept = lookupState.parse(await server.json('lookups/divisions'))
  expect(kept.lookup).toEqual(lookup)
  await server.json('lookups/divisions', put({ ...kept.lookup, basedOn: kept.version }))
  expect(await server.json('lookups')).toMatchObject({ lookups: [{ name: 'divisions', by: 'SubAccountName', entries: 2 }] })
})

it.each([
  [{ by: 'Nonsense', fields: ['a'], entries: [] }, 'a lookup goes by'],
  [{ by: 'CostCentre', fields: ['a'], entries: [] }, 'a lookup goes by'],
  [{ by: 'SubAccountName', fields: [], entries: [] }, 'name at least one field'],
  [{ by: 'SubAccountName', fields: ['a', 'a'], entries: [] }, 'appears twice'],
  [{ by: 'SubAccountName', fields: ['a'], entries: [{ key: 'x', values: { b: '1' } }] }, 'has no field «b»'],
  [
    { by: 'SubAccountName', fields: ['a'], entries: [{ key: 'x', from: '2026-10-02', until: '2026-10-01', values: {} }] },
    'ends before it begins',
  ],
  [
    {
      by: 'SubAccountName',
      fields: ['a'],
      entries: [
        { key: 'x', until: '2026-10-10', values: {} },
        { key: 'y', values: {} },
        { key: 'x', from: '2026-10-09', values: {} },
      ],
    },
    'entry 1 holds too',
  ],
])('refuses the lookup %j and keeps nothing of it', async (wrong, reason) => {
  const response = await server.call('lookups/wrong', put(wrong))
  expect(response.status).toBe(422)
  expect(await response.text()).toContain(reason)
  expect((await server.call('lookups/wrong')).status).toBe(404)
})

it('knows whose every charge is as soon as a plan is saved: in answers, tables and lines, and as the settlement has it', async () => {
  await server.json('organisation', post({ people: [], plan }))
  const own = ['ferry 10 EUR', 'ferry 999.99 USD', 'freight 30 EUR', 'null 27 EUR', 'power 1000.01 EUR']
  expect(await byCentre()).toEqual(own)
  expect(await byCentre('CostCentreName', { keep: { CostCentre: ['power', 'freight'] } })).toEqual([
    'Centre freight 30 EUR',
    'Power 1000.01 EUR',
  ])
  expect(await byCentre('CostCentre/products')).toEqual(['app 67 EUR', 'app 999.99 USD', 'null 1000.01 EUR'])
  const { statements, proof, pools } = await settled()
  expect(proof.every(({ equal }) => equal)).toBe(true)
  expect(pools).toEqual([{ pool: 'power', currency: 'EUR', amount: '1000.01' }])
  // a quarter of power goes to cooling (250.0025, in cents 250.00), divided 10 : 30; office bears the rest
  expect(statements.map(s => [s.currency, s.centre, s.direct, s.shared])).toEqual([
    ['EUR', 'office', '0', '750.01'],
    ['EUR', 'freight', '30', '187.5'],
    ['EUR', 'ferry', '10', '62.5'],
    ['USD', 'ferry', '999.99', '0'],
  ])
  expect((await settled('&tree=products')).statements.map(s => [s.centre, s.currency, s.direct])).toEqual([
    ['app', 'EUR', '67'],
    ['app', 'USD', '999.99'],
  ])
  expect((await server.call('allocation/settlement?month=2026-10&measure=billedCost&tree=nowhere')).status).toBe(404)
  const question = { ...everything, splitBy: [], keep: { CostCentre: ['ferry'] } }
  const lines = await server.call('spend/lines', post({ question, columns: ['BilledCost', 'BillingCurrency'], format: 'csv' }))
  expect((await lines.text()).trim().split('\r\n').sort()).toEqual(['10,EUR', '999.99,USD', 'BilledCost,BillingCurrency'])
  const { found } = dimensionList.parse(await server.json('spend/dimensions'))
  expect(found.filter(isMade)).toEqual(['Lookup/divisions/division', 'Lookup/divisions/constructor', 'CostCentre', 'CostCentre/products'])
})

it('an alias moves everything together: settlement, answers and the page of a resource', async () => {
  const boat = async () => resourceView.parse(await server.json('resources?id=boat')).centre
  expect(await boat()).toBeNull()
  await server.json('spend/aliases', post({ dimension: 'Tags/team', spellings: ['ferries'], as: 'ferry' }))
  expect(await byCentre()).toEqual(['ferry 30 EUR', 'ferry 999.99 USD', 'freight 30 EUR', 'null 7 EUR', 'power 1000.01 EUR'])
  expect((await settled()).statements.find(s => s.centre === 'ferry' && s.currency === 'EUR')?.direct).toBe('30')
  expect(await boat()).toEqual({ name: 'Centre ferry', owner: null, rule: 'team tag is ferry' })
  await server.json('spend/aliases', post({ dimension: 'Tags/team', spellings: ['ferries'], as: null }))
  expect((await server.call('spend/aliases', post({ dimension: 'CostCentre', spellings: ['a'], as: 'b' }))).status).toBe(422)
})

it('compares direct costs in the currency that the company reports in, at the rates of the last day of the month', async () => {
  await server.json(
    'rates/table',
    post({
      lines: [
        { from: 'USD', to: 'EUR', 'valid from': '2026-10-31', rate: '0.5' },
        { from: 'USD', to: 'EUR', 'valid from': '2026-11-01', rate: '9' },
      ],
    }),
  )
  expect(await server.json('spend/report-currency', put({ reportCurrency: 'EUR' }))).toEqual({ reportCurrency: 'EUR' })
  expect((await server.call('spend/report-currency', put({ reportCurrency: 'EURO' }))).status).toBe(422)
  const { statements, proof } = await settled()
  // ferry has 10 EUR and 999.99 USD, 509.995 EUR; freight 30 EUR: of 250.00, 236.11 and 13.89
  expect(statements.filter(s => s.currency === 'EUR').map(s => [s.centre, s.shared])).toEqual([
    ['office', '750.01'],
    ['ferry', '236.11'],
    ['freight', '13.89'],
  ])
  expect(proof.every(({ equal }) => equal)).toBe(true)
  await server.json('spend/report-currency', put({ reportCurrency: null }))
})

it('gives up a preview that nobody waits for, and answers the next', async () => {
  const body = { plan, month: '2026-10', measure: 'billedCost' }
  const previews = Array.from({ length: 10 }, () => {
    const gone = new AbortController()
    const asked = server.call('allocation/preview', { ...post(body), signal: gone.signal }).catch(() => 'left')
    gone.abort()
    return asked
  })
  expect(await Promise.all(previews)).toEqual(previews.map(() => 'left'))
  expect(settlement.parse(await server.json('allocation/preview', post(body))).version).toBe(0)
})

it('takes a lookup away: its dimension has no values any more, and comes back with it', async () => {
  const { lookup } = lookupState.parse(await server.json('lookups/divisions'))
  expect((await server.call('lookups/divisions', { method: 'DELETE' })).status).toBe(200)
  expect((await server.call('lookups/divisions', { method: 'DELETE' })).status).toBe(404)
  expect(await byCentre()).toEqual(['ferry 10 EUR', 'ferry 999.99 USD', 'null 57 EUR', 'power 1000.01 EUR'])
  await server.json('lookups/divisions', put(lookup))
  expect(await byCentre()).toContain('freight 30 EUR')
})

it('keeps which tags are required, and refuses one that is named twice or has an empty value', async () => {
  const tags = [
    { key: 'constructor', values: ['live'] },
    { key: 'owner', sources: ['bill'], subAccounts: ['live'] },
  ]
  const kept = [
    { key: 'constructor', sources: [], subAccounts: [], values: ['live'] },
    { key: 'owner', sources: ['bill'], subAccounts: ['live'], values: [] },
  ]
  expect(await server.json('spend/required-tags', put({ tags }))).toEqual({ tags: kept })
  for (const wrong of [[{ key: 'a' }, { key: 'a' }], [{ key: ' ' }], [{ key: 'a', values: [''] }]])
    expect((await server.call('spend/required-tags', put({ tags: wrong }))).status, JSON.stringify(wrong)).toBe(422)
  const { body } = await server.json<{ body: { requiredTags: object[] } }>('spend/reference')
  expect(body.requiredTags).toEqual(kept)
})
