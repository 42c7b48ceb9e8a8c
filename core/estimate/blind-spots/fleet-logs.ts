import { counted, hasRow, partOf, rowsOf, sumOf, type BlindSpot } from './blind-spot'

/** GB of logs a month that a user causes by signing in and working (recalled from memory, no source). */
const GB_A_USER = '0.5'

/** A desktop fleet of which nobody could say who was signed in when. */
export const fleetLogs: BlindSpot = {
  id: 'fleet-logs',
  title: 'Desktops without logs',
  find(seen) {
    const fleets = rowsOf(seen, 'desktop-fleet')
    if (!fleets.length || hasRow(seen, 'logs')) return null
    const users = sumOf(fleets, 'users')
    return {
      reason: `sign-ins and sessions of ${counted(users, 'user', 'users')} are logged, kept and searched when something has happened`,
      fix: {
        add: {
          part: partOf(seen, fleets[0]!),
          kind: 'logs',
          inputs: { ingestedGb: users.times(GB_A_USER).round(0, 3).toFixed(), daysKept: '90', metrics: '20', alarms: '5' },
        },
      },
    }
  },
}
