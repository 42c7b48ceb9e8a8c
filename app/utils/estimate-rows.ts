import type { ShallowRef, Ref, ComputedRef } from 'vue'
import type { ReadLine } from '../../core/estimate/adding/read-line'
import { fillBlindSpot, type BlindSpotFound } from '../../core/estimate/blind-spots'
import { usualInputs, type ComponentKind } from '../../core/estimate/components/kind'
import { newRow, type Component, type Estimate } from '../../core/estimate/estimate'
import { fillPattern, type Pattern } from '../../core/estimate/pattern'
import { findPlace } from '../../core/estimate/pricing/place'
import type { PricedEstimate } from '../../core/estimate/pricing/priced'
import { relocate } from '../../core/estimate/scenarios/move'
import * as edit from '../../core/estimate/sheet/edit-rows'
import { keptDuplicate } from '../../core/estimate/sheet/notices'
import type { RateCard } from '../../core/ratecard/rate-card'

/** The estimate being worked on, as actions on it see it. */
export type EstimateAtWork = {
  estimate: ShallowRef<Estimate | null>
  cards: ShallowRef<Map<string, RateCard>>
  priced: ComputedRef<PricedEstimate | null>
  /** The scenario that is looked at; null for the estimate as it stands. */
  scenarioId: Ref<string | null>
  /** One step of undo. */
  change: (edit: edit.Edit) => void
}

export const newId = () => crypto.randomUUID().slice(0, 8)

/** What can be done to the rows of an estimate. */
export function rowActions({ estimate, cards, priced, scenarioId, change }: EstimateAtWork) {
  const lastPart = () => edit.partsOf(estimate.value!).at(-1) ?? 'Workload'
  /** A row that begins as usual where it has not been said how. */
  const rowOf = (kind: ComponentKind, part: string, inputs: Record<string, string>) => {
    const place = findPlace(inputs.where ?? '', estimate.value!, cards.value)!
    const all = { ...usualInputs(kind, place.card, place.region, inputs), ...inputs }
    return newRow(newId(), part, kind.kind, all, { confirmed: Object.keys(inputs) })
  }
  function addRows(rows: Component[]): string[] {
    if (rows.length) change(edit.insertRows(rows))
    return rows.map(row => row.id)
  }
  const editRow = (id: string, change_: (row: Component) => Component) => change(edit.editRow(id, change_))
  const dismiss = (blindSpot: string, reason: string) => change(e => ({ ...e, dismissed: [...e.dismissed, { blindSpot, reason }] }))
  return {
    addRows,
    /** @returns the id of the new row. */
    add: (kind: ComponentKind, part = lastPart(), inputs: Record<string, string> = {}) => addRows([rowOf(kind, part, inputs)])[0]!,
    /** Rows of lines that were read: what they give is chosen, the rest begins as usual. */
    addRead: (lines: readonly ReadLine[], part = lastPart()) => addRows(lines.map(({ kind, inputs }) => rowOf(kind, part, inputs))),
    addPattern: (pattern: Pattern, answers: Record<number, string>) => addRows(fillPattern(pattern, answers, newId)),
    addSpot: (spot: BlindSpotFound) => change(e => fillBlindSpot(e, spot.fix, newId())),
    dismiss,
    restore: (blindSpot: string) => change(e => ({ ...e, dismissed: e.dismissed.filter(one => one.blindSpot !== blindSpot) })),
    keepDuplicate: (id: string) => dismiss(keptDuplicate(id), 'meant to be there twice'),
    merge: (into: string, other: string) => change(edit.mergeInto(into, other)),
    /** Sets an input of rows: in the scenario that is looked at, else in the rows themselves. */
    set: (ids: string[], field: string, value: string) =>
      change(edit.setInput(ids, field, value, { scenario: scenarioId.value, priced: priced.value, cards: cards.value })),
    remove: (ids: string[]) => change(edit.removeRows(ids)),
    duplicate: (id: string) => change(edit.duplicateRow(id, newId())),
    mute: (id: string) => editRow(id, row => ({ ...row, muted: !row.muted })),
    setNote: (id: string, note: string) => editRow(id, row => ({ ...row, note })),
    setName: (id: string, name: string) => editRow(id, row => ({ ...row, name: name.trim().slice(0, 80) })),
    confirm: (id: string, field: string) => editRow(id, row => ({ ...row, confirmed: [...row.confirmed, field] })),
    confirmAll: () => change(edit.confirmAll),
    moveBefore: (id: string, target: string | null, part?: string) => change(edit.moveRowBefore(id, target, part)),
    moveBy: (id: string, step: 1 | -1) => change(edit.moveRowBy(id, step)),
    renamePart: (from: string, to: string) => change(edit.renamePart(from, to)),
    /** The estimate in another region: each row goes along as the same thing. */
    setRegion: (region: string) => change(e => relocate(e, cards.value, { provider: e.provider, region })),
  }
}
