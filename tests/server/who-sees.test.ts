// Two companies that differ only in what lies outside somebody's bound: every operation answers that person with the same bytes.
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { AllocationPlan } from '../../core/allocation/plan'
import { demoEstimates } from '../../demo/estimates'
import type { FileCharge } from '../../demo/focus-file'
import { opportunity as opportunities } from '../../server/db/schema'
import { allOperations } from '../../server/operations'
import { peopleList } from '../../shared/contracts/people'
import { charge, focusCsv } from '../support/charges'
import { ended } from '../support/imports'
import { openKept, post, put, remove, startServer, type Running } from '../support/server'

const centre = (id: string, parent: string | null = 'all') => ({ id, name: `The ${id}`, parent, owner: id === 'ours' ? 'lead' : null })
const team = (...values: string[]) => [{ dimension: 'Tags/team', values }]
const plan: AllocationPlan = {
  centres: [centre('all', null), centre('ours'), centre('below', 'ours'), centre('theirs')],
  pools: [{ id: 'power', name: 'Power', method: 'shares', shares: { below: '1', theirs: '3' } }],
  rules: [
    { id: 'ours', conditions: team('us'), target: 'ours' },
    { id: 'below', conditions: team('under us'), target: 'below' },
    { id: 'theirs', conditions: [{ dimension: 'Tags/team', pattern: 'secret*' }], target: 'theirs' },
    { id: 'power', conditions: [{ dimension: 'ServiceName', values: ['Power'] }], target: 'power' },
  ],
  trees: [{ id: 'more', name: 'More', centres: [centre('m', null)], pools: [], rules: [] }],
}
const person = (id: string, more: object) => ({ id, name: `The ${id}`, role: 'Somebody', ...more })
const people = [
  person('analyst', {}),
  person('lead', { bound: ['ours'] }),
  person('trusted', { bound: ['ours'], seesPools: true }),
  person('nothing', { bound: [] }),
]

const ours = [
  charge({ BilledCost: '10.001', Tags: '{"team":"us"}', ResourceId: 'our-server', ResourceName: 'our server' }),
  charge({ BilledCost: '20', Tags: '{"team":"under us"}', ChargePeriodStart: '2026-10-04T00:00:00Z', SubAccountId: 'sub-2' }),
  charge({ BilledCost: '5', Tags: '{"team":"us"}', BillingCurrency: 'USD', ServiceName: 'Disks', SkuId: 'SKU-2' }),
  // of this resource both have charges
  charge({ BilledCost: '7', Tags: '{"team":"us"}', ResourceId: 'shared-resource' }),
]
const pool = [charge({ BilledCost: '40', ServiceName: 'Power', ResourceId: 'plant' })]
const theirs = (mark: string, amounts: readonly string[]): FileCharge[] =>
  amounts.map((BilledCost, i) =>
    charge({
      ...{ BilledCost, SubAccountId: `secret ${mark} account`, SubAccountName: `secret ${mark}`, ServiceName: `secret ${mark} service` },
      ...{ ResourceId: i ? `secret-${mark}-${i}` : 'shared-resource', ResourceName: `secret ${mark}`, SkuId: `SECRET-${mark}-${i}` },
      ...{
        RegionId: `secret-${mark}`,
        RegionName: `secret ${mark}`,
        Tags: JSON.stringify({ team: `secret ${mark}`, [`secret-${mark}`]: 'x' }),
      },
      ...(i === 1 && { BillingCurrency: 'GBP', ChargePeriodStart: '2026-10-02T00:00:00Z', [`x_Secret${mark}`]: 'y' }),
      ...(i === 2 && { ChargePeriodStart: '2026-10-30T00:00:00Z', ChargePeriodEnd: '2026-10-31T00:00:00Z' }),
    }),
  )

const found = (id: string, tags: Record<string, string>) => ({
  id,
  ...{ detector: 'idle-gateway', connection: 'cloud' },
  state: 'spotted' as const,
  foundAt: '2026-11-01T00:00:00Z',
  body: {
    ...{ id, detector: 'idle-gateway', title: `Delete ${id}`, resourceId: id, resourceName: id, provider: 'Testcloud', region: 'r1' },
    ...{ subAccountName: 'live', tags, currency: 'EUR', monthlySaving: '36.5', minutesOfWork: 5, service: 'Gateways', oneOff: null },
    ...{ confidence: 'measured' as const, risk: 'little' as const },
    effects: [{ resourceId: id, sku: 'x', how: 'gone' as const, now: '36.5', then: '0' }],
    working: { op: 'input' as const, label: 'a month', value: '36.5', unit: 'EUR' },
    evidence: { from: '2026-10-01', to: '2026-10-31', series: [] },
  },
})

