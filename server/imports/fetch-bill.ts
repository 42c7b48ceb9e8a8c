import { Readable } from 'node:stream'
import { addDays, monthOf } from '../../core/time/day'
import { capabilityOf } from '../connectors/connect'
import type { Connector } from '../connectors/connector'
import type { Arrivals } from './arrivals'
import { deliver } from './deliver'
import { takeIn } from './take-in'

/**
 * Asks a connection for its billing period to date and queues it as a delivery.
 * @param key the same for every try of one fetch: what was fetched under it is not fetched again.
 * @returns the load's id.
 */
export async function fetchBill(arrivals: Arrivals, connector: Connector, now: string, who: string, key: string): Promise<string> {
  const fetched = await arrivals.fetched(key)
  if (fetched !== undefined) return String(fetched)
  const month = monthOf(addDays(now.slice(0, 10), -1))
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
