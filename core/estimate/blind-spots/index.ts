import { priceEstimate, type Prices } from '../pricing/price-estimate'
import type { PriceMemo } from '../pricing/price-memo'
import { evaluate } from '../../working/working'
import type { Decimal } from '../../money/decimal'
import { newRow, type Component, type Estimate } from '../estimate'
import type { BlindSpot, BlindSpotFix, BlindSpotFound, Seen } from './blind-spot'
import { databaseOneZone } from './database-one-zone'
import { fleetBaseLicences } from './fleet-base-licences'
import { fleetLogs } from './fleet-logs'
import { fleetProfileBackup } from './fleet-profile-backup'
import { fleetTraffic } from './fleet-traffic'
import { noBackup } from './no-backup'
import { noDatabaseBackup } from './no-database-backup'
import { noDisk } from './no-disk'
import { noGateway } from './no-gateway'
import { noIdentity } from './no-identity'
import { noLoadBalancer } from './no-load-balancer'
import { noLogs } from './no-logs'
import { noOneOff } from './no-one-off'
import { noOutgoingTransfer } from './no-outgoing-transfer'
import { noRecovery } from './no-recovery'
import { noRegionTransfer } from './no-region-transfer'
import { noRehearsal } from './no-rehearsal'
import { noRequests } from './no-requests'
import { noRetrieval } from './no-retrieval'
import { noSupport } from './no-support'
import { noZoneTransfer } from './no-zone-transfer'
import { oneZone } from './one-zone'

export type { BlindSpotFix, BlindSpotFound } from './blind-spot'

/** Every rule, in the order in which people leave things out. */
export const blindSpots: readonly BlindSpot[] = [
  noDisk,
  noOutgoingTransfer,
  noGateway,
  noLogs,
  noBackup,
  oneZone,
  noLoadBalancer,
  noSupport,
  noRequests,
  noRetrieval,
  noZoneTransfer,
  noRegionTransfer,
  databaseOneZone,
  noDatabaseBackup,
  noIdentity,
  noRecovery,
  noRehearsal,
  noOneOff,
  fleetProfileBackup,
  fleetTraffic,
  fleetLogs,
  fleetBaseLicences,
]

/** What the estimate most likely lacks; what was dismissed with a reason is left out. */
export function findBlindSpots(seen: Seen): BlindSpotFound[] {
  const dismissed = new Set(seen.estimate.dismissed.map(d => d.blindSpot))
  return blindSpots.flatMap(({ id, title, find }) => {
    const found = dismissed.has(id) ? null : find(seen)
    return found ? [{ id, title, ...found }] : []
  })
}

/** The title of a rule, for one that was dismissed. */
export const blindSpotTitle = (id: string): string => blindSpots.find(spot => spot.id === id)?.title ?? id.replaceAll('-', ' ')

/** The estimate with a blind spot filled. @param id of the component that is added. */
export function fillBlindSpot(estimate: Estimate, fix: BlindSpotFix, id: string): Estimate {
  if ('set' in fix) {
    const inputs = new Map(fix.set.map(s => [s.component, s.inputs]))
    return {
      ...estimate,
      components: estimate.components.map((c): Component =>
        inputs.has(c.id)
          ? {
              ...c,
              inputs: { ...c.inputs, ...inputs.get(c.id) },
              confirmed: [...new Set([...c.confirmed, ...Object.keys(inputs.get(c.id)!)])],
            }
          : c,
      ),
    }
  }
  const added = newRow(id, fix.add.part, fix.add.kind, fix.add.inputs)
  const last = estimate.components.map(c => c.part).lastIndexOf(added.part)
  return { ...estimate, components: estimate.components.toSpliced(last < 0 ? estimate.components.length : last + 1, 0, added) }
}

/**
 * What filling a blind spot would add to the effective monthly total: its typical size, worked out for this estimate; null where the rate
 * card has no price for it.
 */
export function blindSpotSize(estimate: Estimate, prices: Prices, fix: BlindSpotFix, memo: PriceMemo): Decimal | null {
  const now = priceEstimate(estimate, prices, null, memo)
  const filled = priceEstimate(fillBlindSpot(estimate, fix, 'filled'), prices, null, memo)
  if (filled.unpriced > now.unpriced) return null
  const size = evaluate(filled.total.effectiveMonthly).minus(evaluate(now.total.effectiveMonthly))
  return 'add' in fix && size.eq(0) ? null : size
}