/** A company: its own files in the same order and of the same number. */
async function company(mark: string, outside: FileCharge[]): Promise<Running> {
  let server = await startServer()
  await server.json('organisation', post({ people, plan }))
  // what is theirs comes first in the one, and last in the other
  const [first, last] = mark === 'A' ? [outside, []] : [[], outside]
  const elsewhere = theirs(mark, ['1']).map(one => ({ ...one, BillingAccountId: `secret ${mark}` }))
  for (const [source, charges] of [
    ['bill', [...first, ...ours, ...pool, ...last]],
    [`secret ${mark} source`, elsewhere],
  ] as const) {
    const query = new URLSearchParams({ source, deliveredAt: '2026-11-02T00:00:00Z' })
    const { id } = await server.json<{ id: string }>(`imports?${query}`, { method: 'POST', body: focusCsv([...charges]) })
    expect((await ended(server, id)).state).toBe('loaded')
  }
  const accounts = { [`secret ${mark} account`]: { path: ['secret', mark], tags: { [`secret-${mark}-tag`]: 'secret' } } }
  const counted = (centre: string, value: string) => ({ centre, date: '2026-10', value })
  const measure = { unit: 'crossing', grain: 'month', values: [counted('ours', '4'), counted('theirs', mark === 'A' ? '7' : '900')] }
  const save = (name: string, more: object = {}) => server.json('measures', put({ measures: [{ ...measure, name, ...more }] }))
  await save('crossings')
  if (mark === 'B') await save('crossings', { basedOn: 1, values: [counted('theirs', '8')] })
  await save(`secret-${mark}-measure`, { values: [counted('theirs', '1')] })
  await server.json('spend/account-tree', put({ accounts, containerTags: { [`secret ${mark}`]: { [`hidden-${mark}`]: 'secret' } } }))
  const threshold = { detector: 'fee-without-use', key: 'days', subAccount: `secret ${mark} account`, value: mark === 'A' ? 3 : 7 }
  await server.json('savings/thresholds', put({ thresholds: [threshold] }))
  await server.stop()
  const database = await openKept(server.folder)
  await database.db
    .insert(opportunities)
    .values([
      ...(mark === 'A' ? [found(`secret-${mark}-gateway`, { team: `secret ${mark}` })] : []),
      found('our-gateway', { team: 'us' }),
    ] as (typeof opportunities.$inferInsert)[])
  await database.close()
  server = await startServer({ folder: server.folder })
  return server
}

let one: Running
let other: Running
beforeAll(async () => {
  one = await company('A', theirs('A', ['1000', '2.5', '3']))
  other = await company('B', theirs('B', ['0.01', '99', '-7', '123456789.123', '4']))
}, 120_000)
afterAll(async () => {
  for (const server of [one, other]) {
    await server.stop()
    remove(server.folder)
  }
})

const question = {
  measure: 'billedCost',
  splitBy: ['ServiceName'],
  grain: 'day',
  start: '2026-09-01',
  end: '2026-12-01',
  keep: {},
  leaveOut: {},
}
const splits = ['CostCentre', 'CostCentre/more', 'Tags/team', 'ResourceId', 'SubAccountName', 'SkuId', 'RegionId', 'AccountTree/1']
const period = (start: string, end: string) => ({ start, end })
const tag = { key: 'team', start: '2026-09-01', end: '2026-12-01', keep: {}, leaveOut: {} }
const secret = 'secret-A-1'
const columns = ['ChargePeriodStart', 'SubAccountName', 'ServiceName', 'ResourceId', 'BilledCost', 'BillingCurrency', 'Tags']

