import { zero } from '../money/decimal'
import { evaluate, input, largerOf, type Working, type WorkingTiered } from '../working/working'
import type { PriceLine } from './rate-card'

const noUnits = input('free units', zero)

/** The free units a month of a line, when one counts on them. */
export function allowanceOf(line: PriceLine, counted: boolean): Working {
  return counted && line.freeAllowance ? input('free units', line.freeAllowance, line.unit, line.sku) : noUnits
}

/**
 * Whether a unit's price depends on how many there are, so that rows that draw on the line share something: its tiers, free units or
 * minimum.
 */
export function isPooled(line: PriceLine): boolean {
  return line.tiers.length > 1 || line.freeAllowance !== undefined || line.minimumQuantity !== undefined || line.minimumCharge !== undefined
}

/** What raised a price: the line's least quantity or least charge. */
export type Raised = { by: 'quantity' | 'charge'; least: string; unit: string }

/**
 * What a quantity costs at a line of a rate card, as Workings: its tiers (see `stretchesOf`), the quantity raised to the line's minimum
 * and the amount to its least charge where it has them. What nobody draws is not charged, but for a plan that is a share of the spend: it
 * is held whatever is spent. (Common practice, no source.)
 * @param quantity of all that draw on the line, in its unit; not negative.
 */
export function priceQuantity(label: string, line: PriceLine, quantity: Working, allowance: Working = noUnits): Working {
  const isDrawn = line.unit === 'Share of Spend' || evaluate(quantity).gt(0)
  const charged =
    line.minimumQuantity === undefined || !isDrawn
      ? quantity
      : largerOf(
          `${quantity.label}, at least the minimum`,
          [quantity, input('minimum', line.minimumQuantity, line.unit, line.sku)],
          line.unit,
        )
  const priced: WorkingTiered = {
    op: 'tiered',
    label,
    unit: line.unit,
    source: line.sku,
    tiering: line.tiering,
    tiers: line.tiers.map(({ from, price }) => ({ from, price })),
    parts: [charged, allowance],
  }
  if (line.minimumCharge === undefined || !isDrawn) return priced
  return largerOf(`${label}, at least the least charge`, [priced, input('least charge a month', line.minimumCharge, undefined, line.sku)])
}

/** Whether a minimum of the line raised what a quantity costs; null when it did not. */
export function raisedBy(line: PriceLine, quantity: Working, allowance: Working = noUnits): Raised | null {
  const drawn = evaluate(quantity)
  if (drawn.lte(0)) return null
  if (line.minimumQuantity !== undefined && drawn.lt(line.minimumQuantity))
    return { by: 'quantity', least: line.minimumQuantity, unit: line.unit }
  const { minimumCharge, ...unraised } = line
  return minimumCharge !== undefined && evaluate(priceQuantity('', unraised, quantity, allowance)).lt(minimumCharge)
    ? { by: 'charge', least: minimumCharge, unit: '' }
    : null
}
