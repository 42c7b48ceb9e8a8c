import { expect, it } from 'vitest'
import { newEstimate } from '../../../core/estimate/estimate'
import { brackwaterCard as card } from '../../../demo/rate-cards'
import { pricesOf, priceTest, testRows } from '../../support/test-card'

it('a kind that was added is priced', () => {
  const price = Number(card.prices.find(p => p.meter === 'gateway-hour' && p.region === 'low-coast')!.tiers[0]!.price)
  const rows = testRows([['parking', { count: '3', hoursPerMonth: '100' }]])
  const { components, totals } = priceTest({ ...newEstimate('t', card, 'low-coast'), components: rows }, pricesOf(card))
  expect(components[0]!.problems).toEqual({})
  expect(Number(totals.effectiveMonthly)).toBeCloseTo(300 * price, 9)
})
