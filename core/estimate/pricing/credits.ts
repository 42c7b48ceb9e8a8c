import { Decimal } from '../../money/decimal'
import { add, input, largerOf, multiply, subtract, type Working } from '../../working/working'
import { none } from '../components/kind'
import type { Estimate } from '../estimate'

/** Months, the last one included, in which a credit takes the same off each: `least` is what, below zero. */
export type Stretch = { from: number; last: number; least: Working }

/**
 * What a credit takes off each of its months: its amount, and no more than the credits before it leave of the month. Where they begin or
 * end within its months it takes off one amount before and another behind. (Common practice, no source.)
 * @param month what a month costs without credits; not negative.
 * @param earlier what the credits before it take off.
 */
export function creditStretches(
  { label, amount, fromMonth, months }: Estimate['funding'][number],
  month: Working,
  earlier: readonly Stretch[],
  termMonths: number,
): Stretch[] {
  const last = Math.min(fromMonth + months - 1, termMonths)
  const starts = [fromMonth, ...earlier.flatMap(stretch => [stretch.from, stretch.last + 1])].filter(m => m >= fromMonth && m <= last)
  return [...new Set(starts)]
    .sort((a, b) => a - b)
    .map((from, i, all) => {
      const until = (all[i + 1] ?? last + 1) - 1
      const beside = earlier.filter(stretch => stretch.from <= from && stretch.last >= until).map(({ least }) => least)
      const left = beside.length ? add('what the credits before it leave of the month', [month, ...beside]) : month
      const least = largerOf('no more than the month costs', [
        input(`${label}, a month`, new Decimal(amount).times(-1)),
        subtract('the month', [none, left]),
      ])
      return { from, last: until, least }
    })
}

/** What a credit takes off from the first month until one, that included. */
export function creditUntil(label: string, stretches: readonly Stretch[], until: number): Working {
  const within = ({ from, last }: Stretch) => Math.max(0, Math.min(last, until) - from + 1)
  const parts = stretches.map(stretch => multiply(label, [stretch.least, input('months', within(stretch))]))
  return parts.length === 1 ? parts[0]! : add(`${label}, where credits meet`, parts)
}
