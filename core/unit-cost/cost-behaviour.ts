import { tQuantile } from './t-quantile'

/** A number with the interval in which it lies with 95 % confidence. */
export type Estimated = { value: number; low: number; high: number }
/** How a cost behaves: what there is of it whatever is counted, and what each one adds; how much of its variance that explains. */
export type CostBehaviour = { fixed: Estimated; variable: Estimated; explained: number; points: number }
/** Why nothing is said of it. */
export type NoBehaviour = { why: 'too few points' | 'always as many'; points: number }

/** Fewer points than this say nothing of a year's season. */
export const FEWEST_POINTS = 12
const CONFIDENCE = 0.95

/**
 * The fixed and the variable part of a cost, by ordinary least squares of cost on quantity: slope = Sxy ÷ Sxx, intercept = mean of costs −
 * slope × mean of quantities, each ± t(0.975; n − 2) × its standard error, with s² = Σ residual² ÷ (n − 2), se(slope)² = s² ÷ Sxx and
 * se(intercept)² = s² × (1 ÷ n + mean² ÷ Sxx). (Textbook formulas; held against two libraries in tests/reference.)
 * Floats: what is printed of it is rounded once.
 */
export function costBehaviour(points: readonly { quantity: number; cost: number }[]): CostBehaviour | NoBehaviour {
  const n = points.length
  if (n < FEWEST_POINTS) return { why: 'too few points', points: n }
  const mean = (of: 'quantity' | 'cost') => points.reduce((sum, point) => sum + point[of], 0) / n
  const [x, y] = [mean('quantity'), mean('cost')]
  let [sxx, sxy, syy] = [0, 0, 0]
  for (const { quantity, cost } of points) {
    sxx += (quantity - x) ** 2
    sxy += (quantity - x) * (cost - y)
    syy += (cost - y) ** 2
  }
  // what differs by rounding only does not differ
  if (sxx <= (x * Number.EPSILON) ** 2 * n) return { why: 'always as many', points: n }
  const slope = sxy / sxx
  const intercept = y - slope * x
  const unexplained = points.reduce((sum, { quantity, cost }) => sum + (cost - intercept - slope * quantity) ** 2, 0)
  const variance = unexplained / (n - 2)
  const t = tQuantile((1 + CONFIDENCE) / 2, n - 2)
  const around = (value: number, error: number): Estimated => ({ value, low: value - t * error, high: value + t * error })
  return {
    fixed: around(intercept, Math.sqrt(variance * (1 / n + x ** 2 / sxx))),
    variable: around(slope, Math.sqrt(variance / sxx)),
    explained: syy === 0 ? 1 : 1 - unexplained / syy,
    points: n,
  }
}
