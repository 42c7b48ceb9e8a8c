import type { Decimal } from '../money/decimal'
import { zero } from '../money/decimal'
import { ESTIMATE_MONTH_HOURS } from '../time/day'
import type { Effect } from './effect'

/** Units and costs that a resource was charged under a SKU over some whole days. */
export type Charged = { sku: string; unit: string | null; units: Decimal; effective: Decimal; billed: Decimal }

/** What the bill has of a resource: on whole days before it was acted on, and since, the day itself included. */
export type BillFacts = { before: readonly Charged[]; daysBefore: number; since: readonly Charged[]; daysSince: number }

/** How what was saved under a SKU is made up. */
export type RealisedLine = {
  sku: string
  unit: string | null
  how: Effect['how']
  unitsBefore: Decimal
  costBefore: Decimal
  /** The use that would have been: as much a day as before, or, where it is only cheaper, what was really used. */
  unitsElse: Decimal
  unitsSince: Decimal
  counterfactual: Decimal
  actual: Decimal
}
export type Realised = { lines: RealisedLine[]; effective: Decimal; billed: Decimal }

/**
 * Realised saving, SKU by SKU: counterfactual (unit price before × use that would have been) less what is charged since, in effective cost
 * and, apart, in billed cost; from the bill alone. Where something was made cheaper, what is charged since under SKUs that were not there
 * before counts against it, and their units of the same kind are the use.
 * @returns null while the bill reaches no day since, or had nothing before.
 */
export function realisedSaving(effects: readonly Pick<Effect, 'sku' | 'how'>[], facts: BillFacts): Realised | null {
  const { before, daysBefore, since, daysSince } = facts
  if (daysSince <= 0 || daysBefore <= 0) return null
  const hit = before.flatMap(charged => {
    const effect = effects.find(({ sku }) => sku === charged.sku || sku === ANY)
    return effect && charged.units.gt(0) ? [{ charged, how: effect.how }] : []
  })
  if (!hit.length) return null
  const known = new Set(before.map(keyOf))
  const anew = hit.some(({ how }) => how === 'cheaper') ? since.filter(one => !known.has(keyOf(one))) : []
  const taken = new Set<Charged>()
  const lines = hit.map(({ charged, how }) => {
    // what has come instead stands with the first of the same unit that was made cheaper
    const instead = how === 'cheaper' ? anew.filter(one => one.unit === charged.unit && !taken.has(one)) : []
    for (const one of instead) taken.add(one)
    const own = [...since.filter(one => keyOf(one) === keyOf(charged)), ...instead]
    const used = total(own, 'units')
    const unitsElse = how === 'cheaper' ? used : charged.units.times(daysSince).div(daysBefore)
    const at = (cost: Decimal) => cost.times(unitsElse).div(charged.units)
    return { charged, how, own, unitsElse, at }
  })
  // what is charged anew in another unit counts against the whole
  const further = anew.filter(one => !taken.has(one))
  const saved = (cost: 'effective' | 'billed') =>
    lines.reduce((sum, { charged, own, at }) => sum.plus(at(charged[cost])).minus(total(own, cost)), zero).minus(total(further, cost))
  return {
    lines: [
      ...lines.map(({ charged, how, own, unitsElse, at }) => ({
        ...{ sku: charged.sku, unit: charged.unit, how, unitsBefore: charged.units, costBefore: charged.effective, unitsElse },
        ...{ unitsSince: total(own, 'units'), counterfactual: at(charged.effective), actual: total(own, 'effective') },
      })),
      ...further.map(({ sku, unit, units, effective }) => ({
        ...{ sku, unit, how: 'cheaper' as const, unitsBefore: zero, costBefore: zero, unitsElse: zero },
        ...{ unitsSince: units, counterfactual: zero, actual: effective },
      })),
    ],
    effective: saved('effective'),
    billed: saved('billed'),
  }
}

/** Stands for every SKU of a resource: what was found before effects were kept says no more. */
export const ANY = ''

const keyOf = ({ sku, unit }: Charged) => `${sku}\n${unit}`
const total = (list: readonly Charged[], what: 'units' | 'effective' | 'billed') => list.reduce((sum, one) => sum.plus(one[what]), zero)

/** What was promised for the hours since the deed: monthly saving / 730 × hours. */
export function promisedSince(monthlySaving: Decimal, hours: number): Decimal {
  return hours <= 0 ? zero : monthlySaving.times(hours).div(ESTIMATE_MONTH_HOURS)
}
