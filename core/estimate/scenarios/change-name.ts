import { findKind } from '../components'
import type { Estimate } from '../estimate'
import { inputText } from '../sheet/input-text'
import { MUTED } from '../pricing/overrides'
import { rowNames } from '../sheet/row-name'
import type { Change } from './layer'

const LONGEST = 80

/** What a change amounts to in the end, in words, by what it changes: for the name of a scenario. */
function changeParts(estimate: Pick<Estimate, 'components' | 'region'>, { whole, rows }: Pick<Change, 'whole' | 'rows'>): string[] {
  const names = rowNames(estimate.components)
  const everything = Object.entries(whole).map(([name, value]) =>
    name === 'where' ? `in ${value.slice(value.lastIndexOf('/') + 1) || estimate.region}` : `everything ${value}`,
  )
  const single = estimate.components.flatMap(({ id, kind }) => {
    const inputs = Object.hasOwn(rows, id) ? Object.entries(rows[id]!) : []
    if (!inputs.length) return []
    const fields = findKind(kind)?.fields ?? []
    const said = inputs.map(([name, value]) => {
      if (name === MUTED) return value === 'yes' ? 'left out' : 'counted again'
      if (name === 'where') return `in ${value.slice(value.lastIndexOf('/') + 1) || estimate.region}`
      const field = fields.find(f => f.name === name)
      if (!field) return value
      return field.type === 'choice' ? value : `${field.label} ${inputText(field, value)}`
    })
    return [`${names.get(id)!}: ${said.join(', ')}`]
  })
  return [...everything, ...single]
}

/** A name for a scenario, made of what holds in the end. */
export function changeName(estimate: Pick<Estimate, 'components' | 'region'>, change: Pick<Change, 'whole' | 'rows'>): string {
  const parts = changeParts(estimate, change)
  if (!parts.length) return 'as it stands'
  for (let shown = parts.length; shown > 0; shown--) {
    const name = [...parts.slice(0, shown), ...(shown < parts.length ? [`${parts.length - shown} more`] : [])].join('; ')
    if (name.length <= LONGEST) return name
  }
  return `${parts[0]!.slice(0, LONGEST - 12)}…${parts.length > 1 ? `; ${parts.length - 1} more` : ''}`
}
