import { hasRow, partOf, rowsOf, sumOf, type BlindSpot } from './blind-spot'

/** Something people sign in to, but no directory that knows them. */
export const noIdentity: BlindSpot = {
  id: 'no-identity',
  title: 'People sign in, no directory',
  find(seen) {
    const used = rowsOf(seen, 'desktop-fleet', 'app-hosting')
    if (!used.length || hasRow(seen, 'identity')) return null
    const users = sumOf(rowsOf(seen, 'desktop-fleet'), 'users')
    return {
      reason: 'who signs in is kept in a directory that charges for active users and for a second factor',
      fix: { add: { part: partOf(seen, used[0]!), kind: 'identity', inputs: { users: users.gt(0) ? users.toFixed() : '1000' } } },
    }
  },
}
