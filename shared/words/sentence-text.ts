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
    const told = values.filter(value => value !== null)
    if (!told.length) return valueLabel(dimension, null)
    const shown = told.slice(0, MOST_VALUES)
    const more = told.length - shown.length
    const parts = [...shown, ...(more ? [`${more} more`] : []), ...(told.length < values.length ? ['none'] : [])]
    return `${dimensionLabel(dimension)} ${parts.join(' or ')}`
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
