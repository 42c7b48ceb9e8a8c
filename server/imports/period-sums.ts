import type { TakenCharge } from '../../core/focus/intake/charge'
import { beyondScaled, fromLimbs } from '../../core/money/limbs'
import { scaledText, type Scaled } from '../../core/money/scaled'
import { instantOf } from '../../core/time/instant'
import type { ImportPeriod } from '../../shared/contracts/imports'

type Sum = {
  period: number
  currency: string
  rows: number
  billed: Scaled
  effective: Scaled
  high: number
  low: number
  effectiveHigh: number
  effectiveLow: number
  pending: number
}
/** So many limbs are added as floats before they are carried over. */
const CARRY_ROWS = 1000

function carry(sum: Sum): void {
  sum.billed += fromLimbs(sum.high, sum.low)
  sum.effective += fromLimbs(sum.effectiveHigh, sum.effectiveLow)
  sum.high = sum.low = sum.effectiveHigh = sum.effectiveLow = sum.pending = 0
}

/** Exact sums per billing period and currency. Neighbours mostly belong to the same, which is looked at first. */
export class PeriodSums {
  #all = new Map<string, Sum>()
  #last: Sum | null = null

  add({ times: { BillingPeriodStart: period }, currency, high, low, beyond }: TakenCharge): void {
    let sum = this.#last
    if (!sum || sum.period !== period || sum.currency !== currency) {
      const key = `${period} ${currency}`
      sum = this.#all.get(key) ?? {
        period,
        currency,
        rows: 0,
        billed: 0n,
        effective: 0n,
        high: 0,
        low: 0,
        effectiveHigh: 0,
        effectiveLow: 0,
        pending: 0,
      }
      this.#all.set(key, sum)
      this.#last = sum
    }
    sum.rows++
    // billed and effective are the first two numbers; an amount beyond a thousandth of what is exact is carried by itself
    if (Math.abs(high[0]!) > 1e12 || Math.abs(high[1]!) > 1e12 || beyond[0] !== 0 || beyond[1] !== 0) {
      sum.billed += fromLimbs(high[0]!, low[0]!) + beyondScaled(beyond[0]!)
      sum.effective += fromLimbs(high[1]!, low[1]!) + beyondScaled(beyond[1]!)
      return
    }
    sum.high += high[0]!
    sum.low += low[0]!
    sum.effectiveHigh += high[1]!
    sum.effectiveLow += low[1]!
    if (++sum.pending === CARRY_ROWS) carry(sum)
  }

  /** @returns the sums by period and currency, in that order. */
  periods(): ImportPeriod[] {
    return [...this.#all.values()]
      .sort((a, b) => a.period - b.period || (a.currency < b.currency ? -1 : 1))
      .map(sum => {
        carry(sum)
        return {
          billingPeriodStart: instantOf(sum.period),
          currency: sum.currency,
          rows: sum.rows,
          billedCost: scaledText(sum.billed),
          effectiveCost: scaledText(sum.effective),
        }
      })
  }
}
