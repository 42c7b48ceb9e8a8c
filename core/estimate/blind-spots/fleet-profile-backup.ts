import { Decimal } from '../../money/decimal'
import { about, counted, hasRow, partOf, rowsOf, sumOf, valueOf, type BlindSpot } from './blind-spot'

/** Profiles of a desktop fleet, but no copies of them. */
export const fleetProfileBackup: BlindSpot = {
  id: 'fleet-profile-backup',
  title: 'Desktop profiles without a backup',
  find(seen) {
    const fleets = rowsOf(seen, 'desktop-fleet')
    if (!fleets.length || hasRow(seen, 'snapshot')) return null
    const gb = fleets.reduce((sum, row) => sum.plus(valueOf(row, 'users').times(valueOf(row, 'profileGb'))), new Decimal(0))
    return {
      reason: `${counted(sumOf(fleets, 'users'), 'user keeps', 'users keep')} files and settings in profiles; a second file server is no backup of what is deleted or encrypted`,
      fix: {
        add: {
          part: partOf(seen, fleets[0]!),
          kind: 'snapshot',
          inputs: { protectedGb: about(gb), count: '1', changePercent: '2', daysKept: '30' },
        },
      },
    }
  },
}
