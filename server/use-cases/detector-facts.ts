import type { Facts, Needs } from '../../core/opportunity/detector'
import { addDays, type Day } from '../../core/time/day'
import { capabilityOf } from '../connectors/connect'
import type { Connector } from '../connectors/connector'

/** Whether a connection has what a detector needs. */
export const canMeet = ({ can }: Connector, { measurements }: Needs): boolean => !!can.inventory && (!measurements || !!can.measurements)

/** All that a detector looks at, as a service has it now; of today what is over. */
export async function factsFor(connector: Connector, needs: Needs, today: Day): Promise<Facts[]> {
  const facts: Facts[] = []
  for (const resource of await capabilityOf(connector, 'inventory').resources(needs.inventory))
    facts.push({ resource, readings: await readingsOf(connector, resource, needs, today) })
  return facts
}

/** What is measured of a resource, as a detector needs it. */
export async function readingsOf(
  connector: Connector,
  resource: Facts['resource'],
  { measurements }: Needs,
  today: Day,
): Promise<Facts['readings']> {
  if (!measurements) return []
  const { metric, days } = measurements
  return capabilityOf(connector, 'measurements').readings(resource, metric, addDays(today, -days), addDays(today, 1))
}
