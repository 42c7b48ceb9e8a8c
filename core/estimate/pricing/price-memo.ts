import type { Working } from '../../working/working'
import { findKind } from '../components'
import type { Inputs } from '../components/kind'
import type { Component, Estimate, Scenario } from '../estimate'
import type { LinePool } from './line-pools'
import { planRow, type Plan, type Settings } from './plan-row'
import { priceRow, type PricedComponent } from './price-row'
import type { MakeSum } from './totals'
import type { PricedEstimate } from './priced'
import { overridesOf } from './overrides'

/**
 * Remembers rows that were planned and priced and sums that were made: after an edit only what depends on it is computed again. One for
 * each sheet that is open.
 */
export class PriceMemo {
  /** By row, the newest first. */
  readonly plans = new Map<string, RememberedPlan[]>()
  readonly rows = new Map<string, RememberedRow[]>()
  readonly pools = new Map<string, Map<string, LinePool>>()
  readonly totals = new Map<string, { rows: PricedComponent[]; priced: PricedEstimate; estimate: Estimate; muted: string }>()
  private readonly sums = new Map<string, Working & { op: 'sum' }>()

  /** A sum; the very tree that was made under the key before while its parts are the same. */
  readonly sum: MakeSum = (key, label, parts) => {
    const known = this.sums.get(key)
    if (known && known.parts.length === parts.length && known.parts.every((part, i) => part === parts[i])) return known
    const made: Working & { op: 'sum' } = { op: 'sum', label, parts }
    this.sums.set(key, made)
    return made
  }
}
type RememberedPlan = {
  component: Component['inputs']
  kind: string
  pattern: string | null
  overrides: Inputs
  isWished: boolean
  settings: Settings
  rest: Working
  plan: Plan
}
type RememberedRow = { plan: Plan; counted: boolean; settings: Settings; pools: readonly (LinePool | undefined)[]; row: PricedComponent }

const REMEMBERED = 16
const sameInputs = (a: Inputs, b: Inputs) => {
  if (a === b) return true
  const keys = Object.keys(a)
  return keys.length === Object.keys(b).length && keys.every(key => a[key] === b[key])
}
function remember<T>(lists: Map<string, T[]>, id: string, holds: (one: T) => boolean, make: () => T): T {
  const list = lists.get(id) ?? lists.set(id, []).get(id)!
  const at = list.findIndex(holds)
  if (at >= 0) return list[at]!
  const made = make()
  list.unshift(made)
  if (list.length > REMEMBERED) list.pop()
  return made
}
const sameSettings = (a: Settings, b: Settings) => a.key === b.key && a.prices === b.prices

/** A row planned, or as it was planned before where nothing that it depends on has changed. */
export function rememberedPlan(component: Component, scenario: Scenario | null, settings: Settings, rest: Working, memo: PriceMemo): Plan {
  const overrides = overridesOf(scenario, findKind(component.kind), component.id)
  const isWished =
    scenario?.whole.pays !== undefined && (!Object.hasOwn(scenario.rows, component.id) || scenario.rows[component.id]!.pays === undefined)
  return remember(
    memo.plans,
    component.id,
    p =>
      p.isWished === isWished &&
      p.kind === component.kind &&
      p.pattern === component.pattern &&
      p.rest === rest &&
      sameSettings(p.settings, settings) &&
      sameInputs(p.component, component.inputs) &&
      sameInputs(p.overrides, overrides),
    () => ({
      component: component.inputs,
      kind: component.kind,
      pattern: component.pattern,
      overrides,
      isWished,
      settings,
      rest,
      plan: planRow(component, overrides, settings, rest, isWished),
    }),
  ).plan
}

/** A row priced, or as it was priced before where nothing that it depends on has changed. */
export function rememberedRow(
  plan: Plan,
  pools: ReadonlyMap<string, LinePool>,
  counted: boolean,
  settings: Settings,
  memo: PriceMemo,
): PricedComponent {
  const used = plan.priced ? plan.priced.keys.map(key => pools.get(key)) : []
  return remember(
    memo.rows,
    plan.id,
    r =>
      r.plan === plan &&
      r.counted === counted &&
      sameSettings(r.settings, settings) &&
      r.pools.length === used.length &&
      r.pools.every((pool, i) => pool === used[i]),
    () => ({ plan, counted, settings, pools: used, row: priceRow(plan, pools, counted, settings) }),
  ).row
}
