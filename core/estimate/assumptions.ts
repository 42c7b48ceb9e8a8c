import { Decimal, decimalText, type DecimalText } from '../money/decimal'
import { evaluate } from '../working/working'
import { fieldProblem, type Field } from './components/field'
import { applies, type Inputs, type Place } from './components/kind'
import type { Estimate } from './estimate'
import { figureOf } from './ways-to-pay'
import { ALWAYS_ON } from './hours-text'
import { readNumber } from './number-text'
import { monthHoursOf, priceAlone, priceEstimate, type PriceMemo, type Prices } from './price-estimate'
import { rowNames } from './row-name'
import { asScenario } from './scenarios/layer'

/** A value that nobody has chosen. `effect` is how far the effective monthly total could move with another value. */
export type Assumption = { component: string, field: string, label: string, value: string, effect: DecimalText, most: string }
/** Those that move the total most, and how many more there are. */
export type Assumptions = { list: Assumption[], more: number }

const MOST_OPTIONS = 12
/** How many are told with their effect on the total; the others are only counted. */
const MOST_TOLD = 40

/** Values that one could just as well have taken: every other option; half and twice a number, or one where it is none (up to a hundred GB and the like); half of the hours. */
function others(field: Field, value: string, { card, region }: Place, monthHours: number): string[] {
  const fits = (text: string) => text !== value && fieldProblem(field, text, card, region, monthHours) === null
  if (field.type === 'choice') return field.options(card, region).filter(fits).slice(0, MOST_OPTIONS)
  if (field.type === 'hours') return ['5d x 10h', '50 %', ALWAYS_ON].filter(fits)
  const number = field.type === 'number' ? readNumber(value)?.likely : undefined
  if (!number) return []
  const half = number.div(2).round(field.type === 'number' && field.whole ? 0 : 6)
  return (number.eq(0) ? field.unit ? ['1', '10', '100'] : ['1'] : [half.toFixed(), number.times(2).toFixed()]).filter(fits)
}

type Candidate = { component: string, field: Field, value: string, others: string[], size: Decimal }

/**
 * Every default that moves the total and that nobody has confirmed, the one that moves it most first. They are ranked by what each does to
 * its own row; what the first ones do to the total is worked out with all that hangs on it.
 */
export function findAssumptions(estimate: Estimate, prices: Prices, memo: PriceMemo): Assumptions {
  const monthHours = monthHoursOf(estimate)
  const now = priceEstimate(estimate, prices, null, memo)
  const names = rowNames(estimate.components)
  const candidates = estimate.components.flatMap((component): Candidate[] => {
    const row = now.byId.get(component.id)!
    if (!now.counted.has(component.id) || !row.place) return []
    const alone = (overrides: Inputs) => {
      const chosen = priceAlone(estimate, prices, component, overrides)?.chosen
      return chosen ? evaluate(figureOf(chosen, 'effectiveMonthly', now.termYears)) : null
    }
    const own = row.kind!.last ? null : alone({})
    return row.kind!.fields.filter(field => !component.confirmed.includes(field.name) && field.type !== 'text' && applies(field, row.inputs, row.place!)).flatMap((field): Candidate[] => {
      const value = row.inputs[field.name]!
      const possible = others(field, value, row.place!, monthHours)
      const moves = possible.map(other => ({ other, cost: own && alone({ [field.name]: other }) }))
      // a row that is priced on all others moves with the total, not by itself
      const size = own === null ? new Decimal(1) : moves.reduce((most, { cost }) => cost && cost.minus(own).abs().gt(most) ? cost.minus(own).abs() : most, new Decimal(0))
      return possible.length && size.gt(0) ? [{ component: component.id, field, value, others: possible, size }] : []
    })
  }).sort((a, b) => b.size.cmp(a.size))
  const total = evaluate(now.total.effectiveMonthly)
  const list = candidates.slice(0, MOST_TOLD).flatMap(({ component, field, value, others: possible }): Assumption[] => {
    let [effect, most] = [new Decimal(0), value]
    for (const other of possible) {
      const changed = priceEstimate({ ...estimate, termYears: now.termYears }, prices, asScenario({ rows: { [component]: { [field.name]: other } } }), memo)
      if (changed.unpriced > now.unpriced) continue
      const move = evaluate(changed.total.effectiveMonthly).minus(total)
      if (move.abs().gt(effect.abs())) [effect, most] = [move, other]
    }
    return effect.eq(0) ? [] : [{ component, field: field.name, label: `${names.get(component)!}, ${field.label}`, value, effect: decimalText(effect), most }]
  }).sort((a, b) => new Decimal(b.effect).abs().cmp(new Decimal(a.effect).abs()))
  return { list, more: Math.max(0, candidates.length - MOST_TOLD) }
}
