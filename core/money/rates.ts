import type { Day } from '../time/day'
import { Decimal } from './decimal'

/** From a day on, one unit of `from` is worth `rate` units of `to`. */
export type Rate = { from: string; to: string; validFrom: Day; rate: string }

/** A rate with the line it came from; `inverse` when the line was read backwards. */
export type FoundRate = { rate: Decimal; line: Rate | null; inverse: boolean }

/** Digits of a rate that is read backwards: far more than any list of rates has. */
const INVERSE_DIGITS = 18

/**
 * Finds the rate that holds on a day: the newest line up to it, else the newest of the other direction read backwards; null when there is
 * none. The lines of each direction are put in order once, for many days.
 */
export function rateFinder(rates: readonly Rate[]): (from: string, to: string, day: Day) => FoundRate | null {
  const directions = new Map<string, Rate[]>()
  for (const line of rates) {
    const key = `${line.from} ${line.to}`
    const lines = directions.get(key)
    if (lines) lines.push(line)
    else directions.set(key, [line])
  }
  // of two lines of one day the first holds
  for (const lines of directions.values())
    lines.reverse().sort((a, b) => (a.validFrom < b.validFrom ? -1 : a.validFrom > b.validFrom ? 1 : 0))
  const newest = (from: string, to: string, day: Day) => {
    const lines = directions.get(`${from} ${to}`) ?? []
    let [low, high] = [0, lines.length]
    while (low < high) {
      const middle = (low + high) >> 1
      if (lines[middle]!.validFrom <= day) low = middle + 1
      else high = middle
    }
    return lines[low - 1] ?? null
  }
  return (from, to, day) => {
    if (from === to) return { rate: new Decimal(1), line: null, inverse: false }
    const direct = newest(from, to, day)
    if (direct) return { rate: new Decimal(direct.rate), line: direct, inverse: false }
    const back = newest(to, from, day)
    return back && { rate: inverseOf(back.rate), line: back, inverse: true }
  }
}

function inverseOf(rate: string): Decimal {
  const digits = Decimal.DP
  Decimal.DP = INVERSE_DIGITS
  const inverse = new Decimal(1).div(rate)
  Decimal.DP = digits
  return inverse
}

/** The days within a period from which other rates to a currency hold, the period's start first. */
export function rateDays(rates: readonly Rate[], to: string, start: Day, end: Day): Day[] {
  const days = rates
    .filter(line => (line.to === to || line.from === to) && line.validFrom > start && line.validFrom < end)
    .map(line => line.validFrom)
  return [start, ...new Set(days.sort())]
}
