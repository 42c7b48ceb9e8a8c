import { Decimal } from '../../money/decimal'
import { counted, hasRow, partOf, rowsOf, valueOf, type BlindSpot } from './blind-spot'

/** Access licences are bought, but not the subscription below them that every user needs. */
export const fleetBaseLicences: BlindSpot = {
  id: 'fleet-base-licences',
  title: 'Desktop users without a base licence',
  find(seen) {
    const fleets = rowsOf(seen, 'desktop-fleet')
    const lacking = fleets.reduce((sum, row) => {
      const missing = valueOf(row, 'users').minus(valueOf(row, 'held'))
      return missing.gt(0) ? sum.plus(missing) : sum
    }, new Decimal(0))
    if (!fleets.length || lacking.eq(0) || hasRow(seen, 'licence')) return null
    return {
      reason: `${counted(lacking, 'user has', 'users have')} no subscription of their own here; the access licence comes on top of one for the desktop system and its programs`,
      fix: { add: { part: partOf(seen, fleets[0]!), kind: 'licence', inputs: { count: lacking.toFixed() } } },
    }
  },
}
