import { dayNumber } from '../time/day'
import type { Scope } from './question'

/** What a scope reaches of a source's billing period: hours since 1970, the end exclusive, and where a charge's hour is put. */
export type Reach = {
  from: number
  to: number
  place: ((hour: number) => number) | null
  /** Where charges must not stand by their own hour. */
  outside: { first: number; after: number } | null
}

/** Whether a charge of an hour is reached, and where it then stands; null when it is not. */
export function placeWithin({ from, to, place, outside }: Reach, hour: number): number | null {
  if (outside && hour >= outside.first && hour < outside.after) return null
  const placed = place ? place(hour) : hour
  return placed >= from && placed < to ? placed : null
}

const HOUR_MS = 3_600_000

/**
 * What a scope reaches of the charges of a billing period; null for nothing.
 * By charge periods a charge stands where it starts. By billing periods it stands there too where that is within its billing period, else
 * at the billing period's start: what is billed in October of September is October's.
 * @param billing the billing period as instants, the end exclusive.
 */
export function reachOf(
  { start, end, ends, begins, basis, elsewhere, billingMonth }: Scope,
  billing: { source: string; start: string; end: string },
): Reach | null {
  if (billingMonth && !billing.start.startsWith(billingMonth)) return null
  const own = (days: Scope['ends']) => (days && Object.hasOwn(days, billing.source) ? dayNumber(days[billing.source]!) * 24 : null)
  const from = Math.max(dayNumber(start) * 24, own(begins) ?? -Infinity)
  const to = Math.min(dayNumber(end) * 24, own(ends) ?? Infinity)
  if (from >= to) return null
  const [first, after] = [billing.start, billing.end].map(text => Math.floor(Date.parse(text) / HOUR_MS)) as [number, number]
  const outside = elsewhere ? { first, after } : null
  if (basis !== 'billing') return { from, to, place: null, outside }
  return after <= from || first >= to ? null : { from, to, place: hour => (hour >= first && hour < after ? hour : first), outside }
}
