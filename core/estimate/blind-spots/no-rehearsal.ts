import { rowsOf, type BlindSpot } from './blind-spot'

/** Everything is live; changes would be tried on people. */
export const noRehearsal: BlindSpot = {
  id: 'no-rehearsal',
  title: 'No rehearsal environment',
  find(seen) {
    const servers = rowsOf(seen, 'server', 'app-hosting')
    if (!servers.length || seen.estimate.components.some(c => /rehears|test|stag|build|trial/i.test(c.part))) return null
    const largest = servers[0]!
    return {
      reason: 'changes are tried somewhere first; one of each in office hours is taken here',
      fix: {
        add: {
          part: 'Rehearsal',
          kind: largest.kind!.kind,
          inputs: {
            ...largest.inputs,
            count: '1',
            hoursPerMonth: '5d x 10h',
            ...(largest.inputs.pays && { pays: 'on-demand', peakCount: '0' }),
          },
        },
      },
    }
  },
}
