import { addDays } from '../../core/time/day'
import type { ResourceReport } from '../../shared/contracts/resources'
import { connectors, withConnector } from '../connectors/connect'
import type { Connector, ResourceName } from '../connectors/connector'
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
          measured: found.type === null ? [] : await measuredOf(connector, { type: found.type, id }),
        }
      )
    })
    if (report) return { report }
  }
  return { report: null }
}

/** What a cloud has measured of a resource lately, a sum to a day for each metric. */
async function measuredOf(
  { now, can: { measurements } }: Connector,
  resource: ResourceName,
): Promise<NonNullable<ResourceReport['report']>['measured']> {
  if (!measurements) return []
  const today = (await now()).slice(0, 10)
  const metrics = await measurements.metrics(resource.type)
  return Promise.all(
    metrics.map(async ({ metric, what, unit }) => {
      const days = new Map<string, number>()
      for (const { at, value } of await measurements.readings(resource, metric, addDays(today, -LOOK_BACK_DAYS), today))
        days.set(at.slice(0, 10), (days.get(at.slice(0, 10)) ?? 0) + value)
      return { what, unit, days: [...days].map(([day, amount]) => ({ day, amount })) }
    }),
  )
}
