import { Decimal } from '../../money/decimal'
import type { Component, Estimate } from '../estimate'
import { likelyHours, readHours } from '../sheet/hours-text'
import { readNumber } from '../sheet/number-text'
import type { PricedComponent } from '../pricing/price-estimate'
import type { PricedEstimate } from '../pricing/priced'

/** How a blind spot is filled: by a further component, or by another value in rows that are there. */
export type BlindSpotFix =
  { add: Pick<Component, 'part' | 'kind' | 'inputs'> } | { set: { component: string; inputs: Record<string, string> }[] }

/** A cost that an estimate most likely lacks: why, and what would fill it with sensible values. */
export type BlindSpotFound = { id: string; title: string; reason: string; fix: BlindSpotFix }

/** An estimate as the rules look at it. */
export type Seen = { estimate: Estimate; priced: PricedEstimate }

/** One rule for one blind spot. */
export type BlindSpot = { id: string; title: string; find: (seen: Seen) => Omit<BlindSpotFound, 'id' | 'title'> | null }

/** Rows of some kinds that count. */
export function rowsOf({ priced }: Seen, ...kinds: string[]): PricedComponent[] {
  return priced.rows.filter(row => priced.counted.has(row.id) && kinds.includes(row.kind!.kind))
}

export const hasRow = (seen: Seen, ...kinds: string[]) => rowsOf(seen, ...kinds).length > 0

/** The likely value of a row's number; zero when it has none. */
export function valueOf(row: PricedComponent, field: string): Decimal {
  return readNumber(row.inputs[field] ?? '')?.likely ?? new Decimal(0)
}

/** Whether a row runs nearly all hours of the month. */
export function runsMostly({ priced }: Seen, row: PricedComponent): boolean {
  const hours = readHours(row.inputs.hoursPerMonth ?? '')
  return hours !== null && likelyHours(hours, priced.monthHours).gte(priced.monthHours * 0.95)
}

export const sumOf = (rows: PricedComponent[], field: string): Decimal =>
  rows.reduce((sum, row) => sum.plus(valueOf(row, field)), new Decimal(0))

/** The part of the workload that a row stands in. */
export const partOf = ({ estimate }: Seen, row: PricedComponent): string => estimate.components.find(c => c.id === row.id)!.part

/** `3 servers` or `1 server`. */
export const counted = (n: Decimal, one: string, many: string): string => `${n.toFixed()} ${n.eq(1) ? one : many}`

/** Rounded to two significant digits: a suggestion is no measurement. */
export function about(value: Decimal): string {
  return value.eq(0) ? '0' : new Decimal(value.toPrecision(2)).toFixed()
}
