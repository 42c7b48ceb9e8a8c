import type { RateCard } from '../../ratecard/rate-card'
import { findKind } from '../components'
import type { Component, Estimate } from '../estimate'
import type { PricedEstimate } from '../pricing/priced'
import { rowAt } from '../scenarios/move'
import { mergeRows } from './notices'
import { keptText } from './typed-text'

/** An edit of an estimate. What it leaves as it is is the very same object: that is not priced again. */
export type Edit = (estimate: Estimate) => Estimate

const editRows =
  (edit: (rows: Component[]) => Component[]): Edit =>
  estimate => ({ ...estimate, components: edit(estimate.components) })

export const editRow = (id: string, edit: (row: Component) => Component): Edit =>
  editRows(rows => rows.map(row => (row.id === id ? edit(row) : row)))

/** Names of the parts of the workload, in the order of the sheet. */
export const partsOf = ({ components }: Pick<Estimate, 'components'>): string[] => [...new Set(components.map(row => row.part))]

/** Puts rows behind the last of the part that the first of them belongs to. */
export const insertRows = (added: readonly Component[]): Edit =>
  editRows(rows => {
    const last = rows.map(row => row.part).lastIndexOf(added[0]?.part ?? '')
    return rows.toSpliced(last < 0 ? rows.length : last + 1, 0, ...added)
  })

export const removeRows = (ids: readonly string[]): Edit => editRows(rows => rows.filter(row => !ids.includes(row.id)))

export const duplicateRow = (id: string, newId: string): Edit =>
  editRows(rows => {
    const at = rows.findIndex(row => row.id === id)
    return rows.toSpliced(at + 1, 0, { ...rows[at]!, id: newId })
  })

/** Makes one row of two that are alike, in the place of the first; leaves them where they cannot be one. */
export const mergeInto =
  (into: string, other: string): Edit =>
  estimate => {
    const rowOf = (id: string) => estimate.components.find(row => row.id === id)!
    const both = mergeRows(rowOf(into), rowOf(other))
    return both ? editRows(rows => rows.filter(row => row.id !== other).map(row => (row.id === into ? both : row)))(estimate) : estimate
  }

/** Moves a row before another, into that one's part; to the end without one. */
export const moveRowBefore = (id: string, target: string | null, part?: string): Edit =>
  editRows(rows => {
    const row = rows.find(one => one.id === id)!
    const others = rows.filter(one => one !== row)
    const at = target === null ? others.length : others.findIndex(one => one.id === target)
    return others.toSpliced(at, 0, { ...row, part: part ?? others[at]?.part ?? row.part })
  })

/** Moves a row one place up or down in the order of the sheet; at the edge of its part it goes over into the next first. */
export const moveRowBy =
  (id: string, step: 1 | -1): Edit =>
  estimate => {
    const shown = partsOf(estimate).flatMap(part => estimate.components.filter(row => row.part === part))
    const at = shown.findIndex(row => row.id === id)
    const [row, other] = [shown[at]!, shown[at + step]]
    if (!other) return estimate
    const rest = shown.filter(one => one.id !== id)
    const components = row.part !== other.part ? rest.toSpliced(at, 0, { ...row, part: other.part }) : rest.toSpliced(at + step, 0, row)
    return { ...estimate, components }
  }

export const renamePart =
  (from: string, to: string): Edit =>
  estimate => {
    const name = to.trim()
    return name && name !== from
      ? editRows(rows => rows.map(row => (row.part === from ? { ...row, part: name } : row)))(estimate)
      : estimate
  }

/** Takes everything that was assumed as meant so. */
export const confirmAll: Edit = editRows(rows =>
  rows.map(row => ({ ...row, confirmed: (findKind(row.kind)?.fields ?? []).map(field => field.name) })),
)

/** What is typed into an input, as it is kept: read by the field, and, where it is a choice, among what the row's place offers. */
function typedInto(row: Component | undefined, field: string, value: string, priced: PricedEstimate | null): string {
  const found = findKind(row?.kind ?? '')?.fields.find(one => one.name === field)
  const place = row && priced?.byId.get(row.id)?.place
  return found ? keptText(found, value, found.type === 'choice' && place ? found.options(place.card, place.region) : null) : value.trim()
}

/**
 * Sets an input of rows, as confirmed by whoever typed it. A row that goes elsewhere goes along as the same thing.
 * @param scenario the one in which it is set; null for the rows themselves.
 */
export const setInput =
  (
    ids: readonly string[],
    field: string,
    value: string,
    { scenario, priced, cards }: { scenario: string | null; priced: PricedEstimate | null; cards: ReadonlyMap<string, RateCard> },
  ): Edit =>
  estimate => {
    const wanted = new Set(ids)
    const text = (row: Component | undefined) => typedInto(row, field, value, priced)
    if (scenario !== null) {
      const rowOf = new Map(estimate.components.map(row => [row.id, row]))
      return editScenario(scenario, one => ({
        ...one,
        rows: { ...one.rows, ...Object.fromEntries(ids.map(id => [id, { ...one.rows[id], [field]: text(rowOf.get(id)) }])) },
      }))(estimate)
    }
    let isChanged = false
    const changed = (row: Component): Component => {
      isChanged = true
      if (field === 'where') return rowAt(row, value, estimate, cards)
      const confirmed = row.confirmed.includes(field) ? row.confirmed : [...row.confirmed, field]
      return { ...row, inputs: { ...row.inputs, [field]: text(row) }, confirmed }
    }
    const isSo = (row: Component) =>
      field === 'where' ? (row.inputs.where ?? '') === value : row.inputs[field] === text(row) && row.confirmed.includes(field)
    const components = estimate.components.map(row => (!wanted.has(row.id) || isSo(row) ? row : changed(row)))
    return isChanged ? { ...estimate, components } : estimate
  }

export const editScenario =
  (id: string, edit: (scenario: Estimate['scenarios'][number]) => Estimate['scenarios'][number]): Edit =>
  estimate => ({ ...estimate, scenarios: estimate.scenarios.map(one => (one.id === id ? edit(one) : one)) })

/** Takes back what a scenario changes of a row's input. */
export const dropOverride = (scenario: string, row: string, field: string): Edit =>
  editScenario(scenario, one => ({
    ...one,
    rows: { ...one.rows, [row]: Object.fromEntries(Object.entries(one.rows[row] ?? {}).filter(([name]) => name !== field)) },
  }))
