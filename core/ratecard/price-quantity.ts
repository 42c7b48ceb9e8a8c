import { Decimal, zero } from '../money/decimal'
import { add, input, largerOf, multiply, type Working } from '../working/working'
import type { PriceLine } from './rate-card'

/** Where a row's quantity stands among rows that share tiers and a free allowance. */
export type Pooled = { before: Decimal, allowance: Decimal }
export const alone: Pooled = { before: zero, allowance: zero }

const smaller = (a: Decimal, b: Decimal) => a.lt(b) ? a : b
const larger = (a: Decimal, b: Decimal) => a.gt(b) ? a : b

/** The free units a month of a line, when one counts on them. */
export function allowanceOf(line: PriceLine, counted: boolean): Decimal {
  return counted ? new Decimal(line.freeAllowance ?? 0) : zero
}

/**
 * What a quantity costs at a line of a rate card, as Workings.
 * Graduated tiers: Σᵢ max(0, min(q, upperᵢ) − lowerᵢ) · pᵢ. Whole-volume tiers: q · p(tier that q reaches). A quantity below the
 * line's minimum is raised to it. Units within the free allowance cost nothing; the allowance and the tiers go on from what rows before
 * have drawn. (Common practice, no source.)
 * @param quantity in the line's unit, as Workings; not negative.
 */
export function priceQuantity(label: string, line: PriceLine, quantity: Working, quantityValue: Decimal, { before, allowance }: Pooled = alone): Working {
  const source = line.sku
  const minimum = new Decimal(line.minimumQuantity ?? 0)
  const raised = quantityValue.lt(minimum)
  const charged = raised ? minimum : quantityValue
  const chargedWorking = raised ? largerOf(`${label}, raised to the minimum`, [quantity, input('minimum', minimum, line.unit, source)], line.unit) : quantity
  const price = (value: string) => input('unit price', value, `per ${line.unit}`, source)
  const to = before.plus(charged)
  const free = larger(zero, smaller(to, allowance).minus(before))
  if (line.tiering === 'whole') {
    const reached = line.tiers.filter(tier => to.gte(tier.from)).at(-1)!
    const counted = free.gt(0) ? input('beyond the free allowance', charged.minus(free), line.unit) : chargedWorking
    return multiply(label, [counted, price(reached.price)])
  }
  if (line.tiers.length === 1 && free.eq(0)) return multiply(label, [chargedWorking, price(line.tiers[0]!.price)])
  const parts: Working[] = free.gt(0) ? [multiply('within the free allowance', [input('free units', free, line.unit), input('unit price', 0, `per ${line.unit}`, source)])] : []
  line.tiers.forEach((tier, i) => {
    const lower = larger(larger(before, allowance), new Decimal(tier.from))
    const next = line.tiers[i + 1]
    const upper = next ? smaller(to, new Decimal(next.from)) : to
    if (upper.gt(lower)) parts.push(multiply(line.tiers.length > 1 ? `in the tier from ${tier.from} ${line.unit}` : 'beyond the free allowance', [input('units', upper.minus(lower), line.unit), price(tier.price)]))
  })
  return add(label, parts)
}
