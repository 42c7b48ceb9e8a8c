import { expect, it } from 'vitest'
import { newEstimate } from '../../core/estimate/estimate'
import { writeEstimate } from '../../core/estimate/documents/estimate-file'
import { planState, settlement } from '../../shared/contracts/allocation'
import { estimateList, savedEstimate } from '../../shared/contracts/estimates'
import { allocationPlan, people } from '../../demo/organisation'
import { brackwaterCard } from '../../demo/rate-cards'
import { charge, focusCsv } from '../support/charges'
import { deliver } from '../support/imports'
import { ownServer } from '../support/own-server'
import { post, put } from '../support/server'
import { testRows } from '../support/test-card'

const server = ownServer()
const as = (name: string) => ({ cookie: `rain-barrel-person=${encodeURIComponent(name)}` })
const settled = async (measure = 'billedCost') =>
  settlement.parse(await server.json(`allocation/settlement?month=2026-10&measure=${measure}`))

it('says what is missing before anything is loaded', async () => {
  expect((await server.call('allocation/plan')).status).toBe(404)
  expect(await server.json('people')).toMatchObject({ people: [] })
  expect((await server.call('people/chosen', post({ id: 'nobody' }))).status).toBe(404)
})

it('takes people and cost centres in, and lets one work as a person', async () => {
  expect(await server.json('organisation', post({ people, plan: allocationPlan }))).toMatchObject({
    people: people.length,
    rules: allocationPlan.rules.length,
    version: 1,
  })
  const response = await server.call('people/chosen', post({ id: 'siri-vaage' }))
  expect(response.headers.get('set-cookie')).toContain('siri-vaage')
  const wrong = await server.call(
    'organisation',
    post({ people, plan: { ...allocationPlan, rules: [{ ...allocationPlan.rules[0], target: 'nowhere' }] } }),
  )
  expect(wrong.status).toBe(422)
  expect(JSON.stringify(await wrong.json())).toContain('no cost centre or pool «nowhere»')
})

it('overwrites nothing unseen: a file names the version it was held against; what is read can be sent back', async () => {
  const fewer = { ...allocationPlan, rules: allocationPlan.rules.slice(1) }
  const refused = await server.call('organisation', post({ people: [], plan: fewer }))
  expect(refused.status).toBe(409)
  expect(((await refused.json()) as { detail: string }).detail).toBe(
    'Version 1 is there, saved by nobody chosen. Beside it the file means: 8 people, 1 rule removed. Nothing was taken; to take it all the same, send it with basedOn 1.',
  )
  expect((await server.json<{ people: unknown[] }>('people')).people).toHaveLength(people.length)
  expect((await server.call('organisation', post({ people, plan: fewer, basedOn: 2 }))).status).toBe(409)

  const state = await server.json<{ people: object[]; plan: object; version: number }>('organisation')
  expect(state.plan).toEqual(allocationPlan)
  expect(state.people).toEqual(
    [...people].sort((a, b) => (a.name < b.name ? -1 : 1)).map(one => ({ ...{ bound: null, seesPools: false }, ...one })),
  )
  const { version, ...file } = state
  expect(await server.json('organisation', post({ ...file, basedOn: version }))).toMatchObject({ version: 2 })
  expect(await server.json('organisation')).toEqual({ ...file, version: 2 })
})

it('puts a billing month on cost centres, corrections of earlier days too, and proves it', async () => {
  await deliver(
    server,
    'bill',
    focusCsv([
      charge({ BilledCost: '100.01', SubAccountName: 'live-freight' }),
      charge({ BilledCost: '50', Tags: '{"team":"booking"}' }),
      charge({ BilledCost: '33.335', SubAccountName: 'build' }),
      charge({ BilledCost: '7', SubAccountName: 'sandbox' }),
      charge({
        BilledCost: '-2',
        SubAccountName: 'live-freight',
        ChargeClass: 'Correction',
        ChargePeriodStart: '2026-09-03T00:00:00Z',
        ChargePeriodEnd: '2026-09-04T00:00:00Z',
      }),
      charge({ BilledCost: '9', SubAccountName: 'build', BillingCurrency: 'USD' }),
    ]),
  )
  const { proof, statements, unallocated } = await settled()
  expect(proof).toEqual([
    { currency: 'EUR', bill: '188.345', direct: '148.01', shared: '33.335', unallocated: '7', equal: true },
    { currency: 'USD', bill: '9', direct: '0', shared: '9', unallocated: '0', equal: true },
  ])
  expect(statements.filter(s => s.currency === 'EUR').map(s => [s.centre, s.direct, s.shared])).toEqual([
    ['freight-desk', '98.01', '22.075'],
    ['booking', '50', '11.26'],
  ])
  expect(unallocated[0]).toMatchObject({ values: { SubAccountName: 'sandbox' }, amount: '7' })
})

