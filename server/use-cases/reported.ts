import { metricNames, metrics } from '../../core/measured/metrics'
import type { ResourceReport } from '../../shared/contracts/resources'
import { connectors, withConnector } from '../connectors/connect'
import type { Db } from '../db/database'
import { figuresOf } from '../stores/measured'

/**
 * What the connected cloud that knows a resource says of it now (null where none does), and what was measured of it. @throws Problem when
 * a cloud does not answer.
 */
export async function reportOf(db: Db, id: string): Promise<ResourceReport> {
  const measured = await measuredOf(db, id)
  for (const connector of await connectors(db)) {
    const { inventory } = connector.can
    if (!inventory) continue
    const report = await withConnector(async () => {
      const found = await inventory.condition(id)
      return found && { by: connector.provider, status: found.status, locks: found.locks, plan: found.plan }
    })
    if (report) return { report, measured }
  }
  return { report: null, measured }
}

/** What was measured of a resource, day by day, as far as it is kept. */
async function measuredOf(db: Db, id: string): Promise<ResourceReport['measured']> {
  const figures = await figuresOf(db, id)
  return metricNames.flatMap(metric => {
    const { what, unit, ofHour } = metrics[metric]
    const days = new Map(
      figures
        .filter(one => one.metric === metric)
        .map(({ day, figures: { most, mean, hours } }) => [day, { day, amount: ofHour === 'sum' ? mean * hours : most, mean }]),
    )
    return days.size ? [{ what, unit, ofHour, days: [...days.values()].sort((a, b) => (a.day < b.day ? -1 : 1)) }] : []
  })
}
