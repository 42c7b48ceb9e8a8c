import { minorDecimals } from '../money/currency'
import { sum, zero, type Decimal } from '../money/decimal'
import { roundToMinor } from '../money/rounding'
import { minorUnit, scaled, type Scaled } from '../money/scaled'
import { cutToAdd } from '../money/whole-units'
import { ESTIMATE_MONTH_HOURS } from '../time/day'
import type { Effect } from './effect'
import { ANY, isCommitted, type Realised } from './realised'

/**
 * Why what is seen on the bill is not what was promised until now. `before`: as much as was charged just before the deed is not what the
 * promise began with; `days`: the hours planned for these very days are not those of an average month; `use`: it was used otherwise than
 * planned; `price`: a unit costs something else; `new`: something is charged that was not there before; `commitment`: what a commitment
 * covered is in no promise, and is a saving as far as others use it now.
 */
export const differenceKinds = ['before', 'days', 'use', 'price', 'new', 'commitment'] as const
export type DifferenceKind = (typeof differenceKinds)[number]
export type Difference = { kind: DifferenceKind; amount: Decimal }

/** What was promised, and the time since, in hours: all of them from the day of the deed on, those before it, and those it is awake in. */
export type Promised = { effects: readonly Effect[]; hours: { all: number; before: number; awake: number | null } }

/** Decimals that a difference is told in. */
const DECIMALS = 10

/**
 * Takes apart promised and seen, SKU by SKU, with p₀ the unit price before, U the use that would have been, u the use that was, s the share
 * of it that was planned (the effect's then / now in the hours since), P what the effect promised: for what is used less
 * `before` = p₀·U·(1 − s) − P, `use` = p₀·(U·s − u), `price` = p₀·u − what was charged; for what is cheaper `use` = p₀·u·(1 − s) − P,
 * `price` = p₀·u·s − what was charged. What a commitment covered is `commitment`: as much as before less what was charged, less what of it
 * nobody uses. Where the hours are planned, `days` is what p₀·U·s has for an average month beyond these days.
 * @returns those that are not zero; together seen less promised, to ten decimals. Source: variance analysis of cost accounting: differences
 * of price at the use that was, differences of use at the planned price.
 */
export function differencesOf(
  realised: Pick<Realised, 'lines' | 'unused' | 'effective'>,
  { effects, hours }: Promised,
  promised: Decimal,
): Difference[] {
  const amounts = new Map<DifferenceKind, Decimal>()
  const enter = (kind: DifferenceKind, amount: Decimal) => amounts.set(kind, (amounts.get(kind) ?? zero).plus(amount))
  const since = hours.all - hours.before
  for (const { amount } of realised.unused) enter('commitment', amount.times(-1))
  for (const line of realised.lines) {
    if (isCommitted(line)) {
      enter('commitment', line.counterfactual.minus(line.actual))
      continue
    }
    if (line.unitsBefore.lte(0)) {
      enter('new', line.actual.times(-1))
      continue
    }
    const { how } = line
    const effect = effects.find(({ sku }) => sku === line.sku) ?? effects.find(({ sku }) => sku === ANY)
    const [now, then] = [zero.plus(effect?.now ?? 0), zero.plus(effect?.then ?? 0)]
    // share of the use, or of the price, that was to be left, on an average of the hours since
    const left = how === 'gone' || now.eq(0) ? zero : then.div(now)
    const planned = left.times(since).plus(hours.before).div(hours.all)
    const wouldCost = line.counterfactual
    if (how === 'cheaper') {
      const promisedHere = now.minus(then).times(since).div(ESTIMATE_MONTH_HOURS)
      enter('use', wouldCost.times(zero.plus(1).minus(planned)).minus(promisedHere))
      enter('price', wouldCost.times(planned).minus(line.actual))
      continue
    }
    const exactly = how === 'less' && hours.awake !== null ? zero.plus(hours.awake).div(hours.all) : planned
    const used = wouldCost.times(line.unitsSince).div(line.unitsElse)
    enter('days', wouldCost.times(planned.minus(exactly)))
    enter('use', wouldCost.times(exactly).minus(used))
    enter('price', used.minus(line.actual))
  }
  // what is left is what the promise began with, so that all add up whatever a quotient was cut to
  const known = sum(amounts.values())
  enter('before', realised.effective.minus(promised).minus(known))
  return differenceKinds.flatMap(kind => {
    const amount = (amounts.get(kind) ?? zero).round(DECIMALS)
    return amount.eq(0) ? [] : [{ kind, amount }]
  })
}

/** The same in minor units of a currency: rounded promise and differences add to what is seen, rounded. */
export function inMinorUnits(
  all: readonly Difference[],
  seen: Decimal,
  promised: Decimal,
  currency: string,
): { kind: DifferenceKind; amount: Scaled }[] {
  const target = scaled(roundToMinor(seen, currency).minus(roundToMinor(promised, currency)).toFixed())
  const parts = cutToAdd(
    all.map(({ amount }) => scaled(amount.toFixed())),
    target,
    minorUnit(minorDecimals(currency)),
  )
  return all.map(({ kind }, at) => ({ kind, amount: parts[at]! })).filter(({ amount }) => amount !== 0n)
}
