import type { Decimal } from '../money/decimal'
import { zero } from '../money/decimal'
import { ESTIMATE_MONTH_HOURS } from '../time/day'
import type { Effect } from './effect'

/** Units and costs that a resource was charged under a SKU, in a pricing category, over some whole days. */
export type Charged = {
  sku: string
  unit: string | null
  /** As FOCUS has it, such as `Standard` and `Committed`. */
  category: string | null
  units: Decimal
  effective: Decimal
  billed: Decimal
}

/**
 * What the deed and others left free of a commitment that had covered the resource, and what nobody uses of it, in effective cost over the
 * days since; both never below zero. `freed` by this deed, `freedInAll` by all that were done in these days, this one included.
 */
export type FreedCommitment = { id: string; freed: Decimal; freedInAll: Decimal; unusedMore: Decimal }

/** What the bill has of a resource: on whole days before it was acted on, and since, the day itself included. */
export type BillFacts = {
  before: readonly Charged[]
  daysBefore: number
  since: readonly Charged[]
  daysSince: number
  commitments?: readonly FreedCommitment[]
}

/** How what was saved under a SKU is made up. */
export type RealisedLine = {
  sku: string
  unit: string | null
  category: string | null
  how: Effect['how']
  unitsBefore: Decimal
  costBefore: Decimal
  /** The use that would have been: as much a day as before, or, where it is only cheaper, what was really used. */
  unitsElse: Decimal
  unitsSince: Decimal
  counterfactual: Decimal
  actual: Decimal
}
/** `unused`: by commitment, what of it was left free and is used by nobody: it is paid all the same, and not in `effective`. */
export type Realised = { lines: RealisedLine[]; unused: { commitment: string; amount: Decimal }[]; effective: Decimal; billed: Decimal }

/** The pricing category of what a commitment covers. Source: FOCUS 1.1, PricingCategory. */
export const COMMITTED = 'Committed'
export const isCommitted = ({ category }: { category: string | null }): boolean => category === COMMITTED

/**
 * Realised saving, SKU by SKU: counterfactual (unit price before × use that would have been) less what is charged since, in effective cost
 * and, apart, in billed cost; from the bill alone. Where something was made cheaper, what is charged since under SKUs that were not there
 * before counts against it, and their units of the same kind are the use. Of a commitment that the resource leaves free, what nobody uses
 * did not fall: it counts against what is seen in effective cost, shared among all that left it free by how much each did.
 * @returns null while the bill reaches no day since, or had nothing before.
 */
export function realisedSaving(effects: readonly Pick<Effect, 'sku' | 'how'>[], facts: BillFacts): Realised | null {
  const { before, daysBefore, since, daysSince } = facts
  if (daysSince <= 0 || daysBefore <= 0) return null
  // what is paid as it comes stands first: what has come instead is held against that
  const inTurn = [...before].sort((a, b) => Number(isCommitted(a)) - Number(isCommitted(b)))
  const hit = inTurn.flatMap(charged => {
    const effect = effects.find(({ sku }) => sku === charged.sku || sku === ANY)
    return effect && charged.units.gt(0) ? [{ charged, how: effect.how }] : []
  })
  if (!hit.length) return null
  const known = new Set(before.map(keyOf))
  const unknown = since.filter(one => !known.has(keyOf(one)))
  const anew = hit.some(({ how }) => how === 'cheaper') ? unknown : []
  const taken = new Set<Charged>()
  const lines = hit.map(({ charged, how }) => {
    // what has come instead stands with the first of the same unit that was made cheaper, or with the same SKU where that is paid otherwise
    const instead = unknown.filter(one => one.unit === charged.unit && (how === 'cheaper' || one.sku === charged.sku) && !taken.has(one))
    for (const one of instead) taken.add(one)
    const own = [...since.filter(one => keyOf(one) === keyOf(charged)), ...instead]
    const used = total(own, 'units')
    const unitsElse = how === 'cheaper' ? used : charged.units.times(daysSince).div(daysBefore)
    const at = (cost: Decimal) => cost.times(unitsElse).div(charged.units)
    return { charged, how, own, unitsElse, at }
  })
  // what is charged anew in another unit counts against the whole
  const further = anew.filter(one => !taken.has(one))
  const unused = (hit.some(({ charged }) => isCommitted(charged)) ? (facts.commitments ?? []) : []).flatMap(unusedOf)
  const saved = (cost: 'effective' | 'billed') =>
    lines.reduce((sum, { charged, own, at }) => sum.plus(at(charged[cost])).minus(total(own, cost)), zero).minus(total(further, cost))
  return {
    lines: [
      ...lines.map(({ charged, how, own, unitsElse, at }) => ({
        ...{ sku: charged.sku, unit: charged.unit, category: charged.category, how, unitsElse },
        ...{ unitsBefore: charged.units, costBefore: charged.effective, unitsSince: total(own, 'units') },
        ...{ counterfactual: at(charged.effective), actual: total(own, 'effective') },
      })),
      ...further.map(({ sku, unit, category, units, effective }) => ({
        ...{ sku, unit, category, how: 'cheaper' as const, unitsBefore: zero, costBefore: zero, unitsElse: zero },
        ...{ unitsSince: units, counterfactual: zero, actual: effective },
      })),
    ],
    unused,
    effective: unused.reduce((sum, { amount }) => sum.minus(amount), saved('effective')),
    billed: saved('billed'),
  }
}

/** Stands for every SKU of a resource: what was found before effects were kept says no more. */
export const ANY = ''

/** The deed's share of what nobody uses of a commitment: no more than it left free itself. */
function unusedOf({ id, freed, freedInAll, unusedMore }: FreedCommitment): Realised['unused'] {
  if (freed.lte(0) || unusedMore.lte(0)) return []
  const amount = unusedMore.gte(freedInAll) ? freed : unusedMore.times(freed).div(freedInAll)
  return [{ commitment: id, amount }]
}

const keyOf = ({ sku, unit, category }: Charged) => `${sku}\n${unit}\n${category}`
const total = (list: readonly Charged[], what: 'units' | 'effective' | 'billed') => list.reduce((sum, one) => sum.plus(one[what]), zero)

/** What was promised for the hours since the deed: monthly saving / 730 × hours. */
export function promisedSince(monthlySaving: Decimal, hours: number): Decimal {
  return hours <= 0 ? zero : monthlySaving.times(hours).div(ESTIMATE_MONTH_HOURS)
}
