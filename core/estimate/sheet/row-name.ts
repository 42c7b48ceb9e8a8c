import { findKind } from '../components'
import type { Component } from '../estimate'

/** What a row is called: as people named it, else by its kind. */
export const rowLabel = ({ name, kind }: Pick<Component, 'name' | 'kind'>): string => name || (findKind(kind)?.label ?? kind)

/** A row with the part of the workload that it stands in. */
export const rowInPart = (component: Pick<Component, 'name' | 'kind' | 'part'>): string =>
  `${rowLabel(component)}${component.part ? ` in ${component.part}` : ''}`

/**
 * Names of all rows by id, no two alike: rows of one name are told apart by the part they stand in, then by their size, class or amount,
 * and where that is the same too by their number.
 */
export function rowNames(components: readonly Component[]): Map<string, string> {
  const names = new Map(components.map(c => [c.id, rowLabel(c)]))
  if (new Set(components.map(c => c.part)).size > 1) tellApart(names, new Map(components.map(c => [c.id, c.part && ` in ${c.part}`])))
  tellApart(names, new Map(components.map(c => [c.id, distinction(c) && `, ${distinction(c)}`])))
  const seen = new Map<string, number>()
  const alike = countOf(names.values())
  for (const { id } of components) {
    const name = names.get(id)!
    if (alike.get(name)! < 2) continue
    const number = (seen.get(name) ?? 0) + 1
    seen.set(name, number)
    names.set(id, `${name} (${number})`)
  }
  return names
}

function countOf(values: Iterable<string>): Map<string, number> {
  const counts = new Map<string, number>()
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1)
  return counts
}

function tellApart(names: Map<string, string>, by: ReadonlyMap<string, string>): void {
  const alike = countOf(names.values())
  for (const [id, name] of names) if (alike.get(name)! > 1 && by.get(id)) names.set(id, `${name}${by.get(id)!}`)
}

const distinction = ({ kind, inputs }: Component): string =>
  (findKind(kind)?.fields ?? [])
    .filter(f => f.column === 'size' || f.column === 'amount')
    .flatMap(f => inputs[f.name] || [])
    .slice(0, 1)
    .join('')
