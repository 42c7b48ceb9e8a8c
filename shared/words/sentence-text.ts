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

/** Which charges are looked at, in words: `sub account live-fleet, service Servers or Disks, without region r1`; empty for all. */
export function scopeText({ keep, leaveOut, conditions }: Pick<Sentence, 'keep' | 'leaveOut' | 'conditions'>): string {
  const valuesText = ([dimension, values]: [string, (string | null)[]]) => {
    const shown = values.slice(0, MOST_VALUES).map(value => valueLabel(dimension, value))
    const more = values.length - shown.length
    return `${dimensionLabel(dimension)} ${[...shown, ...(more ? [`${more} more`] : [])].join(' or ')}`
  }
  return [
    ...Object.entries(keep).map(valuesText),
    ...Object.entries(leaveOut).map(entry => `without ${valuesText(entry)}`),
    ...conditions.map(condition => {
      const what = 'contains' in condition ? `with «${condition.contains}» in it` : `above ${condition.above}`
      return `${condition.keep ? '' : 'without '}${dimensionLabel(condition.dimension)} ${what}`
    }),
  ].join(', ')
}
const MOST_VALUES = 4
