import { addDays } from '../../core/time/day'
import type { ResourceReport } from '../../shared/contracts/resources'
import { connectors, withConnector } from '../connectors/connect'
import type { Capabilities, Connector } from '../connectors/connector'
import type { Db } from '../db/database'

const LOOK_BACK_DAYS = 30

/** What the connected cloud that knows a resource says of it now; null where none does. @throws Problem when a cloud does not answer. */
export async function reportOf(db: Db, id: string): Promise<ResourceReport> {
  for (const connector of await connectors(db)) {
    const { inventory } = connector.can
    if (!inventory) continue
    const report = await withConnector(async () => {
      const found = await inventory.condition(id)
      return (
        found && {
          by: connector.provider,
          status: found.status,
          locks: found.locks,
          plan: found.plan,
          measured: await measuredOf(connector, inventory, id),
        }
      )
    })
    if (report) return { report }
  }
  return { report: null }
}

/** What a cloud has measured of a resource lately, a sum to a day. */
async function measuredOf(
  { now, can: { measurements } }: Connector,
  inventory: Capabilities['inventory'],
  id: string,
): Promise<NonNullable<ResourceReport['report']>['measured']> {
  if (!measurements || !(await inventory.gateways()).some(gateway => gateway.id === id)) return []
  const today = (await now()).slice(0, 10)
  const days = new Map<string, number>()
  for (const { hour, gb } of await measurements.readings(id, addDays(today, -LOOK_BACK_DAYS), today))
    days.set(hour.slice(0, 10), (days.get(hour.slice(0, 10)) ?? 0) + gb)
  return [{ what: 'passed through', unit: 'GB', days: [...days].map(([day, amount]) => ({ day, amount })) }]
}
