import { Decimal } from '../../money/decimal'
import { about, hasRow, partOf, rowsOf, valueOf, type BlindSpot } from './blind-spot'

/** Disks, but no copies of them. */
export const noBackup: BlindSpot = {
  id: 'no-backup',
  title: 'Disks without a backup',
  find(seen) {
    const disks = rowsOf(seen, 'disk')
    if (!disks.length || hasRow(seen, 'snapshot')) return null
    const gb = disks.reduce((sum, row) => sum.plus(valueOf(row, 'storageGb').times(valueOf(row, 'count'))), new Decimal(0))
    return {
      reason: 'a disk that breaks or is overwritten is gone; daily copies of the data for two weeks are usual',
      fix: { add: { part: partOf(seen, disks[0]!), kind: 'snapshot', inputs: { protectedGb: about(gb.times('0.6')), count: '1' } } },
    }
  },
}
