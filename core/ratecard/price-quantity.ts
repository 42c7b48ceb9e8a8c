import { zero } from '../money/decimal'
import { input, largerOf, type Working, type WorkingTiered } from '../working/working'
import type { PriceLine } from './rate-card'

/** Where a row's quantity stands among rows that share tiers and a free allowance: what rows before it have drawn. */
export type Pooled = { before: Working, allowance: Working }
export const alone: Pooled = { before: input('drawn before', zero), allowance: input('free units', zero) }

/** The free units a month of a line, when one counts on them. */
export function allowanceOf(line: PriceLine, counted: boolean): Working {
  return counted && line.freeAllowance ? input('free units', line.freeAllowance, line.unit, line.sku) : alone.allowance
}

/** Whether rows that use the line share something: its tiers, or its free units. */
export function isPooled(line: PriceLine): boolean {
  return line.tiers.length > 1 || line.freeAllowance !== undefined
}

/**
 * What a quantity costs at a line of a rate card, as Workings: its tiers (see `stretchesOf`), with the quantity raised to the line's
 * minimum where it has one. (Common practice, no source.)
 * @param quantity in the line's unit; not negative.
 */
export function priceQuantity(label: string, line: PriceLine, quantity: Working, { before, allowance }: Pooled = alone): WorkingTiered {
  const charged = line.minimumQuantity === undefined ? quantity : largerOf(`${quantity.label}, at least the minimum`, [quantity, input('minimum', line.minimumQuantity, line.unit, line.sku)], line.unit)
  return { op: 'tiered', label, unit: line.unit, source: line.sku, tiering: line.tiering, tiers: line.tiers.map(({ from, price }) => ({ from, price })), parts: [charged, before, allowance] }
}
