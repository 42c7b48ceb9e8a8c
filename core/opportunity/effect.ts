import type { DecimalText } from '../money/decimal'

/**
 * What an opportunity does to what is paid for a resource under a SKU, a month. `gone`: it is not charged any more; `less`: fewer units at
 * the same price; `cheaper`: as many units at another price, under whatever SKU.
 */
export type Effect = { resourceId: string; sku: string; how: 'gone' | 'less' | 'cheaper'; now: DecimalText; then: DecimalText }

/** Whether two can both be had on one charge: what is fewer can also be cheaper, and the other way round. */
export const goTogether = (a: Effect['how'], b: Effect['how']): boolean =>
  (a === 'less' && b === 'cheaper') || (a === 'cheaper' && b === 'less')

/** Equal for effects on one charge. */
export const chargeOf = ({ resourceId, sku }: Pick<Effect, 'resourceId' | 'sku'>): string => `${resourceId}\n${sku}`
