import fc from 'fast-check'
import { expect, it } from 'vitest'
import { Decimal } from '../../../core/money/decimal'
import { allowanceOf, isPooled, priceQuantity, raisedBy } from '../../../core/ratecard/price-quantity'
import type { PriceLine } from '../../../core/ratecard/rate-card'
import { evaluate, input } from '../../../core/working/working'
import { outline } from '../../support/outline'

const line = (more: Partial<PriceLine> = {}): PriceLine => ({
  sku: 'S',
  service: 's',
  meter: 'transfer-out-gb',
  variant: null,
  region: 'r',
  unit: 'GB',
  tiering: 'graduated',
  tiers: [
    { from: '0', price: '0.09' },
    { from: '100', price: '0.07' },
    { from: '1000', price: '0.05' },
  ],
  ...more,
})
const cost = (of: PriceLine, quantity: Decimal | number, { allowance = 0 }: { allowance?: Decimal | number } = {}) =>
  evaluate(priceQuantity('x', of, input('q', quantity), input('free', allowance)))
const quantity = fc.integer({ min: 0, max: 5_000_000 }).map(n => new Decimal(n).div(1000))

/** Graduated tiers in the plainest way: unit by unit of a thousandth would be too slow, so tier by tier from the top. */
function plainly(q: Decimal): Decimal {
  const above1000 = q.gt(1000) ? q.minus(1000) : new Decimal(0)
  const above100 = q.gt(100) ? q.minus(100).minus(above1000) : new Decimal(0)
  return above1000.times('0.05').plus(above100.times('0.07')).plus(q.minus(above100).minus(above1000).times('0.09'))
}

it('prices graduated tiers', () => {
  expect(cost(line(), 150).toFixed()).toBe('12.5')
  fc.assert(
    fc.property(quantity, q => {
      expect(cost(line(), q).eq(plainly(q))).toBe(true)
    }),
  )
})

it('costs more for more, without a jump at a tier', () => {
  fc.assert(
    fc.property(quantity, quantity, (a, b) => {
      const [less, more] = a.lt(b) ? [a, b] : [b, a]
      expect(cost(line(), less).lte(cost(line(), more))).toBe(true)
      expect(cost(line(), more).minus(cost(line(), less)).lte(more.minus(less).times('0.09'))).toBe(true)
    }),
  )
})

it('leaves the free allowance out and nothing else', () => {
  expect(cost(line(), 80, { allowance: new Decimal(100) }).toFixed()).toBe('0')
  expect(cost(line(), 150, { allowance: new Decimal(100) }).toFixed()).toBe('3.5')
})

it('prices whole-volume tiers by the tier that is reached', () => {
  const whole = line({ tiering: 'whole' })
  expect(cost(whole, 99).toFixed()).toBe('8.91')
  expect(cost(whole, 100).toFixed()).toBe('7')
  expect(cost(whole, 2000).toFixed()).toBe('100')
})

it('raises to the minimum and says so', () => {
  const minimum = line({ minimumQuantity: '10', tiers: [{ from: '0', price: '2' }] })
  const working = priceQuantity('x', minimum, input('q', 3))
  expect(evaluate(working).toFixed()).toBe('20')
  expect(JSON.stringify(working)).toContain('at least the minimum')
})

it('writes out minimum, least charge and free units', () => {
  const least = line({ minimumQuantity: '10', minimumCharge: '30', tiers: [{ from: '0', price: '2' }] })
  expect(outline(priceQuantity('data', least, input('sent', 3, 'GB'), allowanceOf(line({ freeAllowance: '4' }), true)))).toEqual([
    'data, at least the least charge = 30',
    '  data = 12 GB [S]', // ten of which four are free, at 2
    '    sent, at least the minimum = 10 GB',
    '      sent = 3 GB',
    '      minimum = 10 GB [S]',
    '    free units = 4 GB [S]',
    '  least charge a month = 30 [S]',
  ])
  expect(outline(priceQuantity('data', line({ minimumCharge: '1' }), input('sent', 100, 'GB')))[0]).toBe(
    'data, at least the least charge = 9',
  )
  // nobody draws: nothing is charged
  expect(outline(priceQuantity('data', least, input('sent', 0)))).toEqual(['data = 0 GB [S]', '  sent = 0', '  free units = 0'])
  // a plan that is a share of the spend is held whatever is spent
  const plan = line({ unit: 'Share of Spend', minimumCharge: '30', tiers: [{ from: '0', price: '0.1' }] })
  expect(outline(priceQuantity('plan', plan, input('spend', 0)))[0]).toBe('plan, at least the least charge = 30')
  const held = line({ unit: 'Share of Spend', minimumQuantity: '50', tiers: [{ from: '0', price: '0.1' }] })
  expect(cost(held, 0).toFixed()).toBe('5')
  expect(allowanceOf(line({ freeAllowance: '4' }), false)).toMatchObject({ label: 'free units', value: '0' })
  expect(allowanceOf(line(), true)).toMatchObject({ label: 'free units', value: '0' })
})

it('knows where rows that draw on a line share something', () => {
  const flat = { tiers: [{ from: '0', price: '2' }] }
  expect([
    isPooled(line(flat)),
    isPooled(line()),
    isPooled(line({ ...flat, freeAllowance: '1' })),
    isPooled(line({ ...flat, minimumQuantity: '1' })),
    isPooled(line({ ...flat, minimumCharge: '1' })),
  ]).toEqual([false, true, true, true, true])
})

it('says what raised a price: the quantity, else the least charge', () => {
  const raised = (more: Partial<PriceLine>, quantity: number, free = 0) =>
    raisedBy(line({ tiers: [{ from: '0', price: '2' }], ...more }), input('q', quantity), input('free', free))
  const both = { minimumQuantity: '10', minimumCharge: '30' }
  expect(raised(both, 9)).toEqual({ by: 'quantity', least: '10', unit: 'GB' })
  expect(raised(both, 10)).toEqual({ by: 'charge', least: '30', unit: '' })
  expect(raised(both, 14.9)).toEqual({ by: 'charge', least: '30', unit: '' })
  expect(raised(both, 15)).toBeNull()
  expect(raised(both, 15, 1)).toEqual({ by: 'charge', least: '30', unit: '' })
  expect([
    raised(both, 0),
    raised(both, -1),
    raised({}, 1),
    raised({ minimumQuantity: '10' }, 11),
    raised({ minimumCharge: '2' }, 1),
  ]).toEqual([null, null, null, null, null])
})
