import { Readable } from 'node:stream'
import { addDays, addMonths, monthOf, type Day, type Month } from '../../core/time/day'
import { settlingSince } from '../../core/time/settling'
import { capabilityOf } from '../connectors/connect'
import type { Connector } from '../connectors/connector'
import type { Arrivals } from './arrivals'
import { deliver } from './deliver'
import { takeIn } from './take-in'

/** However long nothing was asked for, so many billing periods are asked for at most. */
const MOST_MONTHS = 13

/**
 * The billing periods to ask for: this one, the one before while it may still change, and those since the last day that was delivered.
 * @param now what the service says that it is. @param lastDay the last day of it that is loaded; null where none is.
 */
export function monthsToFetch(now: string, lastDay: Day | null): Month[] {
  const today = now.slice(0, 10)
  const yesterday = addDays(today, -1)
  const present = monthOf(yesterday)
  const first = lastDay === null ? present : [settlingSince(yesterday), monthOf(addDays(lastDay, 1))].sort()[0]!
  const months: Month[] = []
  for (let month = present; month >= first && months.length < MOST_MONTHS; month = addMonths(month, -1)) months.unshift(month)
  return months
}

/**
 * Asks a connection for the billing periods that may have new charges, each whole, and queues each as a delivery.
 * @param key the same for every try of one fetch: what was fetched under it is not fetched again.
 * @returns the loads' ids, the oldest period first.
 */
export async function fetchBill(
  arrivals: Arrivals,
  connector: Connector,
  { now, lastDay, who, key }: { now: string; lastDay: Day | null; who: string; key: string },
): Promise<string[]> {
  const ids: string[] = []
  for (const month of monthsToFetch(now, lastDay))
    ids.push(await fetchMonth(arrivals, connector, month, { now, who, key: `${key} ${month}` }))
  return ids
}

async function fetchMonth(
  arrivals: Arrivals,
  connector: Connector,
  month: Month,
  { now, who, key }: { now: string; who: string; key: string },
): Promise<string> {
  const fetched = await arrivals.fetched(key)
  if (fetched !== undefined) return String(fetched)
  const bytes = await capabilityOf(connector, 'bill').month(month)
  const name = `${connector.name}-${month}.csv.gz`
  const announced = {
    source: connector.provider,
    files: [{ name, bytes: bytes.length }],
    who,
    mapping: null,
    delivered: { at: now, by: 'connection' as const },
    fetchKey: key,
  }
  return deliver(arrivals, announced, path => takeIn(Readable.from([bytes]), name, path))
}
