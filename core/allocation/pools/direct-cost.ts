import { apportion } from '../../money/apportion'
import { minorUnit } from '../../money/scaled'
import type { PoolMethod } from './divide'

/**
 * Divides a pool in proportion to direct cost. Whole minor units are apportioned by largest remainders; what the pool holds below
 * a minor unit goes with the largest share, so that the parts add up to the pool to the last digit.
 * A basis that is zero or mixed in sign falls back to even parts and says so.
 */
export const directCost: PoolMethod = {
  method: 'direct cost',
  label: 'in proportion to direct cost',
  divide(amount, basis, currencyDecimals) {
    if (!basis.length) return { shares: [], fellBackToEven: null }
    const positive = basis.some(({ direct }) => direct > 0n)
    const negative = basis.some(({ direct }) => direct < 0n)
    const even = positive === negative
    const weights = basis.map(({ direct }) => (even ? 1n : direct < 0n ? -direct : direct))
    const unit = minorUnit(currencyDecimals)
    const parts = apportion(amount / unit, weights).map(units => units * unit)
    const largest = weights.reduce((best, weight, i) => (weight > weights[best]! ? i : best), 0)
    parts[largest]! += amount % unit
    return {
      shares: basis.map(({ centre }, i) => ({ centre, amount: parts[i]! })),
      fellBackToEven: even ? (positive ? 'direct costs are of both signs' : 'there are no direct costs') : null,
    }
  },
}
