// What people look for themselves: what things would cost otherwise, chosen and handed on as opportunities; rules of their own.
import { beforeAll, expect, it } from 'vitest'
import { otherwiseView, ownRulePreview, ownRules } from '../../shared/contracts/savings-own'
import { savingsState } from '../../shared/contracts/savings'
import type { PriceLine } from '../../core/ratecard/rate-card'
import { focusCsv } from '../support/charges'
import { cardOf, priceLine } from '../support/daily-charges'
import { daily, END } from '../support/filed-daily'
import { deliver } from '../support/imports'
import { ownServer } from '../support/own-server'
import { post } from '../support/server'

const server = ownServer()
const big = priceLine('server-hour', 'big', '0.4', {
  commitments: [{ years: 1, paid: 'paid monthly', upfrontPrice: '0', hourlyPrice: '0.5' }],
})
const small = priceLine('server-hour', 'small', '0.25')
const gb = priceLine('gateway-gb', null, '0.04')
const there: PriceLine = { ...big, sku: 'server-hour/big/there', region: 'there', tiers: [{ from: '0', price: '0.3' }] }
const size = (name: string, vcpu: number) => ({ size: name, vcpu, memoryGb: vcpu * 4 })
const card = cardOf([big, small, gb, there], {
  provider: 'Testcloud',
  regions: [
    { id: 'here', name: 'Here' },
    { id: 'there', name: 'There' },
  ],
  serverSizes: [size('big', 8), size('small', 4)],
})
const us = { Tags: '{"team":"us"}' }
const them = { Tags: '{"team":"them"}', SubAccountId: 'sub-2', SubAccountName: 'build' }
const charges = [
  ...daily('ours', big, '24', '9.6', us),
  ...daily('theirs', big, '12', '4.8', them),
  // what passes through it is not sold there
  ...daily('theirs', gb, '10', '0.4', them),
]
const sku = { provider: 'Testcloud', sku: big.sku }
const as = (person: string) => ({ cookie: `rain-barrel-person=${person}` })
const ask = async (body: object, person = 'analyst') => otherwiseView.parse(await server.json('savings/otherwise', post(body, as(person))))
const choose = (body: object, person = 'analyst') =>
  server.call('savings/otherwise/choices', post({ sku, isChosen: true, ...body }, as(person)))
const state = async (person = 'analyst') => savingsState.parse(await server.json('savings', { headers: as(person) }))
const chosen = async (person?: string) =>
  (await state(person)).opportunities
    .filter(({ detector }) => detector === 'chosen-otherwise')
    .map(one => [one.title, one.monthlySaving, one.owner])

beforeAll(async () => {
  const centre = (id: string, parent: string | null, owner: string | null = null) => ({ id, name: `Centre ${id}`, parent, owner })
  const rule = (team: string) => ({ id: team, conditions: [{ dimension: 'Tags/team', values: [team] }], target: team })
  const person = (id: string, more = {}) => ({ id, name: `The ${id}`, role: 'x', mail: null, ...more })
  const people = [person('analyst'), person('lead', { bound: ['us'] })]
  const plan = {
    centres: [centre('root', null), centre('us', 'root', 'lead'), centre('them', 'root')],
    pools: [],
    rules: [rule('us'), rule('them')],
  }
  await server.json('organisation', post({ people, plan }))
  await server.json('rate-cards', post(card))
  expect(await deliver(server, 'bill', focusCsv(charges))).toMatchObject({ state: 'loaded' })
})

it('prices what runs otherwise, for those that it can be had for', async () => {
  const { skus, found } = await ask({})
  // (30 × 9.60 + 30 × 4.80) × 730/720; gateways have nothing else to be
  expect(skus.map(one => [one.sku, one.resources, one.monthly])).toEqual([
    [big.sku, 2, '438'],
    [gb.sku, 1, '12.1666666667'],
  ])
  expect(found).toMatchObject({ ...sku, resources: 2, now: '450.1666666667', underSku: '438' })
  expect(found!.ways.map(({ key, then, saving, resources, chosen: of }) => [key, then, saving, resources, of])).toEqual([
    // 1095 h × 0.25, and what passes through
    ['variant/small', '285.9166666667', '164.25', 2, 0],
    // 730 h × 0.30: the other cannot be had there
    ['region/there', '219', '73', 1, 0],
    // 2 × 730 × 0.50, whatever is used
    ['pays/1 year, paid monthly', '742.1666666667', '-292', 2, 0],
  ])
  expect(found!.ways[0]!.share).toBeCloseTo(285.9166666667 / 450.1666666667, 12)
  const { found: opened } = await ask({ sku, way: 'region/there' })
  expect(opened!.ways[1]!.each!.map(one => [one.resourceName, one.now, one.then, one.saving, one.owner, one.why])).toEqual([
    ['ours', '292', '219', '73', 'The lead', null],
    ['theirs', '158.1666666667', null, null, null, 'There has no «S gateway in Here: passed, GB»'],
  ])
  expect((await ask({ keep: { SubAccountName: ['build'] } })).found).toMatchObject({ resources: 1, now: '158.1666666667' })
  expect((await ask({ keep: { SubAccountName: ['constructor'] } })).found).toBeNull()
  expect((await server.call('savings/otherwise', post({ keep: { nonsense: ['x'] } }))).status).toBe(422)
})

