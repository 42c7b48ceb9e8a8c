import { expect, it } from 'vitest'
import { newEstimate } from '../../../core/estimate/estimate'
import { figureText, priceEstimate } from '../../../core/estimate/pricing/price-estimate'
import { upliftSetSchema, upliftsFor, type StoredUplift } from '../../../core/uplift/uplift-set'
import { brackwaterCard } from '../../../demo/rate-cards'
import { pricesOf, testRows } from '../../support/test-card'

const set = (more: Partial<StoredUplift>): StoredUplift => ({
  id: 'x',
  name: 'Care',
  currency: 'EUR',
  interval: 'month',
  validFrom: '2026-01-01',
  who: 'Ines',
  setAt: '2026-01-01T00:00:00Z',
  attached: [{ to: 'kind', key: 'server', variant: null }],
  charges: [{ by: 'flat', label: 'care', amount: '5' }],
  ...more,
})
const cost = (uplifts: StoredUplift[], inputs: Record<string, string> = {}, kind = 'server', pattern: string | null = null, more = {}) => {
  const components = testRows([[kind, kind === 'server' ? { size: 'otter-2x8', ...inputs } : inputs]]).map(c => ({ ...c, pattern }))
  return Number(
    figureText(
      priceEstimate({ ...newEstimate('t', brackwaterCard, 'low-coast'), components, ...more }, { ...pricesOf(brackwaterCard), uplifts })
        .total.effectiveMonthly,
    ),
  )
}
const plain = (inputs = {}, kind = 'server') => cost([], inputs, kind)

it('adds what holds for the whole kind and what holds for a variant; of a pattern too', () => {
  const whole = set({ id: 'a' })
  const variant = set({
    id: 'b',
    attached: [{ to: 'kind', key: 'server', variant: 'otter-2x8' }],
    charges: [{ by: 'flat', label: 'v', amount: '7' }],
  })
  const pattern = set({
    id: 'c',
    attached: [{ to: 'pattern', key: 'web', variant: null }],
    charges: [{ by: 'flat', label: 'p', amount: '1' }],
  })
  expect(cost([whole, variant])).toBeCloseTo(plain() + 12, 9)
  expect(cost([whole, variant], { size: 'otter-4x16' })).toBeCloseTo(plain({ size: 'otter-4x16' }) + 5, 9)
  expect(cost([pattern], {}, 'server', 'web')).toBeCloseTo(plain() + 1, 9)
  expect(cost([pattern])).toBe(plain())
  expect(upliftsFor([whole, variant, pattern], { kind: 'server', variant: 'otter-2x8', pattern: 'web' }).map(u => u.id)).toEqual([
    'a',
    'b',
    'c',
  ])
})

it('counts each of them, each hour that it runs, each unit, and percents of the amount', () => {
  expect(cost([set({})], { count: '3' })).toBeCloseTo(plain({ count: '3' }) + 15, 9)
  expect(
    cost([set({ interval: 'hour', charges: [{ by: 'flat', label: 'h', amount: '0.01' }] })], { count: '3', hoursPerMonth: '100' }),
  ).toBeCloseTo(plain({ count: '3', hoursPerMonth: '100' }) + 3, 9)
  expect(cost([set({ charges: [{ by: 'unit', label: 'u', amount: '2', unit: 'vCPU' }] })], { count: '3' })).toBeCloseTo(
    plain({ count: '3' }) + 12,
    9,
  )
  expect(cost([set({ charges: [{ by: 'percent', label: '%', amount: '10' }] })])).toBeCloseTo(plain() * 1.1, 9)
  expect(cost([set({ charges: [{ by: 'unit', label: 'u', amount: '2', unit: 'users' }] })])).toBe(plain())
})

it('comes after the discount, is converted, and stays out of the support plan', () => {
  const discounts = [{ provider: 'Brackwater Cloud', percent: '10' }]
  expect(cost([set({})], {}, 'server', null, { discounts })).toBeCloseTo(plain() * 0.9 + 5, 9)
  expect(cost([set({ currency: 'USD' })], {}, 'server', null, { rates: [{ from: 'USD', rate: '0.5', day: '2026-01-01' }] })).toBeCloseTo(
    plain() + 2.5,
    9,
  )
  const withSupport = (uplifts: StoredUplift[]) =>
    Number(
      figureText(
        priceEstimate(
          {
            ...newEstimate('t', brackwaterCard, 'low-coast'),
            components: testRows([
              ['server', { size: 'heron-16x128', count: '4' }],
              ['support', {}],
            ]),
          },
          { ...pricesOf(brackwaterCard), uplifts },
        ).byId.get('c1')!.chosen!.effectiveMonthly,
      ),
    )
  expect(withSupport([set({})])).toBe(withSupport([]))
})

it('refuses a set that says nothing or nonsense', () => {
  const wrong = (more: object) =>
    upliftSetSchema.safeParse({
      id: 'x',
      name: 'Care',
      currency: 'EUR',
      interval: 'month',
      validFrom: '2026-01-01',
      attached: [],
      charges: [{ by: 'flat', label: 'care', amount: '5' }],
      ...more,
    }).success
  expect([
    wrong({}),
    wrong({ charges: [] }),
    wrong({ charges: [{ by: 'flat', label: 'c', amount: 'much' }] }),
    wrong({ currency: 'EURO' }),
    wrong({ validFrom: '2026-02-30' }),
  ]).toEqual([true, false, false, false, false])
})
