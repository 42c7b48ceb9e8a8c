import type { Question } from '../question'
import type { Sentence } from '../sentence'
import { scopeOf, type DataDays } from '../sentence-period'

/** A question, in one currency where the sentence reports in one. */
export type Asked = Question & { reportCurrency?: string }

/** A question of a sentence's charges. */
export function askedOf(sentence: Sentence, days: DataDays, more: Partial<Asked> = {}): Asked {
  const { measure, reportCurrency } = sentence
  return { measure, splitBy: [], grain: null, ...scopeOf(sentence, days), ...(reportCurrency && { reportCurrency }), ...more }
}