/** What is asked of each operation that shows charges; one that is missing here fails. */
const bounded: Record<string, [path: string, body?: unknown][]> = {
  'post /spend/answer': [
    ...splits.map((by): [string, unknown] => ['spend/answer', { ...question, splitBy: [by], limit: 1 }]),
    ['spend/answer', { ...question, splitBy: [], grain: null }],
    ['spend/answer', { ...question, keep: { CostCentre: ['theirs', 'power', null] } }],
    ['spend/answer', { ...question, keep: { CostCentre: ['theirs', 'below'] } }],
    ['spend/answer', { ...question, reportCurrency: 'EUR' }],
    ['spend/answer', { ...question, splitBy: ['Tags/secret-A'], conditions: [{ dimension: 'ServiceName', contains: 'e' }] }],
    ['spend/answer', { ...question, splitBy: ['nonsense'] }],
  ],
  'post /spend/answers': [
    ['spend/answers', { questions: [question, { ...question, splitBy: ['ResourceId'] }] }],
    ['spend/answers', { packed: true, questions: splits.map(by => ({ ...question, splitBy: [by] })) }],
  ],
  'post /spend/compare': [
    [
      'spend/compare',
      {
        ...{ measure: 'billedCost', splitBy: ['ServiceName', 'ResourceId'], keep: {}, leaveOut: {} },
        ...{ now: period('2026-10-05', '2026-11-01'), before: period('2026-10-01', '2026-10-05') },
      },
    ],
  ],
  'get /spend/dimensions': [['spend/dimensions']],
  'post /spend/price-parts': [['spend/price-parts', question]],
  'post /spend/used': [['spend/used', { month: '2026-10' }]],
  'post /spend/table': [
    ['spend/table', { question: { ...question, limit: undefined }, format: 'csv', currency: 'EUR', columns: ['share'] }],
    ['spend/table', { question, format: 'csv', currency: 'EUR', part: 'notes' }],
  ],
  'post /spend/lines': [['spend/lines', { question, columns, format: 'csv' }]],
  'post /spend/lines-size': [['spend/lines-size', { question, columns, format: 'csv' }]],
  'post /spend/tags/coverage': [['spend/tags/coverage', tag]],
  'post /spend/tags/late': [['spend/tags/late', tag]],
  'post /spend/tags/first-seen': [['spend/tags/first-seen', { keys: ['team', 'secret-A', 'secret-B'] }]],
  'get /resources': [['resources?id=our-server'], ['resources?id=shared-resource'], [`resources?id=${secret}`], ['resources?id=plant']],
  'get /resources/reported': [[`resources/reported?id=${secret}`], ['resources/reported?id=our-server']],
  'put /resources/note': [
    ['resources/note', { id: secret, body: 'mine' }],
    ['resources/note', { id: 'our-server', body: 'mine' }],
  ],
  'get /jump': ['secret', 'the', 'e', 'power', 'our'].map((q): [string] => [`jump?q=${q}`]),
  'get /allocation/statements/{format}': (['csv', 'journal'] as const).flatMap((format): [string][] => [
    [`allocation/statements/${format}?month=2026-10&measure=billedCost`],
    [`allocation/statements/${format}?month=2026-10&measure=billedCost&centre=theirs`],
    [`allocation/statements/${format}?month=2026-10&measure=billedCost&centre=nowhere`],
  ]),
  'get /allocation/settlement': [
    ['allocation/settlement?month=2026-10&measure=billedCost'],
    ['allocation/settlement?month=2026-10&measure=effectiveCost&tree=more'],
  ],
  'get /allocation/centres': [['allocation/centres']],
  'get /allocation/beside': [
    ['allocation/beside?month=2026-11&measure=billedCost'],
    ['allocation/beside?month=2026-10&measure=billedCost'],
  ],
  'get /measures': [['measures']],
  'get /measures/{name}': [['measures/crossings'], ['measures/secret-A-measure']],
  'get /unit-costs': (['direct', 'full'] as const).flatMap((of): [string][] => [
    [`unit-costs?measure=crossings&cost=billedCost&of=${of}&until=2026-11`],
    [`unit-costs?measure=secret-A-measure&cost=billedCost&of=${of}&until=2026-11`],
  ]),
  'get /savings': [['savings']],
  'post /savings/decisions': [
    ['savings/decisions', { ids: ['secret-A-gateway'], state: 'agreed' }],
    ['savings/decisions', { ids: ['our-gateway', 'secret-A-gateway'], note: 'ours and theirs: nothing is kept' }],
  ],
  'post /savings/otherwise': [
    ['savings/otherwise', {}],
    ['savings/otherwise', { keep: { SubAccountName: ['secret A'] } }],
    ['savings/otherwise', { sku: { provider: 'Testcloud', sku: 'SECRET-A-0' }, way: 'region/r1' }],
  ],
  'post /savings/otherwise/choices': [
    [
      'savings/otherwise/choices',
      { sku: { provider: 'Testcloud', sku: 'SKU-1' }, way: 'region/r1', resources: ['shared-resource', 'secret-A-1'], isChosen: true },
    ],
  ],
  'get /savings/bill': [['savings/bill']],
  'get /savings/lists': [['savings/lists']],
  'post /savings/lists': [['savings/lists', { ids: ['secret-A-gateway'], mail: false }]],
  'post /savings/lists/{id}/link': [['savings/lists/00000000-0000-4000-8000-000000000000/link', {}]],
  'delete /savings/lists/{id}': [['savings/lists/00000000-0000-4000-8000-000000000000', {}]],
  'post /savings/file': [
    ['savings/file', { ids: ['our-gateway'], format: 'csv' }],
    ['savings/file', { ids: ['our-gateway', 'secret-A-gateway'], format: 'json' }],
  ],
  'post /savings/preview': [
    ['savings/preview', { id: 'secret-A-gateway' }],
    ['savings/preview', { id: 'our-gateway' }],
  ],
  'post /savings/approve': [
    ['savings/approve', { id: 'secret-A-gateway' }],
    ['savings/approve', { id: 'our-gateway' }],
  ],
}

