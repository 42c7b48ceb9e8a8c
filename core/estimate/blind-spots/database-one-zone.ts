import { rowsOf, type BlindSpot } from './blind-spot'

/** A live database without a standby. */
export const databaseOneZone: BlindSpot = {
  id: 'database-one-zone',
  title: 'Database in one zone only',
  find(seen) {
    const single = rowsOf(seen, 'database').filter(row => row.inputs.zones === '1')
    if (!single.length) return null
    return {
      reason: 'when its zone fails the database is gone until a backup is restored; a standby in a second zone doubles nodes and storage',
      fix: { set: single.map(row => ({ component: row.id, inputs: { zones: '2' } })) },
    }
  },
}
