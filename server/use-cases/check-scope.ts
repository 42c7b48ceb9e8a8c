import type { Condition, Narrowing } from '../../core/spend/question'
import { isDimension } from '../../core/spend/dimensions'
import { Problem } from '../problems/problem'

/** Refuses dimensions that are none. */
export function checkDimensions(names: string[]): void {
  const wrong = names.filter(name => !isDimension(name))
  if (!wrong.length) return
  throw new Problem(
    'invalid',
    'no-dimension',
    'Spend cannot be split or narrowed by that',
    `${wrong.map(name => `«${name}»`).join(', ')}: use a FOCUS text column such as ServiceName, a tag written Tags/KEY, a provider's own column x_NAME, or another of the dimensions listed by /api/v1/spend/dimensions.`,
    wrong.map(name => ({
      field: name,
      reason: name.startsWith('Lookup/') ? 'not a dimension: a lookup is named with its field, Lookup/NAME/FIELD' : 'not a dimension',
    })),
  )
}

/** Refuses a question whose splits or conditions name what is no dimension. */
export function checkScope({
  splitBy = [],
  keep,
  leaveOut,
  conditions = [],
}: {
  splitBy?: string[]
  keep: Narrowing
  leaveOut: Narrowing
  conditions?: Condition[]
}): void {
  checkDimensions([...splitBy, ...Object.keys(keep), ...Object.keys(leaveOut), ...conditions.map(condition => condition.dimension)])
}