const as = (id: string) => ({ cookie: `rain-barrel-person=${id}` })
async function asked(server: Running, method: string, path: string, body: unknown, who: string): Promise<string> {
  const init: RequestInit = { method: method.toUpperCase(), headers: as(who) }
  const reply = await server.call(path, body === undefined ? init : { ...post(body, as(who)), method: method.toUpperCase() })
  // when a note was written is not what lies outside
  const text = (await reply.text()).replace(/"(savedAt)":"[^"]*"/g, '"$1":""')
  return `${reply.status} ${reply.headers.get('content-type')} ${reply.headers.get('content-disposition')}\n${text}`
}

const keyOf = ({ method, path }: { method: string; path: string }) => `${method} ${path}`
const having = (reach: string) => allOperations.filter(operation => operation.reach === reach)

it('has something to ask of every operation that shows charges', () => {
  expect(Object.keys(bounded).sort()).toEqual([...having('bounded').map(keyOf)].sort())
  expect(allOperations.filter(({ reach }) => !['bounded', 'common', 'company'].includes(reach))).toEqual([])
})

describe.each(['lead', 'trusted', 'nothing'])('for %s', who => {
  it.each(having('bounded').map(keyOf))('%s answers the same whatever lies outside', async key => {
    for (const [path, body] of bounded[key]!) {
      const method = key.split(' ')[0]!
      const [here, there] = [await asked(one, method, path, body, who), await asked(other, method, path, body, who)]
      expect(here).toBe(there)
      // what was asked may be named again
      expect(here.replaceAll(/secret-A-\w+|secret-[AB]\b(?=")/g, '')).not.toMatch(/secret/i)
    }
  })

  it.each(having('company').map(keyOf))('%s is for the whole company', async key => {
    const [method, path] = key.split(' ') as [string, string]
    const reply = await one.call(path.slice(1).replaceAll(/\{\w+\}/g, '1'), { method: method.toUpperCase(), headers: as(who) })
    expect([reply.status, ((await reply.json()) as { code: string }).code]).toEqual([403, 'whole-company'])
  })
})

it.each(
  having('common')
    .filter(({ method }) => method === 'get')
    .map(keyOf),
)('%s shows nothing of charges', async key => {
  const path = key
    .split(' ')[1]!
    .slice(1)
    .replaceAll(/\{\w+\}/g, '1')
  for (const who of ['lead', 'nothing'])
    expect(await asked(one, 'get', path, undefined, who)).toBe(await asked(other, 'get', path, undefined, who))
})

type Totals = { totals: { currency: string; amount: string }[]; rows: { values: Record<string, string | null>; amount: string }[] }
const total = async (server: Running, who: string, more: object = {}) => {
  const { totals } = await server.json<Totals>('spend/answer', post({ ...question, splitBy: [], grain: null, ...more }, as(who)))
  return totals.map(({ amount, currency }) => `${amount} ${currency}`)
}

it('whoever has a bound sees their cost centres and those below; whoever has none, or is nobody, sees all', async () => {
  expect(await total(one, 'lead')).toEqual(['37.001 EUR', '5 USD'])
  expect(await total(one, 'nothing')).toEqual([])
  expect(await total(one, 'analyst')).toEqual(['1081.001 EUR', '2.5 GBP', '5 USD'])
  expect(await total(one, 'somebody%20unknown')).toEqual(await total(one, 'analyst'))
  // as browsers said it before ids were kept
  expect(await total(one, 'The%20lead')).toEqual(['37.001 EUR', '5 USD'])
  const { who, me } = peopleList.parse(await one.json('people', { headers: as('The%20lead') }))
  expect([who, me]).toEqual(['The lead', { ...people[1], bound: [{ id: 'ours', name: 'The ours' }], seesPools: false }])
})

type Settled = { statements: { centre: string; shared: string; lines: { kind: string; amount: string; ofPool?: string | null }[] }[] }
it('what is borne of a pool is what the company’s settlement says; the whole pool shows with the permission only', async () => {
  const path = 'allocation/settlement?month=2026-10&measure=billedCost'
  const shares = async (who: string) =>
    (await one.json<Settled>(path, { headers: as(who) })).statements.flatMap(({ centre, lines }) =>
      lines.filter(({ kind }) => kind === 'share').map(({ amount, ofPool }) => [centre, amount, ofPool]),
    )
  expect(await shares('lead')).toEqual([['below', '10', null]])
  expect(await shares('trusted')).toEqual([['below', '10', '40']])
  expect((await shares('analyst')).sort()).toEqual([
    ['below', '10', '40'],
    ['theirs', '30', '40'],
  ])
})

it('a change of the rules, of people or of an alias changes at once what is within a bound', async () => {
  await other.json('spend/aliases', post({ dimension: 'Tags/team', spellings: ['under us'], as: 'nobody' }, as('analyst')))
  expect(await total(other, 'lead')).toEqual(['17.001 EUR', '5 USD'])
  await other.json('spend/aliases', post({ dimension: 'Tags/team', spellings: ['under us'], as: null }, as('analyst')))
  expect(await total(other, 'lead')).toEqual(['37.001 EUR', '5 USD'])
  const changed = people.map(one => (one.id === 'lead' ? { ...one, bound: ['below'] } : one))
  await other.json('organisation', post({ people: changed, plan, basedOn: 1 }, as('analyst')))
  expect(await total(other, 'lead')).toEqual(['20 EUR'])
})

it('what others have made is for whoever sees all that they see: estimates, Sentences, what is found by name', async () => {
  const estimate = { ...demoEstimates[0]!.states[0]!.estimate, name: 'secret estimate' }
  const save = (id: string, who: string, basedOn: number | null = null) => one.call(`estimates/${id}`, put({ basedOn, estimate }, as(who)))
  const seenBy = async (who: string) =>
    (await one.json<{ estimates: { id: string }[] }>('estimates', { headers: as(who) })).estimates.map(({ id }) => id.slice(-1)).sort()
  const id = (last: number) => `00000000-0000-4000-8000-00000000000${last}`
  expect((await save(id(1), 'analyst')).status).toBe(200)
  expect((await save(id(2), 'trusted')).status).toBe(200)
  expect((await save(id(3), 'lead')).status).toBe(200)
  expect([await seenBy('analyst'), await seenBy('lead'), await seenBy('nothing')]).toEqual([['1', '2', '3'], ['2', '3'], []])
  // one that somebody has saved who sees more is theirs from then on
  expect((await save(id(2), 'analyst', 1)).status).toBe(200)
  expect(await seenBy('lead')).toEqual(['3'])
  for (const path of ['', '/versions', '/links'])
    expect((await one.call(`estimates/${id(1)}${path}`, { headers: as('lead') })).status).toBe(404)
  expect((await save(id(1), 'lead', 1)).status).toBe(404)
  expect(
    (await one.call(`estimates/${id(1)}/export`, post({ format: 'csv', audience: 'own', version: 1, scenario: null }, as('lead')))).status,
  ).toBe(404)
  const sentence = { name: 'secret sentence', shared: true, body: { query: { split: 'ServiceName' } } }
  await one.json('sentences/by-analyst', put(sentence, as('analyst')))
  await one.json('sentences/by-trusted', put(sentence, as('trusted')))
  const { sentences } = await one.json<{ sentences: { id: string; owner: string; mine: boolean }[] }>('sentences', { headers: as('lead') })
  expect(sentences.map(({ id, owner, mine }) => [id, owner, mine])).toEqual([['by-trusted', 'The trusted', false]])
  expect((await one.call('sentences/by-analyst/send', post({}, as('lead')))).status).toBe(404)
  const { found } = await one.json<{ found: { id: string }[] }>('jump?q=secret', { headers: as('lead') })
  expect(found.map(({ id }) => id)).toEqual(['by-trusted', id(3)])
})

it('refuses a bound that names no cost centre', async () => {
  const reply = await one.call('organisation', post({ people: [person('x', { bound: ['constructor'] })], plan }, as('analyst')))
  expect(reply.status).toBe(422)
  expect(await reply.text()).toContain('there is no cost centre «constructor»')
})
