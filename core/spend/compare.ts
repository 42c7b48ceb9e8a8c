import type { Rate } from '../money/rates'
import { dividedBy, scaledText, sizeOf, type Scaled } from '../money/scaled'
import { daysBetween } from '../time/day'
import { plainGroups } from './plain-groups'
import { plainGroupsIn } from './convert'
import type { Cube } from './cube'
import type { CostMeasure, Grouping, Scope } from './question'
import type { Reaching } from './sentence-period'

/** What a change is made of. */
export const effectNames = ['quantity', 'price', 'both', 'newAndGone', 'corrections', 'tax', 'credits', 'purchases', 'other'] as const
export type Effect = (typeof effectNames)[number]

/** One period against another, by the values of dimensions. */
export type CompareQuestion = Omit<Scope, 'start' | 'end' | 'ends'> & {
  measure: CostMeasure
  splitBy: string[]
  now: Reaching
  before: Reaching
  currency?: string
}

/**
 * What one combination of values did. `kind` is new or gone where it has charges in one of the periods only. The change is taken apart:
 * what more or less was used at the old price, what the price did to the old quantity, both together, what came or went as a whole SKU;
 * corrections, tax, credits and purchases each by themselves; and what else has no quantity. All add up to the change exactly.
 */
export type Contribution = {
  values: Record<string, string | null>
  kind: 'new' | 'gone' | 'both'
  currency: string
  now: string
  before: string
  difference: string
  /** The difference of the amounts a day: what periods of different length are compared by. */
  perDay: string
  effects: Record<Effect, string>
  /** The description of the charges that make most of the difference, where one does. */
  mostly: { description: string; difference: string } | null
}
export type Comparison = {
  contributions: Contribution[]
  totals: Pick<Contribution, 'currency' | 'now' | 'before' | 'difference' | 'perDay' | 'effects'>[]
  daysNow: number
  daysBefore: number
}

type Line = {
  now: { cost: Scaled; quantity: Scaled; rows: number }
  before: { cost: Scaled; quantity: Scaled; rows: number }
  unit: string | null
  /** What stands by itself, whatever it has a quantity of. */
  apart: Effect | null
}
type Effects = Record<Effect, Scaled>

/** What a change in quantity and in price are looked at by: the finest thing that has one price. */
const PRICED_BY = ['SkuId', 'PricingUnit', 'PricingCategory', 'ChargeCategory', 'ChargeClass'] as const
/** Of so many contributions it is looked for one charge that carries them. */
const MOST_DESCRIBED = 50

function apartOf(category: string | null | undefined, chargeClass: string | null | undefined): Effect | null {
  if (chargeClass === 'Correction') return 'corrections'
  return category === 'Tax' ? 'tax' : category === 'Credit' ? 'credits' : category === 'Purchase' ? 'purchases' : null
}

/**
 * Contributions sorted by size; they add up to the whole change in each currency.
 * Formula (checks of the trade): Δ = ΔQ·P₀ + ΔP·Q₀ + ΔP·ΔQ for each SKU in one unit, with P = cost / quantity; divisions are rounded to 15
 * decimals, and the last part takes what rounding left, so that the sum is exact.
 * @param inOne one currency for all costs, each charge at the rate of its day: what other rates did is then part of what prices did.
 */
