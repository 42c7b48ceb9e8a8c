import { isDimension } from '../../core/focus/star'
import { Problem } from './problem'

/** Refuses dimensions that are none, and those whose names are kept for later. */
export function checkDimensions(names: string[]): void {
  const wrong = names.filter(name => !isDimension(name))
  if (!wrong.length) return
  throw new Problem(422, 'no-dimension', 'Spend cannot be split or narrowed by that',
    `${wrong.map(name => `«${name}»`).join(', ')}: use a FOCUS text column such as ServiceName, or a tag written Tags/KEY.`,
    wrong.map(name => ({ field: name, reason: name === 'CostCentre' || name.startsWith('Lookup/') ? 'the name is reserved' : 'not a dimension' })))
}
