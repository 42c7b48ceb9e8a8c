import { hasPlace, type ComponentKind, type Inputs } from '../components/kind'
import type { Component, Scenario } from '../estimate'

/** What a scenario changes of a row that it leaves alone. */
export const NO_OVERRIDES: Inputs = {}
/** The input by which a scenario leaves a row out. */
export const MUTED = 'muted'
const wholes = new WeakMap<Scenario, Map<ComponentKind, Inputs>>()

/** What a scenario changes in a row: what holds for the whole scenario, then what holds for the row. */
export function overridesOf(scenario: Scenario | null, kind: ComponentKind | undefined, id: string): Inputs {
  if (!scenario || !kind) return NO_OVERRIDES
  const byKind = wholes.get(scenario) ?? wholes.set(scenario, new Map()).get(scenario)!
  let whole = byKind.get(kind)
  if (!whole) {
    const entries = Object.entries(scenario.whole).filter(([name]) =>
      name === 'where' ? hasPlace(kind) : kind.fields.some(field => field.name === name),
    )
    whole = entries.length ? Object.fromEntries(entries) : NO_OVERRIDES
    byKind.set(kind, whole)
  }
  const own = Object.hasOwn(scenario.rows, id) ? scenario.rows[id] : undefined
  return own ? { ...whole, ...own } : whole
}

/** Whether a row is left out, by itself or by a scenario. */
export function isMuted(component: Component, scenario: Scenario | null): boolean {
  const own = scenario && Object.hasOwn(scenario.rows, component.id) ? scenario.rows[component.id]![MUTED] : undefined
  return own === undefined ? component.muted : own === 'yes'
}
