import { decimalText, type DecimalText } from '../../money/decimal'
import type { PriceLine } from '../../ratecard/rate-card'
import { evaluate } from '../../working/working'
import type { PricedComponent } from './price-row'
import { figureOf } from './ways-to-pay'

/** The card's line that a row runs on, or that its size or class names; null where it has none. */
export function lineOfRow({ charges, place, kind, inputs }: PricedComponent): PriceLine | null {
  const running = charges?.running?.[0]?.line
  if (running) return running
  const size = kind?.fields.find(field => field.type === 'choice' && field.meter && field.column === 'size')
  if (!place || size?.type !== 'choice') return null
  const { card, region } = place
  return card.prices.find(line => line.meter === size.meter && line.region === region && line.variant === inputs[size.name]) ?? null
}

/**
 * What one of the things that a row is counted by costs: its effective month divided by how many there are; a cost of null where there are
 * none. @returns null for a row that counts nothing, or that is not priced.
 */
export function costOfEach({ charges, chosen }: PricedComponent, termYears: number): { label: string; cost: DecimalText | null } | null {
  if (!charges?.each || !chosen) return null
  const many = evaluate(charges.each.count)
  return {
    label: charges.each.label,
    cost: many.gt(0) ? decimalText(evaluate(figureOf(chosen, 'effectiveMonthly', termYears)).div(many)) : null,
  }
}
