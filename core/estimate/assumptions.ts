import { Decimal, decimalText, type DecimalText } from '../money/decimal'
import { evaluate } from '../working/working'
import { fieldProblem, type Field } from './components/field'
import type { Place } from './components/kind'
import type { Estimate } from './estimate'
import { readNumber } from './number-text'
import { monthHoursOf, priceEstimate, type PriceMemo, type Prices } from './price-estimate'

/** A value that nobody has chosen. `effect` is how far the effective monthly total could move with another value. */
export type Assumption = { component: string, field: string, label: string, value: string, effect: DecimalText, most: string }

const MOST_OPTIONS = 12

/** Values that one could just as well have taken: every other option; half and twice a number, or one where it is none (up to a hundred GB and the like); half of the hours. */
function others(field: Field, value: string, { card, region }: Place, monthHours: number): string[] {
  const fits = (text: string) => text !== value && fieldProblem(field, text, card, region, monthHours) === null
  if (field.type === 'choice') return field.options(card, region).filter(fits).slice(0, MOST_OPTIONS)
  if (field.type === 'hours') return ['5d x 10h', '50 %', '100 %'].filter(fits)
  const number = field.type === 'number' ? readNumber(value)?.likely : undefined
  if (!number) return []
  const half = number.div(2).round(field.type === 'number' && field.whole ? 0 : 6)
  return (number.eq(0) ? field.unit ? ['1', '10', '100'] : ['1'] : [half.toFixed(), number.times(2).toFixed()]).filter(fits)
}

/** Every default that moves the total and that nobody has confirmed, the one that moves it most first. */
export function findAssumptions(estimate: Estimate, prices: Prices, memo: PriceMemo): Assumption[] {
  const monthHours = monthHoursOf(estimate)
  const now = priceEstimate(estimate, prices, null, memo)
  const total = evaluate(now.total.effectiveMonthly)
  return estimate.components.flatMap((component): Assumption[] => {
    const row = now.byId.get(component.id)!
    if (!now.counted.has(component.id) || !row.place) return []
    return row.kind!.fields.filter(field => !component.confirmed.includes(field.name) && field.type !== 'text').flatMap((field): Assumption[] => {
      const value = row.inputs[field.name]!
      let [effect, most] = [new Decimal(0), value]
      for (const other of others(field, value, row.place!, monthHours)) {
        const changed = priceEstimate(estimate, prices, { id: 'other', name: 'other', whole: {}, rows: { [component.id]: { [field.name]: other } } }, memo)
        if (changed.unpriced > now.unpriced) continue
        const move = evaluate(changed.total.effectiveMonthly).minus(total)
        if (move.abs().gt(effect.abs())) [effect, most] = [move, other]
      }
      return effect.eq(0) ? [] : [{ component: component.id, field: field.name, label: `${row.kind!.label}, ${field.label}`, value, effect: decimalText(effect), most }]
    })
  }).sort((a, b) => new Decimal(b.effect).abs().cmp(new Decimal(a.effect).abs()))
}
