import { addDays } from '../../core/time/day'
import type { ResourceMeasurements } from '../../shared/contracts/resources'
import { connectors } from '../connectors'
import { withConnector } from '../connectors/ask'

const LOOK_BACK_DAYS = 30

/** What the connected clouds have measured of a resource lately, a sum to a day. @throws Problem when a cloud does not answer. */
export async function measuredOf(id: string): Promise<ResourceMeasurements['measured']> {
  const found: ResourceMeasurements['measured'] = []
  for (const connector of Object.values(connectors())) {
    await withConnector(async () => {
      if (!(await connector.gateways()).some(gateway => gateway.id === id)) return
      const today = (await connector.clock()).slice(0, 10)
      const days = new Map<string, number>()
      for (const { hour, gb } of await connector.readings(id, addDays(today, -LOOK_BACK_DAYS), today)) days.set(hour.slice(0, 10), (days.get(hour.slice(0, 10)) ?? 0) + gb)
      found.push({ what: 'passed through', unit: 'GB', by: connector.provider, days: [...days].map(([day, amount]) => ({ day, amount })) })
    })
  }
  return found
}