export function compare(
  cube: Cube,
  { measure, splitBy, now, before, currency, ...scope }: CompareQuestion,
  inOne?: { currency: string; rates: readonly Rate[] },
): Comparison {
  const lines = new Map<string, { values: Record<string, string | null>; currency: string; lines: Map<string, Line> }>()
  const side = (period: Reaching, which: 'now' | 'before') => {
    const asked = [...new Set([...splitBy, ...PRICED_BY])]
    const grouping: Grouping = { ...scope, ...period, splitBy: asked, grain: null, measures: [measure, 'pricingQuantity'] }
    for (const group of inOne ? plainGroupsIn(cube, grouping, inOne.currency, inOne.rates) : plainGroups(cube, grouping)) {
      if (currency && group.currency !== currency) continue
      const values = Object.fromEntries(splitBy.map(dimension => [dimension, group.values[dimension]!]))
      const key = JSON.stringify([group.currency, ...splitBy.map(dimension => values[dimension])])
      const found = lines.get(key) ?? { values, currency: group.currency, lines: new Map<string, Line>() }
      lines.set(key, found)
      const priced = JSON.stringify(PRICED_BY.map(dimension => group.values[dimension]))
      const line = found.lines.get(priced) ?? {
        now: nothing(),
        before: nothing(),
        unit: group.values.PricingUnit!,
        apart: apartOf(group.values.ChargeCategory, group.values.ChargeClass),
      }
      found.lines.set(priced, line)
      line[which].cost += group.amounts[0]!
      line[which].quantity += group.amounts[1]!
      line[which].rows += group.count
    }
  }
  side(now, 'now')
  side(before, 'before')
  /** For each contribution the charges of one description that make more than half of its difference. */
  const descriptions = (largest: readonly { values: Record<string, string | null>; currency: string; difference: Scaled }[]) => {
    const asked = [...new Set([...splitBy, 'ChargeDescription'])]
    const keyOf = (currency: string, values: Record<string, string | null>) =>
      JSON.stringify([currency, ...splitBy.map(d => values[d] ?? null)])
    const wanted = new Map(largest.map(({ currency, values }) => [keyOf(currency, values), new Map<string, Scaled>()]))
    for (const [period, sign] of [
      [now, 1n],
      [before, -1n],
    ] as const) {
      const grouping: Grouping = { ...scope, ...period, splitBy: asked, grain: null, measures: [measure] }
      for (const group of inOne ? plainGroupsIn(cube, grouping, inOne.currency, inOne.rates) : plainGroups(cube, grouping)) {
        const sums = wanted.get(keyOf(group.currency, group.values))
        const description = group.values.ChargeDescription
        if (sums && description) sums.set(description, (sums.get(description) ?? 0n) + sign * group.amounts[0]!)
      }
    }
    return largest.map(({ currency, values, difference }) => {
      for (const [description, sum] of wanted.get(keyOf(currency, values))!)
        if (difference !== 0n && sum < 0n === difference < 0n && sizeOf(sum) * 2n > sizeOf(difference))
          return { description, difference: scaledText(sum) }
      return null
    })
  }
  const daysNow = daysBetween(now.start, now.end)
  const daysBefore = daysBetween(before.start, before.end)
  const totals = new Map<string, { now: Scaled; before: Scaled; effects: Effects }>()
  const found = [...lines.values()].map(({ values, currency, lines }) => {
    const all = [...lines.values()]
    const sum = (which: 'now' | 'before') => all.reduce((n, line) => n + line[which].cost, 0n)
    const effects = all.map(effectsOf).reduce(addEffects, none())
    const amounts = { now: sum('now'), before: sum('before') }
    const total = totals.get(currency) ?? { now: 0n, before: 0n, effects: none() }
    totals.set(currency, {
      now: total.now + amounts.now,
      before: total.before + amounts.before,
      effects: addEffects(total.effects, effects),
    })
    const kind = all.every(line => line.before.rows === 0)
      ? ('new' as const)
      : all.every(line => line.now.rows === 0)
        ? ('gone' as const)
        : ('both' as const)
    return { values, kind, currency, ...amounts, difference: amounts.now - amounts.before, effects }
  })
  found.sort((a, b) =>
    sizeOf(b.difference) > sizeOf(a.difference)
      ? 1
      : sizeOf(b.difference) < sizeOf(a.difference)
        ? -1
        : JSON.stringify(a.values) < JSON.stringify(b.values)
          ? -1
          : 1,
  )
  const perDay = (now: Scaled, before: Scaled) =>
    daysNow === daysBefore || !daysNow || !daysBefore
      ? scaledText(daysNow ? dividedBy(now - before, daysNow) : 0n)
      : scaledText(dividedBy(now, daysNow) - dividedBy(before, daysBefore))
  const described = descriptions(found.slice(0, MOST_DESCRIBED))
  return {
    daysNow,
    daysBefore,
    contributions: found.map(({ now, before, difference, effects, ...rest }, i) => ({
      ...rest,
      mostly: described[i] ?? null,
      now: scaledText(now),
      before: scaledText(before),
      difference: scaledText(difference),
      effects: effectTexts(effects),
      perDay: perDay(now, before),
    })),
    totals: [...totals]
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([currency, { now, before, effects }]) => ({
        currency,
        now: scaledText(now),
        before: scaledText(before),
        difference: scaledText(now - before),
        perDay: perDay(now, before),
        effects: effectTexts(effects),
      })),
  }
}

const nothing = () => ({ cost: 0n, quantity: 0n, rows: 0 })
const none = () => Object.fromEntries(effectNames.map(name => [name, 0n])) as Effects
const addEffects = (a: Effects, b: Effects) => Object.fromEntries(effectNames.map(name => [name, a[name] + b[name]])) as Effects

function effectsOf({ now, before, unit, apart }: Line): Effects {
  const difference = now.cost - before.cost
  if (apart) return { ...none(), [apart]: difference }
  if (unit === null || (now.rows > 0 && now.quantity === 0n) || (before.rows > 0 && before.quantity === 0n))
    return { ...none(), other: difference }
  if (now.rows === 0 || before.rows === 0) return { ...none(), newAndGone: difference }
  const moreQuantity = now.quantity - before.quantity
  const quantity = divide(moreQuantity * before.cost, before.quantity)
  // ΔP·Q₀ = P₁·Q₀ − C₀
  const price = divide(now.cost * before.quantity, now.quantity) - before.cost
  return { ...none(), quantity, price, both: difference - quantity - price }
}

/** Scaled by scaled, divided by scaled: scaled again, towards zero. */
const divide = (numerator: bigint, denominator: Scaled): Scaled => numerator / denominator

const effectTexts = (effects: Effects) =>
  Object.fromEntries(effectNames.map(name => [name, scaledText(effects[name])])) as Contribution['effects']