it('shows a lead their own, and nothing of the others', async () => {
  expect((await ask({}, 'lead')).found).toMatchObject({ resources: 1, now: '292' })
  expect((await choose({ way: 'variant/small', resources: ['id-theirs'] }, 'lead')).status).toBe(409)
})

it('makes what is chosen an opportunity, and takes it back; what saves nothing is not chosen', async () => {
  expect(await chosen()).toEqual([])
  const refused = await choose({ way: 'pays/1 year, paid monthly', resources: ['id-ours', 'id-theirs'] })
  expect(refused.status).toBe(409)
  expect(await refused.text()).toContain('ours: it would not cost less')
  // all or none
  expect((await choose({ way: 'region/there', resources: ['id-ours', 'id-theirs'] })).status).toBe(409)
  expect((await choose({ way: 'variant/none', resources: ['id-ours'] })).status).toBe(409)
  expect(await chosen()).toEqual([])

  const { found } = otherwiseView.parse(await (await choose({ way: 'variant/small', resources: ['id-ours', 'id-theirs'] })).json())
  expect(found!.ways.map(({ key, chosen: of }) => [key, of])).toContainEqual(['variant/small', 2])
  // 730 h and 365 h at 0.15 less
  expect(await chosen()).toEqual([
    ['ours as «small»', '109.5', 'The lead'],
    ['theirs as «small»', '54.75', null],
  ])
  expect(await chosen('lead')).toEqual([['ours as «small»', '109.5', 'The lead']])
  // of one resource and SKU one way holds: the newest
  expect((await choose({ way: 'region/there', resources: ['id-ours'] }, 'lead')).status).toBe(200)
  expect((await chosen())[0]).toEqual(['ours as «There»', '73', 'The lead'])
  expect((await choose({ way: 'region/there', resources: ['id-ours'], isChosen: false })).status).toBe(200)
  expect(await chosen()).toEqual([['theirs as «small»', '54.75', null]])
  // nobody takes back what is not theirs to see; whoever sees all does, whatever way it was chosen for
  expect((await choose({ way: 'variant/small', resources: ['id-theirs'], isChosen: false }, 'lead')).status).toBe(409)
  expect(await chosen()).toHaveLength(1)
  expect((await choose({ way: 'variant/gone', resources: ['id-theirs', 'id-gone'], isChosen: false })).status).toBe(200)
  expect(await chosen()).toEqual([])
})

const rule = (more = {}) => ({ name: 'build is dear', keep: { SubAccountName: ['build'] }, above: '158', currency: 'EUR', ...more })

it('a rule of one’s own is tried, kept, finds, and is deleted; what is none is refused', async () => {
  const preview = async (body: object) => ownRulePreview.parse(await server.json('savings/rules/preview', post(body)))
  expect(await preview(rule())).toEqual({ found: 1, monthly: '158.1666666667', titles: ['theirs: build is dear'], more: 0 })
  expect(await preview(rule({ above: '158.2' }))).toMatchObject({ found: 0, monthly: '0' })
  expect(await preview(rule({ keep: {}, above: '0' }))).toMatchObject({ found: 2, monthly: '450.1666666667' })
  expect((await state()).opportunities.filter(({ detector }) => detector === 'own-rule')).toEqual([])

  for (const wrong of [{ currency: 'XQQ' }, { above: '-1' }, { above: '1,5' }, { name: ' ' }, { keep: { nonsense: ['x'] } }])
    expect((await server.call('savings/rules', post(rule(wrong)))).status, JSON.stringify(wrong)).toBe(422)
  const { rules } = ownRules.parse(await server.json('savings/rules', post(rule(), as('analyst'))))
  expect(rules).toMatchObject([{ name: 'build is dear', above: '158', currency: 'EUR', found: 1, who: 'The analyst' }])
  const found = (await state()).opportunities.filter(({ detector }) => detector === 'own-rule')
  expect(found).toMatchObject([{ title: 'theirs: build is dear', monthlySaving: '158.1666666667', evidence: { to: END } }])
  expect((await server.call('savings/rules', { headers: as('lead') })).status).toBe(403)

  expect((await server.call(`savings/rules/${rules[0]!.id}`, { method: 'DELETE' })).status).toBe(200)
  expect((await server.call(`savings/rules/${rules[0]!.id}`, { method: 'DELETE' })).status).toBe(404)
  for (let i = 0; i < 50; i++) await server.json('savings/rules', post(rule({ name: `rule ${i}`, above: '999999' })))
  expect((await server.call('savings/rules', post(rule()))).status).toBe(409)
  expect((await state()).opportunities.filter(({ detector }) => detector === 'own-rule')).toEqual([])
})
