import { Decimal } from '../../money/decimal'
import { hasRow, partOf, rowsOf, sumOf, valueOf, type BlindSpot } from './blind-spot'

/** Servers and their data in one region only. */
export const noRecovery: BlindSpot = {
  id: 'no-recovery',
  title: 'No disaster recovery',
  find(seen) {
    const servers = rowsOf(seen, 'server')
    const regions = new Set(servers.map(row => row.place!.region))
    if (!servers.length || regions.size > 1 || hasRow(seen, 'recovery') || !rowsOf(seen, 'database', 'disk').length) return null
    const gb = rowsOf(seen, 'disk')
      .map(row => valueOf(row, 'storageGb'))
      .reduce((most, n) => (n.gt(most) ? n : most), new Decimal(80))
    return {
      reason: 'a region can fail as a whole; protecting a server needs a waiting copy of its disks, what changes sent there, and drills',
      fix: {
        add: {
          part: partOf(seen, servers[0]!),
          kind: 'recovery',
          inputs: { count: sumOf(servers, 'count').toFixed(), storageGb: gb.toFixed() },
        },
      },
    }
  },
}
