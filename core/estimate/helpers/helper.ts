import { input, type Working } from '../../working/working'
import { readNumber } from '../sheet/number-text'
import { keptText } from '../sheet/typed-text'
import { fieldProblem, usualValue, type ChoiceField, type NumberField } from '../components/field'
import type { RateCard } from '../../ratecard/rate-card'

/** A small form that makes one number out of things people know. */
export type Helper = {
  id: string
  label: string
  /** Which inputs it fills, written `kind.field`. */
  fills: readonly string[]
  fields: readonly (NumberField | ChoiceField)[]
  make: (typed: Typed) => Working
}
export type Typed = { number: (name: string) => Working; text: (name: string) => string }

// a helper asks no rate card
const noCard: RateCard = {
  provider: '',
  currency: 'EUR',
  validFrom: '2000-01-01',
  regions: [{ id: '', name: '' }],
  serverSizes: [],
  prices: [],
}

/** What a helper's field begins with. */
export const usualOf = (field: NumberField | ChoiceField): string => usualValue(field, noCard, '')

/** What a helper makes of its inputs, or what is wrong with them by field. */
export function runHelper(
  { fields, make }: Helper,
  inputs: Record<string, string>,
): { working: Working } | { problems: Record<string, string> } {
  const value = (name: string) => {
    const field = fields.find(f => f.name === name)!
    return inputs[name] === undefined ? usualOf(field) : keptText(field, inputs[name])
  }
  const problems: Record<string, string> = {}
  for (const field of fields) {
    const problem = fieldProblem(field, value(field.name), noCard, '')
    if (problem) problems[field.name] = problem
  }
  if (Object.keys(problems).length) return { problems }
  const label = (name: string) => fields.find(f => f.name === name)!
  return { working: make({ number: name => input(label(name).label, readNumber(value(name))!.likely, label(name).unit), text: value }) }
}
