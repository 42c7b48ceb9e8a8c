import { withCompanions } from '../companions'
import type { Answer, Narrowing } from '../question'
import type { Sentence } from '../sentence'
import type { Reaching } from '../sentence-period'
import type { Asked } from './asked'
import { rowsOf, type Label, type SpendRow } from './rows'

/** A column of the Steps as it is asked for. `of` is the value chosen to its left; `counted` whether it shows quantity. */
export type StepAsked = {
  dimension: string
  of: { dimension: string; value: string | null } | null
  now: Asked
  before: Asked
  counted: boolean
}
export type StepColumn = Pick<StepAsked, 'dimension' | 'of'> & { rows: SpendRow[]; total: string; unit: string; units: string[] }

/** Whether a value is chosen in every column of the Steps. */
export const stepsDone = ({ steps, stepOrder }: Pick<Sentence, 'steps' | 'stepOrder'>): boolean => steps.length >= stepOrder.length

/** A question for every column that is open: the first, and each behind a chosen value. */
export function stepQuestions(sentence: Sentence, question: (more: Partial<Asked>) => Asked, before: Reaching): StepAsked[] {
  const keep: Narrowing = { ...sentence.keep }
  const found: StepAsked[] = []
  for (const [index, dimension] of sentence.stepOrder.entries()) {
    const left = index === 0 ? null : sentence.steps[index - 1]
    if (index > 0 && !left) break
    if (left) keep[left.dimension] = [left.value]
    const counted = sentence.stepQuantity.includes(index)
    const { reportCurrency, ...now } = question({
      splitBy: withCompanions([dimension]),
      keep: { ...keep },
      ...(counted && { measure: 'pricingQuantity' }),
    })
    const asked = reportCurrency && !counted ? { ...now, reportCurrency } : now
    found.push({ dimension, of: left ?? null, now: asked, before: { ...asked, ...before }, counted })
  }
  return found
}

/** A column of the Steps, largest first. Quantities of several units never add: the unit with most rows is shown, the others are named. */
export function stepColumn({ dimension, of, counted }: StepAsked, now: Answer, before: Answer, currency: string, label: Label): StepColumn {
  const rowsIn = (unit: string) => now.rows.filter(row => row.currency === unit).length
  const units = counted ? [...new Set(now.rows.map(row => row.currency))].sort((a, b) => rowsIn(b) - rowsIn(a)) : []
  const unit = counted ? (units[0] ?? '') : currency
  const rows = rowsOf(now, before, [dimension], unit, label).sort((a, b) => Number(b.amount) - Number(a.amount))
  return { dimension, of, rows, unit, units, total: now.totals.find(total => total.currency === unit)?.amount ?? '0' }
}
