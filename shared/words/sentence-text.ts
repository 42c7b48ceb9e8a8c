import type { Sentence } from '../../core/spend/sentence'
import type { Period } from '../../core/time/period'
import { dimensionLabel, valueLabel } from './dimensions'
import { periodText, rollingNames } from './periods'
import { measureNames } from './table-heads'

/** A short name for what a sentence looks at: `effective cost by service, October 2026, live-fleet`. */
export function sentenceTitle(sentence: Sentence, period: Period): string {
  const kept = Object.entries(sentence.keep).flatMap(([dimension, values]) => values.map(value => valueLabel(dimension, value)))
  const by = sentence.splitBy.map(dimensionLabel).join(' and ')
  return [
    `${measureNames[sentence.measure]}${by ? ` by ${by}` : ''}`,
    typeof sentence.period === 'string' ? rollingNames[sentence.period] : periodText(period),
    ...kept.slice(0, 2),
    ...(kept.length > 2 ? [`${kept.length - 2} more`] : []),
  ].join(', ')
}
