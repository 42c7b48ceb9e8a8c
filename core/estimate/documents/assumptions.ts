import { Decimal, decimalText, type DecimalText } from '../../money/decimal'
import { evaluate } from '../../working/working'
import { fieldProblem, type Field } from '../components/field'
import { isPooled } from '../../ratecard/price-quantity'
import { applies, isCharge, type Inputs, type Place } from '../components/kind'
import type { Component, Estimate } from '../estimate'
import { figureOf } from '../pricing/ways-to-pay'
import { ALWAYS_ON } from '../sheet/hours-text'
import { readNumber } from '../sheet/number-text'
import { monthHoursOf, priceEstimate, pricerOfOne, type PricedComponent, type Prices } from '../pricing/price-estimate'
import type { PriceMemo } from '../pricing/price-memo'
import { rowNames } from '../sheet/row-name'
import { asScenario } from '../scenarios/layer'

/** A value that nobody has chosen. `effect` is how far the effective monthly total could move with another value. */
export type Assumption = { component: string; field: string; label: string; value: string; effect: DecimalText; most: string }
/** Those that move the total most, and how many more there are. */
export type Assumptions = { list: Assumption[]; more: number }

/** Of many options those that stand next to the one that is taken. */
const MOST_OPTIONS = 2
/** Of several other values those that move their own row most are tried on the total. */
const MOST_TRIED = 2
/** How many are told with their effect on the total; the others are only counted. */
const MOST_TOLD = 25

/**
 * Values that one could just as well have taken: the options next to it; half and twice a number, or one where it is none (up to a hundred
 * GB and the like); half of the hours.
 */
function others(field: Field, value: string, { card, region }: Place, monthHours: number): string[] {
  if (field.type === 'choice') {
    const options = field.options(card, region)
    const away = (option: string) => Math.abs(options.indexOf(option) - options.indexOf(value))
    return options
      .filter(option => option !== value)
      .sort((a, b) => away(a) - away(b))
      .slice(0, MOST_OPTIONS)
  }
  const fits = (text: string) => text !== value && fieldProblem(field, text, card, region, monthHours) === null
  if (field.type === 'hours') return ['50 %', '5d x 10h', ALWAYS_ON].filter(fits)
  const number = field.type === 'number' ? readNumber(value)?.likely : undefined
  if (!number) return []
  const half = number.div(2).round(field.type === 'number' && field.whole ? 0 : 6)
  return (number.eq(0) ? (field.unit ? ['1', '10', '100'] : ['1']) : [half.toFixed(), number.times(2).toFixed()]).filter(fits)
}

/** Whether a row draws on lines whose price depends on what others draw: what it does alone is then not what it does there. */
const isShared = ({ charges }: PricedComponent) =>
  charges !== null &&
  [...(charges.running ?? []), ...charges.recurring, ...(charges.months?.flat() ?? [])].some(one => isCharge(one) && isPooled(one.line))

type Candidate = { component: string; field: Field; value: string; others: string[]; size: Decimal }
/** A field and how far one other value of it moves the row by itself; null for what is priced on all other rows. */
type Move = { field: Field; value: string; others: string[]; size: Decimal | null }

/**
 * Every default that moves the total and that nobody has confirmed, the one that moves it most first. They are ranked by what each does to
 * its own row; what the first ones do to the total is worked out with all that hangs on it.
 */
export function findAssumptions(estimate: Estimate, prices: Prices, memo: PriceMemo): Assumptions {
  const monthHours = monthHoursOf(estimate)
  const now = priceEstimate(estimate, prices, null, memo)
  const names = rowNames(estimate.components)
  const movesOf = movesOfRows(estimate, prices, now.termYears, monthHours)
  const candidates = estimate.components
    .flatMap((component): Candidate[] => {
      const row = now.byId.get(component.id)!
      if (!now.counted.has(component.id)) return []
      return movesOf(component, row).map(({ size, ...move }) => ({ component: component.id, ...move, size: size ?? new Decimal(1) }))
    })
    .sort((a, b) => b.size.cmp(a.size))
  const total = evaluate(now.total.effectiveMonthly)
  const list = candidates
    .slice(0, MOST_TOLD)
    .flatMap(({ component, field, value, others: possible }): Assumption[] => {
      let [effect, most] = [new Decimal(0), value]
      for (const other of possible) {
        const changed = priceEstimate(
          { ...estimate, termYears: now.termYears },
          prices,
          asScenario({ rows: { [component]: { [field.name]: other } } }),
          memo,
        )
        if (changed.unpriced > now.unpriced) continue
        const move = evaluate(changed.total.effectiveMonthly).minus(total)
        if (move.abs().gt(effect.abs())) [effect, most] = [move, other]
      }
      return effect.eq(0)
        ? []
        : [{ component, field: field.name, label: `${names.get(component)!}, ${field.label}`, value, effect: decimalText(effect), most }]
    })
    .sort((a, b) => new Decimal(b.effect).abs().cmp(new Decimal(a.effect).abs()))
  return { list, more: Math.max(0, candidates.length - MOST_TOLD) }
}

/** Ranks the defaults of a row by what another value does to it alone. Rows that are alike share the answer: large estimates have many. */
function movesOfRows(
  estimate: Estimate,
  prices: Prices,
  termYears: number,
  monthHours: number,
): (component: Component, row: PricedComponent) => Move[] {
  const priceOne = pricerOfOne(estimate, prices)
  const known = new Map<string, Move[]>()
  const find = (component: Component, row: PricedComponent): Move[] => {
    const place = row.place!
    const alone = (overrides: Inputs) => {
      const chosen = priceOne(component, overrides).chosen
      return chosen ? evaluate(figureOf(chosen, 'effectiveMonthly', termYears)) : null
    }
    const own = row.kind!.last ? null : isShared(row) ? alone({}) : evaluate(figureOf(row.chosen!, 'effectiveMonthly', termYears))
    return row
      .kind!.fields.filter(field => !component.confirmed.includes(field.name) && field.type !== 'text' && applies(field, row.inputs, place))
      .flatMap((field): Move[] => {
        const value = row.inputs[field.name]!
        const possible = others(field, value, place, monthHours)
        if (!possible.length) return []
        // a row that is priced on all others moves with the total, not by itself
        if (own === null) return [{ field, value, others: possible, size: null }]
        const sizeOf = (other: string) =>
          alone({ [field.name]: other })
            ?.minus(own)
            .abs() ?? new Decimal(0)
        // of a number the last moves most, as a rule; options have no such order
        const ranked: { other: string; size: Decimal }[] = []
        for (const other of [...possible].reverse()) {
          const size = sizeOf(other)
          if (size.gt(0)) ranked.push({ other, size })
          if (field.type !== 'choice' && ranked.length) break
        }
        ranked.sort((a, b) => b.size.cmp(a.size))
        if (!ranked[0]) return []
        const told =
          field.type === 'choice'
            ? ranked.map(r => r.other).slice(0, isShared(row) ? MOST_TRIED : 1)
            : possible.slice(isShared(row) ? -MOST_TRIED : -1)
        return [{ field, value, others: told, size: ranked[0].size }]
      })
  }
  return (component, row) => {
    const key = JSON.stringify([component.kind, component.inputs, component.pattern, component.confirmed])
    const before = known.get(key)
    if (before) return before
    const found = find(component, row)
    known.set(key, found)
    return found
  }
}
