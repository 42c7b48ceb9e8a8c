import fc from 'fast-check'
import { expect, it } from 'vitest'
import { definitionOf, draftOf, emptyDraft } from '../../../app/utils/order-draft'
import { orderDefinition, type OrderDefinition } from '../../../core/standing-order/definition'
import { standingOrders } from '../../../demo/standing-orders'

const days = fc.integer({ min: 1, max: 3650 })
const amount = fc.option(fc.bigInt({ min: 0n, max: 10n ** 12n }).map(n => `${n / 100n}.${String(n % 100n).padStart(2, '0')}`))
const text = fc.string({ minLength: 1, maxLength: 40 }).filter(one => one.trim() === one && one.length > 0)
const conditions = fc.array(
  fc.record({
    dimension: fc.constantFrom('SubAccountName', 'Tags/team', 'Tags/constructor'),
    values: fc.constant<(string | null)[]>([null, 'x']),
  }),
  { maxLength: 3 },
)
const made = fc.option(
  fc.oneof(
    fc.constantFrom({ when: 'last month' } as const, { when: 'since last month' } as const),
    days.map(count => ({ when: 'within', days: count }) as const),
    days.map(count => ({ when: 'before', days: count }) as const),
  ),
)
const does = fc.oneof(
  fc.record({ deed: fc.constant('tag' as const), key: text, value: text.map(value => ({ from: 'text' as const, text: value })) }),
  fc.record({ deed: fc.constant('tag owner' as const), key: text, form: fc.constantFrom('mail' as const, 'name' as const, 'id' as const) }),
)
const definition: fc.Arbitrary<OrderDefinition> = fc.record({
  name: text,
  finds: fc.record({ what: fc.constant('resources' as const), conditions, made, costAtLeast: amount }),
  waitDays: fc.integer({ min: 0, max: 365 }),
  does,
  starts: fc.oneof(
    fc.constantFrom({ by: 'person' } as const, { by: 'event' } as const),
    fc.record({
      by: fc.constant('schedule' as const),
      every: fc.record({
        count: fc.integer({ min: 1, max: 366 }),
        unit: fc.constantFrom('hour' as const, 'day' as const, 'month' as const),
      }),
    }),
  ),
  brake: fc.record({ resources: fc.integer({ min: 1, max: 100_000 }), monthlyCost: amount }),
})

it('gives back what it was filled with, whatever an order is', () => {
  for (const order of standingOrders) expect(orderDefinition.parse(definitionOf(draftOf(order)))).toEqual(order)
  fc.assert(
    fc.property(definition, order => {
      expect(orderDefinition.parse(definitionOf(draftOf(order)))).toEqual(order)
    }),
  )
})

it('takes a comma for a point, nothing for none, and no number for what is not one', () => {
  const filled = { ...emptyDraft(), name: 'a', made: 'within' as const, costAtLeast: '12,5', brakeCost: ' ' }
  expect(orderDefinition.parse(definitionOf(filled))).toMatchObject({
    ...{ finds: { made: { when: 'within', days: 30 }, costAtLeast: '12.5' }, brake: { resources: 100, monthlyCost: null } },
  })
  const wrong = (more: object) =>
    orderDefinition.safeParse(definitionOf({ ...filled, ...more })).error?.issues.map(({ path }) => path.join('.'))
  expect(wrong({ madeDays: '3 days' })).toEqual(['finds.made.days'])
  expect(wrong({ waitDays: '-1' })).toEqual(['waitDays'])
  expect(wrong({ brakeResources: '' })).toEqual(['brake.resources'])
  expect(wrong({ costAtLeast: 'much' })).toEqual(['finds.costAtLeast'])
  expect(wrong({ what: 'savings' })).toEqual(['finds.detectors'])
})
