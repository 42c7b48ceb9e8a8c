import { Decimal, type DecimalText } from '../../money/decimal'
import type { PriceLine } from '../../ratecard/rate-card'

/** The dearest of a line's tiers: what is promised at it holds whichever tier is reached. */
export const dearestPrice = ({ tiers }: PriceLine): DecimalText =>
  tiers.map(({ price }) => price).reduce((most, price) => (new Decimal(price).gt(most) ? price : most))
