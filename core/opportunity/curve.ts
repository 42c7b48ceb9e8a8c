import { Decimal, decimalText, zero, type DecimalText } from '../money/decimal'

/** A step of the curve: what one adds, from how much work and saving to how much. */
export type CurveStep = { id: string; fromMinutes: number; toMinutes: number; from: DecimalText; to: DecimalText }

/**
 * What to do first: cumulative saving over cumulative work, in the order of saving per hour of work. What takes no work comes first; of
 * equals the larger, then the first by id, so that the order is one.
 */
export function savingsCurve(counted: readonly { id: string; saved: DecimalText; minutes: number }[]): CurveStep[] {
  const order = counted.map(one => ({ ...one, amount: new Decimal(one.saved) })).filter(({ amount }) => amount.gt(0))
  // a/m > b/n where a × n > b × m
  order.sort((a, b) => b.amount.times(a.minutes).cmp(a.amount.times(b.minutes)) || b.amount.cmp(a.amount) || (a.id < b.id ? -1 : 1))
  let [minutes, sum] = [0, zero]
  return order.map(({ id, amount, minutes: own }) => {
    const step = { id, fromMinutes: minutes, toMinutes: minutes + own, from: decimalText(sum), to: decimalText(sum.plus(amount)) }
    minutes += own
    sum = sum.plus(amount)
    return step
  })
}

/** After how many minutes of work half of it is saved; null where there is nothing. */
export function minutesToHalf(steps: readonly CurveStep[]): number | null {
  const last = steps.at(-1)
  if (!last) return null
  return steps.find(({ to }) => new Decimal(to).times(2).gte(last.to))!.toMinutes
}
