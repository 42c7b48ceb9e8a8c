import { rowsOf, valueOf, type BlindSpot } from './blind-spot'

/** A database whose copies are not counted. */
export const noDatabaseBackup: BlindSpot = {
  id: 'no-database-backup',
  title: 'Database backup beyond what is included',
  find(seen) {
    const bare = rowsOf(seen, 'database').filter(row => valueOf(row, 'backupGb').eq(0))
    if (!bare.length) return null
    return {
      reason: 'as much backup as the storage is included; two to five weeks of copies are usually more',
      fix: {
        set: bare.map(row => ({
          component: row.id,
          inputs: { backupGb: valueOf(row, 'storageGb').times(valueOf(row, 'count')).times('1.8').round().toFixed() },
        })),
      },
    }
  },
}
