import { counted, hasRow, partOf, rowsOf, sumOf, type BlindSpot } from './blind-spot'

/** GB a month that a user's screen sends out (recalled from memory, no source). */
const GB_A_USER = 20

/** A desktop fleet whose screens are sent to nobody. */
export const fleetTraffic: BlindSpot = {
  id: 'fleet-traffic',
  title: 'Desktops without outgoing transfer',
  find(seen) {
    const fleets = rowsOf(seen, 'desktop-fleet')
    if (!fleets.length || hasRow(seen, 'internet-transfer')) return null
    const users = sumOf(fleets, 'users')
    return {
      reason: `the screens of ${counted(users, 'user', 'users')} are sent out all day; about ${GB_A_USER} GB a month for each are taken here, film and drawings send more`,
      fix: { add: { part: partOf(seen, fleets[0]!), kind: 'internet-transfer', inputs: { sentGb: users.times(GB_A_USER).toFixed() } } },
    }
  },
}