it('a changed rule is previewed, saved with who, and every figure follows; an old version does not overwrite a new one', async () => {
  const { plan, version } = planState.parse(await server.json('allocation/plan'))
  const changed = {
    ...plan,
    rules: [{ id: 'new', conditions: [{ dimension: 'SubAccountName', values: ['sandbox'] }], target: 'data-lake' }, ...plan.rules],
  }
  const preview = settlement.parse(
    await server.json('allocation/preview', post({ plan: changed, month: '2026-10', measure: 'billedCost' })),
  )
  expect(preview.proof[0]).toMatchObject({ unallocated: '0', equal: true })
  expect((await settled()).proof[0]!.unallocated).toBe('7')
  expect(await server.json('allocation/plan', put({ basedOn: version, plan: changed }, as('Arvid Nes')))).toEqual({ version: version + 1 })
  expect(await server.json('allocation/plan')).toMatchObject({ who: 'Arvid Nes', version: version + 1 })
  expect((await settled()).proof[0]!.unallocated).toBe('0')
  const late = await server.call('allocation/plan', put({ basedOn: version, plan }))
  expect(late.status).toBe(409)
  expect(JSON.stringify(await late.json())).toContain('Arvid Nes')
})

it('takes rate cards, replaces one of the same day, refuses a bad one line by line', async () => {
  expect(await server.json('rate-cards', post(brackwaterCard))).toMatchObject({ replaced: false, changed: true })
  expect(await server.json('rate-cards', post(brackwaterCard))).toMatchObject({ replaced: true, changed: false })
  expect(await server.json('rate-cards/Brackwater%20Cloud')).toEqual(brackwaterCard)
  expect((await server.call('rate-cards/Brackwater%20Cloud?date=2020-01-01')).status).toBe(404)
  const bad = structuredClone(brackwaterCard)
  bad.prices[3]!.tiers[0]!.price = '-1'
  const response = await server.call('rate-cards', post(bad))
  expect(response.status).toBe(422)
  expect(await response.json()).toMatchObject({ errors: [{ field: 'prices.3.tiers.0.price' }] })
})

it('saves estimates version by version; who comes second is told, and nothing is lost', async () => {
  const id = crypto.randomUUID()
  const estimate = {
    ...newEstimate('test', brackwaterCard, 'low-coast'),
    components: testRows([['server', { size: 'reed-2x4', hoursPerMonth: '730', count: '3', pays: 'on-demand' }]]),
  }
  expect(await server.json(`estimates/${id}`, put({ basedOn: null, estimate }, as('Jon Aske')))).toEqual({ id, version: 1 })
  const saved = savedEstimate.parse(await server.json(`estimates/${id}`))
  expect(saved).toMatchObject({ version: 1, who: 'Jon Aske', estimate })
  expect(writeEstimate(saved.estimate)).toBe(writeEstimate(estimate))
  expect((await server.call(`estimates/${id}`, put({ basedOn: null, estimate }))).status).toBe(409)
  expect(await server.json(`estimates/${id}`, put({ basedOn: 1, estimate: { ...estimate, name: 'renamed' } }))).toEqual({ id, version: 2 })
  expect(estimateList.parse(await server.json('estimates')).estimates.map(e => [e.estimate!.name, e.version])).toEqual([['renamed', 2]])
  expect((await server.call('estimates/not-an-id', put({ basedOn: null, estimate }))).status).toBe(422)
  expect((await server.call(`estimates/${id}`, put({ basedOn: 2, estimate: { ...estimate, name: '' } }))).status).toBe(422)
  expect((await server.call(`estimates/${crypto.randomUUID()}`)).status).toBe(404)
})
