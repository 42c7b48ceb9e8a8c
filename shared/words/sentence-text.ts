import type { SpendView } from '../../core/spend/view'
import type { Period } from '../../core/time/period'
import { dimensionLabel, valueLabel } from './dimensions'
import { periodText, rollingNames } from './periods'
import { measureNames } from './table-heads'

/** A short name for what a view looks at: `effective cost by service, October 2026, live-fleet`. */
export function viewTitle(view: SpendView, period: Period): string {
  const kept = Object.entries(view.keep).flatMap(([dimension, values]) => values.map(value => valueLabel(dimension, value)))
  const by = view.splitBy.map(dimensionLabel).join(' and ')
  return [
    `${measureNames[view.measure]}${by ? ` by ${by}` : ''}`,
    typeof view.period === 'string' ? rollingNames[view.period] : periodText(period),
    ...kept.slice(0, 2),
    ...(kept.length > 2 ? [`${kept.length - 2} more`] : []),
  ].join(', ')
}
