import { Decimal, decimalText, type DecimalText } from '../money/decimal'
import type { Day } from '../time/day'
import { bestCombination } from './combine'
import type { Effect } from './effect'

/** An opportunity as far as the total goes. */
export type Planned = { id: string; currency: string; effects: readonly Effect[]; day: Day }

/** What all that is open comes to, each amount once, in one currency. Amounts are a month. */
export type WholeSaving = {
  currency: string | null
  total: DecimalText
  /** By id what each adds; none for what another counts whole. */
  counted: Record<string, DecimalText>
  notCounted: { id: string; amount: DecimalText; instead: string[] }[]
  /** Without a rate into the currency: in no total. */
  unrated: string[]
  isBest: boolean
}

const DECIMALS = 10
const text = (amount: Decimal) => decimalText(amount.round(DECIMALS))

/**
 * The best that can be had of what is open.
 * @param currency of the totals; null for that of most. @param rateOf the rate between two on a day; null where there is none.
 */
export function wholeSaving(
  open: readonly Planned[],
  currency: string | null,
  rateOf: (from: string, to: string, day: Day) => Decimal | null,
): WholeSaving {
  const into = currency ?? mostOf(open.map(one => one.currency))
  const unrated: string[] = []
  const rated = open.flatMap(({ id, effects, ...one }) => {
    const rate = into === null || one.currency === into ? new Decimal(1) : rateOf(one.currency, into, one.day)
    if (!rate) {
      unrated.push(id)
      return []
    }
    const at = (amount: DecimalText) => new Decimal(amount).times(rate)
    return [{ id, effects: effects.map(effect => ({ ...effect, now: at(effect.now), then: at(effect.then) })) }]
  })
  const { counted, notCounted, total, isBest } = bestCombination(rated)
  return {
    ...{ currency: into, total: text(total), unrated, isBest },
    counted: Object.fromEntries([...counted].map(([id, amount]) => [id, text(amount)])),
    notCounted: notCounted.map(one => ({ ...one, amount: text(one.amount) })),
  }
}

/** What stands there most often; of equals the first in the alphabet. */
function mostOf(all: readonly string[]): string | null {
  const counts = new Map<string, number>()
  for (const one of all) counts.set(one, (counts.get(one) ?? 0) + 1)
  return [...counts].sort(([a, m], [b, n]) => n - m || (a < b ? -1 : 1))[0]?.[0] ?? null
}
