import { expect, it } from 'vitest'
import { whyBraked } from '../../../core/standing-order/brakes'
import { conditionsOf, orderDefinition } from '../../../core/standing-order/definition'
import { isMadeWhen } from '../../../core/standing-order/made-within'
import { doesWords, findsWords, startsWords } from '../../../core/standing-order/order-words'

const sandbox = [{ dimension: 'SubAccountName', values: ['sandbox'] }]
const valid = {
  name: 'old trials',
  finds: { what: 'resources', conditions: sandbox, made: { when: 'before', days: 14 }, costAtLeast: '12.50' },
  ...{ waitDays: 0, does: { deed: 'notify', by: 'mail', otherwise: null, message: null }, starts: { by: 'person' } },
  brake: { resources: 10, monthlyCost: null },
}
const whyNot = (more: object) => orderDefinition.safeParse({ ...valid, ...more }).error?.issues.map(({ message }) => message) ?? []

it('takes what holds, and refuses with its reason what does not', () => {
  expect(whyNot({})).toEqual([])
  const everything = { what: 'resources', conditions: [], made: null, costAtLeast: null }
  expect(whyNot({ finds: everything })).toEqual(['this finds every resource there is: name at least one condition'])
  // what has no such tag is a condition by itself
  expect(whyNot({ finds: everything, does: { deed: 'tag owner', key: 'owner', form: 'mail' } })).toEqual([])
  expect(whyNot({ does: { deed: 'act' } })).toEqual([
    'only a saving can be acted on: look for savings, or choose what is done to resources',
  ])
  expect(whyNot({ finds: { what: 'savings', detectors: ['can-sleep'], conditions: [] }, starts: { by: 'event' } })).toEqual([
    'an event tells of a resource that is made: look for resources, or start by a schedule',
  ])
  expect(whyNot({ finds: { ...valid.finds, costAtLeast: '-1' } })).toEqual(['write an amount such as 250 or 12.50'])
  expect(whyNot({ finds: { ...valid.finds, costAtLeast: '0.0000000000000001' } })).toEqual(['write an amount such as 250 or 12.50'])
  expect(whyNot({ name: '  ' })).toHaveLength(1)
  expect(whyNot({ brake: { resources: 0, monthlyCost: null } })).toHaveLength(1)
  expect(whyNot({ finds: { ...valid.finds, made: { when: 'within', days: 0 } } })).toHaveLength(1)
})

it('knows which day lies in which time, at both edges and over the turn of a year', () => {
  type Made = Parameters<typeof isMadeWhen>[0]
  const is = (made: Made, firstDay: string | null, today = '2026-11-24', isOlder = false) =>
    isMadeWhen(made, { firstDay, isOlder, makings: [] }, today)
  const lastMonth = { when: 'last month' } as const
  expect(['2026-09-30', '2026-10-01', '2026-10-31', '2026-11-01'].map(on => is(lastMonth, on))).toEqual([false, true, true, false])
  expect(['2025-11-30', '2025-12-01', '2025-12-31', '2026-01-01'].map(on => is(lastMonth, on, '2026-01-15'))).toEqual([
    false,
    true,
    true,
    false,
  ])
  const since = { when: 'since last month' } as const
  expect(['2026-09-30', '2026-10-01', '2026-11-24'].map(on => is(since, on))).toEqual([false, true, true])
  const within = { when: 'within', days: 3 } as const
  expect(['2026-11-21', '2026-11-22', '2026-11-24'].map(on => is(within, on))).toEqual([false, true, true])
  const before = { when: 'before', days: 14 } as const
  expect(['2026-11-09', '2026-11-10'].map(on => is(before, on))).toEqual([true, false])
  expect(is(since, null)).toBe(false)
  // charged since its provider's charges begin, it may be any older: surely so old, and not surely so young
  expect([since, within, lastMonth].map(made => is(made, '2026-11-23', '2026-11-24', true))).toEqual([false, false, false])
  expect([is(before, '2026-11-09', '2026-11-24', true), is(before, '2026-11-10', '2026-11-24', true)]).toEqual([true, false])
  // an event says more than the first charge
  const making = [{ id: 'e', by: 'x', raw: null, at: '2026-10-31T23:59:00Z' }]
  expect(isMadeWhen(lastMonth, { firstDay: '2026-11-01', isOlder: true, makings: making }, '2026-11-24')).toBe(true)
})

it('brakes above so many and above so much of one currency, and adds no two', () => {
  const costing = (...costOfMonth: { currency: string; amount: string }[]) => ({ costOfMonth })
  const eur = (amount: string) => costing({ currency: 'EUR', amount })
  const two = [eur('1'), eur('2')]
  expect(whyBraked(two, { resources: 2, monthlyCost: null })).toBeNull()
  expect(whyBraked(two, { resources: 1, monthlyCost: null })).toBe('it would touch 2 resources; its brake is at 1')
  expect(whyBraked([eur('99.99'), eur('0.01')], { resources: 9, monthlyCost: '100' })).toBeNull()
  expect(whyBraked([eur('99.99'), eur('0.02')], { resources: 9, monthlyCost: '100' })).toBe(
    'it would touch what costs 100.01 EUR a month; its brake is at 100',
  )
  expect(whyBraked([eur('60'), costing({ currency: 'USD', amount: '60' })], { resources: 9, monthlyCost: '100' })).toBeNull()
  expect(whyBraked([], { resources: 1, monthlyCost: '0' })).toBeNull()
})

it('says itself in words, and looks only at what lacks the tag that it sets', () => {
  const order = orderDefinition.parse(valid)
  expect(findsWords(order)).toBe('resources where sub account is sandbox, made more than 14 days ago, that cost 12.50 a month or more')
  const tags = { ...order, does: { deed: 'tag', key: 'product', value: { from: 'text', text: 'trial' } } } as const
  expect([findsWords(tags), doesWords(tags.does)]).toEqual([
    'resources without the tag product where sub account is sandbox, made more than 14 days ago, that cost 12.50 a month or more',
    'sets the tag product to «trial»',
  ])
  expect(conditionsOf(tags)).toEqual([...sandbox, { dimension: 'Tags/product', values: [null] }])
  expect(conditionsOf(order)).toEqual(sandbox)
  const savings = { ...order, finds: { what: 'savings', detectors: ['can-sleep', 'disk-left-behind'], conditions: [] } } as const
  expect(findsWords({ ...savings, finds: { ...savings.finds, detectors: [...savings.finds.detectors], conditions: [] } })).toBe(
    'savings of the kind Could sleep in hours without use or Disks that outlived their machine',
  )
  expect(startsWords({ by: 'schedule', every: { count: 2, unit: 'week' } })).toBe('every 2 weeks')
  expect(startsWords({ by: 'schedule', every: { count: 1, unit: 'day' } })).toBe('every day')
})
